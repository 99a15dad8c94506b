import { bodyOf } from '@gravek/core/layout/body';
import { isSameModel } from '@gravek/core/runup/currentModel';
import type { StepModel } from '@gravek/core/runup/stepModel';
import { groupBy } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { OutdatedPlan } from '@gravek/contract/plan';
import { sql } from 'kysely';

/** A plan as it was solved for an athlete. */
export type SolvedPlan = { approachId: string; name: string; athleteId: string; model: StepModel };

/**
 * Plans that may have been solved by measures that have changed since, by name: of whoever was never measured,
 * or whose runs have changed since the plan was solved.
 */
export const plansToLookAt = sql<SolvedPlan>`
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
  order by p.name, x.approach_id, a.name`;

/** Those that another model would give now, with the athletes whose they are. */
export const outdatedPlans = (
  plans: readonly SolvedPlan[],
  people: readonly Athlete[],
): OutdatedPlan[] => {
  const personBy = new Map(people.map((person) => [person.id, person]));
  const changed = plans.flatMap((plan) => {
    const person = personBy.get(plan.athleteId);
    return person && !isSameModel(plan.model, bodyOf(person).model) ? [{ ...plan, person }] : [];
  });
  return [...groupBy(changed, (plan) => plan.approachId).values()].map((list) => ({
    approachId: list[0]!.approachId,
    name: list[0]!.name,
    athletes: list.map(({ person }) => ({ id: person.id, name: person.name })),
  }));
};
