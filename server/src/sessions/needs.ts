import type { Needs } from '@gravek/contract';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { faultsOf } from '../faults/queries';

/** What was run on a ladder longer ago says little of today. */
const LADDER_DAYS = 90;

/**
 * What the athletes of the club have to work on: their cues, and how they fare on their ladders.
 *
 * @param day yyyy-mm-dd; nothing later is looked at
 */
export const needsOn = async (trx: Trx, day: string): Promise<Needs> => {
  const people = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .execute();
  const faults = await faultsOf(
    trx,
    people.map((one) => one.id),
  );
  const { rows } = await sql<Needs['rungs'][number]>`
    select c.athlete_id as "athleteId", c.movement, c.session_id as "sessionId", c.rung, c.side,
      sum(c.reps)::int as reps, sum(c.clean)::int as clean
    from rep_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    join athlete a on a.club_id = c.club_id and a.id = c.athlete_id
    where c.rung <> '' and c.part = '' and a.archived_at is null
      and s.day >= ${day}::date - ${LADDER_DAYS}::int and s.day <= ${day}::date
    group by 1, 2, 3, 4, 5, s.day order by s.day, 3, 4, 5`.execute(trx);
  return {
    cues: faults.flatMap(({ athleteId, movement, cue }) =>
      cue ? [{ athleteId, movement, ...cue }] : [],
    ),
    rungs: rows,
  };
};
