import type { Movement } from '@gravek/contract/movement';
import { chainMovement } from './chains';
import straightRunUp from '../../data/movements/straight-run-up.json';
import curvedRunUp from '../../data/movements/curved-run-up.json';
import crossoverRunUp from '../../data/movements/crossover-run-up.json';
import fourStepApproach from '../../data/movements/four-step-approach.json';
import blockJump from '../../data/movements/block-jump.json';
import giveGround from '../../data/movements/give-ground.json';
import closeAndShorten from '../../data/movements/close-and-shorten.json';
import stutterReadGo from '../../data/movements/stutter-read-go.json';
import gatherRightLeft from '../../data/movements/gather-right-left.json';
import cornerFielder from '../../data/movements/corner-fielder.json';
import postFootwork from '../../data/movements/post-footwork.json';
import jabAndGo from '../../data/movements/jab-and-go.json';
import twoStepFinish from '../../data/movements/two-step-finish.json';
import firstTwoSteps from '../../data/movements/first-two-steps.json';
import wallSwitches from '../../data/movements/wall-switches.json';
import steadyCadence from '../../data/movements/steady-cadence.json';
import goalArc from '../../data/movements/goal-arc.json';
import gaps from '../../data/movements/gaps.json';
import lineFirstSteps from '../../data/movements/line-first-steps.json';
import slideCloseOut from '../../data/movements/slide-close-out.json';

/** The built-in movements, in the order in which a coach meets them; a test holds each to the schema. */
export const MOVEMENTS = [
  straightRunUp,
  curvedRunUp,
  crossoverRunUp,
  fourStepApproach,
  blockJump,
  giveGround,
  closeAndShorten,
  stutterReadGo,
  gatherRightLeft,
  cornerFielder,
  postFootwork,
  jabAndGo,
  twoStepFinish,
  firstTwoSteps,
  wallSwitches,
  steadyCadence,
  goalArc,
  gaps,
  lineFirstSteps,
  slideCloseOut,
] as unknown as readonly Movement[];

/**
 * A built-in movement, a chain by the codes of its parts, or one of the club's own.
 *
 * @param clubMovements the club's movements; their code is their id
 * @throws {RangeError} when there is no movement of that code
 * @example movementOf('gaps').name // 'Gaps'
 */
export const movementOf = (code: string, clubMovements: readonly Movement[] = []): Movement => {
  const found =
    [...MOVEMENTS, ...clubMovements].find((movement) => movement.code === code) ??
    chainMovement(code);
  if (!found) throw new RangeError(`movement must be one of the library, got ${code}`);
  return found;
};
