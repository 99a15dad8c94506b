import { cueEffect, type RepCounts } from '@gravek/core/cue/cueEffect';
import { SURE } from '@gravek/core/cue/faultHistory';
import { rateBand } from '@gravek/core/cue/rateBand';
import { groupBy } from '@gravek/core/session/repLog';
import {
  type Condition,
  CONDITION_AXES,
  type ConditionAxis,
  type CueRecord,
  type Ledger,
} from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { laddersOf } from '@gravek/library/cue/ladder';
import { agreementOf, contrastsOf, cueSpans, isOf } from '@gravek/library/cue/ledger';
import { readsOfCounts } from '@gravek/library/cue/results';
import {
  bySession,
  historyOf,
  type SessionFaults,
  shownIn,
} from '@gravek/library/cue/sessionFaults';
import { faultOf } from '@gravek/library/movement/byCode';
import { isChain } from '@gravek/library/movement/chains';
import { sql } from 'kysely';
import { peopleOf } from '../club/members';
import type { Trx } from '../database/connect';
import { badInput, notFound } from '../http/problem';
import { movementsBy } from '../movements/queries';
import { type Counted, countRows, readsIn, watchedIn } from './counts';
import { keptStandings, withCues } from './queries';
import { makesInChains, sessionResults } from './results';
import { laddersIn } from './rungs';

/** A condition as its axis has it in an address, and back. */
const asText = (value: Condition[ConditionAxis]): string => String(value);

/**
 * Reads which conditions are asked for.
 *
 * @throws {ProblemError} when an axis is asked for a value that no rep has
 */
const askedFor = (
  rows: readonly Counted[],
  query: Readonly<Record<string, string>>,
): Partial<Condition> => {
  const condition: Partial<Record<ConditionAxis, Condition[ConditionAxis]>> = {};
  for (const axis of CONDITION_AXES) {
    const text = query[axis];
    if (text === undefined) continue;
    const row = rows.find((row) => asText(row[axis]) === text);
    if (!row) throw badInput({ [axis]: 'No rep was run like that.' });
    condition[axis] = row[axis];
  }
  return condition as Partial<Condition>;
};

/** What each cue has done for other athletes of the club. */
const recordsOf = (
  rows: readonly CueCounts[],
  priors: ReadonlyMap<string, { alpha: number; beta: number }>,
): CueRecord[] => {
  const total = (list: readonly RepCounts[]): RepCounts => ({
    reps: list.reduce((sum, session) => sum + session.reps, 0),
    faults: list.reduce((sum, session) => sum + session.faults, 0),
  });
  return [...groupBy(rows, (row) => row.fault)].flatMap(([fault, list]) => {
    const prior = priors.get(fault);
    if (!prior) return [];
    return [
      {
        fault,
        athletes: list.length,
        better: list.filter(
          ({ before, since }) => cueEffect({ before, since, prior }).probability >= SURE,
        ).length,
        before: total(list.map(({ before }) => before)),
        since: total(list.map(({ since }) => since)),
      },
    ];
  });
};

type CueCounts = { fault: string; before: RepCounts; since: RepCounts };

/** What cues have done for others in a movement, and what two coaches who watched the same reps saw. */
const heldAgainst = async (
  trx: Trx,
  athleteId: string,
  movement: string,
): Promise<{ others: CueCounts[]; watchedTwice: Parameters<typeof agreementOf>[0] }> => {
  const { rows } = await sql<Awaited<ReturnType<typeof heldAgainst>>>`
    select (
      select coalesce(json_agg(json_build_object(
        'fault', r -> 'fault', 'before', r -> 'before', 'since', r -> 'since')), '[]')
      from fault_standing f, jsonb_array_elements(f.results) r
      where f.movement = ${movement} and f.athlete_id <> ${athleteId}
    ) as others, (
      select coalesce(json_agg(json_build_object(
        'faultsA', w.faults_a, 'faultsB', w.faults_b, 'could', w.could)), '[]')
      from watched_twice w
      where w.athlete_id = ${athleteId} and w.movement = ${movement}
    ) as "watchedTwice"`.execute(trx);
  return rows[0]!;
};

/** Faults that showed and that the movement does not have any more. */
const goneFrom = (
  now: Movement | undefined,
  sessions: readonly SessionFaults[],
): Ledger['gone'] => {
  const shown = groupBy(
    sessions.flatMap((session) => session.faults),
    ({ fault }) => fault,
  );
  return [...shown].flatMap(([code, list]) =>
    now && faultOf(now, code)
      ? []
      : [{ code, reps: list.reduce((sum, session) => sum + session.reps, 0) }],
  );
};

/** Rates of what is asked for, where not all of it is: no state, since a part of the reps has none. */
const partly = (sessions: readonly SessionFaults[], code: string, lastDay: string) => {
  const { rate, low, high } = rateBand({ sessions: historyOf(sessions, code), onDate: lastDay });
  const { reps, faults: seen } = shownIn(sessions, code);
  return { rate, low, high, reps, seen };
};

/**
 * All that is known of the faults of an athlete in a movement.
 *
 * @param query conditions that are asked for, by axis; of any where an axis is absent
 */
export const ledgerOf = async (
  trx: Trx,
  { athleteId, movement, today }: { athleteId: string; movement: string; today: string },
  query: Readonly<Record<string, string>>,
): Promise<Ledger> => {
  const movementBy = await movementsBy(trx, [movement]);
  const kept = await keptStandings(trx, { athleteIds: [athleteId] });
  const [picture] = withCues(
    kept.filter((standing) => standing.movement === movement),
    movementBy,
  );
  if (!picture) throw notFound('movement');
  const counted = await countRows(trx, { athleteIds: [athleteId], movements: [movement] });
  const rows = watchedIn(counted);
  const condition = askedFor(rows, query);
  const all = bySession(rows);
  const some = Object.keys(condition).length > 0;
  const sessions = some ? bySession(rows.filter((row) => isOf(row, condition))) : all;
  const { faults, ...figures } = picture;
  const who = await peopleOf(trx);
  const { others, watchedTwice } = await heldAgainst(trx, athleteId, movement);
  const [ladder] = laddersOf(await laddersIn(trx, today, { athleteId, movement }), movementBy);
  return {
    ...figures,
    log: sessions.map(({ sessionId, date, reps }) => ({ id: sessionId, date, reps })),
    rows: faults.map((fault) => ({
      ...fault,
      ...(some ? partly(sessions, fault.code, figures.lastDay) : {}),
      exposed: sessions.map((session) => shownIn([session], fault.code).reps),
      shown: sessions.map((session) => shownIn([session], fault.code).faults),
    })),
    spans: cueSpans(sessions),
    axes: CONDITION_AXES.flatMap((axis) => {
      const values = [...groupBy(rows, (row) => asText(row[axis]))];
      return values.length < 2
        ? []
        : values.map(([value, valueRows]) => ({
            axis,
            value,
            name: axis === 'loggedBy' ? (who(value)?.person ?? null) : null,
            reps: valueRows.reduce((sum, row) => sum + row.reps, 0),
          }));
    }),
    contrasts: contrastsOf(
      rows,
      faults.filter(({ seen }) => seen > 0).map(({ code }) => code),
    ),
    others: recordsOf(others, new Map(faults.map(({ code, prior }) => [code, prior]))),
    agreement: agreementOf(watchedTwice),
    reads: readsOfCounts(readsIn(counted)),
    results: sessionResults(counted),
    chains: isChain(movement) ? await makesInChains(trx, athleteId) : [],
    gone: goneFrom(movementBy(movement), sessions),
    ladder: ladder ?? null,
  };
};
