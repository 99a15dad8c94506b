import type { SolvedStep, StraightPlan } from '@gravek/core/solveStraight';
import type { LengthStyle } from '@gravek/core/units';
import { scaleLinear } from 'd3-scale';

/** Room beside the run, pixels. */
export const LEFT = 34;
export const RIGHT = 26;

/** A part of the run that is drawn to a scale of its own, up to the target. */
export type Stretch = {
  /** where it begins, metres before the target */
  fromM: number;
  /** steps that are drawn and measured in it */
  steps: readonly SolvedStep[];
  /** of a metre */
  pixels: number;
  x: (toTargetM: number) => number;
};

const stretchOf = (fromM: number, steps: readonly SolvedStep[], width: number): Stretch => ({
  fromM,
  steps,
  pixels: (width - LEFT - RIGHT) / fromM,
  x: scaleLinear([fromM, 0], [LEFT, width - RIGHT]),
});

/** Between the lengths of one foot's steps, pixels. */
export const apart = ({ unit }: LengthStyle): number =>
  unit === 'imperial' || unit === 'yards' ? 52 : 34;

/** So many steps at least are worth a drawing of their own, and no more than this part of the run. */
const LEAST_CROWDED = 3;
const MOST_CROWDED = 0.6;

/** The last steps, where they stand so close that their lengths have no room; null where all have. */
const crowdedEnd = (
  { steps, distanceM }: StraightPlan,
  whole: Stretch,
  style: LengthStyle,
): readonly SolvedStep[] | null => {
  const roomy = steps.findLastIndex(
    (step, i) =>
      i + 2 < steps.length &&
      whole.x(steps[i + 2]!.toTargetM) - whole.x(step.toTargetM) >= apart(style),
  );
  const close = steps.slice(roomy + 3);
  const first = close[0];
  return first &&
    close.length >= LEAST_CROWDED &&
    first.toTargetM + first.lengthM < MOST_CROWDED * distanceM
    ? close
    : null;
};

/** What is drawn: the whole run, and its end anew where that is crowded. */
export const stretchesOf = (
  plan: StraightPlan,
  style: LengthStyle,
  width: number,
): { main: Stretch; end: Stretch | null } => {
  const whole = stretchOf(plan.distanceM, plan.steps, width);
  const close = crowdedEnd(plan, whole, style);
  const first = close?.[0];
  if (!close || !first) return { main: whole, end: null };
  return {
    main: { ...whole, steps: plan.steps.slice(0, first.n - 1) },
    end: stretchOf(first.toTargetM + first.lengthM, close, width),
  };
};
