import type { DrillChoice } from '@gravek/contract/coachChoices';
import type { DrillReps, ProgressStand } from '@gravek/contract/faults';
import { progressOf } from '@gravek/library/movement/progress';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { notFound } from '../http/problem';
import { movementsBy } from '../movements/queries';
import { LADDER_DAYS } from './rungs';

/** Where the athletes of the club stand in the drills of a movement's progression, by the last months and their coaches' word. */
export const progressIn = async (
  trx: Trx,
  code: string,
  today: string,
): Promise<ProgressStand[]> => {
  const movement = (await movementsBy(trx, [code]))(code);
  if (!movement) throw notFound('movement');
  const { rows } = await sql<DrillReps>`
    select c.athlete_id as "athleteId", c.part as drill, c.session_id as "sessionId", s.day as date,
      c.side, sum(c.reps)::int as reps, sum(c.clean)::int as clean
    from rep_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    join athlete a on a.club_id = c.club_id and a.id = c.athlete_id
    where c.movement = ${code} and c.part <> '' and c.watched and a.archived_at is null
      and s.day >= ${today}::date - ${LADDER_DAYS}::int and s.day <= ${today}::date
    group by 1, 2, 3, 4, 5 order by s.day, 3, 2, 5`.execute(trx);
  const choices = await sql<DrillChoice>`
    select distinct on (c.athlete_id) c.athlete_id as "athleteId", c.drill, c.day,
      coalesce(gravek_person(c.account_id), 'Somebody') as person
    from rung_choice c
    join athlete a on a.club_id = c.club_id and a.id = c.athlete_id
    where c.movement = ${code} and c.drill is not null and a.archived_at is null
      and c.day <= ${today}::date
    order by c.athlete_id, c.made_at desc`.execute(trx);
  return progressOf(movement, rows, choices.rows);
};
