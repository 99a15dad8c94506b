import { isAnswer, standing } from '@gravek/core/session/repLog';
import { drillSetTime, type Pacer } from '../session/sessionTime';
import type { FieldRow, SetWork } from './log';

/** Less than a minute is nothing. */
const LEAST_S = 60;
const MOST_REPS = 20;

/** Time that a set has given back, and how many more reps each could do of the next with it. */
export type SpareTime = { seconds: number; moreReps: number };

/**
 * What is left of a set's minutes when it is done, from its first answer to its last, and what that is worth in the
 * next: the session still ends when it was planned to.
 *
 * @param log rows of the session
 * @param pacerOf a body of those who run a set
 * @param lanes of the ground
 * @returns null where it took as long as was planned, or nothing is known of it
 */
export const spareTime = (
  { set, base }: Pick<SetWork, 'set' | 'base'>,
  next: Pick<SetWork, 'set' | 'base'> | undefined,
  log: readonly FieldRow[],
  { pacerOf, lanes }: { pacerOf: (work: Pick<SetWork, 'set'>) => Pacer; lanes: number },
): SpareTime | null => {
  const timeOf = (work: Pick<SetWork, 'set' | 'base'>): number =>
    drillSetTime(work.set, work.base, pacerOf(work), { lanes })?.totalS ?? 0;
  const time = drillSetTime(set, base, pacerOf({ set }), { lanes });
  // The first rep was run before its answer.
  const planned = time ? time.totalS - time.cycleS : 0;
  const moments = standing(log)
    .filter((row) => row.drillSetId === set.id && isAnswer(row))
    .map((row) => Date.parse(row.at));
  // One answer says nothing of how long it took.
  if (moments.length < 2 || planned === 0 || set.station) return null;
  const tookS = (Math.max(...moments) - Math.min(...moments)) / 1000;
  const seconds = planned - tookS;
  if (seconds < LEAST_S) return null;
  if (!next || next.set.target === 'makes') return { seconds, moreReps: 0 };
  const nextS = timeOf(next);
  let moreReps = 0;
  while (
    moreReps < MOST_REPS &&
    timeOf({ ...next, set: { ...next.set, reps: next.set.reps + moreReps + 1 } }) - nextS <= seconds
  )
    moreReps += 1;
  return { seconds, moreReps: nextS > 0 ? moreReps : 0 };
};
