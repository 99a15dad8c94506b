import type { Movement } from '@gravek/contract/movement';
import { drillOf } from './byCode';

/**
 * The movement as one of its drills has it. A drill with steps of its own is laid out by them: they take the
 * place of the movement's phases, and a fault that the drill is against can be seen in them. What a drill without
 * steps of its own sets out stands beside what the movement has.
 *
 * @param code of the drill; null for the whole movement
 * @example asDrilled(steadyCadence, 'low-high-skips').phases[0]!.code // 'low-skips', not 'roll-in'
 */
export const asDrilled = (movement: Movement, code: string | null | undefined): Movement => {
  const drill = code ? drillOf(movement, code) : undefined;
  if (!drill?.phases?.length) {
    if (!drill?.others?.length) return movement;
    const { place } = movement;
    const otherSide = place?.otherSide && {
      ...place.otherSide,
      others: [...place.otherSide.others, ...drill.others],
    };
    return {
      ...movement,
      others: [...movement.others, ...drill.others],
      place: otherSide ? { ...place, otherSide } : place,
    };
  }
  const phases = drill.phases;
  const codes = phases.map((phase) => phase.code);
  return {
    ...movement,
    phases,
    others: drill.others ?? [],
    place:
      movement.place && drill.placeAt
        ? { ...movement.place, at: drill.placeAt, otherSide: null }
        : null,
    faults: movement.faults.map((fault) =>
      !fault.read && fault.drills.includes(drill.code)
        ? { ...fault, phases: [...new Set([...fault.phases, ...codes])] }
        : fault,
    ),
  };
};
