import type { Movement } from '@gravek/contract/movement';

type Coded = { code: string };
const coded =
  <T extends Coded>(pick: (movement: Movement) => readonly T[]) =>
  (movement: Movement, code: string): T | undefined =>
    pick(movement).find((part) => part.code === code);

export const faultOf = coded((movement) => movement.faults);
export const drillOf = coded((movement) => movement.drills);
export const phaseOf = coded((movement) => movement.phases);

/**
 * Place of the earliest phase in which a fault can be seen, from 0; -1 where none of them is there.
 *
 * @example firstPhaseOf(giveGround, faultOf(giveGround, 'no-arm')!) // 4: plant-right before plant-left
 */
export const firstPhaseOf = (
  { phases }: Pick<Movement, 'phases'>,
  fault: Pick<Movement['faults'][number], 'phases'>,
): number => phases.findIndex(({ code }) => fault.phases.includes(code));

/**
 * The first drill against a fault, if the movement names one.
 *
 * @example
 * drillFor(straightRunUp, straightRunUp.faults.find(({ code }) => code === 'reaches')).code // 'two-marks'
 */
export const drillFor = (
  movement: Movement,
  fault: Movement['faults'][number],
): Movement['drills'][number] | undefined =>
  fault.drills[0] === undefined ? undefined : drillOf(movement, fault.drills[0]);
