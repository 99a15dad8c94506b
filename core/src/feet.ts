export type Foot = 'left' | 'right';

/**
 * @example otherFoot('left') // 'right'
 */
export const otherFoot = (foot: Foot): Foot => (foot === 'left' ? 'right' : 'left');

/**
 * The foot of the step `stepsBefore` steps before one made with `foot`.
 *
 * @example footBefore('left', 13) // 'right'
 */
export const footBefore = (foot: Foot, stepsBefore: number): Foot =>
  stepsBefore % 2 === 0 ? foot : otherFoot(foot);

/**
 * Which foot somebody takes off from as long as nobody says otherwise: the one across from the hand.
 *
 * @example usualTakeoffFoot('right') // 'left'
 */
export const usualTakeoffFoot = (hand: Foot): Foot => otherFoot(hand);
