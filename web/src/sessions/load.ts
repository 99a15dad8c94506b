import { setDuration, type SetDuration } from '@gravek/core';
import type { Approach, DrillSet, Session } from '@gravek/contract';
import { outlineOf } from '@gravek/library';

/** Getting on the mark before a rep and stepping aside after it, seconds. */
const ON_AND_OFF_S = 4;
const CHANGEOVER_S = 6;
const USUAL_RUN_S = 3;

/** How long a drill set takes in one lane, from the run times of its own plan. */
export const drillSetTime = (set: DrillSet, approach: Approach | undefined): SetDuration | null => {
  if (set.athleteIds.length === 0 || set.sets < 1 || set.reps < 1) return null;
  const runs = (approach?.solved ?? []).flatMap(
    ({ result }) => outlineOf(result)?.totalTimeS ?? [],
  );
  const runS = runs.length > 0 ? runs.reduce((sum, s) => sum + s, 0) / runs.length : USUAL_RUN_S;
  try {
    return setDuration({
      sets: set.sets,
      reps: set.reps * set.sides.length,
      repS: runS + ON_AND_OFF_S,
      restS: set.restS,
      setRestS: set.setRestS,
      groupSize: set.athleteIds.length,
      changeoverS: CHANGEOVER_S,
    });
  } catch {
    // Figures out of range are pointed out at their fields.
    return null;
  }
};

export const repsOf = (set: DrillSet): number =>
  set.sets * set.reps * set.sides.length * set.athleteIds.length;

export const sessionReps = (session: Pick<Session, 'drillSets'>): number =>
  session.drillSets.reduce((sum, set) => sum + repsOf(set), 0);

export const minutes = (seconds: number): string => `${Math.max(1, Math.round(seconds / 60))} min`;
