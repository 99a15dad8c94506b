import { number } from '../check';

/** Share of false alarms among what is pointed out that is let through. */
const Q = 0.1;

/**
 * Up to which chance a look is pointed out, when of many looks some stand out by chance alone.
 *
 * @param chances of each look, to show as much if there were nothing to see; 0–1
 * @param q share of false alarms let through, 0.1 when absent
 * @returns the greatest of them that is pointed out; −1 where none is
 * @throws {RangeError} when the share is out of range
 * @example pointedOutTo([0.001, 0.012, 0.3], 0.05) // 0.012
 * Source: Benjamini and Hochberg's step-up procedure
 */
export const pointedOutTo = (chances: readonly number[], q?: number): number => {
  const share = number('q', q ?? Q, { above: 0, max: 1 });
  const sorted = [...chances].sort((a, b) => a - b);
  const last = sorted.findLastIndex((chance, i) => chance <= (share * (i + 1)) / sorted.length);
  return last < 0 ? -1 : sorted[last]!;
};
