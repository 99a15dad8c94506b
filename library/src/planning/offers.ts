import type { NearbyPlan } from '@gravek/core/runup/stepCounts';
import type { StraightFailure, StraightPlan } from '@gravek/core/runup/straightPlan';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';

const percent = (part: number): string => `${(part * 100).toFixed(1)} %`;

/**
 * Why there is no plan, and by how much it fails.
 *
 * @example
 * const choices = straightStart(straightRunUp);
 * const failure = solveStraight({ model: estimateStepModel(1.75), takeoffFoot: 'left', steps: 16, distanceM: 12 });
 * whyNot(failure, { ...choices, steps: 16, distanceM: 12 }, metric)
 * // '16 steps need at least 24.89 m when no step changes by more than 8.0 %; 12.00 m is 12.89 m too short.'
 */
export const whyNot = (
  failure: StraightFailure,
  choices: StraightChoices,
  style: LengthStyle,
): string => {
  const { steps, tolerance, distanceM } = choices;
  const write = (m: number): string => formatLength(m, style);
  if (failure.reason === 'wrong-foot') {
    return `${steps} steps from the ${choices.startFoot} foot end on the wrong foot: an ${steps % 2 ? 'odd' : 'even'} count has to start with the ${failure.startFoot}.`;
  }
  const askedM = distanceM ?? 0;
  const pins = choices.pins.length;
  const pinned = pins === 0 ? '' : `, ${pins === 1 ? 'one step is' : `${pins} steps are`} pinned`;
  return failure.reason === 'too-long'
    ? `${steps} steps reach at most ${write(failure.maxDistanceM)} when no step changes by more than ${percent(tolerance)}${pinned}; ${write(askedM)} is ${write(askedM - failure.maxDistanceM)} too far.`
    : `${steps} steps need at least ${write(failure.minDistanceM)} when no step changes by more than ${percent(tolerance)}${pinned}; ${write(askedM)} is ${write(failure.minDistanceM - askedM)} too short.`;
};

/**
 * What a nearby plan that works changes.
 *
 * @example offer({ change: 'steps', steps: 14 }, metric) // '14 steps'
 */
export const offer = (nearby: NearbyPlan, style: LengthStyle): string => {
  switch (nearby.change) {
    case 'distance':
      return `Start mark at ${formatLength(nearby.distanceM, style)}`;
    case 'steps':
      return `${nearby.steps} steps`;
    case 'tolerance':
      return `Let steps change by ${percent(nearby.tolerance)}`;
    case 'foot':
      return `Start with the ${nearby.plan.startFoot} foot`;
    case 'pins':
      return 'Let go of the pinned steps';
  }
};

/** The choices with which a nearby plan is made. */
export const withOffer = (choices: StraightChoices, nearby: NearbyPlan): StraightChoices => {
  switch (nearby.change) {
    case 'distance':
      return { ...choices, distanceM: nearby.distanceM, startFoot: null };
    case 'steps':
      return { ...choices, steps: nearby.steps, startFoot: null, pins: [] };
    case 'tolerance':
      return { ...choices, tolerance: nearby.tolerance, startFoot: null };
    case 'foot':
      return { ...choices, startFoot: nearby.plan.startFoot };
    case 'pins':
      return { ...choices, pins: [] };
  }
};

/**
 * What the plan asks of the athlete's own steps, in a sentence.
 *
 * @example
 * const plan = solveStraight({ model: estimateStepModel(1.75), takeoffFoot: 'left', steps: 12 });
 * whatChanges(plan, metric) // 'Every step at its natural length.'
 */
export const whatChanges = (plan: StraightPlan, style: LengthStyle): string => {
  if (plan.maxAdjust < 0.0005) return 'Every step at its natural length.';
  const natural = plan.steps.reduce((sum, step) => sum + step.preferredM, 0);
  const most = plan.steps.filter(
    (step) => Math.abs(step.lengthM / step.preferredM - 1) >= plan.maxAdjust * 0.9,
  );
  const [first, last] = [most[0]!.n, most.at(-1)!.n];
  const longer = most.filter((step) => step.lengthM > step.preferredM).length;
  const [text, many] =
    longer === most.length
      ? ['stretches', 'stretch']
      : longer === 0
        ? ['shortens', 'shorten']
        : ['changes', 'change'];
  const who = first === last ? `Step ${first} ${text}` : `Steps ${first} to ${last} ${many}`;
  return `${who} by up to ${percent(plan.maxAdjust)}. A start mark at ${formatLength(natural, style)} would leave every step at its natural length.`;
};
