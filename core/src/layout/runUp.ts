import {
  type CurveInput,
  type CurvePlan,
  solveCurve,
  USUAL_UPRIGHT_GAP_M,
} from '../curve/solveCurve';
import { solveStraight } from '../runup/solveStraight';
import { modelCadenceSpm, modelLengthM } from '../runup/stepModel';
import type { StraightFailure } from '../runup/straightPlan';
import { spanM } from './body';
import { type Ground, mark, openFoot, runWidthM } from './ground';
import type { BarTarget, SequencePhase } from './sequence';
import {
  type BuildUp,
  type Curve,
  isRun,
  layStraight,
  phaseOfStep,
  type RunAsk,
  straightAsked,
} from './straightRun';
import { contactAt, moved, nextFoot, type Place, sign, stepOn } from './walker';

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
    const result = solveStraight(straight.input);
    const { distanceM: _distance, startFoot: _foot, ...free } = straight.input;
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
