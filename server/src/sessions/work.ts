import type { DrillSet } from '@gravek/contract';
import type { Finds } from '@gravek/library';
import type { Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';

/** Plans and movements that drill sets name. */
export const findsOf = async (trx: Trx, drillSets: readonly DrillSet[]): Promise<Finds> => {
  const ids = drillSets.flatMap(({ work }) => (work.kind === 'plan' ? [work.approachId] : []));
  const plans =
    ids.length === 0
      ? []
      : await trx
          .selectFrom('approach')
          .select(['id', 'name', 'movement', 'choices'])
          .where('id', 'in', [...new Set(ids)])
          .execute();
  const movementOf = await movementsBy(trx, [
    ...plans.map((plan) => plan.movement),
    ...drillSets.flatMap(({ work }) => (work.kind === 'movement' ? [work.movement] : [])),
  ]);
  return { planOf: (id) => plans.find((plan) => plan.id === id), movementOf };
};
