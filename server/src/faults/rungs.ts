import type { DrillChoiceInput, RungChoice, RungChoiceInput } from '@gravek/contract/coachChoices';
import type { Needs } from '@gravek/contract/run';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { notFound } from '../http/problem';
import { settleNew } from '../http/versioned';
import { movementsBy } from '../movements/queries';

/** What was run on a ladder longer ago says little of today. */
export const LADDER_DAYS = 90;

/** Of one athlete in one movement, or of everybody who is there. */
type Whose = { athleteId: string; movement: string } | null;

/**
 * Reps on ladders of the last months, session by session, and what coaches have chosen last of them.
 *
 * @param day yyyy-mm-dd; nothing later is looked at
 */
export const laddersIn = async (
  trx: Trx,
  day: string,
  whose: Whose,
): Promise<Pick<Needs, 'rungs' | 'rungChoices'>> => {
  const only = whose
    ? sql`and c.athlete_id = ${whose.athleteId} and c.movement = ${whose.movement}`
    : sql``;
  const { rows } = await sql<{ rungs: Needs['rungs']; rungChoices: RungChoice[] }>`
    with run as (select c.athlete_id as "athleteId", c.movement, c.session_id as "sessionId", s.day as date,
      c.rung, c.side, sum(c.reps)::int as reps, sum(c.clean)::int as clean
    from rep_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    join athlete a on a.club_id = c.club_id and a.id = c.athlete_id
    where c.rung <> '' and c.part = '' and c.watched and a.archived_at is null
      and s.day >= ${day}::date - ${LADDER_DAYS}::int and s.day <= ${day}::date ${only}
    group by 1, 2, 3, 4, 5, 6),
    chosen as (select distinct on (c.athlete_id, c.movement) c.athlete_id as "athleteId", c.movement, c.rung,
      c.reason, c.day, coalesce(gravek_person(c.account_id), 'Somebody') as person
    from rung_choice c
    join athlete a on a.club_id = c.club_id and a.id = c.athlete_id
    where a.archived_at is null and c.drill is null and c.day <= ${day}::date ${only}
    order by c.athlete_id, c.movement, c.made_at desc)
    select
      (select coalesce(json_agg(run order by date, "sessionId", rung, side), '[]') from run) as rungs,
      (select coalesce(json_agg(chosen), '[]') from chosen) as "rungChoices"`.execute(trx);
  return rows[0]!;
};

/**
 * Keeps a coach's choice of a rung, or of a drill of the progression; sent again it is the same one.
 *
 * @throws {ProblemError} when there is no such movement or drill, or another choice has the id
 */
export const chooseRung = async (
  trx: Trx,
  accountId: string,
  athleteId: string,
  { id, movement, day, ...chosen }: (RungChoiceInput | DrillChoiceInput) & { day: string },
): Promise<void> => {
  const document = (await movementsBy(trx, [movement]))(movement);
  if (!document) throw notFound('movement');
  const { rung, drill, reason } = { rung: null, drill: null, reason: '', ...chosen };
  if (drill !== null && !document.progression?.some((step) => step.drill === drill)) {
    throw notFound('drill');
  }
  const row = { athlete_id: athleteId, movement, rung, drill, reason };
  const { numInsertedOrUpdatedRows } = await trx
    .insertInto('rung_choice')
    .values({ id, ...row, account_id: accountId, day })
    .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
    .executeTakeFirst();
  if (numInsertedOrUpdatedRows) return;
  const kept = await trx
    .selectFrom('rung_choice')
    .select(['athlete_id', 'movement', 'rung', 'drill', 'reason'])
    .where('id', '=', id)
    .executeTakeFirst();
  settleNew('choice', kept, row);
};
