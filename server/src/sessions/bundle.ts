import { createHash } from 'node:crypto';
import { bodyOf } from '@gravek/core';
import type {
  DrillSet,
  Movement,
  OnGround,
  RunAthlete,
  RunBundle,
  RunCue,
  RunPlan,
  Session,
} from '@gravek/contract';
import { baseOf, cautionsOf, feetDiffer, surfaceCautions, takenFrom } from '@gravek/library';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { cuesOf } from '../faults/cues';
import { ground } from '../grounds/queries';
import { clubMovements } from '../movements/queries';
import { missedIn } from './missed';
import { findsOf } from './work';

/** What was solved with plans for athletes; what is run otherwise is solved on the phone. */
const solvedWith = async (trx: Trx, drillSets: readonly DrillSet[]) => {
  const plans = drillSets.flatMap(({ work }) => (work.kind === 'plan' ? [work.approachId] : []));
  const people = drillSets.flatMap((set) => set.athleteIds);
  if (plans.length === 0 || people.length === 0) return [];
  return trx
    .selectFrom('athlete_approach')
    .select(['approach_id', 'athlete_id as athleteId', 'own', 'other'])
    .where('approach_id', 'in', [...new Set(plans)])
    .where('athlete_id', 'in', [...new Set(people)])
    .orderBy('athlete_id')
    .execute();
};

/** The work of each drill set, set out on the ground of the session. */
const runPlans = async (
  trx: Trx,
  drillSets: readonly DrillSet[],
  here: OnGround | null,
): Promise<RunPlan[]> => {
  const finds = await findsOf(trx, drillSets);
  const solved = await solvedWith(trx, drillSets);
  return drillSets.map((set): RunPlan => {
    const base = baseOf(set.work, finds, here);
    const { movement = null, choices = null } = base ?? {};
    const planned = set.work.kind === 'plan' ? finds.planOf(set.work.approachId) : undefined;
    const elsewhere =
      movement && here && planned && feetDiffer(movement, planned.choices.ground, here);
    return {
      drillSetId: set.id,
      name: base?.name ?? 'Drill set',
      movement: movement?.code ?? null,
      choices,
      cautions: movement && choices ? cautionsOf(movement, choices) : surfaceCautions(here),
      outlines: elsewhere
        ? []
        : solved
            .filter(
              (one) =>
                set.work.kind === 'plan' &&
                one.approach_id === set.work.approachId &&
                set.athleteIds.includes(one.athleteId),
            )
            .map(({ athleteId, own, other }) => ({ athleteId, own, other })),
    };
  });
};

/** More names than anybody looks through in the field. */
const MOST_LATECOMERS = 500;

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
  return (await athletes(trx, { ids: [...new Set(ids)] })).map((one) => {
    const { id, name, hand, takeoffFoot, shoeM, archived, restrictions } = one;
    const { estimated: _, ...body } = bodyOf(one);
    return { id, name, hand, takeoffFoot, shoeM, archived, restrictions, body };
  });
};

/** Those of the club who are not in a session: one of them may come late. */
const latecomersTo = async (
  trx: Trx,
  there: readonly RunAthlete[],
): Promise<RunBundle['latecomers']> => {
  const rows = await trx
    .selectFrom('athlete')
    .select(['id', 'name'])
    .where('archived_at', 'is', null)
    .orderBy('name')
    .limit(MOST_LATECOMERS)
    .execute();
  const known = new Set(there.map((one) => one.id));
  return rows.filter((row) => !known.has(row.id));
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
  const there = await runAthletes(trx, session);
  const bundle = {
    session: own,
    lanes: stood?.lanes ?? 1,
    plans,
    athletes: there,
    latecomers: await latecomersTo(trx, there),
    movements: await clubOwn(
      trx,
      plans.flatMap((plan) => plan.movement ?? []),
    ),
    cues: await runCues(trx, session),
    missed: await missedIn(trx, session, plans),
  };
  const stamp = createHash('sha256').update(JSON.stringify(bundle)).digest('base64url');
  return { stamp: stamp.slice(0, 22), ...bundle };
};
