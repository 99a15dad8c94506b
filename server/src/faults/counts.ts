import type { Condition } from '@gravek/contract/faults';
import type { ReadCount, ResultCount } from '@gravek/library/cue/results';
import type { SessionFaults } from '@gravek/library/cue/sessionFaults';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';

type Counts = ReadCount & ResultCount;

/** What a session showed of an athlete in a movement under one condition, and what came of it. */
export type CountRow = Omit<SessionFaults, 'exposed'> &
  Condition &
  Omit<Counts, 'exit'> & {
    athleteId: string;
    movement: string;
    sessionId: string;
    /** whether anybody looked for faults */
    watched: boolean;
    /** whether it has makes, seconds, touches, metres or minutes */
    hasResults: boolean;
    /** faults that the reps could show */
    could: string[];
  };

/** Whose counts: of some athletes, in some movements or all of them, or of one session. */
export type Which =
  { athleteIds: readonly string[]; movements?: readonly string[] } | { sessionId: string };

/** Up to which session counts are wanted, the one named left out. */
export type Before = { date: string; sessionId: string };

/**
 * What was counted, a row a condition, earliest session first.
 *
 * @param before only sessions ahead of this one
 */
export const countRows = async (trx: Trx, which: Which, before?: Before): Promise<CountRow[]> => {
  if ('athleteIds' in which && which.athleteIds.length === 0) return [];
  const whose =
    'sessionId' in which
      ? sql`c.session_id = ${which.sessionId}`
      : sql`c.athlete_id = any(${[...which.athleteIds]}::uuid[])
          ${which.movements ? sql`and c.movement = any(${[...which.movements]}::text[])` : sql``}`;
  const { rows } = await sql<CountRow>`
    select c.athlete_id as "athleteId", c.movement, c.session_id as "sessionId", s.day as date,
      c.reps, c.cues, c.faults, c.together, nullif(c.part, '') as part, c.side,
      nullif(c.lead_foot, '') as "leadFoot", nullif(c.speed_pct, 0) as "speedPct",
      nullif(c.rung, '') as rung, nullif(c.exit, '') as exit, c.late,
      nullif(c.logged_by, '') as "loggedBy", c.could, c.watched,
      c.read, c.was_right as right, c.taken, c.timed, c.late_s as "lateS", c.heard,
      c.heard_s as "heardS",
      c.has_results as "hasResults", nullif(c.spot, '') as spot, c.tried, c.made, c.held,
      c.held_s as "heldS", c.best_held_s as "bestHeldS", c.rounds, c.runs, c.ran_m as "ranM",
      c.ran_s as "ranS"
    from rep_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    where c.club_id = gravek_club() and ${whose}
      ${before ? sql`and (s.day, s.id) < (${before.date}::date, ${before.sessionId}::uuid)` : sql``}
    order by s.day, s.id, c.side, c.exit, c.spot`.execute(trx);
  return rows;
};

export type Counted = CountRow & SessionFaults;

/** Of reps that were watched: what they showed, and what they could have. */
export const watchedIn = (rows: readonly CountRow[]): Counted[] =>
  rows.flatMap((row) =>
    row.watched ? [{ ...row, exposed: row.could.map((fault) => ({ fault, reps: row.reps })) }] : [],
  );

/** Of reps in which something was read. */
export const readsIn = (rows: readonly CountRow[]): ReadCount[] =>
  rows.flatMap((row) => (row.read > 0 ? [{ ...row, exit: row.exit ?? '' }] : []));

/** Of reps from which something came that is counted, timed or measured. */
export const resultsIn = (rows: readonly CountRow[]): CountRow[] =>
  rows.filter((row) => row.hasResults);
