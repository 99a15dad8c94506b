import { number } from '../check';

export type LoadLevel = 'usual' | 'more' | 'much-more' | 'no-history';

export type LoadCheck = {
  /** mean of the last weeks; null when there are too few */
  usual: number | null;
  ratio: number | null;
  level: LoadLevel;
};

const WEEKS = 4;
const LEAST_WEEKS = 3;
const MORE_FROM = 1.3;
const MUCH_FROM = 1.5;

/**
 * What a week would ask of an athlete beside what is usual: contacts, jumps, throws or sprint metres.
 * A remark, not a verdict.
 *
 * @param weeks sums of the weeks before, the last one last
 * @param planned what this week comes to
 * @throws {RangeError} naming the field that is out of range
 * @example loadCheck({ weeks: [60, 80, 72, 76], planned: 102 }) // usual 72, ratio 1.42, 'more'
 */
export const loadCheck = ({
  weeks,
  planned,
}: {
  weeks: readonly number[];
  planned: number;
}): LoadCheck => {
  weeks.forEach((week, i) => number(`weeks[${i}]`, week, { min: 0, max: 1e9 }));
  number('planned', planned, { min: 0, max: 1e9 });
  const last = weeks.slice(-WEEKS);
  if (last.length < LEAST_WEEKS) return { usual: null, ratio: null, level: 'no-history' };
  const usual = last.reduce((sum, week) => sum + week, 0) / last.length;
  if (usual === 0) {
    return { usual, ratio: null, level: planned === 0 ? 'usual' : 'much-more' };
  }
  const ratio = planned / usual;
  const level = ratio <= MORE_FROM ? 'usual' : ratio <= MUCH_FROM ? 'more' : 'much-more';
  return { usual, ratio, level };
};
