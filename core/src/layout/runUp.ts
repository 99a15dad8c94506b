import {
  solveCurve,
  USUAL_UPRIGHT_GAP_M,
  type CurveInput,
  type CurvePlan,
} from '../curve/solveCurve';
import {
  solveStraight,
  type Ending,
  type StraightFailure,
  type StraightInput,
  type StraightPlan,
} from '../runup/solveStraight';
import { modelCadenceSpm, modelLengthM } from '../runup/stepModel';
import { spanM } from './body';
import { mark, openFoot, runWidthM, type Ground } from './ground';
import type { BarTarget, PhaseSteps, SequencePhase } from './sequence';
import { contactAt, moved, nextFoot, sign, stepOn, type Place } from './walker';

type BuildUp = Extract<PhaseSteps, { kind: 'build-up' }>;
type Short = Extract<PhaseSteps, { kind: 'short' }>;
type Curve = Extract<PhaseSteps, { kind: 'curve' }>;

/** What may be asked of the straight solver beyond what the movement says. */
export type RunAsk = Partial<Omit<StraightInput, 'model'>>;

/** What may be asked of a curved run-up beyond what the movement says. */
export type BarAsk = Partial<BarTarget> &
  Pick<CurveInput, 'entryFlareDeg' | 'uprightGapM' | 'apron'> & {
    curveSteps?: number | undefined;
    straightSteps?: number | undefined;
  };

/** The bar on the ground, from upright to upright, and where the apron ends if that was said. */
export type Bar = {
  from: Place;
  to: Place;
  /** the way out from it, degrees */
  outDeg: number;
  apron: [Place, Place][];
};

const isRun = (phase: SequencePhase): phase is SequencePhase & { steps: BuildUp } =>
  phase.steps.kind === 'build-up';

const hasEnd = (phase: SequencePhase | undefined): boolean =>
  phase !== undefined &&
  ((phase.steps.kind === 'short' && phase.steps.target !== null) ||
    (phase.steps.kind === 'curve' && phase.steps.bar !== null));

/**
 * How many phases from one on make one run-up: all build-up phases in a row, with the short steps or
 * the curve that end it when those have a target of their own.
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
const phaseOfStep = (run: readonly (SequencePhase & { steps: BuildUp })[], n: number): string[] =>
  shares(run, n).flatMap((count, i) => Array<string>(count).fill(run[i]!.code));

type Straight = { asked: StraightInput; target: string };

/** What the solver is asked for a run-up with a target on the ground, or null when it has none. */
const straightAsked = (
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
    asked: {
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

const layStraight = (
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

/** The foot that takes off points this far from along the bar, degrees: more than the way does. */
const TAKE_OFF_TOES_DEG = 45;

/** A curved run-up to a bar, by the curve solver; the frame of the bar is turned into that of the run. */
const layBar = (
  ground: Ground,
  run: readonly (SequencePhase & { steps: BuildUp })[],
  code: string,
  curve: Curve & { bar: NonNullable<Curve['bar']> },
  ask: BarAsk,
): { bar: Bar; plan: CurvePlan } => {
  const { walker, body, speed } = ground;
  const bar = { ...curve.bar, ...ask };
  const flareDeg = ask.entryFlareDeg ?? curve.bar.entryFlareDeg ?? 0;
  const root = Math.sqrt(speed);
  const straight = ask.straightSteps ?? run.reduce((sum, phase) => sum + phase.steps.steps, 0);
  const stepM = (body.curveStepM ?? spanM(curve.step, body)) * root;
  const curveMps = (stepM * curve.cadenceSpm * root) / 60;
  const plan = solveCurve({
    // Coming from the right the curve turns to the left, and the left foot takes off.
    side: curve.to === 'left' ? 'right' : 'left',
    takeoff: { alongM: bar.alongM, outM: bar.outM },
    takeoffAngleDeg: bar.takeoffAngleDeg,
    curveSteps: ask.curveSteps ?? curve.steps,
    curveStepM: stepM,
    longer: bar.longer,
    shorter: bar.shorter,
    entryFlareDeg: flareDeg,
    uprightGapM: ask.uprightGapM,
    apron: ask.apron,
    straightSteps: straight,
    model: {
      ...body.model,
      firstLengthM: body.model.firstLengthM * root,
      topLengthM: body.model.topLengthM * root,
    },
    // Only the lean is drawn from it; faster than anybody runs it would be refused.
    speedMps: Math.min(13, curveMps),
  });
  const origin = walker.centre;
  const ahead = walker.facingDeg;
  const way = sign(curve.to);
  /** bar frame → plane: beside grows away from the curve's side */
  const placed = (spot: { besideM: number; outM: number }): Place =>
    moved(
      moved(origin, ahead, plan.startMark.outM - spot.outM),
      ahead + 90,
      -way * (spot.besideM - plan.startMark.besideM),
    );
  const codes = phaseOfStep(run, straight);
  walker.facingDeg = ahead - way * flareDeg;
  for (const fall of plan.footfalls) {
    if (fall.n === straight + 1) mark(ground, 'curve', 'curve begins');
    const from = walker.centre;
    walker.centre = placed(fall);
    walker.facingDeg = ahead + way * fall.turnedDeg;
    const onCurve = fall.zone === 'curve';
    const { lengthM } = fall;
    const at = moved(walker.centre, walker.facingDeg + 90, (sign(fall.foot) * runWidthM(body)) / 2);
    const footfall = contactAt(walker, codes[fall.n - 1] ?? code, at, {
      foot: fall.foot,
      contact: 'step',
      // Of equal speed on the curve; nobody runs the straight faster than the curve.
      intervalS: onCurve
        ? lengthM / curveMps
        : Math.max(60 / (modelCadenceSpm(body.model, fall.n) * root), lengthM / curveMps),
      lengthM,
      advanceM: Math.hypot(
        walker.centre.besideM - from.besideM,
        walker.centre.aheadM - from.aheadM,
      ),
      ...(fall.n === plan.footfalls.length && { toesDeg: ahead + way * (90 - TAKE_OFF_TOES_DEG) }),
    });
    footfall.toLineM = fall.outM;
  }
  mark(ground, 'take-off', 'take-off spot');
  walker.run += plan.footfalls.length;
  const gapM = ask.uprightGapM ?? USUAL_UPRIGHT_GAP_M;
  const { apron } = ask;
  return {
    plan,
    bar: {
      from: placed({ besideM: 0, outM: 0 }),
      to: placed({ besideM: -gapM, outM: 0 }),
      outDeg: ahead + 180,
      apron: apron
        ? [
            [placed({ besideM: apron.besideM, outM: 0 }), placed(apron)],
            [placed(apron), placed({ besideM: -gapM, outM: apron.outM })],
          ]
        : [],
    },
  };
};

/**
 * Lays out the phases of one run-up. With a target the solvers say where the feet go; without one the
 * athlete's own steps follow each other from wherever the walker stands.
 *
 * @returns why the ask cannot be run (the free start is laid out then), and the bar if it runs to one
 */
export const layRunUp = (
  ground: Ground,
  phases: readonly SequencePhase[],
  ask: RunAsk,
  barAsk: BarAsk,
): { failure: StraightFailure | null; bar: Bar | null; curve: CurvePlan | null } => {
  const { walker, body, speed } = ground;
  const run = phases.filter(isRun);
  const end = phases.at(-1)!;
  if (end.steps.kind === 'curve' && end.steps.bar) {
    const { bar, plan } = layBar(
      ground,
      run,
      end.code,
      { ...end.steps, bar: end.steps.bar },
      barAsk,
    );
    return { failure: null, bar, curve: plan };
  }
  const short = end.steps.kind === 'short' ? end.steps : null;
  const straight = straightAsked(ground, run, short, ask);
  if (straight) {
    const result = solveStraight(straight.asked);
    const { distanceM: _distance, startFoot: _foot, ...free } = straight.asked;
    const plan = result.feasible ? result : solveStraight(free);
    if (!plan.feasible) throw new RangeError('a free start must be feasible');
    layStraight(ground, run, short ? end.code : null, straight, plan);
    return { failure: result.feasible ? null : result, bar: null, curve: null };
  }
  const root = Math.sqrt(speed);
  for (const phase of run) {
    for (let i = 0; i < phase.steps.steps; i += 1) {
      walker.run += 1;
      stepOn(walker, phase.code, {
        foot: i === 0 ? (phase.steps.first ?? openFoot(ground)) : nextFoot(walker, null),
        contact: 'step',
        intervalS: 60 / (modelCadenceSpm(body.model, walker.run) * root),
        travelDeg: walker.facingDeg,
        advanceM: modelLengthM(body.model, walker.run) * root,
        widthM: runWidthM(body),
      });
    }
  }
  return { failure: null, bar: null, curve: null };
};
