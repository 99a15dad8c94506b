import { setDuration, type SetDuration } from '@gravek/core';
import type { ApproachSummary, DrillSet } from '@gravek/contract';
import { repsFor, type DatedRestriction } from './restrictions';

/** Getting on the mark before a rep and stepping aside after it, seconds. */
const ON_AND_OFF_S = 4;
const CHANGEOVER_S = 6;
const USUAL_RUN_S = 3;

type Restricted = { id: string; restrictions: readonly DatedRestriction[] };

/** Where and for whom a session is: lanes side by side, and who does fewer reps on its day. */
export type Conditions = {
  /** one where no ground says how many there are */
  lanes?: number | undefined;
  people?: readonly Restricted[];
  /** yyyy-mm-dd */
  on?: string;
};

/** How many each of a set does a side and set, on a day. */
const repsOfEach = (
  set: Pick<DrillSet, 'athleteIds' | 'reps'>,
  { people = [], on = '' }: Conditions,
): number[] =>
  set.athleteIds.map((id) =>
    repsFor(set.reps, people.find((one) => one.id === id)?.restrictions ?? [], on),
  );

/**
 * How long a drill set takes, from the run times of its own plan: in as many lanes as there are, each
 * lane in turn. Who does fewer reps makes the last rounds shorter.
 *
 * @returns null when there is nobody in it, or its figures are out of range (told at their fields)
 */
export const drillSetTime = (
  set: DrillSet,
  plan: Pick<ApproachSummary, 'runS'> | undefined,
  conditions: Conditions = {},
): SetDuration | null => {
  if (set.athleteIds.length === 0 || set.sets < 1 || set.reps < 1) return null;
  const each = repsOfEach(set, conditions);
  const levels = [...new Set(each)].sort((a, b) => a - b);
  try {
    // Rounds in which the same ones take part, together.
    const parts = levels.map((level, i) =>
      setDuration({
        sets: 1,
        reps: (level - (levels[i - 1] ?? 0)) * set.sides.length,
        repS: (plan?.runS ?? USUAL_RUN_S) / set.pace + ON_AND_OFF_S,
        restS: set.restS,
        setRestS: set.setRestS,
        groupSize: Math.ceil(each.filter((reps) => reps >= level).length / (conditions.lanes ?? 1)),
        changeoverS: CHANGEOVER_S,
      }),
    );
    const setS = parts.reduce((sum, part) => sum + part.setS, 0);
    return {
      cycleS: parts[0]!.cycleS,
      setS,
      totalS: set.sets * setS + (set.sets - 1) * set.setRestS,
      idleFraction: parts.reduce((sum, part) => sum + part.idleFraction * part.setS, 0) / setS,
    };
  } catch {
    return null;
  }
};

/**
 * Reps of a drill set, all athletes together; who is on reduced volume does fewer.
 *
 * @param on day of the session, yyyy-mm-dd
 */
export const repsOf = (set: DrillSet, people: readonly Restricted[], on: string): number =>
  set.sets *
  set.sides.length *
  repsOfEach(set, { people, on }).reduce((sum, reps) => sum + reps, 0);

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
  conditions: Conditions = {},
): number =>
  session.drillSets.reduce(
    (sum, set) => sum + (drillSetTime(set, planOf(set.approachId), conditions)?.totalS ?? 0),
    0,
  );
