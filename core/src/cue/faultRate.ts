import { betaQuantile } from '../chance/beta';
import { whole } from '../check';

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

/**
 * Mean and 5–95 % interval of Beta(α, β).
 *
 * @example posterior(2.5, 8.5) // { rate: 0.227, low: 0.0602, high: 0.452, alpha: 2.5, beta: 8.5 }
 */
export const posterior = (alpha: number, beta: number): FaultRate => ({
  rate: alpha / (alpha + beta),
  low: betaQuantile(0.05, alpha, beta),
  high: betaQuantile(0.95, alpha, beta),
  alpha,
  beta,
});
