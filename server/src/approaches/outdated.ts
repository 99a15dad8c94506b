import type { OutdatedPlan } from '@gravek/contract/approach';
import { bodyOf } from '@gravek/core/layout/body';
import { groupBy } from '@gravek/core/session/repLog';
import { isSameModel, type StepModel } from '@gravek/core/runup/stepModel';
import { sql } from 'kysely';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';

/**
 * Plans that were solved by measures that have changed since, with the athletes whose they are; by name.
 *
 * Only those are looked at again who were never measured, or whose runs have changed since the plan was solved.
 */
export const outdatedPlans = async (trx: Trx): Promise<OutdatedPlan[]> => {
  const { rows } = await sql<{
    approachId: string;
    name: string;
    athleteId: string;
    model: StepModel;
  }>`
    select x.approach_id as "approachId", p.name, x.athlete_id as "athleteId", x.model
    from athlete_approach x
    join approach p on p.club_id = x.club_id and p.id = x.approach_id
    join athlete a on a.club_id = x.club_id and a.id = x.athlete_id
    where x.listed and p.archived_at is null and a.archived_at is null
      and (x.model_source = 'estimate' or exists (
        select 1 from measurement m
        where m.club_id = x.club_id and m.athlete_id = x.athlete_id and m.kind = 'trial'
          and greatest(m.created_at, m.removed_at) > x.solved_at
      ))
    order by p.name, x.approach_id, a.name`.execute(trx);
  const ids = [...new Set(rows.map((row) => row.athleteId))];
  if (ids.length === 0) return [];
  const people = await athletes(trx, { ids });
  const nameOf = new Map(people.map(({ id, name }) => [id, name]));
  const models = new Map(people.map((person) => [person.id, bodyOf(person).model]));
  const changed = rows.filter(({ athleteId, model }) => {
    const now = models.get(athleteId);
    return now && !isSameModel(model, now);
  });
  return [...groupBy(changed, (row) => row.approachId).values()].map((own) => ({
    approachId: own[0]!.approachId,
    name: own[0]!.name,
    athletes: own.map((row) => ({ id: row.athleteId, name: nameOf.get(row.athleteId)! })),
  }));
};
