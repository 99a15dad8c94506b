import type { Ending, StraightInput, StraightPlan } from '../runup/straightPlan';
import { spanM } from './body';
import { type Ground, mark, runWidthM } from './ground';
import type { PhaseSteps, SequencePhase } from './sequence';
import { moved, stepOn } from './walker';

export type BuildUp = Extract<PhaseSteps, { kind: 'build-up' }>;
type Short = Extract<PhaseSteps, { kind: 'short' }>;
export type Curve = Extract<PhaseSteps, { kind: 'curve' }>;

/** What may be asked of the straight solver beyond what the movement says. */
export type RunAsk = Partial<Omit<StraightInput, 'model'>>;

export const isRun = (phase: SequencePhase): phase is SequencePhase & { steps: BuildUp } =>
  phase.steps.kind === 'build-up';

const hasEnd = (phase: SequencePhase | undefined): boolean =>
  phase !== undefined &&
  ((phase.steps.kind === 'short' && phase.steps.target !== null) ||
    (phase.steps.kind === 'curve' && phase.steps.bar !== null));

/**
 * How many phases from one on make one run-up: all build-up phases in a row, with the short steps or
 * the curve that end it when those have a target of their own.
 *
 * @example
 * const phases = [{ steps: { kind: 'build-up' }, turn: null }, { steps: { kind: 'short' }, turn: null }, { steps: { kind: 'hold' }, turn: null }];
 * runLength(phases, 0) // 2
 */
export const runLength = (path: readonly SequencePhase[], from: number): number => {
  let to = from;
  while (to < path.length && isRun(path[to]!) && (to === from || path[to]!.turn === null)) to += 1;
  if (to > from && hasEnd(path[to]) && path[to]!.turn === null) to += 1;
  return to - from;
};

/** Steps of each phase when the whole run-up takes `n`: the filling phase gives or takes the difference. */
const shares = (run: readonly (SequencePhase & { steps: BuildUp })[], n: number): number[] => {
  const counts = run.map(({ steps }) => steps.steps);
  let over = counts.reduce((sum, count) => sum + count, 0) - n;
  const fill = Math.max(
    0,
    run.findIndex(({ steps }) => steps.fill),
  );
  const order = [fill, ...counts.keys()].filter((i, at, all) => all.indexOf(i) === at);
  for (const i of order) {
    const taken = over < 0 ? over : Math.min(over, counts[i]!);
    counts[i]! -= taken;
    over -= taken;
  }
  return counts;
};

/** The phase that each step of a run-up belongs to. */
export const phaseOfStep = (
  run: readonly (SequencePhase & { steps: BuildUp })[],
  n: number,
): string[] => shares(run, n).flatMap((count, i) => Array<string>(count).fill(run[i]!.code));

type Straight = { input: StraightInput; target: string };

/** What the solver is asked for a run-up with a target on the ground, or null when it has none. */
export const straightAsked = (
  ground: Ground,
  run: readonly (SequencePhase & { steps: BuildUp })[],
  end: Short | null,
  ask: RunAsk,
): Straight | null => {
  const last = run.at(-1)!.steps.target;
  const target = end?.target ?? last;
  if (!target) return null;
  const running = run.reduce((sum, phase) => sum + phase.steps.steps, 0);
  const ending: Ending = end
    ? {
        kind: 'short',
        count: end.steps,
        taperSteps: end.taper,
        // Counted in a tall body's own measures a short step may come out longer than any.
        lengthM: Math.min(1.5, Math.max(0.03, spanM(end.step, ground.body))),
        cadenceSpm: end.cadenceSpm,
      }
    : { kind: 'penultimate', longer: last!.longer, shorter: last!.shorter };
  return {
    target: target.name,
    input: {
      model: ground.body.model,
      takeoffFoot: target.arrive,
      steps: running + (end ? end.steps + end.taper : 0),
      ending,
      absorb: 'early',
      speedFraction: ground.speed,
      ...ask,
    },
  };
};

export const layStraight = (
  ground: Ground,
  run: readonly (SequencePhase & { steps: BuildUp })[],
  endCode: string | null,
  { target }: Straight,
  plan: StraightPlan,
): void => {
  const { walker, body } = ground;
  const ending = plan.steps.filter((step) => step.role === 'taper' || step.role === 'short').length;
  const codes = phaseOfStep(run, plan.steps.length - (endCode ? ending : 0));
  const before = walker.n;
  for (const check of plan.checkMarks) {
    mark(
      ground,
      'check',
      `${check.stepsOut} steps out`,
      moved(walker.centre, walker.facingDeg, plan.distanceM - check.toTargetM),
    );
    ground.marks.at(-1)!.n = before + plan.steps.length - check.stepsOut;
  }
  for (const step of plan.steps) {
    if (
      (step.role === 'taper' || step.role === 'short') &&
      plan.steps[step.n - 2]?.role === 'build'
    ) {
      mark(ground, 'shorten', 'shorten here');
    }
    const fall = stepOn(walker, codes[step.n - 1] ?? endCode ?? codes.at(-1)!, {
      foot: step.foot,
      contact: step.role === 'short' ? 'short' : 'step',
      intervalS: step.intervalS,
      travelDeg: walker.facingDeg,
      advanceM: step.lengthM,
      widthM: runWidthM(body),
    });
    fall.toLineM = step.toTargetM;
  }
  // The last short step ends in reach of whoever is met, not on their feet.
  mark(ground, 'target', target === 'opponent' ? 'in reach' : target);
  walker.run += plan.steps.length;
};
