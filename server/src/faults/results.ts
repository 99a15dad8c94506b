import type { ReadRecord, Results, SessionResults } from '@gravek/contract/faults';
import { groupBy } from '@gravek/core/session/repLog';
import { isChain } from '@gravek/library/movement/chains';
import {
  addResults,
  readsOfCounts,
  resultsOfCounts,
  type ReadCount,
  type ResultCount,
} from '@gravek/library/cue/results';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';

/** Whose counts: of some athletes, in some movements or all of them, or of one session. */
type Which =
  | { athleteIds: readonly string[]; movements?: readonly string[] | undefined }
  | { sessionId: string };

type Of = { athleteId: string; movement: string };

const wanted = (which: Which) =>
  'sessionId' in which
    ? sql`c.club_id = gravek_club() and c.session_id = ${which.sessionId}`
    : sql`c.club_id = gravek_club() and c.athlete_id = any(${[...which.athleteIds]}::uuid[])
        ${which.movements ? sql`and c.movement = any(${[...which.movements]}::text[])` : sql``}`;

/** Counts that have makes, seconds, touches, metres or minutes, earliest session first. */
export const resultCounts = async (
  trx: Trx,
  which: Which,
): Promise<(ResultCount & Of & { sessionId: string; date: string })[]> => {
  const { rows } = await sql<ResultCount & Of & { sessionId: string; date: string }>`
    select c.athlete_id as "athleteId", c.movement, c.session_id as "sessionId", s.day as date,
      c.side, nullif(c.exit, '') as exit, nullif(c.spot, '') as spot, c.tried, c.made, c.held,
      c.held_s as "heldS", c.best_held_s as "bestHeldS", c.rounds, c.runs, c.ran_m as "ranM",
      c.ran_s as "ranS"
    from rep_count c join session s on s.club_id = c.club_id and s.id = c.session_id
    where ${wanted(which)} and c.has_results
    order by s.day, s.id, c.side, c.exit, c.spot`.execute(trx);
  return rows;
};

const readCounts = async (trx: Trx, which: Which): Promise<(ReadCount & Of)[]> => {
  const { rows } = await sql<ReadCount & Of>`
    select c.athlete_id as "athleteId", c.movement, c.exit, c.read, c.was_right as right, c.taken,
      c.timed, c.late_s as "lateS", c.heard, c.heard_s as "heardS"
    from rep_count c
    where ${wanted(which)} and c.read > 0`.execute(trx);
  return rows;
};

/** What came of an athlete's reps in a movement, session by session. */
export const resultsOf = async (
  trx: Trx,
  movement: string,
  athleteId: string,
): Promise<SessionResults[]> => {
  const counts = await resultCounts(trx, { athleteIds: [athleteId], movements: [movement] });
  return [...groupBy(counts, ({ sessionId }) => sessionId).values()].flatMap((session) =>
    resultsOfCounts(session).map((results) => ({
      ...results,
      date: session[0]!.date,
      touchedAt: session
        .filter(
          ({ side, exit, spot }) =>
            side === results.side && exit === results.exit && spot === results.spot,
        )
        .flatMap(({ rounds }) => rounds)
        .sort((a, b) => a.turn - b.turn)
        .map(({ touchS }) => touchS),
    })),
  );
};

/** What an athlete made of a movement's reads. */
export const readsOf = async (
  trx: Trx,
  movement: string,
  athleteId: string,
): Promise<ReadRecord[]> =>
  readsOfCounts(await readCounts(trx, { athleteIds: [athleteId], movements: [movement] }));

/** What an athlete has made in every chain: of moves, and endings, that can so be held against each other. */
export const makesInChains = async (
  trx: Trx,
  athleteId: string,
): Promise<{ movement: string; tried: number; made: number }[]> => {
  const rows = await trx
    .selectFrom('fault_standing')
    .select(['movement', 'totals'])
    .where('athlete_id', '=', athleteId)
    .orderBy('movement')
    .execute();
  return rows.flatMap(({ movement, totals }) => {
    const tried = totals.reduce((sum, total) => sum + total.tried, 0);
    const made = totals.reduce((sum, total) => sum + total.made, 0);
    return isChain(movement) && tried > 0 ? [{ movement, tried, made }] : [];
  });
};

/** All results and reads so far of some athletes, by athlete and movement. */
export const totalsOf = async (
  trx: Trx,
  which: Which,
): Promise<(of: Of) => { totals: Results[]; reads: ReadRecord[] }> => {
  const keyOf = ({ athleteId, movement }: Of): string => `${athleteId}/${movement}`;
  const counts = groupBy(await resultCounts(trx, which), keyOf);
  const reads = groupBy(await readCounts(trx, which), keyOf);
  return (of) => ({
    totals: addResults(resultsOfCounts(counts.get(keyOf(of)) ?? []), 'all'),
    reads: readsOfCounts(reads.get(keyOf(of)) ?? []),
  });
};
