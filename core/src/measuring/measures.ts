import { type Spread, spreadOf } from '../chance/spread';
import { studentQuantile } from '../chance/student';
import { number, whole } from '../check';
import { arcFromChord } from '../curve/solveCurve';
import { dayNumber } from '../days';
import { steadyRun, type SteadyRun } from './deviceCourse';
import { fitSprint, type SprintFit } from './sprint';

/** The tests that coaches do beside the measured run, each with what is written down. */
export type Reading =
  /** times over distances from a standing start */
  | { kind: 'sprint'; splits: readonly { distanceM: number; timeS: number }[] }
  /** straight tape between prints on a circle that was run at speed */
  | { kind: 'curve'; radiusM: number; chordsM: readonly number[] }
  /** contacts of one foot counted for a time */
  | { kind: 'cadence'; counts: readonly { count: number; seconds: number }[] }
  /** the same on an easy day, when the rate sags */
  | { kind: 'easy-cadence'; counts: readonly { count: number; seconds: number }[] }
  /** from a known speed to a stand */
  | { kind: 'stop'; speedMps: number; distancesM: readonly number[] }
  | { kind: 'reaction'; timesS: readonly number[] }
  | { kind: 'short-step'; lengthsM: readonly number[] }
  /** own steps to cross a lane */
  | { kind: 'lane'; laneM: number; steps: readonly number[] }
  /** where the foot came down at the board: beyond it positive, short of it negative */
  | { kind: 'run-through'; missesM: readonly number[] }
  /** where the take-off foot came down at the bar: inside the near upright, and out from the bar */
  | { kind: 'take-offs'; spots: readonly TakeOffSpot[] }
  /**
   * steps a minute of a steady run, minute by minute, and what it was to be, null without a target;
   * metres a second of the same minutes, where they are known
   */
  | ({ kind: 'steady'; minutesMps?: readonly (number | null)[] | null } & SteadyRun);

/** A take-off at a bar, metres. */
export type TakeOffSpot = { alongM: number; outM: number };

export type ReadingKind = Reading['kind'];
export const READING_KINDS = [
  'sprint',
  'curve',
  'cadence',
  'easy-cadence',
  'stop',
  'reaction',
  'short-step',
  'lane',
  'run-through',
  'take-offs',
  'steady',
] as const satisfies readonly ReadingKind[];

/**
 * Steps a minute from counts of one foot.
 *
 * @throws {RangeError} naming the count that cannot be
 * @example countedCadence([{ count: 28, seconds: 20 }, { count: 29, seconds: 20 }]).mean // 171
 * Source: cadence = 2 × count of one foot × 60 ÷ seconds
 */
export const countedCadence = (counts: readonly { count: number; seconds: number }[]): Spread => {
  whole('counts.length', counts.length, { min: 1, max: 20 });
  return spreadOf(
    counts.map(
      ({ count, seconds }, i) =>
        (120 * whole(`counts[${i}].count`, count, { min: 1, max: 400 })) /
        number(`counts[${i}].seconds`, seconds, { min: 3, max: 300 }),
    ),
  );
};

export type RunThroughs = {
  n: number;
  /** beyond the line positive, metres */
  meanM: number;
  /** 90 % interval of the mean; null from one run alone */
  interval: { lowM: number; highM: number } | null;
  sdM: number | null;
  /** how far to move the start mark away from the target; 0 while the evidence is within the noise */
  moveM: number;
};

/**
 * What run-throughs at the board say: the start mark moves by the mean miss, but only when its 90 %
 * interval leaves out zero; the spread sets the aim margin.
 *
 * @param missesM beyond the line positive, metres
 * @throws {RangeError} naming the miss that cannot be
 * @example runThroughs([-0.1, -0.14, -0.06, -0.12, -0.09, -0.11]).moveM // -0.103
 * Source: Student's interval of a mean
 */
export const runThroughs = (missesM: readonly number[]): RunThroughs => {
  whole('missesM.length', missesM.length, { min: 1, max: 60 });
  missesM.forEach((miss, i) => number(`missesM[${i}]`, miss, { min: -3, max: 3 }));
  const { mean: meanM, sd: sdM, n } = spreadOf(missesM);
  if (sdM === null) return { n, meanM, interval: null, sdM, moveM: 0 };
  const half = (studentQuantile(0.95, n - 1) * sdM) / Math.sqrt(n);
  const interval = { lowM: meanM - half, highM: meanM + half };
  const beyondNoise = interval.lowM > 0 || interval.highM < 0;
  return { n, meanM, interval, sdM, moveM: beyondNoise ? meanM : 0 };
};

/**
 * How take-offs at a bar lie to the planned spot, each way as run-throughs at a board: out from the bar and further
 * in along it positive.
 *
 * @example takeOffMisses([{ alongM: 0.6, outM: 0.8 }], { alongM: 0.6, outM: 0.9 }).out.meanM // -0.1: too near
 */
export const takeOffMisses = (
  spots: readonly TakeOffSpot[],
  planned: TakeOffSpot,
): { out: RunThroughs; along: RunThroughs } => ({
  out: runThroughs(spots.map(({ outM }) => outM - planned.outM)),
  along: runThroughs(spots.map(({ alongM }) => alongM - planned.alongM)),
});

export type ReadingResult =
  | ({ kind: 'sprint' } & SprintFit)
  | ({ kind: 'steady'; targetSpm: number | null; inBand: number | null } & Spread)
  | ({ kind: 'lane'; laneM: number } & Spread)
  | ({ kind: 'run-through' } & RunThroughs)
  /** out from the bar, and along it */
  | ({ kind: 'take-offs'; along: Spread } & Spread)
  | {
      [K in Exclude<ReadingKind, 'sprint' | 'run-through' | 'take-offs' | 'steady' | 'lane'>]: {
        kind: K;
      } & Spread;
    }[Exclude<ReadingKind, 'sprint' | 'run-through' | 'take-offs' | 'steady' | 'lane'>];

const several = (
  field: string,
  values: readonly number[],
  bounds: { min: number; max: number },
): readonly number[] => {
  whole(`${field}.length`, values.length, { min: 1, max: 60 });
  values.forEach((value, i) => number(`${field}[${i}]`, value, bounds));
  return values;
};

/**
 * What a reading comes to: metres, seconds, metres per second squared for the stop, steps a minute for
 * the cadence, steps for the lane.
 *
 * @throws {RangeError} naming the figure that cannot be
 * @example readingResult({ kind: 'reaction', timesS: [0.22, 0.24, 0.23] }).mean // 0.23
 * Source: stop a = v²/2s; curve arc from chord; others as their own functions
 */
export const readingResult = (reading: Reading): ReadingResult => {
  switch (reading.kind) {
    case 'sprint':
      return { kind: 'sprint', ...fitSprint(reading.splits) };
    case 'run-through':
      return { kind: 'run-through', ...runThroughs(reading.missesM) };
    case 'take-offs': {
      const { spots } = reading;
      whole('spots.length', spots.length, { min: 1, max: 60 });
      spots.forEach(({ alongM, outM }, i) => {
        number(`spots[${i}].alongM`, alongM, { min: -3, max: 6 });
        number(`spots[${i}].outM`, outM, { min: 0, max: 3 });
      });
      return {
        kind: 'take-offs',
        ...spreadOf(spots.map(({ outM }) => outM)),
        along: spreadOf(spots.map(({ alongM }) => alongM)),
      };
    }
    case 'curve': {
      const { radiusM } = reading;
      number('radiusM', radiusM, { min: 2, max: 40 });
      several('chordsM', reading.chordsM, { min: 0.3, max: 4 });
      return {
        kind: 'curve',
        ...spreadOf(reading.chordsM.map((chordM) => arcFromChord(chordM, radiusM))),
      };
    }
    case 'cadence':
    case 'easy-cadence':
      return { kind: reading.kind, ...countedCadence(reading.counts) };
    case 'stop': {
      const speed = number('speedMps', reading.speedMps, { min: 1, max: 12 });
      several('distancesM', reading.distancesM, { min: 0.3, max: 40 });
      return {
        kind: 'stop',
        ...spreadOf(reading.distancesM.map((distanceM) => speed ** 2 / (2 * distanceM))),
      };
    }
    case 'reaction':
      several('timesS', reading.timesS, { min: 0.08, max: 2 });
      return { kind: 'reaction', ...spreadOf(reading.timesS) };
    case 'short-step':
      several('lengthsM', reading.lengthsM, { min: 0.03, max: 1.5 });
      return { kind: 'short-step', ...spreadOf(reading.lengthsM) };
    case 'lane':
      number('laneM', reading.laneM, { min: 0.5, max: 20 });
      several('steps', reading.steps, { min: 1, max: 60 });
      return { kind: 'lane', laneM: reading.laneM, ...spreadOf(reading.steps) };
    case 'steady': {
      const { targetSpm } = reading;
      if (targetSpm !== null) number('targetSpm', targetSpm, { min: 60, max: 300 });
      const minutes = whole('minutesSpm.length', reading.minutesSpm.length, { min: 1, max: 180 });
      if (reading.minutesMps) {
        whole('minutesMps.length', reading.minutesMps.length, { min: minutes, max: minutes });
        reading.minutesMps.forEach((mps, i) => {
          if (mps !== null) number(`minutesMps[${i}]`, mps, { min: 0, max: 12.5 });
        });
      }
      return { kind: 'steady', targetSpm, ...steadyRun(reading) };
    }
  }
};

export const SOURCE_TRUST = { device: 3, other: 2, self: 1 } as const;
export type ReadingSource = keyof typeof SOURCE_TRUST;

/** Readings older than this before the newest one no longer speak for the athlete. */
const READ_WITHIN_DAYS = 120;

/**
 * The reading of a kind that speaks for an athlete: of those of the four months up to the newest, the
 * most trusted source (a device before another person before the runner), of these the newest.
 *
 * @example
 * const older = { takenOn: '2031-03-01', source: 'device' };
 * currentReading([{ takenOn: '2031-04-01', source: 'self' }, older]) === older // true
 */
export const currentReading = <R extends { takenOn: string; source: ReadingSource }>(
  readings: readonly R[],
): R | null => {
  const days = readings.map((reading, i) => dayNumber(`readings[${i}].takenOn`, reading.takenOn));
  const newest = Math.max(...days);
  let best: { reading: R; day: number } | null = null;
  readings.forEach((reading, i) => {
    const day = days[i]!;
    if (newest - day > READ_WITHIN_DAYS) return;
    const trust = SOURCE_TRUST[reading.source] - (best ? SOURCE_TRUST[best.reading.source] : 0);
    if (!best || trust > 0 || (trust === 0 && day > best.day)) best = { reading, day };
  });
  return best === null ? null : (best as { reading: R }).reading;
};

/** A reading as it was taken. */
export type DatedReading = { takenOn: string; source: ReadingSource; reading: Reading };

export type CurrentFigures = {
  [K in ReadingKind]?: Extract<ReadingResult, { kind: K }> &
    Pick<DatedReading, 'takenOn' | 'source'>;
};

/**
 * What is known of an athlete beside their steps, kind by kind.
 *
 * @example
 * const reading = { kind: 'reaction', timesS: [0.22, 0.24] };
 * currentFigures([{ takenOn: '2031-04-01', source: 'device', reading }]).reaction.mean // 0.23
 */
export const currentFigures = (readings: readonly DatedReading[]): CurrentFigures => {
  const figures: Record<string, unknown> = {};
  for (const kind of READING_KINDS) {
    const current = currentReading(readings.filter((reading) => reading.reading.kind === kind));
    if (!current) continue;
    const { takenOn, source, reading } = current;
    figures[kind] = { ...readingResult(reading), takenOn, source };
  }
  return figures;
};
