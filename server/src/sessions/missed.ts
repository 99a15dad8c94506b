import { standing } from '@gravek/core/session/repLog';
import { beginsAtMissed } from '@gravek/core/session/runOrder';
import { keptVariants, struckKey, type Variant, variantFrom } from '@gravek/core/session/variants';
import { type DrillSet, runSetOf } from '@gravek/contract/drillSet';
import type { RunBundle, RunPlan } from '@gravek/contract/run';
import type { Session, StoredRep } from '@gravek/contract/session';
import { movementCode } from '@gravek/library/session/fieldRun';
import type { Base, Finds } from '@gravek/library/session/work';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { repsOfTries } from '../reps/queries';

/** A set whose makes count: its combinations, and the codes under which they are logged. */
type MakesSet = { set: DrillSet; variants: Variant[]; codes: string[] };

const makesSets = (
  drillSets: readonly DrillSet[],
  plans: readonly RunPlan[],
  { movementOf }: Finds,
): MakesSet[] => {
  const sets = drillSets.filter(
    (set) => beginsAtMissed(runSetOf(set)) && keptVariants(set).length > 1,
  );
  return sets.map((set) => {
    const plan = plans.find(({ drillSetId }) => drillSetId === set.id);
    const movement = plan?.movement ? (movementOf(plan.movement) ?? null) : null;
    const base: Base = { name: '', movement, choices: plan?.choices ?? null };
    const variants = keptVariants(set);
    const codes = variants.flatMap((variant) => movementCode(base, variant) ?? []);
    return { set, variants, codes: [...new Set(codes)] };
  });
};

/** Combinations of a set that lacked makes in some tries of it; none where all of them lacked some. */
const owedOf = ({ set, variants }: MakesSet, tries: readonly StoredRep[]): string[] => {
  const made = tries.filter((rep) => rep.made).map((rep) => variantFrom(rep.variant, rep.side));
  const owed = variants
    .map(struckKey)
    .filter((key) => made.filter((variant) => struckKey(variant) === key).length < set.amount);
  return owed.length < variants.length ? owed : [];
};

/** What was missed longer ago than this is as good as new, days. */
const BACK_DAYS = 28;

/**
 * What athletes still owed of a set's makes when they last worked on it, so that it begins there: of each
 * set whose makes count, and of each athlete the last session in the four weeks before this one in which they
 * tried any of its movements.
 */
export const missedIn = async (
  trx: Trx,
  session: Pick<Session, 'id' | 'date' | 'drillSets'>,
  plans: readonly RunPlan[],
  finds: Finds,
): Promise<RunBundle['missed']> => {
  const sets = makesSets(session.drillSets, plans, finds);
  if (sets.length === 0) return [];
  const wanted = sets.map(({ set: { id, athleteIds }, codes }) => ({ id, athleteIds, codes }));
  const last = sql<{ athleteId: string; sessionId: string }>`
    select distinct on (w.id, who.athlete_id) who.athlete_id, s.id
    from jsonb_to_recordset(${JSON.stringify(wanted)}::jsonb)
      w (id text, "athleteIds" uuid[], codes text[])
    cross join unnest(w."athleteIds") who (athlete_id)
    cross join unnest(w.codes) what (movement)
    join session s on s.club_id = gravek_club()
      and s.day > ${session.date}::date - ${BACK_DAYS}::int
      and (s.day, s.id) < (${session.date}::date, ${session.id}::uuid)
    -- Each looked up by the key of the table: a season makes it no slower.
    cross join lateral (select from rep_count c where c.club_id = s.club_id
      and c.athlete_id = who.athlete_id and c.movement = what.movement and c.session_id = s.id
      and c.tried > 0 limit 1) tried
    order by w.id, who.athlete_id, s.day desc, s.id desc`;
  const codes = [...new Set(sets.flatMap((set) => set.codes))];
  const tries = standing(await repsOfTries(trx, last, codes)).filter((rep) => rep.made !== null);
  return sets.flatMap((makes) => {
    const ofSet = tries.filter(({ movement }) => makes.codes.includes(movement));
    return makes.set.athleteIds.flatMap((athleteId) => {
      // The newest session stands first.
      const athleteReps = ofSet.filter((rep) => rep.athleteId === athleteId);
      const newest = athleteReps.filter(({ sessionId }) => sessionId === athleteReps[0]!.sessionId);
      const variants = newest.length > 0 ? owedOf(makes, newest) : [];
      return variants.length > 0 ? [{ drillSetId: makes.set.id, athleteId, variants }] : [];
    });
  });
};
