import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { drillOf } from '../movement/byCode';

/** What the solvers take as the slowest. */
const SLOWEST = 0.2;
const SLOWEST_PART = 0.1;

/**
 * The runs of a movement: what a slower pace slows down.
 *
 * @example runsOf(straightRunUp).length // 4
 */
export const runsOf = (movement: Movement): MovementPhase[] =>
  movement.phases.filter((phase) => phase.steps.kind === 'build-up');

const speedOf = (movement: Movement, choices: Choices, phase: string): number => {
  if (!isSequence(choices)) return 1;
  const drill = choices.drill ? drillOf(movement, choices.drill) : undefined;
  return choices.speeds?.[phase] ?? drill?.speeds?.[phase] ?? 1;
};

/**
 * The fastest that a plan asks anybody to run, as a part of full speed.
 *
 * @example askedSpeed(straightRunUp, straightStart(straightRunUp)) // 1
 */
export const askedSpeed = (movement: Movement, choices: Choices): number => {
  if (!isSequence(choices)) return choices.speedFraction;
  const drill = choices.drill ? drillOf(movement, choices.drill) : undefined;
  const parts = runsOf(movement).map(({ code }) => speedOf(movement, choices, code));
  return (
    choices.speedFraction *
    (drill?.speedFraction ?? 1) *
    (parts.length > 0 ? Math.max(...parts) : 1)
  );
};

/**
 * A plan as a set runs it: the way in at a part of the plan's speed, short steps and all that follows
 * as they are; where there is no way in, all of it.
 *
 * @param pace 0.1 to 1, of the plan's own speed
 * @example askedSpeed(gaps, atPace(gaps, sequenceStart(), 0.6)) // 0.6
 */
export const atPace = (movement: Movement, choices: Choices, pace: number): Choices => {
  if (pace === 1) return choices;
  if (!isSequence(choices) || runsOf(movement).length === 0) {
    return { ...choices, speedFraction: Math.max(SLOWEST, choices.speedFraction * pace) };
  }
  const speeds = runsOf(movement).map(({ code }): [string, number] => [
    code,
    Math.max(SLOWEST_PART, speedOf(movement, choices, code) * pace),
  ]);
  return { ...choices, speeds: { ...choices.speeds, ...Object.fromEntries(speeds) } };
};
