import { countReps, type RepCount, watchedTwice } from '@gravek/core/session/repCounts';
import type { CountedRow } from '@gravek/core/session/repLog';
import { variantFrom } from '@gravek/core/session/variants';
import { createHash } from 'crypto';
import { inChunks } from '../database/chunks';
import type { Trx } from '../database/connect';
import { withViews } from './older';
import { asRep, withFaults } from './queries';

/** Which part of the log: some sessions, of those some athletes. */
export type LogPart = { sessionIds: readonly string[]; athleteIds?: readonly string[] };

/** What counting needs of a row of the log. */
const countedRows = async (trx: Trx, part: LogPart): Promise<CountedRow[]> => {
  let query = withFaults(trx).where('session_id', 'in', [...part.sessionIds]);
  if (part.athleteIds) query = query.where('athlete_id', 'in', [...part.athleteIds]);
  return withViews(
    trx,
    (await query.execute()).map((row) => ({
      ...asRep(row),
      spot: variantFrom(row.variant, row.side).spot,
      loggedBy: row.logged_by,
    })),
  );
};

/**
 * Counts a part of the log anew, in the transaction that has changed it. Who calls it holds the
 * sessions, so that nobody else counts the same rows meanwhile.
 *
 * @returns the counts as they are now
 */
export const recount = async (trx: Trx, part: LogPart): Promise<RepCount[]> => {
  const log = await countedRows(trx, part);
  const counts = countReps(log);
  let gone = trx.deleteFrom('rep_count').where('session_id', 'in', [...part.sessionIds]);
  if (part.athleteIds) gone = gone.where('athlete_id', 'in', [...part.athleteIds]);
  await gone.execute();
  await inChunks(counts, (some) =>
    trx
      .insertInto('rep_count')
      .values(
        some.map((count) => ({
          athlete_id: count.athleteId,
          session_id: count.sessionId,
          movement: count.movement,
          part: count.part ?? '',
          side: count.side,
          lead_foot: count.leadFoot ?? ('' as const),
          speed_pct: count.speedPct ?? 0,
          rung: count.rung ?? '',
          exit: count.exit ?? '',
          ways: count.ways?.join(' ') ?? '',
          spot: count.spot ?? '',
          late: count.late,
          logged_by: count.loggedBy ?? '',
          watched: count.watched,
          could: count.could,
          could_key: createHash('sha1').update(count.could.join(' ')).digest('hex'),
          reps: count.reps,
          clean: count.clean,
          faults: JSON.stringify(count.faults),
          together: JSON.stringify(count.together),
          cues: JSON.stringify(count.cues),
          tried: count.tried,
          made: count.made,
          read: count.read,
          was_right: count.right,
          taken: JSON.stringify(count.taken),
          held: count.held,
          held_s: count.heldS,
          best_held_s: count.bestHeldS,
          rounds: JSON.stringify(count.rounds),
          runs: count.runs,
          ran_m: count.ranM,
          ran_s: count.ranS,
          timed: count.timed,
          late_s: count.lateS,
          heard: count.heard,
          heard_s: count.heardS,
          contacts: count.load.contacts,
          jumps: count.load.jumps,
          throws: count.load.throws,
          sprint_m: count.load.sprintM,
        })),
      )
      .execute(),
  );
  let unwatched = trx.deleteFrom('watched_twice').where('session_id', 'in', [...part.sessionIds]);
  if (part.athleteIds) unwatched = unwatched.where('athlete_id', 'in', [...part.athleteIds]);
  await unwatched.execute();
  await inChunks(watchedTwice(log), (some) =>
    trx
      .insertInto('watched_twice')
      .values(
        some.map(({ athleteId, sessionId, faultsA, faultsB, ...rest }) => ({
          ...rest,
          athlete_id: athleteId,
          session_id: sessionId,
          faults_a: faultsA,
          faults_b: faultsB,
        })),
      )
      .execute(),
  );
  return counts;
};
