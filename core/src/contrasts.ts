import { number } from './check';
import { probImproved, type RepCounts } from './cueEffect';

export type Look = { id: string; a: RepCounts; b: RepCounts };

export type LookSeen = {
  id: string;
  /** that the rate is lower in b than in a; null where either has under ten reps */
  probability: number | null;
  flagged: boolean;
};

const LEAST_REPS = 10;
const Q = 0.1;

/**
 * Where a fault shows more under one condition than under another, with all looks of a page allowed for:
 * of many looks some stand out by chance alone.
 *
 * @param input one look a pair of conditions; share of false alarms that is let through, 0.1 when absent
 * @throws {RangeError} naming the field that is out of range
 * Source: two-sided tails of `probImproved`, Benjamini and Hochberg's step-up procedure
 */
export const contrasts = (input: {
  looks: readonly Look[];
  q?: number | undefined;
}): { looks: LookSeen[] } => {
  const q = number('q', input.q ?? Q, { above: 0, max: 1 });
  const looks = input.looks.map(({ id, a, b }) => ({
    id,
    probability:
      a.reps < LEAST_REPS || b.reps < LEAST_REPS
        ? null
        : probImproved({ before: a, now: b }).probability,
  }));
  const tails = looks
    .flatMap(({ probability: p }) => (p === null ? [] : [2 * Math.min(p, 1 - p)]))
    .sort((a, b) => a - b);
  const last = tails.findLastIndex((tail, i) => tail <= (q * (i + 1)) / tails.length);
  const limit = last < 0 ? -1 : tails[last]!;
  return {
    looks: looks.map(({ id, probability: p }) => ({
      id,
      probability: p,
      flagged: p !== null && 2 * Math.min(p, 1 - p) <= limit,
    })),
  };
};
