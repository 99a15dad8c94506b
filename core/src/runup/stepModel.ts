import { number } from '../check';

/**
 * How an athlete's steps grow from a standing start. Length of step k (k = 1, 2, …) is
 * `top − (top − first)·e^(−(k−1)/lengthRate)`, metres; cadence has the same form with its own
 * three numbers, steps per minute (both feet counted). Rates are in steps.
 */
export type StepModel = {
  firstLengthM: number;
  topLengthM: number;
  lengthRate: number;
  firstCadenceSpm: number;
  topCadenceSpm: number;
  cadenceRate: number;
};

/** A step between tape marks; its time is null where only the tape was read. */
export type MeasuredStep = { lengthM: number; intervalS: number | null };
export type Trial = { steps: readonly MeasuredStep[] };

/** The bounds within which a figure can be a human step. */
export const STEP_BOUNDS = {
  lengthM: { above: 0, max: 4 },
  intervalS: { min: 0.08, max: 2 },
  trialSteps: { min: 4, max: 60 },
} as const;

export const RATE_MIN = 0.3;
export const RATE_MAX = 20;

export const buildUp = (first: number, top: number, rate: number, k: number): number =>
  top - (top - first) * Math.exp(-(k - 1) / rate);

/**
 * Length of step k, metres.
 *
 * @example modelLengthM(estimateStepModel(1.75), 10) // 1.84
 */
export const modelLengthM = (model: StepModel, k: number): number =>
  buildUp(model.firstLengthM, model.topLengthM, model.lengthRate, k);

/**
 * Cadence of step k, steps per minute.
 *
 * @example modelCadenceSpm(estimateStepModel(1.75), 10) // 244.2
 */
export const modelCadenceSpm = (model: StepModel, k: number): number =>
  buildUp(model.firstCadenceSpm, model.topCadenceSpm, model.cadenceRate, k);

/**
 * @throws {RangeError} naming the field of the model that is out of range
 * @example checkModel(estimateStepModel(1.75)).topLengthM // 1.88
 */
export const checkModel = (model: StepModel): StepModel => {
  number('model.firstLengthM', model.firstLengthM, { above: 0, max: 10 });
  number('model.topLengthM', model.topLengthM, { above: 0, max: 10 });
  number('model.lengthRate', model.lengthRate, { min: RATE_MIN, max: RATE_MAX });
  number('model.firstCadenceSpm', model.firstCadenceSpm, { above: 0, max: 1000 });
  number('model.topCadenceSpm', model.topCadenceSpm, { above: 0, max: 1000 });
  number('model.cadenceRate', model.cadenceRate, { min: RATE_MIN, max: RATE_MAX });
  return model;
};
