import { causeLinks, type ShownTogether } from '@gravek/core/cue/causeLinks';
import type { CauseCheck } from '@gravek/contract/faults';
import type { Fault, Movement } from '@gravek/contract/movement';
import { firstPhaseOf } from '../movement/byCode';

/** A movement's faults in the order in which they show: by phase, in a phase as they are written. */
const inOrder = (movement: Movement): Fault[] =>
  [...movement.faults].sort((a, b) => firstPhaseOf(movement, a) - firstPhaseOf(movement, b));

/**
 * What a club's reps say of a movement's chain of causes.
 *
 * @param strata what showed, by athlete and session
 */
export const checkCauses = (movement: Movement, strata: readonly ShownTogether[]): CauseCheck => ({
  reps: strata.reduce((sum, stratum) => sum + stratum.reps, 0),
  links: causeLinks({ strata, faults: inOrder(movement) }),
});

/**
 * A movement with one link of its chain put in or taken out.
 *
 * @example
 * withLink(straightRunUp, { from: straightRunUp.faults[0].code, to: straightRunUp.faults[1].code }, true).faults[0].leadsTo.includes(straightRunUp.faults[1].code)
 * // true
 */
export const withLink = (
  movement: Movement,
  { from, to }: { from: string; to: string },
  isShown: boolean,
): Movement => ({
  ...movement,
  faults: movement.faults.map((fault) =>
    fault.code !== from
      ? fault
      : {
          ...fault,
          leadsTo: [...fault.leadsTo.filter((code) => code !== to), ...(isShown ? [to] : [])],
        },
  ),
});
