import { setDuration, type SetDuration } from '@gravek/core';
import type { ApproachSummary, DrillSet } from '@gravek/contract';
import { repsFor, type DatedRestriction } from './restrictions';

/** Getting on the mark before a rep and stepping aside after it, seconds. */
const ON_AND_OFF_S = 4;
const CHANGEOVER_S = 6;
const USUAL_RUN_S = 3;

/** Lanes where no ground says how many there are. */
const ONE_LANE = 1;

/**
 * How long a drill set takes, from the run times of its own plan.
 *
 * @param lanes in which as many run side by side, each lane in turn
 * @returns null when there is nobody in it, or its figures are out of range (told at their fields)
 */
export const drillSetTime = (
  set: DrillSet,
  plan: Pick<ApproachSummary, 'runS'> | undefined,
  lanes = ONE_LANE,
): SetDuration | null => {
  if (set.athleteIds.length === 0 || set.sets < 1 || set.reps < 1) return null;
  try {
    return setDuration({
      sets: set.sets,
      reps: set.reps * set.sides.length,
      repS: (plan?.runS ?? USUAL_RUN_S) / set.pace + ON_AND_OFF_S,
      restS: set.restS,
      setRestS: set.setRestS,
      groupSize: Math.ceil(set.athleteIds.length / lanes),
      changeoverS: CHANGEOVER_S,
    });
  } catch {
    return null;
  }
};

type Restricted = { id: string; restrictions: readonly DatedRestriction[] };

/**
 * Reps of a drill set, all athletes together; who is on reduced volume does fewer.
 *
 * @param on day of the session, yyyy-mm-dd
 */
export const repsOf = (set: DrillSet, people: readonly Restricted[], on: string): number =>
  set.athleteIds.reduce((sum, id) => {
    const restrictions = people.find((one) => one.id === id)?.restrictions ?? [];
    return sum + set.sets * set.sides.length * repsFor(set.reps, restrictions, on);
  }, 0);

/** Reps of a session, all drill sets together. */
export const sessionReps = (
  session: { date: string; drillSets: readonly DrillSet[] },
  people: readonly Restricted[],
): number => session.drillSets.reduce((sum, set) => sum + repsOf(set, people, session.date), 0);

/**
 * How long a session takes, drill sets one after the other.
 *
 * @param planOf the approach of a drill set
 * @returns seconds
 */
export const sessionTimeS = (
  session: { drillSets: readonly DrillSet[] },
  planOf: (approachId: string) => Pick<ApproachSummary, 'runS'> | undefined,
  lanes = ONE_LANE,
): number =>
  session.drillSets.reduce(
    (sum, set) => sum + (drillSetTime(set, planOf(set.approachId), lanes)?.totalS ?? 0),
    0,
  );
