import type { DrillSet } from '@gravek/contract/drillSet';
import { type Conditions, drillSetTime, type Pacer, type SetTime } from './sessionTime';
import { timesOver } from './spentTime';
import type { Base } from './work';

/** What a station comes to while groups go round. */
export type StationTime = SetTime & {
  /** reps of each combination and round that a group has time for, at most as many as are planned */
  repsThatFit: number;
};

/**
 * What the largest group does at a station in its minutes: the set as long as it fits, what is left it stands.
 *
 * @param groupSizes how many of each group do it
 * @returns null when there is nobody in it, or its figures are out of range
 */
export const stationTime = (
  set: DrillSet,
  base: Base | null,
  pacer: Pacer,
  conditions: Conditions,
  { minutes, groupSizes }: { minutes: number; groupSizes: readonly number[] },
): StationTime | null => {
  const size = Math.max(0, ...groupSizes);
  const group = { ...set, athleteIds: set.athleteIds.slice(0, size) };
  const timeOf = (reps: number): SetTime | null =>
    drillSetTime({ ...group, reps }, base, pacer, conditions);
  if (!timeOf(set.reps) || !(minutes > 0)) return null;
  const stationS = 60 * minutes;
  let fits = set.reps;
  while (fits > 1 && timeOf(fits)!.totalS > stationS) fits -= 1;
  const fitting = timeOf(fits)!;
  const share = Math.min(1, stationS / fitting.totalS);
  const spent = timesOver(fitting.spent, share);
  const people = groupSizes.reduce((sum, many) => sum + many, 0);
  return {
    ...fitting,
    totalS: stationS,
    reps: (fitting.reps / size) * people * share,
    spent: { ...spent, standS: spent.standS + stationS - share * fitting.totalS },
    repsThatFit: fits,
  };
};

/**
 * How long a group of a size needs for a set on the lanes of a station, seconds; 0 where that is not known.
 *
 * @param size of the largest group
 * @example
 * const jog = freshDrillSet('s', { kind: 'warm-up', name: 'Jog' }, ['ana', 'bo', 'kit']);
 * const set = { ...jog, restS: 0 };
 * stationNeedsS(set, null, undefined, {}, 2) < stationNeedsS(set, null, undefined, {}, 3) // true
 */
export const stationNeedsS = (
  set: DrillSet,
  base: Base | null,
  pacer: Pacer,
  conditions: Conditions,
  size: number,
): number =>
  drillSetTime({ ...set, athleteIds: set.athleteIds.slice(0, size) }, base, pacer, conditions)
    ?.totalS ?? 0;
