import { whole } from '../check';

/**
 * Whom of a row a coach watches at the next call: neighbours, those who have been watched least in sum, the
 * leftmost of equals.
 *
 * @param row ids as they stand, from the coach's left
 * @param watched how often each was watched so far; nobody who is missing was
 * @param atOnce how many are watched at one call, at least 1
 * @returns ids as they stand; all of a row that is no longer than that
 * @throws {RangeError} when `atOnce` is no whole number from 1
 * @example
 * watchNext({ row: ['a', 'b', 'c', 'd'], watched: { a: 1, b: 1 }, atOnce: 2 }).ids // ['c', 'd']
 * watchNext({ row: ['a', 'b'], watched: {}, atOnce: 3 }).ids // ['a', 'b']
 * Source: domain definitions, section 5.
 */
export const watchNext = ({
  row,
  watched,
  atOnce,
}: {
  row: readonly string[];
  watched: Readonly<Record<string, number>>;
  atOnce: number;
}): { ids: string[] } => {
  const wide = Math.min(row.length, whole('atOnce', atOnce, { min: 1, max: 1000 }));
  const times = row.map((id) => (Object.hasOwn(watched, id) ? watched[id]! : 0));
  let sum = times.slice(0, wide).reduce((total, n) => total + n, 0);
  let best = { from: 0, sum };
  for (let from = 1; from + wide <= row.length; from += 1) {
    sum += times[from + wide - 1]! - times[from - 1]!;
    if (sum < best.sum) best = { from, sum };
  }
  return { ids: row.slice(best.from, best.from + wide) };
};
