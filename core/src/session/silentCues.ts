import { seeded } from '../chance/random';
import { number, whole } from '../check';

/** A cue that a partner shows and nobody says; moments in seconds from the start that both press. */
export type SilentCue = {
  /** from 1 */
  n: number;
  /** the partner is told what to show */
  tellS: number;
  /** it is shown */
  showS: number;
  /** place of the option in its list */
  option: number;
};

/** Cues of a round. */
export const SILENT_CUES = 10;
/** Until the first is told, and from one to the next: time to go, walk back and stand again. */
const FIRST_S = 4;
const EVERY_S = 15;
/** From telling the partner until it is shown, at some moment, so that nobody goes by habit. */
const WAIT_S = [2.5, 5] as const;

/**
 * Cues that come at the same moments on every phone that has the same seed: no phone has to hear of another.
 *
 * @param weights how often each option comes, beside the others
 * @param seed 0–99
 * @throws {RangeError} when there is no option, a weight is not above 0, or the seed is out of range
 * @example
 * const cues = silentCues({ weights: [3, 1], seed: 47 });
 * cues.length // 10
 */
export const silentCues = ({
  weights,
  seed,
}: {
  weights: readonly number[];
  seed: number;
}): SilentCue[] => {
  whole('weights.length', weights.length, { min: 1, max: 20 });
  weights.forEach((weight, i) => number(`weights[${i}]`, weight, { above: 0, max: 100 }));
  whole('seed', seed, { min: 0, max: 99 });
  const next = seeded(1 + seed);
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  return Array.from({ length: SILENT_CUES }, (_, i) => {
    let left = next() * all;
    const drawn = weights.findIndex((weight) => (left -= weight) < 0);
    const tellS = FIRST_S + i * EVERY_S;
    const [least, most] = WAIT_S;
    const showS = tellS + least + (most - least) * next();
    return { n: i + 1, tellS, showS, option: drawn < 0 ? weights.length - 1 : drawn };
  });
};

/** Where a round of cues stands: what is told now and whether it shows; null before the first and after the last. */
export type SilentStand = { cue: SilentCue | null; isShown: boolean; isOver: boolean };

/**
 * Where a round of cues stands.
 *
 * @param seconds since both pressed start
 * @example silentAt(silentCues({ weights: [1, 1], seed: 3 }), 0) // { cue: null, isShown: false, isOver: false }
 */
export const silentAt = (cues: readonly SilentCue[], seconds: number): SilentStand => {
  const last = cues.at(-1);
  const isOver = last === undefined || seconds >= last.tellS + EVERY_S;
  const cue = isOver ? undefined : cues.findLast(({ tellS }) => tellS <= seconds);
  return { cue: cue ?? null, isShown: cue !== undefined && seconds >= cue.showS, isOver };
};
