import type { DrillSet } from '@gravek/contract/drillSet';

/** A press that is shorter than this was meant as a tap, seconds. */
export const LEAST_HOLD_S = 0.5;

/**
 * Whether a rep that was run is clean: no fault was seen in it, and what was to be held was held as long as
 * that.
 *
 * @param rep `heldS`: null where no seconds count
 * @example outcomeOf({ target: 'seconds', amount: 3 }, { faults: [], heldS: 2.1 }) // 'fault'
 * Source: domain definitions, section 5.
 */
export const outcomeOf = (
  { target, amount }: Pick<DrillSet, 'target' | 'amount'>,
  { faults, heldS }: { faults: readonly string[]; heldS: number | null },
): 'clean' | 'fault' =>
  faults.length > 0 || (target === 'seconds' && heldS !== null && heldS < amount)
    ? 'fault'
    : 'clean';
