import { circuitS, type CircuitPlan } from '@gravek/core/session/circuit';
import type { Circuit } from '@gravek/contract/circuit';
import type { DrillSet } from '@gravek/contract/drillSet';
import { type Conditions, drillSetTime, type Pacer } from './sessionTime';
import type { Base } from './work';

type Grouped = { drillSets: readonly DrillSet[]; circuit?: Circuit | undefined };

/**
 * The stations that the groups of a session go round, and by which clock; null where nobody goes round.
 *
 * @example stationsOf({ drillSets: [] }) // null
 */
export const stationsOf = ({
  drillSets,
  circuit,
}: Grouped): { sets: DrillSet[]; plan: CircuitPlan } | null => {
  const sets = drillSets.filter((set) => set.station);
  if (!circuit || sets.length === 0) return null;
  const { minutes, changeS } = circuit;
  return { sets, plan: { stations: sets.length, minutes, changeS } };
};

/**
 * Lanes of a ground that each station has.
 *
 * @example lanesOfStation({ drillSets: [] }, 3) // 3: nobody goes round
 */
export const lanesOfStation = (session: Grouped, lanes: number): number =>
  Math.max(1, Math.floor(lanes / (stationsOf(session)?.sets.length ?? 1)));

/**
 * How long groups need to go round; 0 where nobody goes round, or a figure is half typed.
 *
 * @example goingRoundS({ drillSets: [] }) // 0
 */
export const goingRoundS = (session: Grouped): number => {
  try {
    const stations = stationsOf(session);
    return stations ? circuitS(stations.plan) : 0;
  } catch {
    return 0;
  }
};

/** A drill set on the time axis of its session. */
export type Placed = { startS: number; endS: number };

/**
 * When each set of a session begins and ends: one after the other, but for those beside the one before. Stations
 * that groups go round are all there from the first group to the last.
 *
 * @param circuitLengthS how long going round takes; 0 where nobody does
 * @example
 * placed([{ beside: false }, { beside: true }], [60, 90]) // [{ startS: 0, endS: 60 }, { startS: 0, endS: 90 }]
 */
export const placed = (
  sets: readonly Pick<DrillSet, 'beside' | 'station'>[],
  seconds: readonly number[],
  circuitLengthS = 0,
): Placed[] => {
  let startS = 0;
  let endS = 0;
  let stations: Placed | null = null;
  return sets.map((set, i) => {
    const isStation = circuitLengthS > 0 && set.station === true;
    if (isStation && stations) return stations;
    if (i === 0 || !set.beside) startS = endS;
    const at = { startS, endS: startS + (isStation ? circuitLengthS : (seconds[i] ?? 0)) };
    endS = Math.max(endS, at.endS);
    if (isStation) stations = at;
    return at;
  });
};

/**
 * Athletes who would have to be in two places at once: the sets that they are in, by athlete.
 *
 * @example
 * twoPlaces([{ athleteIds: ['ana'] }, { athleteIds: ['ana'] }], [{ startS: 0, endS: 60 }, { startS: 30, endS: 90 }]).get(1)
 * // ['ana']
 */
export const twoPlaces = (
  sets: readonly Pick<DrillSet, 'athleteIds' | 'station'>[],
  at: readonly Placed[],
): Map<number, string[]> => {
  const found = new Map<number, string[]>();
  sets.forEach((set, i) => {
    const also = sets.slice(0, i).flatMap((other, j) =>
      // At stations the groups change.
      !(set.station && other.station) && at[j]!.startS < at[i]!.endS && at[i]!.startS < at[j]!.endS
        ? other.athleteIds
        : [],
    );
    const both = set.athleteIds.filter((id) => also.includes(id));
    if (both.length > 0) found.set(i, both);
  });
  return found;
};

/** How long a session takes, seconds. */
export const sessionTimeS = (
  session: Grouped,
  baseOfSet: (set: DrillSet) => Base | null,
  pacerOf: (set: DrillSet) => Pacer,
  conditions: Conditions = {},
): number => {
  const { drillSets } = session;
  const seconds = drillSets.map(
    (set) => drillSetTime(set, baseOfSet(set), pacerOf(set), conditions)?.totalS ?? 0,
  );
  return Math.max(0, ...placed(drillSets, seconds, goingRoundS(session)).map((set) => set.endS));
};
