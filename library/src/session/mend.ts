import type { DrillSet } from '@gravek/contract/drillSet';
import { keptVariants } from '@gravek/core/session/variants';

/** A change of a drill set that would make it shorter. */
export type Mend = {
  /** what is changed, in a few words */
  what: string;
  set: DrillSet;
  /** seconds that it saves */
  savesS: number;
};

const MOST_OFFERS = 3;
/** Longer ones are no sets, but figures that are half typed. */
const MOST_REPS = 50;

/**
 * What would make a session fit: changes of one of its sets, each with what it saves. First those that
 * save enough, the smallest change of each sort; then the others, the most first.
 *
 * @param overS seconds that the session is too long
 * @param lanes how many the ground has
 * @param timeOf seconds of a set as it is changed; null when it has none
 */
export const mends = (
  set: DrillSet,
  overS: number,
  lanes: number,
  timeOf: (set: DrillSet) => number | null,
): Mend[] => {
  const now = timeOf(set);
  if (now === null || overS <= 0 || set.reps > MOST_REPS || set.sets > MOST_REPS) return [];
  const tried: { what: string; set: DrillSet }[][] = [];
  const used = set.lanes ?? lanes;
  if (set.stand === 'turns' || set.stand === 'roles') {
    tried.push(
      Array.from({ length: Math.max(0, lanes - used) }, (_, i) => used + i + 1).map((to) => ({
        what: `${to} lanes`,
        set: { ...set, lanes: to },
      })),
    );
  }
  const least = set.target === 'makes' ? set.amount : 1;
  tried.push(
    Array.from({ length: Math.max(0, set.reps - least) }, (_, i) => set.reps - i - 1).map(
      (reps) => ({
        what: set.target === 'makes' ? `on after ${reps}` : `${reps} of each`,
        set: { ...set, reps },
      }),
    ),
    Array.from({ length: set.sets - 1 }, (_, i) => set.sets - i - 1).map((sets) => ({
      what: sets === 1 ? 'one round' : `${sets} rounds`,
      set: { ...set, sets },
    })),
  );
  if (set.order === 'mixed' || keptVariants(set).length > 1) {
    const { vary } = set;
    for (const axis of ['moves', 'endings', 'exits', 'rungs', 'paces'] as const) {
      if (vary[axis].length > 1) {
        const fewer = vary[axis].slice(0, -1);
        tried.push([
          { what: `${fewer.length} ${axis}`, set: { ...set, vary: { ...vary, [axis]: fewer } } },
        ]);
      }
    }
  }
  if (set.stand === 'turns' && set.athleteIds.length > 2 && set.call !== null) {
    tried.push([{ what: 'all at once', set: { ...set, stand: 'row' } }]);
  }
  const offers = tried.flatMap((sort) => {
    const timed = sort.flatMap((mend): Mend[] => {
      const then = timeOf(mend.set);
      return then === null || then >= now ? [] : [{ ...mend, savesS: now - then }];
    });
    const enough = timed.find((mend) => mend.savesS >= overS);
    return enough ?? timed.at(-1) ?? [];
  });
  return offers
    .sort((a, b) => Number(b.savesS >= overS) - Number(a.savesS >= overS) || b.savesS - a.savesS)
    .slice(0, MOST_OFFERS);
};
