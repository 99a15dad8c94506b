import { number, whole } from '../check';
import type { SpreadParts } from './landingSpread';
import { normals } from '../chance/random';

export type Steering = {
  /** last steps over which the athlete sees the target and corrects */
  steps: number;
  /** part of the seen error that each step sets out to make up, 0–1 */
  gain: number;
  /** most that a step is changed for it, as a fraction of its length */
  limit: number;
};

/** Standard deviations of a step and of a whole run as parts of a length, 0–0.3. */
export type RunUpSimulation = SpreadParts & {
  lengthsM: readonly number[];
  /** of the start mark, metres */
  startSdM: number;
  /** how far behind the line the plan aims, metres */
  marginM: number;
  /** null: every step is run blind */
  steering: Steering | null;
  runs: number;
  seed: number;
};

export type RunUpSpread = {
  /** spread of where each foot lands about its print, metres */
  steps: { n: number; meanM: number; sdM: number }[];
  /** where the last foot lands, past the aim spot positive: 5, 25, 50, 75 and 95 % of runs, metres */
  quantilesM: [number, number, number, number, number];
  sdM: number;
  /** the foot comes down beyond the line */
  foulChance: number;
  /** the run is off by more than half the last step, so that the other foot is nearer */
  wrongFootChance: number;
  /** landings in equal bins over four standard deviations, for a drawing */
  bins: { fromM: number; toM: number; count: number }[];
};

const BINS = 33;
/** Run-ups of which the chances are drawn at one go. */
const AT_ONCE = 512;

/**
 * Runs a run-up many times with the athlete's own scatter: how the error grows step by step, where
 * the last foot falls, and what steering by eye saves. A run has one factor for all its steps, each step
 * one of its own, and the start is off its mark, all independent and normal; with steering, each of the
 * last steps makes up its share (gain ÷ steps to go) of the error it starts with, up to the limit.
 *
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const by = { stepFraction: 0.022, runFraction: 0.01, startSdM: 0.02, marginM: 0.1, runs: 20_000, seed: 1 };
 * // sdM: spread at the line; foulChance: how often the foot comes down beyond it
 * simulateRunUps({ ...by, lengthsM: Array(12).fill(1.8), steering: null }).sdM // 0.26
 * Source: Monte Carlo; without steering the spread is the blind one of `landingSpread`
 */
export const simulateRunUps = (input: RunUpSimulation): RunUpSpread => {
  const n = whole('lengthsM.length', input.lengthsM.length, { min: 1, max: 60 });
  const lengths = input.lengthsM.map((lengthM, i) =>
    number(`lengthsM[${i}]`, lengthM, { above: 0, max: 5 }),
  );
  const stepFraction = number('stepFraction', input.stepFraction, { min: 0, max: 0.3 });
  const runFraction = number('runFraction', input.runFraction, { min: 0, max: 0.3 });
  const startSdM = number('startSdM', input.startSdM, { min: 0, max: 2 });
  const marginM = number('marginM', input.marginM, { min: -2, max: 2 });
  const runs = whole('runs', input.runs, { min: 1, max: 1_000_000 });
  const { steering } = input;
  if (steering) {
    whole('steering.steps', steering.steps, { min: 0, max: 60 });
    number('steering.gain', steering.gain, { min: 0, max: 1 });
    number('steering.limit', steering.limit, { min: 0, max: 0.5 });
  }
  const fill = normals(whole('seed', input.seed));
  const seesFrom = steering ? n - steering.steps : n;
  const scattersM = Float64Array.from(lengths, (lengthM) => lengthM * stepFraction);
  /** most that each step is changed by eye, and the share of the error that it makes up */
  const mostM = Float64Array.from(lengths, (lengthM) => (steering?.limit ?? 0) * lengthM);
  const shares = Float64Array.from(lengths, (_, k) =>
    k >= seesFrom ? (steering?.gain ?? 0) / (n - k) : 0,
  );
  const sums = new Float64Array(n);
  const squares = new Float64Array(n);
  const last = new Float64Array(runs);
  // Of each run one chance a step, one for the whole and one for its start.
  const draws = n + 2;
  const chance = new Float64Array(draws * Math.min(runs, AT_ONCE));
  for (let from = 0; from < runs; from += AT_ONCE) {
    const many = Math.min(AT_ONCE, runs - from);
    fill(chance);
    for (let run = 0; run < many; run += 1) {
      const firstDraw = run * draws;
      let error = startSdM * chance[firstDraw + n]!;
      const longer = runFraction * chance[firstDraw + n + 1]!;
      for (let k = 0; k < n; k += 1) {
        const share = shares[k]!;
        let change = scattersM[k]! * chance[firstDraw + k]! + lengths[k]! * longer;
        if (share > 0) {
          const most = mostM[k]!;
          const wanted = -share * error;
          change += wanted > most ? most : wanted < -most ? -most : wanted;
        }
        error += change;
        sums[k]! += error;
        squares[k]! += error * error;
      }
      last[from + run] = error;
    }
  }
  const steps = lengths.map((_, k) => {
    const meanM = sums[k]! / runs;
    return {
      n: k + 1,
      meanM,
      sdM: Math.sqrt(Math.max(0, squares[k]! / runs - meanM * meanM)),
    };
  });
  const half = lengths[n - 1]! / 2;
  let fouls = 0;
  let wrong = 0;
  for (const error of last) {
    if (error > marginM) fouls += 1;
    if (Math.abs(error) > half) wrong += 1;
  }
  const { sdM } = steps[n - 1]!;
  const reach = Math.max(4 * sdM, 0.01);
  const counts = new Array<number>(BINS).fill(0);
  for (const error of last) {
    const bin = Math.floor(((error + reach) / (2 * reach)) * BINS);
    counts[Math.max(0, Math.min(BINS - 1, bin))]! += 1;
  }
  last.sort();
  const at = (part: number): number => last[Math.min(runs - 1, Math.floor(part * runs))]!;
  return {
    steps,
    quantilesM: [at(0.05), at(0.25), at(0.5), at(0.75), at(0.95)],
    sdM,
    foulChance: fouls / runs,
    wrongFootChance: wrong / runs,
    bins: counts.map((count, i) => ({
      fromM: -reach + (2 * reach * i) / BINS,
      toM: -reach + (2 * reach * (i + 1)) / BINS,
      count,
    })),
  };
};
