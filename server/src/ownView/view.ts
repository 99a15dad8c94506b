import { dayNumber } from '@gravek/core/days';
import type { Movement } from '@gravek/contract/movement';
import type { OwnList, OwnView } from '@gravek/contract/ownView';
import { ownLists } from '@gravek/library/field/ownList';
import { drillFor, drillOf, faultOf } from '@gravek/library/movement/byCode';
import { movementOf } from '@gravek/library/movement/movements';
import { toldTo } from '@gravek/library/movement/sides';
import { athlete } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { faultsOf } from '../faults/queries';
import { ledgerOf } from '../faults/ledger';
import { movementsBy } from '../movements/queries';
import { runBundle } from '../sessions/bundle';
import { sessions } from '../sessions/queries';
import { countsIn } from './counts';

/** Days back of which lists can still be worked off, and sessions of them. */
const LIST_DAYS = 6;
const LIST_SESSIONS = 3;

/** The sets of the last days, that of today too, that an athlete can work off alone; the newest first. */
export const listsOf = async (
  trx: Trx,
  viewer: { id: string; minor: boolean },
  today: string,
): Promise<OwnList[]> => {
  const from = new Date((dayNumber('today', today) - LIST_DAYS) * 86_400_000)
    .toISOString()
    .slice(0, 10);
  const recent = (await sessions(trx, { from, to: today }))
    .filter(
      ({ archived, drillSets }) =>
        !archived && drillSets.some(({ athleteIds }) => athleteIds.includes(viewer.id)),
    )
    .slice(-LIST_SESSIONS)
    .reverse();
  const lists: OwnList[] = [];
  for (const { id } of recent) {
    const bundle = await runBundle(trx, id);
    const movement = (code: string): Movement => movementOf(code, bundle?.movements);
    if (bundle)
      lists.push(...ownLists(bundle, viewer.id, movement, { isYoung: viewer.minor, today }));
  }
  return lists;
};

/** Movements of one page, the one that was run last first. */
const MOVEMENTS = 3;

/**
 * What athletes see of themselves; null where that is not to be seen any more.
 *
 * @param link as a coach gave it
 */
export const ownView = async (
  trx: Trx,
  clubId: string,
  link: { athleteId: string; until: string; guardian: boolean; today: string },
): Promise<OwnView | null> => {
  const viewer = await athlete(trx, link.athleteId);
  if (!viewer || viewer.archived) return null;
  if (viewer.minor && !link.guardian) return null;
  const club = await trx
    .selectFrom('club')
    .select(['name', 'unit'])
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  const plans = await trx
    .selectFrom('athlete_approach as s')
    .innerJoin('approach as p', (join) =>
      join.onRef('p.club_id', '=', 's.club_id').onRef('p.id', '=', 's.approach_id'),
    )
    .select(['p.id', 'p.name', 's.model_source as source', 's.own as outline'])
    .where('s.athlete_id', '=', viewer.id)
    .where('s.listed', '=', true)
    .where('p.archived_at', 'is', null)
    .orderBy('p.saved_at', 'desc')
    .execute();
  const run = (await faultsOf(trx, [viewer.id]))
    .sort((a, b) => (a.lastDay < b.lastDay ? 1 : -1))
    .slice(0, MOVEMENTS);
  const movementBy = await movementsBy(
    trx,
    run.map(({ movement }) => movement),
  );
  const standings: OwnView['standings'] = [];
  for (const { movement: code } of run) {
    const document = movementBy(code);
    if (!document) continue;
    const movement = toldTo(document, viewer);
    const { cue, log, spans, rows } = await ledgerOf(
      trx,
      { athleteId: viewer.id, movement: code, today: link.today },
      {},
    );
    const fault = cue ? faultOf(movement, cue.fault) : undefined;
    const drill =
      cue && fault ? (cue.drill ? drillOf(movement, cue.drill) : drillFor(movement, fault)) : null;
    standings.push({
      movement: movement.name,
      cue: fault
        ? {
            words: fault.cue,
            fault: fault.name,
            drill: drill ? { name: drill.name, how: drill.how } : null,
          }
        : null,
      log,
      spans: spans.filter((span) => span.fault === fault?.code),
      row: rows.find((row) => row.code === fault?.code) ?? null,
    });
  }
  const lists = await listsOf(trx, viewer, link.today);
  return {
    // Of what was done in several sessions the last is shown.
    lists: lists.filter(({ name }, i) => lists.findIndex((list) => list.name === name) === i),
    counts: await countsIn(trx, viewer.id, [...new Set(lists.map((list) => list.sessionId))]),
    club: club.name,
    unit: club.unit as OwnView['unit'],
    name: viewer.name,
    shoeM: viewer.shoeM,
    until: link.until,
    plans: plans.flatMap(({ source, outline, ...plan }) =>
      outline ? [{ ...plan, estimate: source === 'estimate', outline }] : [],
    ),
    standings,
  };
};
