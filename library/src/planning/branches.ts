import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import type { Body } from '@gravek/core/layout/body';
import { pathOf } from '@gravek/core/layout/sequence';
import type { Layout } from '@gravek/core/layout/shape';
import { asDrilled } from '../movement/asDrilled';
import { bySchools } from '../movement/schools';
import { type PlanChoices, laidOut } from './plan';

/** Where another exit of a read leads: the way of the body from the read on. */
export type Branch = { name: string; points: Layout['track'] };

/**
 * The exits that are not taken, of every read on the way.
 *
 * @example branchesOf(giveGround, body).map(({ name }) => name) // ['To the left', 'He stops']
 */
export const branchesOf = (
  movement: Movement,
  athlete: Body,
  choices: PlanChoices = {},
): Branch[] => {
  // A drill's part or forced exit has no other ways.
  if (choices.drill) return [];
  const path = phasesOn(movement, choices);
  return path.flatMap((phase) => {
    const options = phase.read?.options ?? [];
    const taken = path[path.indexOf(phase) + 1]?.code;
    return options
      .filter((option) => option.to !== taken)
      .map((option): Branch => {
        const other = laidOut(movement, athlete, {
          ...choices,
          reads: { ...choices.reads, [phase.code]: option.code },
        });
        const readS = other.phases.find((span) => span.code === phase.code)?.toS ?? 0;
        return {
          name: option.name,
          points: other.track.filter((point) => point.timeS >= readS - 1e-9),
        };
      });
  });
};

/**
 * The phases that are gone through under some choices.
 *
 * @example phasesOn(giveGround, { reads: { give: 'left' } }).at(-1).code // 'run-left'
 */
export const phasesOn = (
  movement: Movement,
  choices: Pick<PlanChoices, 'reads' | 'schools' | 'drill'> = {},
): MovementPhase[] =>
  pathOf(bySchools(asDrilled(movement, choices.drill), choices.schools).phases, choices.reads);

/**
 * The exits that a plan takes at its reads, by name; none where a drill forces its own.
 *
 * @example
 * const choices = sequenceStart();
 * exitsOf(giveGround, { ...choices, reads: Object.fromEntries(giveGround.phases.filter(({ read }) => read).map(({ code, read }) => [code, read.options[0].code])) })
 * // ['To the right']
 */
export const exitsOf = (movement: Movement, choices: Choices): string[] => {
  if (!isSequence(choices) || choices.drill) return [];
  return phasesOn(movement, choices).flatMap(({ code, read }) => {
    const readChoice = choices.reads[code];
    const exit = read?.options.find((option) => option.code === readChoice);
    return exit ? [exit.name] : [];
  });
};
