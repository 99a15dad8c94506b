import { createHash } from 'node:crypto';
import { bodyOf } from '@gravek/core/layout/body';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { RunAthlete, RunBundle, RunCue, RunPlan } from '@gravek/contract/run';
import type { Session } from '@gravek/contract/session';
import { feetDiffer, surfaceCautions, takenFrom } from '@gravek/library/planning/onGround';
import { cautionsOf } from '@gravek/library/session/restrictions';
import { baseOf, type Finds } from '@gravek/library/session/work';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { cuesOf } from './cues';
import { missedIn } from './missed';
import { sessionToRun } from './queries';
import { findsOf, type PlansFound } from '../approaches/finds';

/** The work of each drill set, set out on the ground of the session. */
const runPlans = (
  drillSets: readonly DrillSet[],
  here: OnGround | null,
  finds: PlansFound,
): RunPlan[] =>
  drillSets.map((set): RunPlan => {
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
      // What is run otherwise than it was solved is solved on the phone.
      outlines:
        elsewhere || set.work.kind !== 'plan'
          ? []
          : finds
              .solvedFor(set.work.approachId)
              .filter(({ athleteId }) => set.athleteIds.includes(athleteId)),
    };
  });

/** Athletes of a session, with those who have reps in it and were taken out of its drill sets since. */
const runAthletes = async (trx: Trx, session: Session): Promise<RunAthlete[]> => {
  const ids = session.drillSets.flatMap((set) => set.athleteIds);
  const people = await athletes(trx, { ids: [...new Set(ids)], withRepsIn: session.id });
  return people.map((person) => {
    const { id, name, hand, takeoffFoot, shoeM, archived, restrictions } = person;
    const { estimated: _, ...body } = bodyOf(person);
    return { id, name, hand, takeoffFoot, shoeM, archived, restrictions, body };
  });
};

const runCues = async (
  trx: Trx,
  session: Session,
  cueParts: Parameters<typeof cuesOf>[2],
): Promise<RunCue[]> =>
  (await cuesOf(trx, session, cueParts)).map(({ athleteId, movement, reps, faults, cue }) => ({
    ...{ athleteId, movement, reps, fault: cue?.fault ?? null },
    likely: faults.map((fault) => fault.code),
  }));

/** The club's movements among those of some plans; the others a phone has already. */
const clubOwn = (plans: readonly RunPlan[], { movementOf }: Finds): Movement[] => {
  const codes = new Set(plans.flatMap(({ movement }) => movement ?? []));
  // The code of a club's movement is its id.
  return [...codes]
    .filter((code) => /^[0-9a-f-]{36}$/.test(code))
    .flatMap((code) => movementOf(code) ?? []);
};

/** All that the field screen needs of a session besides its log. */
export const runBundle = async (trx: Trx, sessionId: string): Promise<RunBundle | undefined> => {
  const found = await sessionToRun(trx, sessionId);
  if (!found) return undefined;
  const { session, ground: stood, names } = found;
  const { logged: _logged, ...document } = session;
  const finds = await findsOf(trx, document.drillSets);
  const plans = runPlans(document.drillSets, stood ? takenFrom(stood) : null, finds);
  const people = await runAthletes(trx, session);
  const peopleIds = new Set(people.map(({ id }) => id));
  const present = new Set(people.flatMap(({ id, archived }) => (archived ? [] : [id])));
  const bundle = {
    session: document,
    lanes: stood?.lanes ?? 1,
    plans,
    athletes: people,
    // One of them may come late.
    latecomers: names.filter(({ id }) => !peopleIds.has(id)),
    movements: clubOwn(plans, finds),
    cues: await runCues(trx, session, { finds, present }),
    missed: await missedIn(trx, session, plans, finds),
  };
  const stamp = createHash('sha256').update(JSON.stringify(bundle)).digest('base64url');
  return { stamp: stamp.slice(0, 22), ...bundle };
};
