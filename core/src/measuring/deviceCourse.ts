import { type Spread, spreadOf } from '../chance/spread';
import { number } from '../check';

/** What a device says at a moment of a run. */
export type DeviceReading = {
  /** since the run began, seconds */
  atS: number;
  /** both feet */
  cadenceSpm: number;
  /** null where it does not say */
  speedMps: number | null;
  /** false where somebody walks or stands, as far as that is known */
  running?: boolean | undefined;
};

/** How a run went over time, and what was not taken of what the device sent. */
export type Course = {
  readings: DeviceReading[];
  /** sent twice */
  doubled: number;
  /** came after later ones */
  late: number;
  /** nobody runs so: other units, or a fault of the device */
  impossible: number;
  /** times without a reading, while the device was lost or silent */
  gaps: { fromS: number; toS: number }[];
  /** a silence longer than this is one, by how often the device speaks, seconds */
  silentS: number;
};

/** Cadence and speed that a person can have. */
const MOST_SPM = 400;
const MOST_MPS = 12.5;
/** A step of more than this was not run: kilometres an hour, or feet, taken for metres a second. */
const MOST_STEP_M = 3.2;
/** Most devices speak once a second; a silence longer than this is one, or than some of their own intervals. */
const SILENT_S = 3;
const SILENT_INTERVALS = 3;
const LEAST_INTERVALS = 5;
const MOST_SILENT_S = 20;

/** So long a device of these readings may be silent while somebody runs on, seconds. */
const silenceOf = (sent: readonly DeviceReading[]): number => {
  const apart = sent
    .slice(1)
    .map(({ atS }, i) => atS - sent[i]!.atS)
    .filter((forS) => forS > 1e-6)
    .sort((a, b) => a - b);
  if (apart.length < LEAST_INTERVALS) return SILENT_S;
  const usual = apart[Math.floor(apart.length / 2)]!;
  return Math.min(MOST_SILENT_S, Math.max(SILENT_S, SILENT_INTERVALS * usual));
};

const isPossible = ({ cadenceSpm, speedMps }: DeviceReading): boolean =>
  cadenceSpm >= 0 &&
  cadenceSpm <= MOST_SPM &&
  (speedMps === null ||
    (speedMps >= 0 &&
      speedMps <= MOST_MPS &&
      (cadenceSpm === 0 || (60 * speedMps) / cadenceSpm <= MOST_STEP_M)));

/**
 * Readings as they came in, made a course: what came twice, too late or cannot be is left out and
 * counted.
 *
 * @param sent in the order in which they came
 * @throws {RangeError} naming the reading that is no number
 * @example
 * const sent = [0, 30, 60].map((atS) => ({ atS, cadenceSpm: 170, speedMps: 3 }));
 * courseOf(sent).gaps // [{ fromS: 0, toS: 30 }, { fromS: 30, toS: 60 }]
 */
export const courseOf = (sent: readonly DeviceReading[]): Course => {
  const silentS = silenceOf(sent);
  const course: Course = { readings: [], doubled: 0, late: 0, impossible: 0, gaps: [], silentS };
  sent.forEach((reading, i) => {
    number(`readings[${i}].atS`, reading.atS);
    number(`readings[${i}].cadenceSpm`, reading.cadenceSpm);
    if (reading.speedMps !== null) number(`readings[${i}].speedMps`, reading.speedMps);
    const last = course.readings.at(-1);
    if (!isPossible(reading)) course.impossible += 1;
    else if (last && Math.abs(reading.atS - last.atS) < 1e-6) course.doubled += 1;
    else if (last && reading.atS < last.atS) course.late += 1;
    else {
      if (last && reading.atS - last.atS > silentS)
        course.gaps.push({ fromS: last.atS, toS: reading.atS });
      course.readings.push(reading);
    }
  });
  return course;
};

/** A minute counts when at least so much of it was measured. */
const LEAST_OF_MINUTE_S = 20;

/** A minute of a run: steps a minute, and speed where it is known. */
export type Minute = {
  /** its place in the run, 0 first */
  at: number;
  cadenceSpm: number;
  speedMps: number | null;
};

/**
 * A run minute by minute; what was walked, and minutes of which little was measured or run, are left out.
 *
 * @example
 * const readings = Array.from({ length: 61 }, (_, atS) => ({ atS, cadenceSpm: 170, speedMps: 3 }));
 * minutesOf({ readings }).map(({ cadenceSpm }) => cadenceSpm) // [170]
 */
export const minutesOf = ({
  readings,
  silentS = SILENT_S,
}: Pick<Course, 'readings'> & { silentS?: number }): Minute[] => {
  const minutes = new Map<number, { steps: number; forS: number; wayM: number; knownS: number }>();
  readings.slice(1).forEach((reading, i) => {
    const before = readings[i]!;
    const forS = reading.atS - before.atS;
    if (forS > silentS || reading.cadenceSpm === 0 || reading.running === false) return;
    const at = Math.floor(before.atS / 60);
    const minute = minutes.get(at) ?? { steps: 0, forS: 0, wayM: 0, knownS: 0 };
    const hasSpeed = reading.speedMps !== null;
    minutes.set(at, {
      steps: minute.steps + reading.cadenceSpm * forS,
      forS: minute.forS + forS,
      wayM: minute.wayM + (reading.speedMps ?? 0) * forS,
      knownS: minute.knownS + (hasSpeed ? forS : 0),
    });
  });
  return [...minutes]
    .sort(([a], [b]) => a - b)
    .filter(([, { forS }]) => forS >= LEAST_OF_MINUTE_S)
    .map(([at, { steps, forS, wayM, knownS }]) => ({
      at,
      cadenceSpm: steps / forS,
      speedMps: knownS >= LEAST_OF_MINUTE_S ? wayM / knownS : null,
    }));
};

/**
 * The runs of a course: standing, silence and walking before, between and after them left out.
 *
 * @param fromSpm under this nobody runs
 * @example
 * runsIn([0, 1, 2, 60, 61].map((atS) => ({ atS, cadenceSpm: 170, speedMps: null })), 140).length // 2
 */
export const runsIn = <R extends DeviceReading>(readings: readonly R[], fromSpm: number): R[][] => {
  const runs: R[][] = [];
  const silentS = silenceOf(readings);
  readings.forEach((reading) => {
    if (reading.cadenceSpm === 0 || reading.cadenceSpm < fromSpm) return;
    if (reading.running === false) return;
    const last = runs.at(-1);
    if (last && reading.atS - last.at(-1)!.atS <= silentS) last.push(reading);
    else runs.push([reading]);
  });
  return runs;
};

/** So near the target counts as in its band: two or three beats, which is how exactly a beat is kept. */
export const BAND = 0.03;

/**
 * @example isInBand(174, 180) // false
 */
export const isInBand = (cadenceSpm: number, targetSpm: number): boolean =>
  Math.abs(cadenceSpm - targetSpm) <= BAND * targetSpm + 1e-9;

/**
 * The beat that a runner is given on the way to a target: the target itself once it is in reach, else a
 * band's width towards it, since nobody changes step by more at once.
 *
 * @param cadenceSpm as it is run; 0 while nothing is
 * @example beatFor(160, 180) // 164.8
 */
export const beatFor = (cadenceSpm: number, targetSpm: number): number =>
  cadenceSpm === 0 || isInBand(cadenceSpm, targetSpm)
    ? targetSpm
    : cadenceSpm * (cadenceSpm < targetSpm ? 1 + BAND : 1 - BAND);

/** A run at a steady cadence; null where no target was set for it. */
export type SteadyRun = { targetSpm: number | null; minutesSpm: readonly number[] };

/** A minute that somebody ran at a steady cadence lies between, steps a minute. */
export const STEADY_SPM = { min: 60, max: 300 };

/**
 * Mean of a steady run, and how many of its minutes lay in the band of its target.
 *
 * @example
 * steadyRun({ targetSpm: 176, minutesSpm: [174, 176, 178] }) // { mean: 176, sd: 2, n: 3, inBand: 3 }
 */
export const steadyRun = ({
  targetSpm,
  minutesSpm,
}: SteadyRun): Spread & { inBand: number | null } => {
  minutesSpm.forEach((spm, i) => number(`minutesSpm[${i}]`, spm, STEADY_SPM));
  if (minutesSpm.length === 0) throw new RangeError('minutesSpm must hold a minute at least');
  return {
    ...spreadOf(minutesSpm),
    inBand: targetSpm === null ? null : minutesSpm.filter((spm) => isInBand(spm, targetSpm)).length,
  };
};

export type RampStep = 'too-few' | 'stay' | 'go-on';

const LEAST_MINUTES = 10;
const HELD = 0.8;
const RUNS = 2;

/**
 * Whether the ramp of a raised cadence may go on: when the last two runs at its target, of ten minutes or
 * more each, lay in the band for four fifths of their minutes.
 *
 * @param runs with a target, in the order of days
 * @example rampStep([{ targetSpm: 176, minutesSpm: Array(12).fill(176) }]) // 'too-few'
 */
export const rampStep = (runs: readonly SteadyRun[]): RampStep => {
  const target = runs.findLast((run) => run.targetSpm !== null)?.targetSpm ?? null;
  const steadyRuns = runs.filter(
    (run) => run.targetSpm === target && run.minutesSpm.length >= LEAST_MINUTES,
  );
  if (target === null || steadyRuns.length < RUNS) return 'too-few';
  return steadyRuns
    .slice(-RUNS)
    .every((run) => steadyRun(run).inBand! >= HELD * run.minutesSpm.length - 1e-9)
    ? 'go-on'
    : 'stay';
};
