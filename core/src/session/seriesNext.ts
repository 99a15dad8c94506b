import { whole } from '../check';

/** How long a coach stays at an item of a list, and whether what was missed comes once more at its end. */
export type SeriesRules = {
  /** makes after which one goes on, 1–1000 */
  makes: number;
  /** tries after which one goes on all the same, 1–1000 */
  tries: number;
  /** once more through what was missed, with new tries for the makes still missing */
  again: boolean;
};

/** What came of an item so far. */
export type ItemTries = { made: number; tried: number };

/** The pass through the list in which an item still wants a try: 1, or 2 once more; null when it wants none. */
const passOf = ({ makes, tries, again }: SeriesRules, { made, tried }: ItemTries): 1 | 2 | null => {
  if (made >= makes) return null;
  if (tried < tries) return 1;
  return again && tried < 2 * tries ? 2 : null;
};

/**
 * Where a list stands that is worked off in its order.
 *
 * @param items what came of each so far, in the coach's order
 * @returns `next`: place of the item that comes, from 0, null when the list is done; `attempt`: which try of
 *   it that is in this pass, from 1; `left`: places of all items that lack makes, whether or not they come again
 * @throws {RangeError} naming the rule that is out of range
 * @example
 * const rules = { makes: 2, tries: 3, again: true };
 * seriesStand(rules, [{ made: 1, tried: 3 }, { made: 2, tried: 2 }]) // { next: 0, attempt: 1, left: [0] }
 */
export const seriesStand = (
  rules: SeriesRules,
  items: readonly ItemTries[],
): { next: number | null; attempt: number | null; left: number[] } => {
  whole('makes', rules.makes, { min: 1, max: 1000 });
  whole('tries', rules.tries, { min: 1, max: 1000 });
  const passes = items.map((item) => passOf(rules, item));
  const first = passes.indexOf(1);
  const next = first >= 0 ? first : passes.indexOf(2);
  const left = items.flatMap(({ made }, place) => (made < rules.makes ? [place] : []));
  if (next < 0) return { next: null, attempt: null, left };
  return { next, attempt: items[next]!.tried - (passes[next]! - 1) * rules.tries + 1, left };
};

/**
 * What comes of a list that somebody works off try by try.
 *
 * @param items in the coach's order
 * @param log every try so far, made or missed; tries after the list is done count for nothing
 * @returns the item that comes and which try of it that is, both null when the list is done; the makes of each
 *   item; the items that lack makes
 * @throws {RangeError} naming the rule that is out of range
 * @example
 * seriesNext({ items: ['wing', 'top'], makes: 1, tries: 2, again: false, log: [true] })
 * // { next: 'top', attempt: 1, made: [1, 0], left: ['top'] }
 */
export const seriesNext = ({
  items,
  log,
  ...rules
}: SeriesRules & { items: readonly string[]; log: readonly boolean[] }): {
  next: string | null;
  attempt: number | null;
  made: number[];
  left: string[];
} => {
  const tries = items.map((): ItemTries => ({ made: 0, tried: 0 }));
  for (const isMade of log) {
    const { next } = seriesStand(rules, tries);
    if (next === null) break;
    tries[next]!.tried += 1;
    if (isMade) tries[next]!.made += 1;
  }
  const { next, attempt, left } = seriesStand(rules, tries);
  return {
    next: next === null ? null : items[next]!,
    attempt,
    made: tries.map(({ made }) => made),
    left: left.map((place) => items[place]!),
  };
};
