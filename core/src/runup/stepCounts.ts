import { whole } from '../check';
import { brakeDemand, type BrakeDemand } from './brakeDemand';
import { USUAL_BRAKING_MPS2 } from './closingSpeed';
import { solveStraight } from './solveStraight';
import type { StraightFailure, StraightInput, StraightPlan, StraightResult } from './straightPlan';

export type StepCountChoice = { steps: number; result: StraightResult };

export type StepCountComparison = {
  choices: StepCountChoice[];
  /** null when no count works */
  recommended: number | null;
  reason: string;
};

/** A step that changes by no more than this still feels like the athlete's own. */
export const COMFORT = 0.05;
/** Differences in end speed below this are not worth a worse fit. */
const SAME_SPEED = 1e-6;

/**
 * Solves every step count in a range and says which to take: the fastest end speed among those whose
 * largest change is at most 5 % (before a stop the smallest change of them), else the smallest largest
 * change.
 *
 * @param input as for `solveStraight`; its `steps` is not used, pins and bounds hold for one count
 *   only and are left out, and so are check marks beyond the start of a run
 * @param laneM room before the target: no run that starts beyond it is suggested
 * @throws {RangeError} when from or to is not within 1–60, and as `solveStraight`
 * @example
 * const ask = { model: estimateStepModel(1.75), takeoffFoot: 'left', distanceM: 24 };
 * compareStepCounts(ask, 10, 16).recommended // 14
 */
export const compareStepCounts = (
  {
    pins: _pins,
    bounds: _bounds,
    ...input
  }: Omit<StraightInput, 'steps'> & { steps?: number | undefined },
  from: number,
  to: number,
  laneM = Infinity,
): StepCountComparison => {
  whole('from', from, { min: 1, max: 60 });
  whole('to', to, { min: from, max: 60 });
  const { ending, absorb, checkMarks = [] } = input;
  const least = Math.max(
    from,
    ending?.kind === 'short' ? ending.count + ending.taperSteps + 1 : 1,
    typeof absorb === 'object' ? absorb.stepsOut + 1 : 1,
  );
  const choices: StepCountChoice[] = [];
  for (let steps = least; steps <= to; steps += 1) {
    // A mark that lies beyond the start of a short run is none.
    const marks = checkMarks.filter((stepsOut) => stepsOut < steps);
    choices.push({ steps, result: solveStraight({ ...input, steps, checkMarks: marks }) });
  }
  const feasible = choices.filter(
    (choice): choice is { steps: number; result: StraightPlan } => choice.result.feasible,
  );
  const fits = feasible.filter(({ result }) => result.distanceM <= laneM);
  const easy = fits.filter((choice) => choice.result.maxAdjust <= COMFORT + 1e-12);
  const faster = (a: (typeof fits)[number], b: (typeof fits)[number]): typeof a =>
    b.result.endSpeedMps > a.result.endSpeedMps + SAME_SPEED ? b : a;
  const gentler = (a: (typeof fits)[number], b: (typeof fits)[number]): typeof a =>
    b.result.maxAdjust < a.result.maxAdjust ? b : a;
  if (easy.length > 0) {
    // Whoever runs up to a stop gains nothing by arriving faster.
    const stops = ending?.kind === 'short';
    const best = easy.reduce(stops ? gentler : faster);
    return {
      choices,
      recommended: best.steps,
      reason:
        easy.length === 1
          ? 'The only count that changes no step by more than 5 %.'
          : stops
            ? 'Changes the steps least; before a stop the fastest is no better.'
            : 'The fastest at the target among those that change no step by more than 5 %.',
    };
  }
  if (fits.length > 0) {
    const best = fits.reduce(gentler);
    return {
      choices,
      recommended: best.steps,
      reason: 'No count keeps every step within 5 %; this one changes them least.',
    };
  }
  return {
    choices,
    recommended: null,
    reason:
      feasible.length > 0
        ? 'Every count in this range starts beyond the lane.'
        : 'No count in this range works.',
  };
};

export type NearbyPlan =
  | { change: 'distance'; distanceM: number; plan: StraightPlan }
  | { change: 'steps'; steps: number; plan: StraightPlan }
  | { change: 'tolerance'; tolerance: number; plan: StraightPlan }
  | { change: 'foot'; plan: StraightPlan }
  | { change: 'pins'; plan: StraightPlan };

/** Most that a step may change without being another step, in thousandths. */
const MOST_TOLERANCE = 250;

/** The smallest tolerance, in tenths of a percent, with which an ask can be met. */
const leastTolerance = (ask: StraightInput): (NearbyPlan & { change: 'tolerance' }) | null => {
  const at = (thousandths: number): StraightResult =>
    solveStraight({ ...ask, tolerance: thousandths / 1000 });
  let low = Math.floor((ask.tolerance ?? 0.08) * 1000);
  let high = MOST_TOLERANCE;
  let best = low < high ? at(high) : null;
  if (!best?.feasible) return null;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    const tried = at(middle);
    if (tried.feasible) [high, best] = [middle, tried];
    else low = middle;
  }
  return { change: 'tolerance', tolerance: high / 1000, plan: best as StraightPlan };
};

/**
 * For an ask that cannot be met, the nearest asks that can: the start mark moved just enough, the
 * nearest step count that reaches it on the same take-off foot, the smallest tolerance that does, the
 * start foot that arrives right, or no pins. Each comes with its plan.
 *
 * @throws {RangeError} as `solveStraight`
 */
export const nearbyPlans = (input: StraightInput, failure: StraightFailure): NearbyPlan[] => {
  if (failure.reason === 'wrong-foot') {
    const plan = solveStraight({ ...input, startFoot: failure.startFoot });
    return plan.feasible ? [{ change: 'foot', plan }] : nearbyPlans(input, plan);
  }
  const anyFoot = { ...input, startFoot: undefined };
  const { pins, bounds: _bounds, ...unpinned } = anyFoot;
  const plans: NearbyPlan[] = [];
  const distanceM = failure.reason === 'too-long' ? failure.maxDistanceM : failure.minDistanceM;
  const moved = solveStraight({ ...anyFoot, distanceM });
  if (moved.feasible) plans.push({ change: 'distance', distanceM, plan: moved });

  const direction = failure.reason === 'too-long' ? 1 : -1;
  for (let steps = input.steps + direction; steps >= 1 && steps <= 60; steps += direction) {
    const [choice] = compareStepCounts(unpinned, steps, steps).choices;
    if (!choice) break;
    if (choice.result.feasible) {
      plans.push({ change: 'steps', steps, plan: choice.result });
      break;
    }
    // Past the distance on the other side: no count fits between two neighbours.
    if (choice.result.reason !== failure.reason) break;
  }

  const stretched = leastTolerance(anyFoot);
  if (stretched) plans.push(stretched);

  if (pins && pins.length > 0) {
    const plan = solveStraight({ ...anyFoot, pins: [] });
    if (plan.feasible) plans.push({ change: 'pins', plan });
  }
  return plans;
};

/**
 * What a run-up asks of the brakes, as it is solved.
 *
 * @example
 * const ask = { model: estimateStepModel(1.75), takeoffFoot: 'left', steps: 10, ending: { kind: 'short', count: 3, taperSteps: 1, lengthM: 0.8, cadenceSpm: 300 } };
 * brakingOf(solveStraight(ask)).demandMps2 // 8.33
 */
export const brakingOf = ({ steps }: Pick<StraightPlan, 'steps'>): BrakeDemand =>
  brakeDemand({
    lengthsM: steps.map((step) => step.lengthM),
    cadencesSpm: steps.map((step) => step.cadenceSpm),
    fromStep: 1,
  });

/** Room for a rounding, so that a plan that was solved for a limit is within it. */
const ROUNDING = 1e-9;

const isWithin = (plan: Pick<StraightPlan, 'steps'>, limitMps2: number): boolean =>
  brakingOf(plan).demandMps2 <= limitMps2 + ROUNDING;

/**
 * How fast a run that shortens may close: the part of full speed, at most the asked one, from which no
 * step brakes harder than the athlete can, pins and distance as they are asked. The zone is never begun
 * earlier instead.
 *
 * @param limitMps2 the athlete's measured braking limit, 4.5 when unmeasured
 * @returns the asked speed for every other run-up, and where no speed would do
 * @throws {RangeError} as `solveStraight`
 * @example
 * const ask = { model: estimateStepModel(1.75), takeoffFoot: 'left', steps: 10, ending: { kind: 'short', count: 3, taperSteps: 1, lengthM: 0.8, cadenceSpm: 300 } };
 * closableFraction(ask, 4) // 0.79
 */
export const closableFraction = (
  input: StraightInput,
  limitMps2: number = USUAL_BRAKING_MPS2,
): number => {
  const ofFullSpeed = input.speedFraction ?? 1;
  if (input.ending?.kind !== 'short') return ofFullSpeed;
  const { distanceM: _distance, startFoot: _foot, pins: _pins, ...free } = input;
  const within = (ask: StraightInput, speedFraction: number): boolean => {
    const plan = solveStraight({ ...ask, speedFraction });
    return plan.feasible && isWithin(plan, limitMps2);
  };
  const fastest = (ask: StraightInput): number | null => {
    for (let percent = Math.floor(ofFullSpeed * 100 + 1e-9); percent >= 20; percent -= 1) {
      if (within(ask, percent / 100)) return percent / 100;
    }
    return null;
  };
  if (within(input, ofFullSpeed)) return ofFullSpeed;
  // Where pins or distance ask for too much at any speed, the close is as fast as its own steps allow.
  return (
    fastest(input) ?? (within(free, ofFullSpeed) ? ofFullSpeed : (fastest(free) ?? ofFullSpeed))
  );
};

/** What would bring a run-up within a body's limit, and the plan with it. */
export type BrakeMend = { plan: StraightPlan } & (
  | { change: 'pin'; step: number; lengthM: number; fromM: number }
  | { change: 'distance'; distanceM: number }
  | { change: 'taper'; taperSteps: number }
  | { change: 'speed'; speedFraction: number }
);

const MOST_TAPER = 8;
/** A pin is moved by so much at a time, metres. */
const PIN_GRID_M = 0.01;

/**
 * The smallest change that brings a run-up within a limit of braking: a pin moved, the start mark set free, more
 * steps to slow over, or less speed; by the share that it changes.
 *
 * @returns null where the plan is within it, or no single change does
 * @throws {RangeError} as `solveStraight`
 * @example
 * const ask = { model: estimateStepModel(1.75), takeoffFoot: 'left', steps: 12, pins: [{ step: 11, lengthM: 2.3 }] };
 * mendBraking(ask, 4.5).change // 'pin': how long that step may be at most
 */
export const mendBraking = (
  input: StraightInput,
  limitMps2: number = USUAL_BRAKING_MPS2,
): BrakeMend | null => {
  const solved = solveStraight(input);
  if (!solved.feasible || isWithin(solved, limitMps2)) return null;
  const fits = (ask: StraightInput): StraightPlan | null => {
    const plan = solveStraight(ask);
    return plan.feasible && isWithin(plan, limitMps2) ? plan : null;
  };
  const found: { share: number; mend: BrakeMend }[] = [];
  const pins = input.pins ?? [];
  pins.forEach((pin, p) => {
    const natural = solved.steps[pin.step - 1]!.preferredM;
    const moves = Math.ceil(Math.abs(natural - pin.lengthM) / PIN_GRID_M);
    for (let k = 1; k <= moves; k += 1) {
      const by = Math.sign(natural - pin.lengthM) * k * PIN_GRID_M;
      const lengthM = Number((pin.lengthM + by).toFixed(2));
      const plan = fits({ ...input, pins: pins.with(p, { ...pin, lengthM }) });
      if (!plan) continue;
      const mend = { change: 'pin' as const, step: pin.step, lengthM, fromM: pin.lengthM, plan };
      found.push({ share: Math.abs(by) / pin.lengthM, mend });
      break;
    }
  });
  if (input.distanceM !== undefined) {
    const { distanceM, ...free } = input;
    const plan = fits(free);
    if (plan) {
      const share = Math.abs(plan.distanceM - distanceM!) / distanceM!;
      found.push({ share, mend: { change: 'distance', distanceM: plan.distanceM, plan } });
    }
  }
  const { ending } = input;
  if (ending?.kind === 'short') {
    for (let more = 1; ending.taperSteps + more <= MOST_TAPER; more += 1) {
      const taperSteps = ending.taperSteps + more;
      if (ending.count + taperSteps >= input.steps) break;
      const plan = fits({ ...input, ending: { ...ending, taperSteps } });
      if (!plan) continue;
      found.push({ share: more / input.steps, mend: { change: 'taper', taperSteps, plan } });
      break;
    }
  }
  const speed = input.speedFraction ?? 1;
  for (let percent = Math.ceil(speed * 100) - 1; percent >= 20; percent -= 1) {
    const plan = fits({ ...input, speedFraction: percent / 100 });
    if (!plan) continue;
    const mend = { change: 'speed' as const, speedFraction: percent / 100, plan };
    found.push({ share: 1 - percent / 100 / speed, mend });
    break;
  }
  return found.sort((a, b) => a.share - b.share)[0]?.mend ?? null;
};
