import { createHash } from 'node:crypto';
import { bodyOf } from '@gravek/core';
import {
  isSequence,
  type DrillSet,
  type Movement,
  type OnGround,
  type RunAthlete,
  type RunBundle,
  type RunCue,
  type RunPlan,
  type Session,
} from '@gravek/contract';
import {
  askedSpeed,
  atPace,
  cautionsOf,
  demandOf,
  exitsOf,
  feetDiffer,
  mirrorOutline,
  outlineOf,
  setOn,
  solve,
  takenFrom,
} from '@gravek/library';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { cuesOf } from '../faults/cues';
import { ground } from '../grounds/queries';
import { clubMovements, movementsBy } from '../movements/queries';

/**
 * The approaches of a session as its sets run them: each once for every pace that is asked, set out on
 * the ground of the session.
 */
const runPlans = async (
  trx: Trx,
  drillSets: readonly DrillSet[],
  here: OnGround | null,
): Promise<RunPlan[]> => {
  if (drillSets.length === 0) return [];
  const plans = await trx
    .selectFrom('approach')
    .select(['id', 'name', 'movement', 'choices'])
    .where('id', 'in', [...new Set(drillSets.map((set) => set.approachId))])
    .orderBy('id')
    .execute();
  const ids = [...new Set(drillSets.flatMap((set) => set.athleteIds))];
  const solved =
    ids.length === 0
      ? []
      : await trx
          .selectFrom('athlete_approach')
          .select(['approach_id', 'athlete_id as athleteId', 'own', 'other'])
          .where(
            'approach_id',
            'in',
            plans.map((plan) => plan.id),
          )
          .where('athlete_id', 'in', ids)
          .orderBy('athlete_id')
          .execute();
  const movementBy = await movementsBy(
    trx,
    plans.map((plan) => plan.movement),
  );
  /** What was solved with the plan does not hold for a slower way in, nor where feet go elsewhere. */
  const anew = (set: DrillSet): boolean => {
    const plan = plans.find((one) => one.id === set.approachId);
    const movement = plan && movementBy(plan.movement);
    return (
      set.pace !== 1 ||
      (here !== null && movement !== undefined && feetDiffer(movement, plan!.choices.ground, here))
    );
  };
  const solvedHere = drillSets.filter(anew);
  const bodies = new Map(
    (await athletes(trx, { ids: [...new Set(solvedHere.flatMap((set) => set.athleteIds))] })).map(
      (one) => [one.id, bodyOf(one)],
    ),
  );
  return plans.flatMap(({ id, name, movement, choices: planned }) => {
    const own = movementBy(movement);
    const choices = setOn(planned, here);
    const sets = drillSets.filter((set) => set.approachId === id);
    return [...new Set(sets.map((set) => set.pace))].map((pace): RunPlan => {
      const paced = own ? atPace(own, choices, pace) : choices;
      const runners = new Set(
        sets.filter((set) => set.pace === pace).flatMap((set) => set.athleteIds),
      );
      const outlineAt = (athleteId: string): RunPlan['outlines'][number] => {
        const body = bodies.get(athleteId);
        const outline = own && body ? outlineOf(solve(own, paced, body)) : null;
        return { athleteId, own: outline, other: outline && mirrorOutline(outline) };
      };
      return {
        id,
        pace,
        name,
        movement,
        part: isSequence(choices) ? choices.drill : null,
        exits: own ? exitsOf(own, choices) : [],
        speedPct: Math.round((own ? askedSpeed(own, paced) : choices.speedFraction) * 100),
        schools: choices.schools ?? {},
        loads: own ? demandOf(own, paced) : [],
        cautions: own ? cautionsOf(own, choices) : [],
        outlines: solvedHere.some((set) => set.approachId === id && set.pace === pace)
          ? [...runners].sort().map(outlineAt)
          : solved
              .filter((one) => one.approach_id === id && runners.has(one.athleteId))
              .map(({ athleteId, own, other }) => ({ athleteId, own, other })),
      };
    });
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
  const stood = own.groundId === null ? undefined : await ground(trx, own.groundId);
  const plans = await runPlans(trx, own.drillSets, stood ? takenFrom(stood) : null);
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
