import { betaQuantile } from './beta';
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
