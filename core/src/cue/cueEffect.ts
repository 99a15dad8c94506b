import { betaBelow, betaQuantile, logBeta } from '../chance/beta';
import { checkCount, PRIOR } from './faultRate';
import type { BetaPrior } from './clubPrior';
import { number } from '../check';

export type RepCounts = { reps: number; faults: number };

/** Nodes and weights of 16-point Gauss–Legendre quadrature on [−1, 1], positive half. */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.0950125098376374, 0.1894506104550685],
  [0.2816035507792589, 0.1826034150449236],
  [0.4580167776572274, 0.1691565193950025],
  [0.6178762444026438, 0.1495959888165767],
  [0.755404408355003, 0.1246289712555339],
  [0.8656312023878318, 0.0951585116824928],
  [0.9445750230732326, 0.0622535239386479],
  [0.9894009349916499, 0.0271524594117541],
];

/**
 * P(Y < X) for X ~ Beta(a, b) and Y ~ Beta(c, d), independent.
 *
 * @example chanceBelow({ alpha: 2, beta: 8 }, { alpha: 5, beta: 5 }) // 0.0656
 * Source: ∫ f_X(x)·F_Y(x) dx; with x = sin²u the integrand is smooth to the ends
 */
export const chanceBelow = (
  { alpha: a, beta: b }: BetaPrior,
  { alpha: c, beta: d }: BetaPrior,
): number => {
  const logX = logBeta(a, b);
  const logY = logBeta(c, d);
  const at = (u: number): number => {
    const density =
      2 *
      Math.exp((2 * a - 1) * Math.log(Math.sin(u)) + (2 * b - 1) * Math.log(Math.cos(u)) - logX);
    return density * betaBelow(Math.sin(u) ** 2, c, d, logY);
  };
  // All but 1e-9 of X lies between these.
  const from = Math.asin(Math.sqrt(betaQuantile(5e-10, a, b)));
  const to = Math.asin(Math.sqrt(betaQuantile(1 - 5e-10, a, b)));
  const PARTS = 4;
  const half = (to - from) / (2 * PARTS);
  let sum = 0;
  for (let part = 0; part < PARTS; part += 1) {
    const mid = from + (2 * part + 1) * half;
    for (const [node, weight] of GAUSS) {
      sum += weight * (at(mid - node * half) + at(mid + node * half));
    }
  }
  return Math.min(1, Math.max(0, sum * half));
};

/**
 * What a prior becomes once reps have been seen.
 *
 * @example seen({ alpha: 0.5, beta: 0.5 }, { reps: 8, faults: 2 }) // { alpha: 2.5, beta: 6.5 }
 */
export const seen = ({ alpha, beta }: BetaPrior, { reps, faults }: RepCounts): BetaPrior => ({
  alpha: alpha + faults,
  beta: beta + reps - faults,
});

const meanOf = ({ alpha, beta }: BetaPrior): number => alpha / (alpha + beta);

/**
 * @throws {RangeError} when both parameters are not above 0
 */
export const checkPrior = (prior: BetaPrior): void => {
  number('prior.alpha', prior.alpha, { above: 0 });
  number('prior.beta', prior.beta, { above: 0 });
};

/**
 * Whether a cue works: the probability that the fault's true rate since the cue began is under that before
 * it, and both rates, under what the club knows of the fault.
 *
 * @throws {RangeError} naming the field that is out of range
 * @example
 *   cueEffect({ before: { reps: 48, faults: 26 }, since: { reps: 30, faults: 7 },
 *     prior: { alpha: 2.2, beta: 5.8 } }).probability // 0.9956
 */
export const cueEffect = (input: {
  before: RepCounts;
  since: RepCounts;
  prior: BetaPrior;
}): { probability: number; beforeRate: number; sinceRate: number } => {
  checkCount('before.', input.before);
  checkCount('since.', input.since);
  checkPrior(input.prior);
  const before = seen(input.prior, input.before);
  const since = seen(input.prior, input.since);
  return {
    probability: chanceBelow(before, since),
    beforeRate: meanOf(before),
    sinceRate: meanOf(since),
  };
};

/**
 * Probability that a fault's true rate is lower now than before, both from Beta(½, ½), unweighted.
 *
 * @throws {RangeError} naming the field that is out of range
 * @example
 * probImproved({ before: { reps: 44, faults: 25 }, now: { reps: 20, faults: 5 } }).probability // 0.992
 */
export const probImproved = (input: {
  before: RepCounts;
  now: RepCounts;
}): { probability: number } => {
  checkCount('before.', input.before);
  checkCount('now.', input.now);
  const prior = { alpha: PRIOR, beta: PRIOR };
  return { probability: chanceBelow(seen(prior, input.before), seen(prior, input.now)) };
};
