import { number, oneOf } from '../check';
import type { Foot } from '../feet';
import { currentFigures, type DatedReading } from '../measuring/measures';
import { currentModel, usualHeightM } from '../runup/currentModel';
import type { StepModel, Trial } from '../runup/stepModel';

/** What decides whether a movement is seen in the mirror. */
export type Handed = { hand: Foot; takeoffFoot: Foot };

/** An athlete as the engine sees them: their own measures that lengths are counted in, metres. */
export type Body = Handed & {
  model: StepModel;
  heightM: number;
  legM: number;
  shoeM: number;
  /** a walking pace, metres; 0.415 of height where nothing else is said */
  paceM?: number | undefined;
  /** hardest braking, m/s², where it was measured */
  brakeMps2?: number | undefined;
  /** where it was measured, seconds */
  reactionS?: number | undefined;
  /** top speed and time constant, where a sprint was timed */
  sprint?: { topSpeedMps: number; tauS: number } | undefined;
  /** steady cadence, steps a minute, where it was counted */
  cadenceSpm?: number | undefined;
  /** own slides across a lane, where they were counted */
  lane?: { laneM: number; slides: number } | undefined;
  /** step on a curve, metres, where it was measured */
  curveStepM?: number | undefined;
};

export type BodyMeasure = 'steps' | 'height' | 'leg' | 'shoe';

/** A walking pace as a fraction of height, the usual ratio of step counters. */
export const PACE_OF_HEIGHT = 0.415;

/** Leg (to the hip joint) and foot as fractions of height: Drillis and Contini's segment lengths; a shoe adds a little. */
export const LEG_OF_HEIGHT = 0.53;
export const SHOE_OF_HEIGHT = 0.152 + 0.008;

/**
 * The measures of an athlete, those that were never taken filled in from body height, or from the usual
 * height of their age when that is missing too.
 *
 * @returns metres, and which of them are estimates
 * @example
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null };
 * bodyOf({ ...athlete, hand: 'right', takeoffFoot: 'left' }).legM // 0.927
 */
export const bodyOf = (
  athlete: Handed & {
    trials: readonly (Trial & { takenOn: string })[];
    heightM: number | null;
    legM: number | null;
    shoeM: number | null;
    ageYears?: number | null | undefined;
    readings?: readonly DatedReading[];
  },
): Body & { estimated: BodyMeasure[] } => {
  const { model, source } = currentModel(athlete);
  const heightM = athlete.heightM ?? usualHeightM(athlete.ageYears);
  const figures = currentFigures(athlete.readings ?? []);
  const estimated: BodyMeasure[] = [];
  if (source === 'estimate') estimated.push('steps');
  if (athlete.heightM === null) estimated.push('height');
  if (athlete.legM === null) estimated.push('leg');
  if (athlete.shoeM === null) estimated.push('shoe');
  return {
    hand: athlete.hand,
    takeoffFoot: athlete.takeoffFoot,
    model,
    heightM,
    legM: athlete.legM ?? LEG_OF_HEIGHT * heightM,
    shoeM: athlete.shoeM ?? SHOE_OF_HEIGHT * heightM,
    curveStepM: figures.curve?.mean,
    cadenceSpm: figures.cadence?.mean,
    lane: figures.lane && { laneM: figures.lane.laneM, slides: figures.lane.mean },
    brakeMps2: figures.stop?.mean,
    reactionS: figures.reaction?.mean,
    sprint: figures.sprint && {
      topSpeedMps: figures.sprint.topSpeedMps,
      tauS: figures.sprint.tauS,
    },
    estimated,
  };
};

/**
 * Metres of a length that is counted in one of the athlete's measures.
 *
 * @throws {RangeError} when it is no length
 * @example
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null };
 * const body = bodyOf({ ...athlete, hand: 'right', takeoffFoot: 'left' });
 * spanM({ value: 0.5, of: 'leg' }, body) // 0.464
 */
export const spanM = (span: Span, body: Body, field = 'span'): number => {
  const value = number(`${field}.value`, span.value, { min: -100, max: 100 });
  switch (oneOf(`${field}.of`, span.of, SPAN_UNITS)) {
    case 'm':
      return value;
    case 'height':
      return value * body.heightM;
    case 'leg':
      return value * body.legM;
    case 'shoe':
      return value * body.shoeM;
    case 'pace':
      return value * (body.paceM ?? PACE_OF_HEIGHT * body.heightM);
    case 'first step':
      return value * body.model.firstLengthM;
    case 'top step':
      return value * body.model.topLengthM;
  }
};

/** A usual grown body, against which a length is held to see whether anybody could do it; metres. */
const USUAL: Record<SpanUnit, number> = {
  m: 1,
  height: 1.75,
  leg: 0.93,
  shoe: 0.28,
  pace: 0.73,
  'first step': 1.15,
  'top step': 2.1,
};

/**
 * Metres of a length for a usual grown body.
 *
 * @example usualM({ value: 0.5, of: 'leg' }) // 0.465
 */
export const usualM = ({ value, of }: Span): number => value * USUAL[of];

export const SPAN_UNITS = ['m', 'height', 'leg', 'shoe', 'pace', 'first step', 'top step'] as const;
/** What a length is counted in: metres, or a measure of the athlete's own. */
export type SpanUnit = (typeof SPAN_UNITS)[number];

/** A length that grows with the athlete: so many times one of their own measures. */
export type Span = { value: number; of: SpanUnit };
