import type { FaultsTogether } from '@gravek/core/session/repCounts';
import { groupBy } from '@gravek/core/session/repLog';
import type { CauseCheck } from '@gravek/contract/faults';
import { checkCauses } from '@gravek/library/cue/causes';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { notFound } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** Older reps tell how a club once coached. */
const DAYS = 365;
/** More say nothing more, and would keep others waiting. */
const MOST_ROWS = 6_000;

/** The chain of a movement's faults, held against the club's reps of the last year. */
export const causesIn = async (trx: Trx, code: string, today: string): Promise<CauseCheck> => {
  const movement = (await movementsBy(trx, [code]))(code);
  if (!movement) throw notFound('movement');
  const { rows } = await sql<{
    athleteId: string;
    sessionId: string;
    could: string[];
    reps: number;
    together: FaultsTogether[];
  }>`
    select c.athlete_id as "athleteId", c.session_id as "sessionId", c.reps, c.together,
      c.could
    from session s
    join rep_count c on c.club_id = s.club_id and c.session_id = s.id
    where s.day > ${today}::date - ${DAYS}::int and s.day <= ${today}::date and c.movement = ${code}
      and c.watched
    order by s.day desc, s.id limit ${MOST_ROWS}`.execute(trx);
  const strata = [
    ...groupBy(rows, (row) => `${row.athleteId}/${row.sessionId}/${row.could.join()}`).values(),
  ].map((sessionRows) => ({
    reps: sessionRows.reduce((sum, row) => sum + row.reps, 0),
    together: sessionRows.flatMap((row) => row.together),
    could: sessionRows[0]!.could,
  }));
  return checkCauses(movement, strata);
};
