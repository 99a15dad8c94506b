import type { Layout } from '@gravek/core/layout/shape';
import type { Footfall, Place } from '@gravek/core/layout/walker';
import type { LengthStyle } from '@gravek/core/units';
import { scaleLinear } from 'd3-scale';
import type { Ground } from './ground';

/** Room beside the run, pixels. */
export const LEFT = 34;
export const RIGHT = 26;
/** From the middle of the run to the prints of a foot: wider than to scale, so that both feet are seen. */
export const ASIDE = 17;
/** The middle of the run, down from the top. */
export const LINE_Y = 86;

/** A part of the run that is drawn to a scale of its own, up to the target. */
export type Stretch = {
  /** where it begins, metres before the target */
  fromM: number;
  /** footfalls that are drawn and measured in it */
  falls: readonly Footfall[];
  ground: Ground;
  x: (toTargetM: number) => number;
};

/** From the start mark to the target, metres. */
export const runM = ({ marks }: Pick<Layout, 'marks'>): number =>
  marks.find(({ kind }) => kind === 'target')!.aheadM;

/** Metres left to the target. */
export const leftM = (layout: Pick<Layout, 'marks'>, { aheadM }: Place): number =>
  runM(layout) - aheadM;

const stretchOf = (
  layout: Layout,
  fromM: number,
  falls: readonly Footfall[],
  width: number,
): Stretch => {
  const x = scaleLinear([fromM, 0], [LEFT, width - RIGHT]);
  const halfM = Math.abs(layout.footfalls[0]!.besideM);
  return {
    fromM,
    falls,
    x,
    ground: {
      ...{ width, height: 2 * LINE_Y, pixelsPerM: (width - LEFT - RIGHT) / fromM },
      at: (place) => [x(leftM(layout, place)), LINE_Y + (ASIDE * place.besideM) / halfM],
      turn: (headingDeg) => headingDeg,
    },
  };
};

/** Between the lengths of one foot's steps, pixels. */
export const apart = ({ unit }: LengthStyle): number =>
  unit === 'imperial' || unit === 'yards' ? 52 : 34;

/** So many steps at least are worth a drawing of their own, and no more than this part of the run. */
const LEAST_CROWDED = 3;
const MOST_CROWDED = 0.6;

/** What is drawn: the whole run, and its last steps anew where they stand so close that lengths have no room. */
export const stretchesOf = (
  layout: Layout,
  style: LengthStyle,
  width: number,
): { main: Stretch; end: Stretch | null } => {
  const { footfalls } = layout;
  const distanceM = runM(layout);
  const whole = stretchOf(layout, distanceM, footfalls, width);
  const at = (fall: Footfall): number => whole.ground.at(fall)[0];
  // The next of the same foot is two steps on.
  const roomy = footfalls.findLastIndex(
    (fall, i) => i + 2 < footfalls.length && at(footfalls[i + 2]!) - at(fall) >= apart(style),
  );
  const close = footfalls.slice(roomy + 3);
  const fromM = close[0] ? leftM(layout, close[0]) + close[0].lengthM : 0;
  if (close.length < LEAST_CROWDED || fromM >= MOST_CROWDED * distanceM)
    return { main: whole, end: null };
  return {
    main: { ...whole, falls: footfalls.slice(0, roomy + 3) },
    end: stretchOf(layout, fromM, close, width),
  };
};
