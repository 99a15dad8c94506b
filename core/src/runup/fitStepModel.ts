import { number } from '../check';
import { buildUp, RATE_MAX, RATE_MIN, STEP_BOUNDS, type StepModel, type Trial } from './stepModel';

type Point = { k: number; value: number };
type Curve = { first: number; top: number; rate: number; squares: number };

const rateOf = (logRate: number): number =>
  Math.min(RATE_MAX, Math.max(RATE_MIN, Math.exp(logRate)));

/** What is left of the way to the top at each point, e^(−(k−1)/rate). */
const leftToTop = (points: readonly Point[], rate: number): number[] =>
  points.map(({ k }) => Math.exp(-(k - 1) / rate));

/** Sums of the normal equations for value = first·e + top·(1 − e), linear in first and top. */
type Sums = { ee: number; eo: number; oo: number; ey: number; oy: number; yy: number };

const sumsOf = (points: readonly Point[], left: readonly number[]): Sums => {
  const sums = { ee: 0, eo: 0, oo: 0, ey: 0, oy: 0, yy: 0 };
  for (let i = 0; i < points.length; i += 1) {
    const e = left[i]!;
    const o = 1 - e;
    const y = points[i]!.value;
    sums.ee += e * e;
    sums.eo += e * o;
    sums.oo += o * o;
    sums.ey += e * y;
    sums.oy += o * y;
    sums.yy += y * y;
  }
  return sums;
};

const without = (sums: Sums, e: number, y: number): Sums => {
  const o = 1 - e;
  return {
    ee: sums.ee - e * e,
    eo: sums.eo - e * o,
    oo: sums.oo - o * o,
    ey: sums.ey - e * y,
    oy: sums.oy - o * y,
    yy: sums.yy - y * y,
  };
};

const solveSums = ({ ee, eo, oo, ey, oy }: Sums): { first: number; top: number } => {
  const det = ee * oo - eo * eo;
  return { first: (ey * oo - oy * eo) / det, top: (oy * ee - ey * eo) / det };
};

/** Best first and top for a given rate (its logarithm, kept within bounds). */
const fitAtRate = (points: readonly Point[], logRate: number): Curve => {
  const rate = rateOf(logRate);
  const left = leftToTop(points, rate);
  const { first, top } = solveSums(sumsOf(points, left));
  let squares = 0;
  for (let i = 0; i < points.length; i += 1) {
    squares += (points[i]!.value - first * left[i]! - top * (1 - left[i]!)) ** 2;
  }
  return { first, top, rate, squares };
};

const GOLDEN = (Math.sqrt(5) - 1) / 2;
const GRID = 32;
const LOG_LOW = Math.log(RATE_MIN);
const LOG_HIGH = Math.log(RATE_MAX);

/** Golden-section search for the best rate between two log rates. */
const narrow = (points: readonly Point[], from: number, to: number, rounds: number): Curve => {
  const at = (logRate: number): Curve => fitAtRate(points, logRate);
  let a = from;
  let b = to;
  let c = b - GOLDEN * (b - a);
  let d = a + GOLDEN * (b - a);
  let fitC = at(c);
  let fitD = at(d);
  for (let i = 0; i < rounds; i += 1) {
    if (fitC.squares <= fitD.squares) {
      b = d;
      d = c;
      fitD = fitC;
      c = b - GOLDEN * (b - a);
      fitC = at(c);
    } else {
      a = c;
      c = d;
      fitC = fitD;
      d = a + GOLDEN * (b - a);
      fitD = at(d);
    }
  }
  return [at(a), fitC, fitD, at(b)].reduce((x, y) => (y.squares < x.squares ? y : x));
};

/**
 * Least squares over first, top and rate. For a given rate the other two follow in closed form, so
 * one dimension is searched: a grid on log rate, then golden section round its best point.
 */
const fitCurve = (points: readonly Point[]): Curve => {
  const step = (LOG_HIGH - LOG_LOW) / GRID;
  let best = 0;
  let bestSquares = Infinity;
  for (let i = 0; i <= GRID; i += 1) {
    const { squares } = fitAtRate(points, LOG_LOW + i * step);
    if (squares < bestSquares) {
      best = i;
      bestSquares = squares;
    }
  }
  const from = LOG_LOW + Math.max(0, best - 1) * step;
  const to = LOG_LOW + Math.min(GRID, best + 1) * step;
  return narrow(points, from, to, 40);
};

export type FittedStep = {
  trial: number;
  /** step number within its trial, from 1 */
  k: number;
  lengthM: number;
  /** null where the step was not timed */
  cadenceSpm: number | null;
  /** measured minus fitted */
  lengthErrorM: number;
  cadenceErrorSpm: number | null;
  /** length or cadence far from the curve compared with the other steps: a slip, or a stumble */
  oddLength: boolean;
  oddCadence: boolean;
};

export type StepModelFit = StepModel & {
  /** root mean square of measured minus fitted; of the cadence null where it is the estimate's */
  lengthRmsM: number;
  cadenceRmsSpm: number | null;
  /** whether the cadence is fitted to times; else it is the estimate's */
  timed: boolean;
  steps: FittedStep[];
  /** the steps were still growing at the end of the trial, so the top is an extrapolation */
  stillBuilding: boolean;
};

const OUTLIER_SPREADS = 3.5;
/** Below these, a residual is within what a tape or a stopwatch can tell. */
const LENGTH_FLOOR = 0.03;
const CADENCE_FLOOR = 0.04;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const mid = Math.floor(sorted.length / 2);
  return sorted.length % 2 ? sorted[mid]! : (sorted[mid - 1]! + sorted[mid]!) / 2;
};

const LEFT_OUT_GRID = 16;

/**
 * Residual of each point from the curve fitted to all the others: a step that bends the whole curve
 * towards itself hides in plain residuals. The rate is sought on a grid near that of the full fit;
 * leaving a point out takes its share from the sums.
 */
const leftOutErrors = (points: readonly Point[], rate: number): number[] => {
  const best = points.map(() => ({ squares: Infinity, error: 0 }));
  for (let g = 0; g <= LEFT_OUT_GRID; g += 1) {
    const left = leftToTop(points, rateOf(Math.log(rate) - 1 + (2 * g) / LEFT_OUT_GRID));
    const all = sumsOf(points, left);
    points.forEach(({ value }, i) => {
      const sums = without(all, left[i]!, value);
      const { first, top } = solveSums(sums);
      const squares = sums.yy - first * sums.ey - top * sums.oy;
      if (squares < best[i]!.squares) {
        best[i] = { squares, error: value - first * left[i]! - top * (1 - left[i]!) };
      }
    });
  }
  return best.map(({ error }) => error);
};

/** Residuals of points from the best curve near a rate. */
const residuals = (points: readonly Point[], rate: number): number[] => {
  const curve = narrow(points, Math.log(rate) - 1, Math.log(rate) + 1, 16);
  return points.map(({ k, value }) => value - buildUp(curve.first, curve.top, curve.rate, k));
};

/**
 * Points far from what the others say, worst first: one is an outlier when it is far outside the
 * spread of the others about their own curve (median absolute deviation, scaled to sigma); then the
 * rest is looked at again. At most a quarter of the points.
 *
 * A point is measured by its studentised residual, √(e·e₋), with e from the curve through all and e₋
 * from the curve through the others: the first step alone says where the curve begins, so that e₋ is
 * large there without any slip.
 *
 * @param floor part of a value that a tape or a stopwatch cannot tell
 * Source: deletion diagnostics of regression, e/√(1−h) with leverage h = 1 − e/e₋
 */
const outliers = (points: readonly Point[], rate: number, floor: number): Set<Point> => {
  const odd = new Set<Point>();
  let kept = [...points];
  while (kept.length > 5 && odd.size < Math.floor(points.length / 4)) {
    const errors = residuals(kept, rate);
    const sizes = leftOutErrors(kept, rate).map((e, i) => Math.sqrt(Math.abs(e * errors[i]!)));
    const size = Math.max(...sizes);
    const worst = kept[sizes.indexOf(size)]!;
    const others = kept.filter((point) => point !== worst);
    const spread = 1.4826 * median(residuals(others, rate).map(Math.abs));
    if (size <= Math.max(OUTLIER_SPREADS * spread, floor * worst.value)) break;
    odd.add(worst);
    kept = others;
  }
  return odd;
};

const rms = (errors: readonly number[]): number =>
  Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length);

/** The cadence of a step model, without its lengths. */
export type CadenceModel = Pick<StepModel, 'firstCadenceSpm' | 'topCadenceSpm' | 'cadenceRate'>;

/**
 * Fits the step model to measured run-ups by least squares over all steps of all trials, length and
 * cadence separately. Steps are counted from a standing start; an interval is the time that the step
 * took, seconds. Steps without a time fit the lengths only.
 *
 * @param cadence what to take for the cadence where fewer than four steps were timed, usually the estimate
 * @throws {RangeError} naming the step when a length is not within 0–4 m or an interval not within
 *   0.08–2 s, when no trial has at least four steps, and when there is no cadence at all
 * @example
 * const steps = [1.2, 1.47, 1.66, 1.8].map((lengthM) => ({ lengthM, intervalS: null }));
 * fitStepModel({ trials: [{ steps }], cadence: estimateStepModel(1.7) }).timed // false
 * Source: separable least squares (the two linear parameters eliminated at each rate)
 */
export const fitStepModel = ({
  trials,
  cadence: untimed,
}: {
  trials: readonly Trial[];
  cadence?: CadenceModel | undefined;
}): StepModelFit => {
  if (trials.length === 0) {
    throw new RangeError('trials must hold at least one trial');
  }
  const flat = trials.flatMap((trial, t) => {
    number(`trials[${t}].steps.length`, trial.steps.length, STEP_BOUNDS.trialSteps);
    return trial.steps.map((step, i) => {
      const where = `trials[${t}].steps[${i}]`;
      number(`${where}.lengthM`, step.lengthM, STEP_BOUNDS.lengthM);
      if (step.intervalS !== null) {
        number(`${where}.intervalS`, step.intervalS, STEP_BOUNDS.intervalS);
      }
      const cadenceSpm = step.intervalS === null ? null : 60 / step.intervalS;
      return { trial: t, k: i + 1, lengthM: step.lengthM, cadenceSpm };
    });
  });
  const lengths = flat.map(({ k, lengthM }) => ({ k, value: lengthM }));
  const cadences = flat.map(({ k, cadenceSpm }) =>
    cadenceSpm === null ? null : { k, value: cadenceSpm },
  );
  const timedSteps = cadences.filter((point) => point !== null);
  const timed = timedSteps.length >= STEP_BOUNDS.trialSteps.min;
  if (!timed && !untimed) {
    throw new RangeError('cadence must be given where fewer than four steps were timed');
  }
  const length = fitCurve(lengths);
  const cadence = timed
    ? fitCurve(timedSteps)
    : { first: untimed!.firstCadenceSpm, top: untimed!.topCadenceSpm, rate: untimed!.cadenceRate };
  const errorOf = (curve: Omit<Curve, 'squares'>, { k, value }: Point): number =>
    value - buildUp(curve.first, curve.top, curve.rate, k);
  const lengthErrors = lengths.map((point) => errorOf(length, point));
  const oddLengths = outliers(lengths, length.rate, LENGTH_FLOOR);
  const oddCadences = timed ? outliers(timedSteps, cadence.rate, CADENCE_FLOOR) : new Set<Point>();
  const longest = Math.max(...trials.map((trial) => trial.steps.length));
  return {
    firstLengthM: length.first,
    topLengthM: length.top,
    lengthRate: length.rate,
    firstCadenceSpm: cadence.first,
    topCadenceSpm: cadence.top,
    cadenceRate: cadence.rate,
    lengthRmsM: rms(lengthErrors),
    cadenceRmsSpm: timed ? rms(timedSteps.map((point) => errorOf(cadence, point))) : null,
    timed,
    steps: flat.map((step, i) => {
      const point = cadences[i]!;
      return {
        ...step,
        lengthErrorM: lengthErrors[i]!,
        cadenceErrorSpm: point && errorOf(cadence, point),
        oddLength: oddLengths.has(lengths[i]!),
        oddCadence: point !== null && oddCadences.has(point),
      };
    }),
    stillBuilding: Math.exp(-(longest - 1) / length.rate) > 0.12,
  };
};
