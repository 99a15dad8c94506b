import type { Movement } from '@gravek/contract/movement';

type Coded = { code: string };
const coded =
  <T extends Coded>(pick: (movement: Movement) => readonly T[]) =>
  (movement: Movement, code: string): T | undefined =>
    pick(movement).find((one) => one.code === code);

export const faultOf = coded((movement) => movement.faults);
export const drillOf = coded((movement) => movement.drills);
export const phaseOf = coded((movement) => movement.phases);

/** The first drill against a fault, if the movement names one. */
export const drillFor = (
  movement: Movement,
  fault: Movement['faults'][number],
): Movement['drills'][number] | undefined =>
  fault.drills[0] === undefined ? undefined : drillOf(movement, fault.drills[0]);
