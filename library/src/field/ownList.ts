import { keptVariants, variantKey } from '@gravek/core/session/variants';
import type { SeriesRules } from '@gravek/core/session/seriesNext';
import { type DrillSet, runSetOf } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { OwnItem, OwnList } from '@gravek/contract/ownView';
import type { RunAthlete, RunBundle } from '@gravek/contract/run';
import { retriesMissed } from '@gravek/core/session/runOrder';
import { barredBy, repsFor } from '../session/restrictions';
import { asVaried, demandOfSet } from '../session/work';
import { setWorks } from './sets';
import { cueSaid, turnView } from './turn';
import type { SetWork } from './log';

/** Makes of an item for the young, and tries after which they go on all the same. */
const MOST_YOUNG = { makes: 2, tries: 4 };
/** Combinations of a list that anybody works off alone. */
const MOST_ITEMS = 24;

/**
 * How often an item of a set is tried by somebody alone: as the set has it, the young less often.
 *
 * @example
 * ownRules({ ...freshDrillSet('s', { kind: 'warm-up', name: '' }, []), target: 'makes', amount: 5, reps: 8 }, true)
 * // { makes: 2, tries: 4, again: false }
 */
export const ownRules = (set: DrillSet, isYoung: boolean): SeriesRules => {
  const again = retriesMissed(runSetOf(set));
  const rounds = set.target === 'makes' ? 1 : set.sets;
  const makes = set.target === 'makes' ? set.amount : set.reps * rounds;
  const tries = set.reps * rounds;
  return isYoung
    ? { makes: Math.min(MOST_YOUNG.makes, makes), tries: Math.min(MOST_YOUNG.tries, tries), again }
    : { makes, tries, again };
};

const itemsOf = (
  bundle: RunBundle,
  { set, base, plan }: SetWork,
  athlete: RunAthlete,
): (OwnItem & { how: string; cue: string | null })[] =>
  keptVariants(set)
    .slice(0, MOST_ITEMS)
    .map((variant) => {
      const at = {
        ...{ set, base, plan, athleteOf: () => athlete },
        movementOf: () => {
          if (!base?.movement || !base.choices) return null;
          const varied = asVaried({ movement: base.movement, choices: base.choices }, variant);
          return 'why' in varied ? base.movement : varied.movement;
        },
      };
      const key = variantKey(variant);
      const turn = {
        ...{ drillSetId: set.id, athleteId: athlete.id, set: 1, rep: 1, turn: 1, key },
        ...{ side: variant.side, variant: key },
      };
      const view = turnView(bundle, [], at, turn);
      return {
        ...{ side: variant.side, variant: key },
        words: [...view.what.slice(1), view.sideSaid].filter(Boolean).join(', ') || view.what[0]!,
        outline: view.outline,
        layout: view.layout && { ...view.layout, track: [] },
        exits: view.callable,
        how: view.how,
        cue: view.cue === null ? null : cueSaid(view, view.cue),
      };
    });

/** Whether somebody can do a set without anybody else. */
const isForOne = ({ stand, helpers }: DrillSet): boolean =>
  stand !== 'pairs' && stand !== 'roles' && helpers.length === 0;

/**
 * What an athlete of a session can work off alone, in the coach's order: no warm-ups, nothing that takes a partner, and
 * nothing that they are held back from.
 *
 * @param movementOf every movement that the session names, by its code
 * @param isYoung fewer makes and tries
 * @param today yyyy-mm-dd
 * @returns none where the athlete is in no set
 */
export const ownLists = (
  bundle: RunBundle,
  athleteId: string,
  movementOf: (code: string) => Movement,
  { isYoung, today }: { isYoung: boolean; today: string },
): OwnList[] => {
  const { session } = bundle;
  const athlete = bundle.athletes.find(({ id }) => id === athleteId);
  if (!athlete) return [];
  return setWorks(bundle, movementOf).flatMap((work): OwnList[] => {
    const { set, base } = work;
    if (!base?.movement || !set.athleteIds.includes(athleteId) || !isForOne(set)) return [];
    if (barredBy(demandOfSet(base, set), athlete.restrictions, today)) return [];
    const reps = repsFor(set.reps, athlete.restrictions, today);
    const items = itemsOf(bundle, work, athlete);
    const [first] = items;
    if (!first) return [];
    return [
      {
        sessionId: session.id,
        drillSetId: set.id,
        date: session.date,
        name: base.name,
        how: first.how,
        cue: first.cue,
        call: set.call,
        counts: set.target === 'makes' || set.target === 'seconds' ? set.target : 'done',
        heldS: set.target === 'seconds' ? set.amount : null,
        rules: ownRules({ ...set, reps }, isYoung),
        items: items.map(({ how: _, cue: _cue, ...item }) => item),
      },
    ];
  });
};
