import { createHash } from 'node:crypto';
import {
  isSequence,
  type Movement,
  type RunAthlete,
  type RunBundle,
  type RunCue,
  type RunPlan,
  type Session,
} from '@gravek/contract';
import { cautionsOf, demandOf } from '@gravek/library';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { cuesOf } from '../faults/cues';
import { clubMovements, movementsBy } from '../movements/queries';

const runPlans = async (
  trx: Trx,
  ids: readonly string[],
  athleteIds: readonly string[],
): Promise<RunPlan[]> => {
  if (ids.length === 0) return [];
  const plans = await trx
    .selectFrom('approach')
    .select(['id', 'name', 'movement', 'choices'])
    .where('id', 'in', [...ids])
    .orderBy('id')
    .execute();
  const solved =
    athleteIds.length === 0
      ? []
      : await trx
          .selectFrom('athlete_approach')
          .select(['approach_id', 'athlete_id as athleteId', 'own', 'other'])
          .where('approach_id', 'in', [...ids])
          .where('athlete_id', 'in', [...athleteIds])
          .orderBy('athlete_id')
          .execute();
  const movementBy = await movementsBy(
    trx,
    plans.map((plan) => plan.movement),
  );
  return plans.map(({ id, name, movement, choices }) => {
    const own = movementBy(movement);
    return {
      id,
      name,
      movement,
      part: isSequence(choices) ? choices.drill : null,
      speedPct: Math.round(choices.speedFraction * 100),
      schools: choices.schools ?? {},
      loads: own ? demandOf(own, choices) : [],
      cautions: own ? cautionsOf(own, choices) : [],
      outlines: solved
        .filter((one) => one.approach_id === id)
        .map(({ athleteId, own, other }) => ({ athleteId, own, other })),
    };
  });
};

/** Athletes of a session, with those who have reps in it and were taken out of its drill sets since. */
const runAthletes = async (trx: Trx, session: Session): Promise<RunAthlete[]> => {
  const logged = await trx
    .selectFrom('rep')
    .select('athlete_id')
    .distinct()
    .where('session_id', '=', session.id)
    .execute();
  const ids = [
    ...session.drillSets.flatMap((set) => set.athleteIds),
    ...logged.map((row) => row.athlete_id),
  ];
  return (await athletes(trx, { ids: [...new Set(ids)] })).map(
    ({ id, name, hand, takeoffFoot, shoeM, archived, restrictions }) => ({
      id,
      name,
      hand,
      takeoffFoot,
      shoeM,
      archived,
      restrictions,
    }),
  );
};

const runCues = async (trx: Trx, session: Session): Promise<RunCue[]> =>
  (await cuesOf(trx, session)).map(({ athleteId, movement, reps, faults, cue }) => ({
    athleteId,
    movement,
    reps,
    fault: cue?.fault ?? null,
    likely: faults.map((fault) => fault.code),
  }));

const clubOwn = async (trx: Trx, codes: readonly string[]): Promise<Movement[]> => {
  // The code of a club's movement is its id.
  const ids = [...new Set(codes)].filter((code) => /^[0-9a-f-]{36}$/.test(code));
  return (await clubMovements(trx, { ids })).map((one) => one.movement);
};

/** All that the field screen needs of a session besides its log. */
export const runBundle = async (trx: Trx, session: Session): Promise<RunBundle> => {
  const { logged: _logged, ...own } = session;
  const plans = await runPlans(
    trx,
    [...new Set(own.drillSets.map((set) => set.approachId))],
    [...new Set(own.drillSets.flatMap((set) => set.athleteIds))],
  );
  const bundle = {
    session: own,
    plans,
    athletes: await runAthletes(trx, session),
    movements: await clubOwn(
      trx,
      plans.map((plan) => plan.movement),
    ),
    cues: await runCues(trx, session),
  };
  const stamp = createHash('sha256').update(JSON.stringify(bundle)).digest('base64url');
  return { stamp: stamp.slice(0, 22), ...bundle };
};
