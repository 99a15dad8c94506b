import { normalBelow } from '../chance/normal';
import { groupBy } from '../session/repLog';
import type { CurrentModel } from './currentModel';
import { landingSpread, spreadParts, type SpreadParts, USUAL_SPREAD } from './landingSpread';
import type { RunUpSimulation, RunUpSpread, Steering } from './simulateRunUps';
import { solveStraight } from './solveStraight';
import { compareStepCounts } from './stepCounts';
import type { StraightInput, StraightPlan } from './straightPlan';

/** By eye a runner makes up most of what is seen to be off, without breaking the rhythm. */
export const BY_EYE = { gain: 0.8, limit: 0.08 } satisfies Omit<Steering, 'steps'>;

/** How far off its mark a run starts, metres. */
export const START_SD_M = 0.02;

/**
 * How an athlete's own steps and runs scatter, from the measured runs that their model is fitted to. A step
 * that is far off the curve in one of them is left out of all: a slip of the tape is no scatter.
 *
 * @returns the usual values where too little was measured, and of how many runs it is
 * @example athleteSpread({ fit: null }) // { stepFraction: 0.022, runFraction: 0.01, runs: 0 }
 */
export const athleteSpread = ({
  fit,
}: Pick<CurrentModel, 'fit'>): SpreadParts & { runs: number } => {
  const steps = fit?.steps ?? [];
  const odd = new Set(steps.filter((step) => step.oddLength).map((step) => step.k));
  const runs = [
    ...groupBy(
      steps.filter((step) => !odd.has(step.k)),
      (step) => String(step.trial),
    ).values(),
  ];
  const { stepFraction, runFraction } = spreadParts({
    runs: runs.map((run) => run.map((step) => step.lengthM)),
  });
  return stepFraction === null || runFraction === null
    ? { ...USUAL_SPREAD, runs: 0 }
    : { stepFraction, runFraction, runs: runs.length };
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

/** How a plan holds: blind, and as it is shown, steered by eye and pulled by logged run-throughs. */
export type Held = ComparedPlan & {
  blind: RunUpSpread;
  /** as simulated with steering, in the proportion in which the run-throughs pull it */
  shown: RunUpSpread;
};

/**
 * What to simulate for some plans: each run blind, then steered by eye, in this order.
 *
 * @param by how the athlete's steps and runs scatter, over how many last steps they steer (0: not at all),
 *   and how many run-ups from which seed
 * @example
 * const model = estimateStepModel(1.75);
 * const plans = [{ steps: 12, lengthsM: Array.from({ length: 12 }, (_, i) => modelLengthM(model, i + 1)) }];
 * const by = { stepFraction: 0.02, runFraction: 0.01, steerSteps: 4, runs: 2_000, seed: 1 };
 * simulationsOf(plans, by).map(simulateRunUps).length // 2: without steering, and with it
 */
export const simulationsOf = (
  plans: readonly ComparedPlan[],
  by: SpreadParts & { steerSteps: number; runs: number; seed: number },
): RunUpSimulation[] =>
  plans.flatMap(({ lengthsM }) =>
    [0, by.steerSteps].map((steps): RunUpSimulation => ({
      lengthsM,
      stepFraction: by.stepFraction,
      runFraction: by.runFraction,
      startSdM: START_SD_M,
      // Where to aim follows from the spread that is found.
      marginM: 0,
      steering: steps > 0 ? { ...BY_EYE, steps: Math.min(steps, lengthsM.length) } : null,
      runs: by.runs,
      seed: by.seed,
    })),
  );

/**
 * The same spread, wider or narrower at the target. How far it is off before the eyes come in stays as
 * simulated; from there on the steps lead over to what was seen.
 */
const pulled = (
  spread: RunUpSpread,
  blind: RunUpSpread,
  by: number,
  lastStepM: number,
): RunUpSpread => {
  const sdM = by * spread.sdM;
  const [a, b, c, d, e] = spread.quantilesM;
  const n = spread.steps.length;
  const steered = spread.steps.findIndex((step, k) => step.sdM !== blind.steps[k]?.sdM);
  const from = steered < 0 ? 0 : steered;
  const share = (k: number): number => Math.max(0, (k + 1 - from) / (n - from));
  return {
    ...spread,
    sdM,
    steps: spread.steps.map((step, k) => {
      const stepShare = 1 + (by - 1) * share(k);
      return { ...step, meanM: stepShare * step.meanM, sdM: stepShare * step.sdM };
    }),
    quantilesM: [by * a, by * b, by * c, by * d, by * e],
    wrongFootChance: sdM > 0 ? 2 * normalBelow(-lastStepM / 2 / sdM) : 0,
    bins: spread.bins.map((bin) => ({ ...bin, fromM: by * bin.fromM, toM: by * bin.toM })),
  };
};

/**
 * Spreads of the simulations of some plans, put beside the plans. Run-throughs that were logged pull the
 * spread of the first plan, on which they were run, and those of the others in the same proportion.
 *
 * @param logged how run-throughs of the first plan landed; null where fewer than two were logged
 * @returns the plans, and of the first the spread without eyes by the sum of its steps, as it was expected,
 *   and as it is shown; null where not all was simulated
 */
export const heldBy = (
  plans: readonly ComparedPlan[],
  spreads: readonly RunUpSpread[],
  by: SpreadParts,
  logged: { n: number; sdM: number } | null,
): { held: Held[]; blindSdM: number; expectedSdM: number; shownSdM: number } | null => {
  const expectedSdM = spreads[1]?.sdM;
  if (expectedSdM === undefined || spreads.length < 2 * plans.length) return null;
  const { blindSdM, shownSdM } = landingSpread({
    ...by,
    lengthsM: plans[0]!.lengthsM,
    startSdM: START_SD_M,
    expectSdM: expectedSdM,
    logged,
  });
  const factor = logged && expectedSdM > 0 ? shownSdM / expectedSdM : 1;
  const held = plans.map((plan, i): Held => {
    const eyed = spreads[2 * i + 1]!;
    const shown =
      factor === 1 ? eyed : pulled(eyed, spreads[2 * i]!, factor, plan.lengthsM.at(-1)!);
    return { ...plan, blind: spreads[2 * i]!, shown };
  });
  return { held, blindSdM, expectedSdM, shownSdM };
};
