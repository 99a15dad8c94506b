import { number, oneOf, whole } from '../check';
import { footBefore } from '../feet';
import { checkModel, modelCadenceSpm, modelLengthM, type StepModel } from './stepModel';
import {
  type Absorb,
  type Brake,
  checkBounds,
  checkEnding,
  checkPins,
  type Ending,
  type Pin,
  type SolvedStep,
  type StepBound,
  type StepRole,
  type StraightFailure,
  type StraightInput,
  type StraightPlan,
  type StraightResult,
} from './straightPlan';

/** Changes when the same input could give other figures; stored with every solved plan. */
export const SOLVER_VERSION = 1;

const DEFAULT_TOLERANCE = 0.08;
/** An adjusting step bends this many times more readily than the others. */
const STIFFNESS = 25;

export type Preferred = { role: StepRole; lengthM: number; cadenceSpm: number; fixed: boolean };

/** What each step would be if nothing had to be corrected. */
const preferredSteps = (
  model: StepModel,
  n: number,
  ending: Ending,
  speedFraction: number,
): Preferred[] => {
  const scale = Math.sqrt(speedFraction);
  const build = (k: number): Preferred => ({
    role: 'build',
    lengthM: modelLengthM(model, k) * scale,
    cadenceSpm: modelCadenceSpm(model, k) * scale,
    fixed: false,
  });
  if (ending.kind === 'short') {
    const { count, taperSteps, lengthM, cadenceSpm } = ending;
    const builds = n - count - taperSteps;
    const from = build(builds);
    return Array.from({ length: n }, (_, i): Preferred => {
      const k = i + 1;
      if (k <= builds) return build(k);
      if (k > n - count) return { role: 'short', lengthM, cadenceSpm, fixed: true };
      const part = (k - builds) / (taperSteps + 1);
      return {
        role: 'taper',
        lengthM: from.lengthM * (lengthM / from.lengthM) ** part,
        cadenceSpm: from.cadenceSpm + (cadenceSpm - from.cadenceSpm) * part,
        fixed: false,
      };
    });
  }
  return Array.from({ length: n }, (_, i): Preferred => {
    const k = i + 1;
    const step = build(k);
    if (ending.kind === 'even' || k < n - 1) return step;
    const role = k === n ? 'last' : 'penultimate';
    const factor = k === n ? 1 - ending.shorter : 1 + ending.longer;
    return {
      role,
      lengthM: step.lengthM * factor,
      cadenceSpm: step.cadenceSpm / factor,
      fixed: false,
    };
  });
};

/** How stiffly each step resists a change. */
const weights = (absorb: Absorb, n: number): number[] =>
  Array.from({ length: n }, (_, i) => {
    if (absorb === 'even') return 1;
    if (absorb === 'early') return n === 1 ? 1 : 1 + 9 * (i / (n - 1)) ** 2;
    return n - 1 - i === absorb.stepsOut ? 1 : STIFFNESS;
  });

/** How far each step may go, as a fraction of its preferred length. */
type Limits = { low: number; high: number };

/** What the tolerance, the pins and the bounds leave of each step; what is said of one step wins. */
const stepLimits = (
  preferred: readonly Preferred[],
  tolerance: number,
  pins: readonly Pin[],
  bounds: readonly StepBound[],
): Limits[] => {
  const limits = preferred.map(({ fixed }): Limits => ({
    low: fixed ? 0 : -tolerance,
    high: fixed ? 0 : tolerance,
  }));
  for (const { step, minM, maxM } of bounds) {
    const { lengthM } = preferred[step - 1]!;
    const limit = limits[step - 1]!;
    if (minM !== undefined) limit.low = Math.max(limit.low, minM / lengthM - 1);
    if (maxM !== undefined) limit.high = Math.min(limit.high, maxM / lengthM - 1);
    if (limit.low > limit.high) {
      // Beyond the tolerance: as near to it as the bound allows.
      const edge = maxM !== undefined && limit.high === maxM / lengthM - 1 ? limit.high : limit.low;
      limits[step - 1] = { low: edge, high: edge };
    }
  }
  for (const { step, lengthM } of pins) {
    const change = lengthM / preferred[step - 1]!.lengthM - 1;
    limits[step - 1] = { low: change, high: change };
  }
  return limits;
};

const within = (value: number, { low, high }: Limits): number =>
  Math.min(high, Math.max(low, value));

/**
 * Relative changes r that minimise Σ wₖrₖ² with Σ pₖrₖ = excess and lowₖ ≤ rₖ ≤ highₖ: the stationary
 * point rₖ = clip(λpₖ/wₖ). Σ pₖrₖ(λ) is piecewise linear and rising, so λ is found exactly by walking
 * its corners in order: at λ = lowₖwₖ/pₖ step k begins to give, at highₖwₖ/pₖ it has given all.
 *
 * @param excessM distance to make up, metres, within what the limits allow
 */
const shareOut = (
  preferredM: readonly number[],
  weight: readonly number[],
  limits: readonly Limits[],
  excessM: number,
): number[] => {
  const corners = preferredM
    .flatMap((p, i) => {
      const { low, high } = limits[i]!;
      const give = p ** 2 / weight[i]!;
      return [
        { lambda: (low * weight[i]!) / p, slope: give },
        { lambda: (high * weight[i]!) / p, slope: -give },
      ];
    })
    .sort((a, b) => a.lambda - b.lambda);
  let reached = preferredM.reduce((sum, p, i) => sum + p * limits[i]!.low, 0);
  let slope = 0;
  let lambda = corners[0]?.lambda ?? 0;
  for (const corner of corners) {
    const next = reached + (corner.lambda - lambda) * slope;
    if (next >= excessM) break;
    reached = next;
    lambda = corner.lambda;
    slope += corner.slope;
  }
  if (slope > 1e-12) lambda += Math.max(0, excessM - reached) / slope;
  return preferredM.map((p, i) => within((lambda * p) / weight[i]!, limits[i]!));
};

/**
 * Solves a straight run-up: how long each step is, so that the take-off foot lands on the target,
 * changing the athlete's own steps as little as possible.
 *
 * @returns the plan with one entry a step, or why there is none with the distances that could be run.
 *   Lengths and distances in metres, cadence in steps per minute, times in seconds.
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const ask = { model: estimateStepModel(1.75), takeoffFoot: 'left', distanceM: 24, absorb: 'early' };
 * solveStraight({ ...ask, steps: 14 }).startFoot // 'right': every step has its length and time
 * solveStraight({ ...ask, steps: 4 }).reason // 'too-long': with the bounds that can be met
 * Source: weighted least squares under one linear constraint and bounds (KKT conditions)
 */
export const solveStraight = (input: StraightInput): StraightResult => {
  const n = whole('steps', input.steps, { min: 1, max: 60 });
  const model = checkModel(input.model);
  const takeoffFoot = oneOf('takeoffFoot', input.takeoffFoot, ['left', 'right']);
  const tolerance = number('tolerance', input.tolerance ?? DEFAULT_TOLERANCE, { min: 0, max: 0.5 });
  const speedFraction = number('speedFraction', input.speedFraction ?? 1, { min: 0.2, max: 1.1 });
  const ending = checkEnding(input.ending ?? { kind: 'even' }, n);
  const absorb = input.absorb ?? 'even';
  if (typeof absorb === 'object') {
    whole('absorb.stepsOut', absorb.stepsOut, { min: 0, max: n - 1 });
  } else {
    oneOf('absorb', absorb, ['even', 'early']);
  }
  const marks = (input.checkMarks ?? []).map((mark, i) =>
    whole(`checkMarks[${i}]`, mark, { min: 1, max: n }),
  );
  if (input.distanceM !== undefined) number('distanceM', input.distanceM, { above: 0, max: 200 });

  const preferred = preferredSteps(model, n, ending, speedFraction);
  const pins = checkPins(input.pins ?? [], n);
  const limits = stepLimits(preferred, tolerance, pins, checkBounds(input.bounds ?? [], n));
  const lengthsM = preferred.map((step) => step.lengthM);
  const sumM = (change: (limit: Limits) => number): number =>
    lengthsM.reduce((sum, p, i) => sum + p * (1 + change(limits[i]!)), 0);
  const naturalM = lengthsM.reduce((sum, p) => sum + p, 0);
  const minDistanceM = sumM(({ low }) => low);
  const maxDistanceM = sumM(({ high }) => high);
  const startFoot = footBefore(takeoffFoot, n - 1);
  const fail = (reason: StraightFailure['reason']): StraightFailure => ({
    feasible: false,
    reason,
    startFoot,
    minDistanceM,
    maxDistanceM,
  });
  if (input.startFoot !== undefined) {
    oneOf('startFoot', input.startFoot, ['left', 'right']);
    if (input.startFoot !== startFoot) return fail('wrong-foot');
  }
  const distanceM = input.distanceM ?? sumM((limit) => within(0, limit));
  if (distanceM < minDistanceM - 1e-9) return fail('too-short');
  if (distanceM > maxDistanceM + 1e-9) return fail('too-long');

  const weight = weights(absorb, n);
  const change =
    input.distanceM === undefined
      ? limits.map((limit) => within(0, limit))
      : shareOut(lengthsM, weight, limits, distanceM - naturalM);
  const pinned = new Set(pins.map((pin) => pin.step));
  let fromStartM = 0;
  let timeS = 0;
  const steps = preferred.map((step, i): SolvedStep => {
    const lengthM = step.lengthM * (1 + change[i]!);
    const intervalS = 60 / step.cadenceSpm;
    fromStartM += lengthM;
    timeS += intervalS;
    return {
      n: i + 1,
      foot: footBefore(takeoffFoot, n - 1 - i),
      role: step.role,
      pinned: pinned.has(i + 1),
      lengthM,
      preferredM: step.lengthM,
      fromStartM,
      toTargetM: i === n - 1 ? 0 : distanceM - fromStartM,
      cadenceSpm: step.cadenceSpm,
      intervalS,
      timeS,
      speedMps: (lengthM * step.cadenceSpm) / 60,
    };
  });
  const plan: StraightPlan = {
    feasible: true,
    startFoot,
    distanceM,
    minDistanceM,
    maxDistanceM,
    maxAdjust: change.reduce((most, r) => Math.max(most, Math.abs(r)), 0),
    cost: change.reduce((sum, r, i) => sum + weight[i]! * r * r, 0),
    endSpeedMps: steps[n - 1]!.speedMps,
    totalTimeS: timeS,
    steps,
    checkMarks: marks.map((stepsOut) => ({
      stepsOut,
      toTargetM: stepsOut === n ? distanceM : steps[n - 1 - stepsOut]!.toTargetM,
      foot: footBefore(takeoffFoot, stepsOut),
    })),
  };
  if (ending.kind === 'short') plan.brake = zoneBraking(steps, ending);
  return plan;
};

/** Mean deceleration over the zone, from the last build step's speed to the short speed, v² = v₀² − 2as. */
const zoneBraking = (
  steps: readonly SolvedStep[],
  ending: Extract<Ending, { kind: 'short' }>,
): Brake => {
  const entrySpeedMps = steps[steps.length - ending.count - ending.taperSteps - 1]!.speedMps;
  const shortSpeedMps = (ending.lengthM * ending.cadenceSpm) / 60;
  const zone = steps.slice(steps.length - ending.count - ending.taperSteps);
  const lengthOf = (some: readonly SolvedStep[]): number =>
    some.reduce((sum, step) => sum + step.lengthM, 0);
  const brakeZoneM = lengthOf(zone);
  return {
    shortenAtM: lengthOf(zone.slice(ending.taperSteps)),
    brakeZoneM,
    entrySpeedMps,
    shortSpeedMps,
    decelMps2: (entrySpeedMps ** 2 - shortSpeedMps ** 2) / (2 * brakeZoneM),
  };
};
