import { whole } from '../check';

/**
 * How far two who logged the same reps agree on a fault, beyond what chance alone would give.
 *
 * @param input reps in which both, only one, or neither saw it
 * @returns shares; kappa null where chance alone would always agree, or nothing was logged by both
 * @throws {RangeError} naming the field that is no count
 * @example kappa({ both: 20, onlyA: 5, onlyB: 10, neither: 15 }).kappa // 0.4
 * Source: Cohen's kappa
 */
export const kappa = (input: {
  both: number;
  onlyA: number;
  onlyB: number;
  neither: number;
}): { agreement: number; expected: number; kappa: number | null } => {
  for (const [name, value] of Object.entries(input)) whole(name, value, { min: 0, max: 1e9 });
  const { both, onlyA, onlyB, neither } = input;
  const all = both + onlyA + onlyB + neither;
  if (all === 0) return { agreement: 1, expected: 1, kappa: null };
  const a = (both + onlyA) / all;
  const b = (both + onlyB) / all;
  const agreement = (both + neither) / all;
  const expected = a * b + (1 - a) * (1 - b);
  return {
    agreement,
    expected,
    kappa: expected >= 1 ? null : (agreement - expected) / (1 - expected),
  };
};
