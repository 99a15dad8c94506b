import {
  beginsAtMissed,
  keptVariants,
  standing,
  struckKey,
  variantFrom,
  type Variant,
} from '@gravek/core';
import {
  runSetOf,
  type DrillSet,
  type RunBundle,
  type RunPlan,
  type Session,
  type StoredRep,
} from '@gravek/contract';
import { movementCode, type Base } from '@gravek/library';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';
import { repsOfTries } from '../reps/queries';

/** A set whose makes count: its combinations, and the codes under which they are logged. */
type MakesSet = { set: DrillSet; variants: Variant[]; codes: string[] };

const makesSets = async (
  trx: Trx,
  drillSets: readonly DrillSet[],
  plans: readonly RunPlan[],
): Promise<MakesSet[]> => {
  const sets = drillSets.filter(
    (set) => beginsAtMissed(runSetOf(set)) && keptVariants(set).length > 1,
  );
  if (sets.length === 0) return [];
  const movementBy = await movementsBy(
    trx,
    plans.flatMap(({ movement }) => movement ?? []),
  );
  return sets.map((set) => {
    const plan = plans.find(({ drillSetId }) => drillSetId === set.id);
    const movement = plan?.movement ? (movementBy(plan.movement) ?? null) : null;
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
    .filter((key) => made.filter((one) => struckKey(one) === key).length < set.amount);
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
): Promise<RunBundle['missed']> => {
  const sets = await makesSets(trx, session.drillSets, plans);
  if (sets.length === 0) return [];
  const wanted = sets.map(({ set: { id, athleteIds }, codes }) => ({ id, athleteIds, codes }));
  const { rows: last } = await sql<{ setId: string; athleteId: string; sessionId: string }>`
    select distinct on (w.id, who.athlete_id) w.id as "setId", who.athlete_id as "athleteId",
      s.id as "sessionId"
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
    order by w.id, who.athlete_id, s.day desc, s.id desc`.execute(trx);
  const codes = [...new Set(sets.flatMap((set) => set.codes))];
  const tries = standing(await repsOfTries(trx, last, codes)).filter((rep) => rep.made !== null);
  return sets.flatMap((makes) =>
    last.flatMap(({ setId, athleteId, sessionId }) => {
      if (setId !== makes.set.id) return [];
      const variants = owedOf(
        makes,
        tries.filter(
          (rep) =>
            rep.athleteId === athleteId &&
            rep.sessionId === sessionId &&
            makes.codes.includes(rep.movement),
        ),
      );
      return variants.length > 0 ? [{ drillSetId: setId, athleteId, variants }] : [];
    }),
  );
};
