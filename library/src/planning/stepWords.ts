import { counted } from '@gravek/core/words';
/**
 * How many steps in how long, as a coach says it.
 *
 * @param steps as `countSteps` has them
 * @example
 * stepsIn(1, 0.42) // '1 step in 0.4 s'
 * stepsIn(0, 3) // '3.0 s, no step'
 */
export const stepsIn = (steps: number, seconds: number, digits = 1): string =>
  steps === 0
    ? `${seconds.toFixed(digits)} s, no step`
    : `${counted(steps, 'step')} in ${seconds.toFixed(digits)} s`;
