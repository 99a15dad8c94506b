export type Foot = 'left' | 'right';

export const otherFoot = (foot: Foot): Foot => (foot === 'left' ? 'right' : 'left');

/** The foot of the step `stepsBefore` steps before one made with `foot`. */
export const footBefore = (foot: Foot, stepsBefore: number): Foot =>
  stepsBefore % 2 === 0 ? foot : otherFoot(foot);

/** Which foot somebody takes off from as long as nobody says otherwise: the one across from the hand. */
export const usualTakeoffFoot = (hand: Foot): Foot => otherFoot(hand);
