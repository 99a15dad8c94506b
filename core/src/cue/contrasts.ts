import { probImproved, type RepCounts } from './cueEffect';
import { pointedOutTo } from './manyLooks';

export type Look = { id: string; a: RepCounts; b: RepCounts };

export type LookSeen = {
  id: string;
  /** that the rate is lower in b than in a; null where either has under ten reps */
  probability: number | null;
  flagged: boolean;
};

const LEAST_REPS = 10;

/**
 * Where a fault shows more under one condition than under another, with all looks of a page allowed for:
 * of many looks some stand out by chance alone.
 *
 * @param input one look a pair of conditions; share of false alarms that is let through, 0.1 when absent
 * @throws {RangeError} naming the field that is out of range
 * @example
 * contrasts({ looks: [{ id: 'side', a: { reps: 30, faults: 19 }, b: { reps: 28, faults: 6 } }] }).looks[0]
 * // { id: 'side', probability: 0.999, flagged: true }
 * Source: two-sided tails of `probImproved`
 */
export const contrasts = (input: {
  looks: readonly Look[];
  q?: number | undefined;
}): { looks: LookSeen[] } => {
  const looks = input.looks.map(({ id, a, b }) => ({
    id,
    probability:
      a.reps < LEAST_REPS || b.reps < LEAST_REPS
        ? null
        : probImproved({ before: a, now: b }).probability,
  }));
  const limit = pointedOutTo(
    looks.flatMap(({ probability: p }) => (p === null ? [] : [2 * Math.min(p, 1 - p)])),
    input.q,
  );
  return {
    looks: looks.map(({ id, probability: p }) => ({
      id,
      probability: p,
      flagged: p !== null && 2 * Math.min(p, 1 - p) <= limit,
    })),
  };
};
