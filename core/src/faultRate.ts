import { betaBelow, betaQuantile, logBeta } from './beta';
import { number, whole } from './check';
import { dayNumber } from './days';

/** What one session showed of one fault of one athlete. `date` is a day, yyyy-mm-dd. */
export type SessionCount = { date: string; reps: number; faults: number };

export type FaultRate = {
  rate: number;
  /** 5 % and 95 % points */
  low: number;
  high: number;
  alpha: number;
  beta: number;
};

/** Both parameters of the prior. */
export const PRIOR = 0.5;
export const HALF_LIFE_DAYS = 28;

/** @throws {RangeError} when reps or faults are no counts */
export const checkCount = (where: string, count: { reps: number; faults: number }): void => {
  whole(`${where}reps`, count.reps, { min: 0, max: 1e6 });
  whole(`${where}faults`, count.faults, { min: 0, max: count.reps });
};

/** Mean and 5–95 % interval of Beta(α, β). */
export const posterior = (alpha: number, beta: number): FaultRate => ({
  rate: alpha / (alpha + beta),
  low: betaQuantile(0.05, alpha, beta),
  high: betaQuantile(0.95, alpha, beta),
  alpha,
  beta,
});

/**
 * How often a fault shows: the Beta posterior from Beta(½, ½) with each session's reps weighted by
 * half for every half-life of age. Sessions after `onDate` do not count.
 *
 * @param input days as yyyy-mm-dd; half-life in days, 28 when absent
 * @throws {RangeError} naming the session and field that is out of range
 * Source: conjugate beta-binomial model with Jeffreys prior and exponential forgetting
 */
export const faultRate = (input: {
  sessions: readonly SessionCount[];
  onDate: string;
  halfLifeDays?: number | undefined;
}): FaultRate => {
  const halfLife = number('halfLifeDays', input.halfLifeDays ?? HALF_LIFE_DAYS, {
    above: 0,
    max: 3650,
  });
  const on = dayNumber('onDate', input.onDate);
  let alpha = PRIOR;
  let beta = PRIOR;
  input.sessions.forEach((session, i) => {
    checkCount(`sessions[${i}].`, session);
    const age = on - dayNumber(`sessions[${i}].date`, session.date);
    if (age < 0) return;
    const weight = 0.5 ** (age / halfLife);
    alpha += weight * session.faults;
    beta += weight * (session.reps - session.faults);
  });
  return posterior(alpha, beta);
};

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
 * Probability that the fault's true rate is lower now than before, both from Beta(½, ½), unweighted.
 *
 * @throws {RangeError} naming the field that is out of range
 * Source: ∫ f_before(x)·F_now(x) dx; with x = sin²u the integrand is smooth to the ends
 */
export const probImproved = (input: {
  before: { reps: number; faults: number };
  now: { reps: number; faults: number };
}): { probability: number } => {
  checkCount('before.', input.before);
  checkCount('now.', input.now);
  const a = PRIOR + input.before.faults;
  const b = PRIOR + input.before.reps - input.before.faults;
  const c = PRIOR + input.now.faults;
  const d = PRIOR + input.now.reps - input.now.faults;
  const logBefore = logBeta(a, b);
  const logNow = logBeta(c, d);
  const at = (u: number): number => {
    const x = Math.sin(u) ** 2;
    const density =
      2 *
      Math.exp(
        (2 * a - 1) * Math.log(Math.sin(u)) + (2 * b - 1) * Math.log(Math.cos(u)) - logBefore,
      );
    return density * betaBelow(x, c, d, logNow);
  };
  // All but 1e-9 of the "before" distribution lies between these.
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
  return { probability: Math.min(1, Math.max(0, sum * half)) };
};
