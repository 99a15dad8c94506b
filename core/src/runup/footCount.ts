import { number } from '../check';

/** What a device says at a moment, as it was sent. */
export type CountReading = {
  /** steps a minute, of one foot or of both */
  cadence: number;
  /** left out or null where it does not say */
  speedMps?: number | null | undefined;
  /** the device's own word; left out or null where it has none */
  running?: boolean | null | undefined;
};

/** Under these a middle count is of one foot: running, walking, and where nothing is known but counts. */
const RUNNING_UNDER = 120;
const WALKING_UNDER = 75;
const UNKNOWN_UNDER = 100;
/** From here on somebody runs. */
const RUNS_FROM_MPS = 2.2;
const RUNS_FROM_SPM = 140;

const median = (values: readonly number[]): number | null => {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
};

const isSaid = <T>(value: T | null | undefined): value is T =>
  value !== null && value !== undefined;

/** Whether somebody runs, as far as device or speed say it; null where they do not. */
const runsBySay = ({ running, speedMps }: CountReading): boolean | null =>
  isSaid(running) ? running : isSaid(speedMps) ? speedMps >= RUNS_FROM_MPS : null;

/**
 * Whether a device counts one foot or both, decided once for a recording or a device, and which of its
 * readings are of running.
 *
 * @param readings in the order of time; a count of 0 is somebody who stands
 * @returns `factor` 2 where it counts one foot; `spm` both feet; `running` reading by reading
 * @throws {RangeError} naming the reading that is no number from 0
 * @example
 * footCount({ readings: [{ cadence: 82, speedMps: 3 }, { cadence: 84, speedMps: 3.1 }] }).spm // [164, 168]
 * footCount({ readings: [{ cadence: 115, speedMps: 1.6 }, { cadence: 168, speedMps: 3.1 }] }).factor // 1
 * Source: domain definitions, section 5.
 */
export const footCount = ({
  readings,
}: {
  readings: readonly CountReading[];
}): { factor: 1 | 2; spm: number[]; running: boolean[] } => {
  readings.forEach(({ cadence }, i) => number(`readings[${i}].cadence`, cadence, { min: 0 }));
  const moving = readings.filter(({ cadence }) => cadence > 0);
  const counts = (list: readonly CountReading[]): number[] => list.map(({ cadence }) => cadence);
  const running = median(counts(moving.filter((reading) => runsBySay(reading) === true)));
  const walking = median(counts(moving.filter((reading) => runsBySay(reading) === false)));
  const all = median(counts(moving));
  const isOneFoot =
    running !== null
      ? running < RUNNING_UNDER
      : walking !== null
        ? walking < WALKING_UNDER
        : all !== null && all < UNKNOWN_UNDER;
  const factor = isOneFoot ? 2 : 1;
  const spm = readings.map(({ cadence }) => cadence * factor);
  return {
    factor,
    spm,
    running: readings.map((reading, i) => runsBySay(reading) ?? spm[i]! >= RUNS_FROM_SPM),
  };
};
