import type { LoadHistory } from '@gravek/contract/run';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';

type WeekRow = {
  athleteId: string;
  weeksAgo: number;
  sessionId: string | null;
  contacts: number;
  jumps: number;
  throws: number;
  sprintM: number;
};

/** Makes longer ago say little of today. */
const MAKES_DAYS = 120;

/**
 * What was put on everybody in the week of a day and the four before it, and how often each has made
 * what lately.
 *
 * @param day yyyy-mm-dd; weeks begin on Monday
 */
export const loadHistory = async (trx: Trx, day: string): Promise<LoadHistory> => {
  const { rows } = await sql<WeekRow>`
    with logged as (
      select c.athlete_id, c.session_id,
        (date_trunc('week', ${day}::date)::date - date_trunc('week', s.day)::date) / 7 as ago,
        c.contacts, c.jumps, c.throws, c.sprint_m
      from rep_count c
      join session s on s.club_id = c.club_id and s.id = c.session_id
      where s.day >= date_trunc('week', ${day}::date)::date - 28
        and s.day < date_trunc('week', ${day}::date)::date + 7
    )
    select athlete_id as "athleteId", ago as "weeksAgo",
      case when ago = 0 then session_id end as "sessionId",
      sum(contacts)::int as contacts, sum(jumps)::int as jumps, sum(throws)::int as throws,
      sum(sprint_m)::float8 as "sprintM"
    from logged group by 1, 2, 3 order by 1, 2, 3`.execute(trx);
  const makes = await trx
    .selectFrom('rep_count as c')
    .innerJoin('session as s', (join) =>
      join.onRef('s.club_id', '=', 'c.club_id').onRef('s.id', '=', 'c.session_id'),
    )
    .select([
      'c.athlete_id as athleteId',
      'c.movement',
      sql<number>`sum(c.tried)::int`.as('tried'),
      sql<number>`sum(c.made)::int`.as('made'),
    ])
    .where('c.tried', '>', 0)
    .where('s.day', '>=', sql<string>`${day}::date - ${MAKES_DAYS}::int`)
    .where('s.day', '<=', day)
    .groupBy(['c.athlete_id', 'c.movement'])
    .execute();
  return {
    weeks: rows.map(({ athleteId, weeksAgo, sessionId, ...load }) => ({
      athleteId,
      weeksAgo,
      sessionId,
      load,
    })),
    makes,
  };
};
