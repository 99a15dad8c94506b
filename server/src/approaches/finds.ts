import type { Choices } from '@gravek/contract/approach';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Outline } from '@gravek/contract/plan';
import type { Finds } from '@gravek/library/session/work';
import { sql } from 'kysely';
import { jsonArrayFrom } from 'kysely/helpers/postgres';
import type { Trx } from '../database/connect';
import { type MovementBy, movementsBy } from '../movements/queries';

/** What drill sets name, with the plans as they were solved for those who run them. */
export type PlansFound = Finds & {
  solvedFor: (approachId: string) => readonly {
    athleteId: string;
    own: Outline | null;
    other: Outline | null;
  }[];
};

type Plan = {
  id: string;
  name: string;
  movement: string;
  choices: Choices;
  solved: { athleteId: string; own: Outline | null; other: Outline | null }[];
};

/** Plans that drill sets name, each with the athletes for whom it is solved. */
export const plansOf = async (trx: Trx, drillSets: readonly DrillSet[]): Promise<Plan[]> => {
  const ids = drillSets.flatMap(({ work }) => (work.kind === 'plan' ? [work.approachId] : []));
  const people = [...new Set(drillSets.flatMap(({ athleteIds }) => athleteIds))];
  return ids.length === 0
    ? []
    : await trx
        .selectFrom('approach as p')
        .select((eb) => [
          'p.id',
          'p.name',
          'p.movement',
          'p.choices',
          jsonArrayFrom(
            eb
              .selectFrom('athlete_approach as s')
              .select(['s.athlete_id as athleteId', 's.own', 's.other'])
              .whereRef('s.club_id', '=', 'p.club_id')
              .whereRef('s.approach_id', '=', 'p.id')
              .where(sql<boolean>`s.athlete_id = any(${people}::uuid[])`)
              .orderBy('s.athlete_id'),
          ).as('solved'),
        ])
        .where('p.id', 'in', [...new Set(ids)])
        .execute();
};

/** Codes of the movements of plans and drill sets. */
export const codesOf = (plans: readonly Plan[], drillSets: readonly DrillSet[]): string[] => [
  ...plans.map((plan) => plan.movement),
  ...drillSets.flatMap(({ work }) => (work.kind === 'movement' ? [work.movement] : [])),
];

export const findsAmong = (plans: readonly Plan[], movementOf: MovementBy): PlansFound => {
  const planBy = new Map(plans.map((plan) => [plan.id, plan]));
  return {
    planOf: (id) => planBy.get(id),
    solvedFor: (id) => planBy.get(id)?.solved ?? [],
    movementOf,
  };
};

/** Plans and movements that drill sets name. */
export const findsOf = async (trx: Trx, drillSets: readonly DrillSet[]): Promise<PlansFound> => {
  const plans = await plansOf(trx, drillSets);
  return findsAmong(plans, await movementsBy(trx, codesOf(plans, drillSets)));
};
