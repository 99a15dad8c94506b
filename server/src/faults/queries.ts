import type { FaultCount } from '@gravek/contract';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';

/**
 * What each session showed of each athlete: reps that stand, and how many of them had each fault.
 *
 * @param which some athletes, or all who are not archived
 * @returns earliest session first
 */
export const faultCounts = async (
  trx: Trx,
  which: { athleteIds: readonly string[] } | 'all',
): Promise<FaultCount[]> => {
  if (which !== 'all' && which.athleteIds.length === 0) return [];
  const who =
    which === 'all'
      ? sql`a.archived_at is null`
      : sql`a.id = any(${sql.val([...which.athleteIds])}::uuid[])`;
  const { rows } = await sql<FaultCount>`
    with seen as (
      select r.id, r.athlete_id, r.session_id, p.movement, s.day, r.cue
      from rep r
      join athlete a on a.club_id = r.club_id and a.id = r.athlete_id
      join session s on s.club_id = r.club_id and s.id = r.session_id
      join drill_set d on d.club_id = r.club_id and d.id = r.drill_set_id
      join approach p on p.club_id = d.club_id and p.id = d.approach_id
      where r.outcome in ('clean', 'fault') and ${who}
        and not exists (select from rep v where v.club_id = r.club_id and v.voids = r.id)
    ), shown as (
      select s.athlete_id, s.session_id, s.movement, f.fault, count(*)::int as reps
      from seen s join rep_fault f on f.rep_id = s.id
      group by 1, 2, 3, 4
    )
    select s.athlete_id as "athleteId", s.session_id as "sessionId", s.movement, s.day as date,
      count(*)::int as reps,
      coalesce((
        select jsonb_object_agg(f.fault, f.reps) from shown f
        where f.athlete_id = s.athlete_id and f.session_id = s.session_id
          and f.movement = s.movement), '{}') as faults,
      coalesce(array_agg(distinct s.cue) filter (where s.cue is not null), '{}') as cues
    from seen s
    group by s.athlete_id, s.session_id, s.movement, s.day
    order by s.day, s.session_id, s.athlete_id, s.movement`.execute(trx);
  return rows;
};
