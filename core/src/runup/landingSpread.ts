import { number, whole } from '../check';

/** How lengths scatter, as parts of a length: each step by itself, and a whole run. */
export type SpreadParts = { stepFraction: number; runFraction: number };

/** Where too little was measured. */
export const USUAL_SPREAD: SpreadParts = { stepFraction: 0.022, runFraction: 0.01 };

const LEAST_RUNS = 2;
const LEAST_STEPS = 4;

/**
 * How far an athlete's steps scatter from one run of a plan to the next: a whole run is a little long or
 * short, and each step besides.
 *
 * @param input lengths of each run, metres; steps that not every run has are left out
 * @returns parts of a length; null under two runs or four steps
 * @throws {RangeError} naming the run and step that is no length
 * @example
 * spreadParts({ runs: [[1.15, 1.51, 1.74, 1.87], [1.16, 1.49, 1.7, 1.82], [1.13, 1.47, 1.73, 1.91]] }).steps
 * // 4
 * Source: two-way analysis of variance without repetition
 */
export const spreadParts = (input: {
  runs: readonly (readonly number[])[];
}): { stepFraction: number | null; runFraction: number | null; runs: number; steps: number } => {
  const { runs } = input;
  runs.forEach((run, r) =>
    run.forEach((length, k) => number(`runs[${r}][${k}]`, length, { above: 0, max: 10 })),
  );
  const R = runs.length;
  const K = R === 0 ? 0 : Math.min(...runs.map((run) => run.length));
  if (R < LEAST_RUNS || K < LEAST_STEPS) {
    return { stepFraction: null, runFraction: null, runs: R, steps: K };
  }
  const sum = (list: readonly number[]): number => list.reduce((all, value) => all + value, 0);
  const means = Array.from({ length: K }, (_, k) => sum(runs.map((run) => run[k]!)) / R);
  const x = runs.map((run) => means.map((mean, k) => run[k]! / mean - 1));
  const m = x.map((landings) => sum(landings) / K);
  const step2 =
    sum(x.flatMap((landings, r) => landings.map((value) => (value - m[r]!) ** 2))) /
    ((R - 1) * (K - 1));
  const run2 = Math.max(0, ((K * sum(m.map((value) => value ** 2))) / (R - 1) - step2) / K);
  return { stepFraction: Math.sqrt(step2), runFraction: Math.sqrt(run2), runs: R, steps: K };
};

/** What the model is worth beside logged runs, as a number of them. */
const MODEL_WORTH = 4;

/**
 * How far from the target the last contact lands, as a standard deviation: blind, by how steps and runs
 * scatter, and the one that is shown, which logged run-throughs pull.
 *
 * @param input metres; `expectSdM` what steering leaves of the blind spread, the blind one when absent
 * @throws {RangeError} naming the field that is out of range
 * @example
 * landingSpread({ lengthsM: [1.15, 1.49, 1.71, 1.87], stepFraction: 0.022, runFraction: 0.008, startSdM: 0.02 })
 * // { blindSdM: 0.0877, shownSdM: 0.0877 }
 */
export const landingSpread = (
  input: SpreadParts & {
    lengthsM: readonly number[];
    /** of the mark where the run starts */
    startSdM: number;
    expectSdM?: number | null | undefined;
    logged?: { n: number; sdM: number } | null | undefined;
  },
): { blindSdM: number; shownSdM: number } => {
  const step = number('stepFraction', input.stepFraction, { min: 0, max: 1 });
  const run = number('runFraction', input.runFraction, { min: 0, max: 1 });
  const start = number('startSdM', input.startSdM, { min: 0, max: 10 });
  input.lengthsM.forEach((length, k) => number(`lengthsM[${k}]`, length, { min: 0, max: 10 }));
  const whole2 = input.lengthsM.reduce((sum, length) => sum + length, 0) ** 2;
  const each2 = input.lengthsM.reduce((sum, length) => sum + length ** 2, 0);
  const blindSdM = Math.sqrt(run ** 2 * whole2 + step ** 2 * each2 + start ** 2);
  const expected = number('expectSdM', input.expectSdM ?? blindSdM, { min: 0, max: 100 });
  if (!input.logged) return { blindSdM, shownSdM: expected };
  const n = whole('logged.n', input.logged.n, { min: 1, max: 1e6 });
  const sd = number('logged.sdM', input.logged.sdM, { min: 0, max: 100 });
  const shown2 = (MODEL_WORTH * expected ** 2 + (n - 1) * sd ** 2) / (n - 1 + MODEL_WORTH);
  return { blindSdM, shownSdM: Math.sqrt(shown2) };
};
