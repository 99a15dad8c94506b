import { number } from '../check';
import { dayNumber } from '../days';
import { fitStepModel, type StepModelFit } from './fitStepModel';
import { checkModel, type StepModel, type Trial } from './stepModel';

/** Top speed of somebody full-grown as a part of height, 1/s: 7.9 m/s at 1.80 m. */
const SPEED_OF_HEIGHT = 7.9 / 1.8;
/** Of the same height a child is slower: this part of it at ten, all of it at sixteen. */
const CHILD_PART = 0.92;
const [CHILD_AT, GROWN_AT] = [10, 16];
const TOP_CADENCE_SPM = 245;
/** The first step as a part of the longest. */
const FIRST_OF_TOP = 0.54;

/**
 * A rough guess for an athlete who was never measured, from body height and age. A figure drawn from
 * it must be labelled an estimate. Top speed goes with height; cadence at the top is near 245 for all,
 * so the step follows.
 *
 * @param heightM standing height, metres; 0.9–2.3
 * @param ageYears null or left out for full-grown
 * @throws {RangeError} when the height is out of range
 * @example estimateStepModel(1.4, 10).topLengthM // 1.38 m, 5.7 m/s
 * Source: proportions of speed and step to stature (rule of thumb, to be replaced by a measurement)
 */
export const estimateStepModel = (heightM: number, ageYears?: number | null): StepModel => {
  number('heightM', heightM, { min: 0.9, max: 2.3 });
  const age = Math.min(GROWN_AT, Math.max(CHILD_AT, ageYears ?? GROWN_AT));
  const grown = (age - CHILD_AT) / (GROWN_AT - CHILD_AT);
  const topMps = SPEED_OF_HEIGHT * heightM * (CHILD_PART + (1 - CHILD_PART) * grown);
  const topLengthM = (topMps * 60) / TOP_CADENCE_SPM;
  return {
    firstLengthM: FIRST_OF_TOP * topLengthM,
    topLengthM,
    lengthRate: 3,
    firstCadenceSpm: 206,
    topCadenceSpm: TOP_CADENCE_SPM,
    cadenceRate: 2.3,
  };
};

const SAME = 1e-6;

/**
 * Whether two models come to the same steps.
 *
 * @example isSameModel(estimateStepModel(1.75), estimateStepModel(1.76)) // false
 */
export const isSameModel = (a: StepModel, b: StepModel): boolean =>
  (Object.keys(a) as (keyof StepModel)[]).every((key) => Math.abs(a[key] - b[key]) < SAME);

/** Whether a fit describes steps that can be planned with; a few odd readings can throw it far out. */
const isUsable = (model: StepModel): boolean => {
  try {
    checkModel(model);
    return true;
  } catch {
    return false;
  }
};

/** Trials older than this before the newest one no longer describe the athlete. */
const TRIALS_WITHIN_DAYS = 180;
export const USUAL_HEIGHT_M = 1.7;
/** Median heights from five to sixteen years, girls and boys together, metres. */
const HEIGHT_AT_M = [1.1, 1.16, 1.22, 1.28, 1.33, 1.38, 1.44, 1.5, 1.56, 1.61, 1.65, 1.68];

/**
 * The height to reckon with when none was measured: the median of the age, or of the full-grown.
 *
 * @example usualHeightM(10) // 1.38
 */
export const usualHeightM = (ageYears?: number | null): number =>
  (ageYears !== null && ageYears !== undefined && HEIGHT_AT_M[Math.max(0, ageYears - 5)]) ||
  USUAL_HEIGHT_M;

export type CurrentModel = {
  model: StepModel;
  /** estimate: from body height, or from a usual height when that is unknown too */
  source: 'measured' | 'estimate';
  fit: StepModelFit | null;
};

/**
 * The model to plan an athlete by: fitted to the measured runs of the half-year up to the newest one,
 * else estimated from height and age. A fit that no feet could run leaves the estimate in place. Where the
 * runs were taped and not timed, the cadence is the estimate's; `fit.timed` says so.
 *
 * @throws {RangeError} as `fitStepModel` and `estimateStepModel`
 * @example currentModel({ trials: [], heightM: 1.75 }).source // 'estimate'
 */
export const currentModel = (athlete: {
  trials: readonly (Trial & { takenOn: string })[];
  heightM: number | null;
  ageYears?: number | null | undefined;
}): CurrentModel => {
  const { trials, heightM, ageYears } = athlete;
  const estimate = (): StepModel => estimateStepModel(heightM ?? usualHeightM(ageYears), ageYears);
  if (trials.length === 0) return { model: estimate(), source: 'estimate', fit: null };
  const days = trials.map((trial, i) => dayNumber(`trials[${i}].takenOn`, trial.takenOn));
  const newest = Math.max(...days);
  const fit = fitStepModel({
    trials: trials.filter((_, i) => newest - days[i]! <= TRIALS_WITHIN_DAYS),
    cadence: estimate(),
  });
  const { firstLengthM, topLengthM, lengthRate, firstCadenceSpm, topCadenceSpm, cadenceRate } = fit;
  const model = {
    firstLengthM,
    topLengthM,
    lengthRate,
    firstCadenceSpm,
    topCadenceSpm,
    cadenceRate,
  };
  return isUsable(model)
    ? { model, source: 'measured', fit }
    : { model: estimate(), source: 'estimate', fit };
};
