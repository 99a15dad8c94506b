import {
  beginsAtMissed,
  groupBy,
  keptVariants,
  standing,
  struckKey,
  variantFrom,
} from '@gravek/core';
import { runSetOf, type RunBundle, type RunPlan, type Session } from '@gravek/contract';
import { movementCode, type Base } from '@gravek/library';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';
import { repsOfTries } from '../reps/queries';

/**
 * What athletes still owed of a set's makes when they last worked on it, so that it begins there: of each
 * set whose makes count, and of each athlete the last session before this one in which they tried any of
 * its movements.
 */
export const missedIn = async (
  trx: Trx,
  session: Pick<Session, 'id' | 'date' | 'drillSets'>,
  plans: readonly RunPlan[],
): Promise<RunBundle['missed']> => {
  const sets = session.drillSets.filter(
    (set) => beginsAtMissed(runSetOf(set)) && keptVariants(set).length > 1,
  );
  if (sets.length === 0) return [];
  const movementBy = await movementsBy(
    trx,
    plans.flatMap(({ movement }) => movement ?? []),
  );
  const missed: RunBundle['missed'] = [];
  for (const set of sets) {
    const plan = plans.find(({ drillSetId }) => drillSetId === set.id);
    const movement = plan?.movement ? (movementBy(plan.movement) ?? null) : null;
    const base: Base = { name: '', movement, choices: plan?.choices ?? null };
    const variants = keptVariants(set);
    const codes = [...new Set(variants.flatMap((variant) => movementCode(base, variant) ?? []))];
    const { rows } = await sql<{ athleteId: string; sessionId: string }>`
      select distinct on (c.athlete_id) c.athlete_id as "athleteId", c.session_id as "sessionId"
      from rep_count c join session s on s.club_id = c.club_id and s.id = c.session_id
      where c.club_id = gravek_club() and c.athlete_id = any(${set.athleteIds}::uuid[])
        and c.movement = any(${codes}::text[]) and c.has_results and c.tried > 0
        and (s.day, s.id) < (${session.date}::date, ${session.id}::uuid)
      order by c.athlete_id, s.day desc, s.id desc`.execute(trx);
    const tries = groupBy(
      standing(await repsOfTries(trx, rows, codes)).filter((rep) => rep.made !== null),
      (rep) => rep.athleteId,
    );
    for (const [athleteId, reps] of tries) {
      const made = (key: string): number =>
        reps.filter((rep) => rep.made && struckKey(variantFrom(rep.variant, rep.side)) === key)
          .length;
      const owed = variants.map(struckKey).filter((key) => made(key) < set.amount);
      // Where nothing of it was tried, or nothing made, nothing comes first.
      if (owed.length > 0 && owed.length < variants.length)
        missed.push({ drillSetId: set.id, athleteId, variants: owed });
    }
  }
  return missed;
};
