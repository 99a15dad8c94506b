import { number, oneOf, whole } from '../check';
import { footBefore, type Foot } from '../feet';
import { checkModel, modelLengthM, type StepModel } from '../runup/stepModel';

const GRAVITY = 9.80665;
export const USUAL_UPRIGHT_GAP_M = 4.0;
const toRad = (deg: number): number => (deg * Math.PI) / 180;
const toDeg = (rad: number): number => (rad * 180) / Math.PI;

/** A spot on the ground: `beside` along the bar line outward from the near upright, `out` from the bar. */
export type Spot = { besideM: number; outM: number };
/** The same spot by two tapes, one from each upright. */
export type TapedSpot = Spot & { tape: { nearM: number; farM: number } };

export type CurveInput = {
  side: 'left' | 'right';
  /** take-off spot: inside the near upright along the bar, and out from the bar */
  takeoff: { alongM: number; outM: number };
  takeoffAngleDeg: number;
  curveSteps: number;
  /** either the step on the curve, or a test circle it was measured on */
  curveStepM?: number | undefined;
  testCircle?: { radiusM: number; chordsM: readonly number[] } | undefined;
  straightSteps: number;
  /** either one length for all straight steps, or the model to build up by */
  straightStepM?: number | undefined;
  model?: StepModel | undefined;
  speedMps: number;
  /** how much longer the second-last and shorter the last step is; the others give what that takes */
  longer?: number | undefined;
  shorter?: number | undefined;
  entryFlareDeg?: number | undefined;
  uprightGapM?: number | undefined;
  /** how far the ground may be used, from the near upright and from the bar */
  apron?: { besideM: number; outM: number } | undefined;
};

export type CurveFootfall = TapedSpot & {
  n: number;
  /** of the step that lands here, along its way */
  lengthM: number;
  foot: Foot;
  zone: 'straight' | 'curve';
  /** heading, degrees turned from straight at the bar */
  turnedDeg: number;
};

export type CurvePlan = {
  takeoffFoot: Foot;
  curveStepM: number;
  arcM: number;
  turnDeg: number;
  radiusM: number;
  leanDeg: number;
  curveStart: TapedSpot;
  startMark: TapedSpot;
  footfalls: CurveFootfall[];
  /** what leaves the apron: 'start mark' or 'step n' */
  outside: string[];
};

/**
 * Length along the circle between two footprints, from the straight tape between them.
 *
 * @param chordM tape length between the prints, metres; 0 < chordM ≤ 2·radiusM
 * @param radiusM radius of the circle that was run, metres
 * @throws {RangeError} when the chord cannot lie on the circle
 * @example arcFromChord(1.5, 10) // 1.5
 * Source: circle geometry, s = 2R·asin(c / 2R)
 */
export const arcFromChord = (chordM: number, radiusM: number): number => {
  number('radiusM', radiusM, { above: 0, max: 100 });
  number('chordM', chordM, { above: 0, max: 2 * radiusM });
  return 2 * radiusM * Math.asin(chordM / (2 * radiusM));
};

const curveStep = (input: CurveInput): number => {
  if (input.testCircle) {
    const { radiusM, chordsM } = input.testCircle;
    if (chordsM.length === 0) throw new RangeError('testCircle.chordsM must hold a chord');
    return chordsM.reduce((sum, c) => sum + arcFromChord(c, radiusM), 0) / chordsM.length;
  }
  return number('curveStepM', input.curveStepM, { above: 0, max: 4 });
};

/**
 * Lays out a curved run-up: every footfall by its place on the ground and by two tapes. Mirrored
 * sides give the same places, with the feet swapped: the right-side approach takes off from the left
 * foot.
 *
 * @returns metres and degrees; footfalls in running order, the last one at the take-off spot
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const takeoff = { alongM: 0.5, outM: 0.95 };
 * const curve = { side: 'right', takeoff, takeoffAngleDeg: 25, curveSteps: 5, curveStepM: 1.82 };
 * solveCurve({ ...curve, straightSteps: 5, straightStepM: 1.88, speedMps: 6.6 }).radiusM // 8.02
 * Source: circle geometry; lean = atan(v² / gR), balance of a body on a bend
 */
export const solveCurve = (input: CurveInput): CurvePlan => {
  const side = oneOf('side', input.side, ['left', 'right']);
  const alongM = number('takeoff.alongM', input.takeoff.alongM, { min: -5, max: 10 });
  const takeoffOutM = number('takeoff.outM', input.takeoff.outM, { above: 0, max: 5 });
  const angle = number('takeoffAngleDeg', input.takeoffAngleDeg, { above: 0, max: 80 });
  const curveSteps = whole('curveSteps', input.curveSteps, { min: 1, max: 20 });
  const straightSteps = whole('straightSteps', input.straightSteps, { min: 0, max: 30 });
  const speed = number('speedMps', input.speedMps, { above: 0, max: 13 });
  const flare = number('entryFlareDeg', input.entryFlareDeg ?? 0, { min: 0, max: 60 });
  const gap = number('uprightGapM', input.uprightGapM ?? USUAL_UPRIGHT_GAP_M, {
    above: 0,
    max: 20,
  });
  const stepM = curveStep(input);
  const { straightStepM, apron } = input;
  let straightLengths: number[];
  if (straightStepM !== undefined) {
    number('straightStepM', straightStepM, { above: 0, max: 4 });
    straightLengths = Array.from({ length: straightSteps }, () => straightStepM);
  } else if (input.model) {
    const model = checkModel(input.model);
    straightLengths = Array.from({ length: straightSteps }, (_, i) => modelLengthM(model, i + 1));
  } else {
    throw new RangeError('straightStepM or model must be given');
  }

  const taped = (spot: Spot): TapedSpot => ({
    ...spot,
    tape: {
      nearM: Math.hypot(spot.besideM, spot.outM),
      farM: Math.hypot(spot.besideM + gap, spot.outM),
    },
  });
  const turnDeg = 90 - angle + flare;
  const arcM = curveSteps * stepM;
  const radiusM = arcM / toRad(turnDeg);
  // Heading θ is the turn from straight at the bar; the centre is where beside = R·cos θ vanishes.
  const end = toRad(90 - angle);
  const centre = {
    besideM: -alongM - radiusM * Math.cos(end),
    outM: takeoffOutM + radiusM * Math.sin(end),
  };
  const onCurve = (turned: number): Spot => ({
    besideM: centre.besideM + radiusM * Math.cos(toRad(turned)),
    outM: centre.outM - radiusM * Math.sin(toRad(turned)),
  });
  const curveStart = onCurve(-flare);
  const laidBack = (backM: number): Spot => ({
    besideM: curveStart.besideM - backM * Math.sin(toRad(flare)),
    outM: curveStart.outM + backM * Math.cos(toRad(flare)),
  });
  const straightM = straightLengths.reduce((sum, l) => sum + l, 0);
  const takeoffFoot: Foot = side === 'right' ? 'left' : 'right';
  const total = straightSteps + curveSteps;
  const longer = number('longer', input.longer ?? 0, { min: 0, max: 0.3 });
  const shorter = number('shorter', input.shorter ?? 0, { min: 0, max: 0.3 });
  const parts = Array.from({ length: curveSteps }, (_, i) =>
    i === curveSteps - 1 ? 1 - shorter : i === curveSteps - 2 ? 1 + longer : 1,
  );
  const sumOfParts = parts.reduce((sum, part) => sum + part, 0);
  let run = 0;
  let turned = 0;
  const footfalls = Array.from({ length: total }, (_, i): CurveFootfall => {
    const onStraight = i < straightSteps;
    if (onStraight) run += straightLengths[i]!;
    if (!onStraight) turned += parts[i - straightSteps]!;
    const turnedDeg = onStraight ? -flare : -flare + (turnDeg * turned) / sumOfParts;
    return {
      n: i + 1,
      foot: footBefore(takeoffFoot, total - 1 - i),
      zone: onStraight ? 'straight' : 'curve',
      lengthM: onStraight ? straightLengths[i]! : (arcM * parts[i - straightSteps]!) / sumOfParts,
      turnedDeg: turnedDeg === 0 ? 0 : turnedDeg,
      ...taped(onStraight ? laidBack(straightM - run) : onCurve(turnedDeg)),
    };
  });
  const startMark = taped(laidBack(straightM));
  const leaves = (spot: Spot): boolean =>
    apron !== undefined && (spot.besideM > apron.besideM || spot.outM > apron.outM);
  return {
    takeoffFoot,
    curveStepM: stepM,
    arcM,
    turnDeg,
    radiusM,
    leanDeg: toDeg(Math.atan(speed ** 2 / (GRAVITY * radiusM))),
    curveStart: taped(curveStart),
    startMark,
    footfalls,
    outside: [
      ...(leaves(startMark) ? ['start mark'] : []),
      ...footfalls.filter(leaves).map((fall) => `step ${fall.n}`),
    ],
  };
};
