import {
  USUAL_STEP_SCATTER,
  type RunUpSimulation,
  type RunUpSpread,
  type Steering,
} from './simulateRunUps';
import { solveStraight, type StraightInput, type StraightPlan } from './solveStraight';
import { compareStepCounts } from './stepCounts';
import type { CurrentModel } from './stepModel';

/** By eye a runner makes up most of what is seen to be off, without breaking the rhythm. */
export const BY_EYE = { gain: 0.8, limit: 0.08 } satisfies Omit<Steering, 'steps'>;

const SCATTER_BOUNDS = { min: 0.004, max: 0.15 };

/**
 * An athlete's own step scatter as a fraction of a step's length.
 *
 * @returns whether it comes from measured runs, or is the usual one
 */
export const stepScatter = ({
  fit,
  source,
}: CurrentModel): { scatter: number; measured: boolean } => {
  if (!fit || source === 'estimate') return { scatter: USUAL_STEP_SCATTER, measured: false };
  const meanM = fit.steps.reduce((sum, step) => sum + step.lengthM, 0) / fit.steps.length;
  const { min, max } = SCATTER_BOUNDS;
  return { scatter: Math.max(min, Math.min(max, fit.scatterM / meanM)), measured: true };
};

/** A plan to hold beside another: its own, one with the start mark moved, or one of another count. */
export type ComparedPlan = {
  lengthsM: number[];
  /** how far the start mark lies from that of the plan, away from the target positive; null for another count */
  movedM: number | null;
};

const lengthsOf = (plan: StraightPlan): number[] => plan.steps.map((step) => step.lengthM);

/**
 * The plan itself, the same with its start mark moved both ways, and other step counts: those that can
 * be run.
 *
 * @param counts step counts to look at
 * @param byM how far the start mark is moved, metres
 */
export const plansBeside = (
  plan: StraightPlan,
  ask: StraightInput,
  counts: { from: number; to: number },
  byM: number,
): ComparedPlan[] => {
  const lengthsM = lengthsOf(plan);
  const moved = [-byM, byM].flatMap((movedM): ComparedPlan[] => {
    const result = solveStraight({ ...ask, distanceM: plan.distanceM + movedM });
    return result.feasible ? [{ lengthsM: lengthsOf(result), movedM }] : [];
  });
  const others = compareStepCounts(ask, counts.from, counts.to).choices.flatMap(
    ({ steps, result }): ComparedPlan[] =>
      result.feasible && steps !== lengthsM.length
        ? [{ lengthsM: lengthsOf(result), movedM: null }]
        : [],
  );
  return [{ lengthsM, movedM: 0 }, ...moved, ...others];
};

/** How a plan holds, run blind and steered by eye over its last steps. */
export type Held = ComparedPlan & { blind: RunUpSpread; eyed: RunUpSpread };

/**
 * What to simulate for some plans: each run blind, then steered by eye, in this order.
 *
 * @param by the athlete's step scatter, over how many last steps they steer (0: not at all), and how
 *   many run-ups from which seed
 * @example
 *   const spreads = simulationsOf(plans, { scatter: 0.02, steerSteps: 4, runs: 20_000, seed: 1 })
 *     .map(simulateRunUps);
 *   const held = heldBy(plans, spreads);
 */
export const simulationsOf = (
  plans: readonly ComparedPlan[],
  by: { scatter: number; steerSteps: number; runs: number; seed: number },
): RunUpSimulation[] =>
  plans.flatMap(({ lengthsM }) =>
    [0, by.steerSteps].map((steps): RunUpSimulation => ({
      lengthsM,
      scatter: by.scatter,
      // Where to aim follows from the spread that is found.
      marginM: 0,
      steering: steps > 0 ? { ...BY_EYE, steps: Math.min(steps, lengthsM.length) } : null,
      runs: by.runs,
      seed: by.seed,
    })),
  );

/** Spreads of the simulations of some plans, put beside the plans. */
export const heldBy = (plans: readonly ComparedPlan[], spreads: readonly RunUpSpread[]): Held[] =>
  plans.flatMap((plan, i) => {
    const [blind, eyed] = [spreads[2 * i], spreads[2 * i + 1]];
    return blind && eyed ? [{ ...plan, blind, eyed }] : [];
  });
