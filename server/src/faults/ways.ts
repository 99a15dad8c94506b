import type { WayCheck } from '@gravek/contract/faults';
import { checkWays, type WayRow } from '@gravek/library/cue/ways';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { notFound } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** Older reps tell how a club once coached. */
const DAYS = 365;
/** More say nothing more, and would keep others waiting. */
const MOST_ROWS = 6_000;

/** The ways in which a movement is taught, held against each other by the club's reps of the last year. */
export const waysIn = async (trx: Trx, code: string, today: string): Promise<WayCheck> => {
  const movement = (await movementsBy(trx, [code]))(code);
  if (!movement) throw notFound('movement');
  const { rows } = await sql<Omit<WayRow, 'ways'> & { ways: string }>`
    select c.athlete_id as "athleteId", c.session_id as "sessionId", nullif(c.part, '') as part,
      c.side, nullif(c.speed_pct, 0) as "speedPct", nullif(c.rung, '') as rung,
      nullif(c.exit, '') as exit, c.ways, sum(c.reps)::int as reps, sum(c.clean)::int as clean,
      sum(c.held)::int as held, sum(c.held_s) as "heldS", sum(c.heard)::int as heard,
      sum(c.heard_s) as "heardS"
    from session s
    join rep_count c on c.club_id = s.club_id and c.session_id = s.id
    where s.day > ${today}::date - ${DAYS}::int and s.day <= ${today}::date and c.movement = ${code}
      and c.watched and c.ways <> ''
    group by s.day, s.id, c.athlete_id, c.session_id, c.part, c.side, c.speed_pct, c.rung, c.exit, c.ways
    order by s.day desc, s.id limit ${MOST_ROWS}`.execute(trx);
  return checkWays(
    movement,
    rows.map((row) => ({ ...row, ways: row.ways.split(' ') })),
  );
};
