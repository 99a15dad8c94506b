import { bodyOf, type Body } from '@gravek/core/layout/body';

/**
 * A right-hander of 1.75 m whom nobody has measured: anew each time, so that what is solved for it may go again.
 *
 * @example usualBody().heightM // 1.75
 */
export const usualBody = (): Body =>
  bodyOf({
    hand: 'right',
    takeoffFoot: 'left',
    trials: [],
    heightM: 1.75,
    legM: null,
    shoeM: null,
  });
