import { logBeta } from '../chance/beta';
import { checkCount, PRIOR } from './faultRate';

/** Both parameters of a Beta distribution. */
export type BetaPrior = { alpha: number; beta: number };

const STRENGTHS = [2, 3, 5, 8, 12, 20, 30, 50];
const LEAST_REPS = 10;
const LEAST_ATHLETES = 5;

/** Where a club has shown too little of a fault. */
export const NO_PRIOR: BetaPrior = { alpha: PRIOR, beta: PRIOR };

/**
 * What a club knows of a fault before an athlete has shown anything: the mean over its athletes, as strong
 * as they are alike.
 *
 * @param input what each athlete has shown; those under ten reps are passed over
 * @returns Beta(½, ½) under five athletes
 * @throws {RangeError} naming the athlete and field that is out of range
 * @example
 * clubPrior({ athletes: [{ reps: 40, faults: 10 }, { reps: 30, faults: 3 }, { reps: 50, faults: 25 }] })
 * // { alpha: 0.5, beta: 0.5 }
 * Source: empirical Bayes, greatest beta-binomial likelihood over a grid of strengths
 */
export const clubPrior = (input: {
  athletes: readonly { reps: number; faults: number }[];
}): BetaPrior => {
  input.athletes.forEach((athlete, i) => checkCount(`athletes[${i}].`, athlete));
  const shown = input.athletes.filter(({ reps }) => reps >= LEAST_REPS);
  if (shown.length < LEAST_ATHLETES) return NO_PRIOR;
  const faults = shown.reduce((sum, athlete) => sum + athlete.faults, 0);
  const reps = shown.reduce((sum, athlete) => sum + athlete.reps, 0);
  const mean = (faults + PRIOR) / (reps + 2 * PRIOR);
  const likelihood = (strength: number): number => {
    const [alpha, beta] = [mean * strength, (1 - mean) * strength];
    const priorLogBeta = logBeta(alpha, beta);
    return shown.reduce(
      (sum, athlete) =>
        sum + logBeta(alpha + athlete.faults, beta + athlete.reps - athlete.faults) - priorLogBeta,
      0,
    );
  };
  const [best] = STRENGTHS.map((strength) => ({ strength, fits: likelihood(strength) })).sort(
    (a, b) => b.fits - a.fits,
  );
  return { alpha: mean * best!.strength, beta: (1 - mean) * best!.strength };
};
