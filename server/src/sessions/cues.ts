import type { DrillSet } from '@gravek/contract/drillSet';
import type { AthleteFaults, CueLine } from '@gravek/contract/faults';
import type { Session } from '@gravek/contract/session';
import { groupBy } from '@gravek/core/session/repLog';
import { keptVariants } from '@gravek/core/session/variants';
import { baseOf, movementCode, type Finds } from '@gravek/library/session/work';
import type { Trx } from '../database/connect';
import { findsOf } from '../approaches/finds';
import { sessions } from './queries';
import { faultsBefore, faultsOf } from '../faults/queries';

type Run = { athleteId: string; movement: string };

/** Those of the club who are not archived. */
const presentIn = async (trx: Trx): Promise<Set<string>> => {
  const rows = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .execute();
  return new Set(rows.map((row) => row.id));
};

/** Who runs what in a session, in the order of its drill sets; nobody who is archived. */
const runIn = (drillSets: readonly DrillSet[], finds: Finds, present: ReadonlySet<string>): Run[] =>
  drillSets.flatMap((set) => {
    const base = baseOf(set.work, finds);
    const codes = base
      ? new Set(keptVariants(set).flatMap((variant) => movementCode(base, variant) ?? []))
      : [];
    return set.athleteIds
      .filter((id) => present.has(id))
      .flatMap((athleteId) => [...codes].map((movement) => ({ athleteId, movement })));
  });

/**
 * The one cue of each athlete in a session, of the movements that are run there, from what was counted
 * before it.
 *
 * @param finds plans and movements of its drill sets
 * @param present those of the club who are not archived
 */
export const cuesOf = async (
  trx: Trx,
  session: Pick<Session, 'id' | 'date' | 'drillSets'>,
  { finds, present }: { finds: Finds; present: ReadonlySet<string> },
): Promise<AthleteFaults[]> => {
  const run = runIn(session.drillSets, finds, present);
  if (run.length === 0) return [];
  const faults = await faultsBefore(
    trx,
    {
      athleteIds: [...new Set(run.map((one) => one.athleteId))],
      movements: [...new Set(run.map((one) => one.movement))],
    },
    { date: session.date, sessionId: session.id },
  );
  const key = (one: { athleteId: string; movement: string }): string =>
    `${one.athleteId}/${one.movement}`;
  const faultsBy = new Map(faults.map((fault) => [key(fault), fault]));
  return [...groupBy(run, key)].map(
    ([at, [own]]) =>
      faultsBy.get(at) ?? {
        ...own!,
        reps: 0,
        sessions: 0,
        lastDay: session.date,
        faults: [],
        cue: null,
      },
  );
};

const asLine = ({ athleteId, movement, reps, faults, cue }: AthleteFaults): CueLine => ({
  athleteId,
  movement,
  reps,
  cue,
  state: faults.find((one) => one.code === cue?.fault)?.state ?? null,
});

/**
 * The cues of a day: of its sessions, each in the movements that are run there; of everybody in the
 * movement that each ran last on a day without a session.
 */
export const cuesOn = async (trx: Trx, day: string): Promise<CueLine[]> => {
  const there = (await sessions(trx, { from: day, to: day })).filter((one) => !one.archived);
  if (there.length > 0) {
    const finds = await findsOf(
      trx,
      there.flatMap(({ drillSets }) => drillSets),
    );
    const present = await presentIn(trx);
    const cues: AthleteFaults[] = [];
    for (const session of there) cues.push(...(await cuesOf(trx, session, { finds, present })));
    // Who runs the same thing twice on a day has one cue for it.
    return [...groupBy(cues, (one) => `${one.athleteId}/${one.movement}`).values()].map(([first]) =>
      asLine(first!),
    );
  }
  const people = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .orderBy('name')
    .execute();
  const last = groupBy(
    await faultsOf(
      trx,
      people.map((person) => person.id),
    ),
    (one) => one.athleteId,
  );
  return people.flatMap(({ id }) => {
    const [newest] = last.get(id) ?? [];
    return newest ? [asLine(newest)] : [];
  });
};
