import { STEP_BOUNDS } from '@gravek/core/runup/stepModel';
import { array, boolean, number, object, type InferType } from 'yup';
import {
  choice,
  count,
  day,
  distinct,
  figure,
  figureOrNull,
  foot,
  id,
  name,
  note,
  version,
} from './fields';
import type { ReadingRow } from './reading';
import { SOURCES } from './source';

export const athleteFields = object({
  name: name('the athlete’s name'),
  squad: name('a squad', 40),
  hand: foot('the dominant hand'),
  takeoffFoot: foot('the take-off foot'),
  shoeM: figure('The shoe length', 0.15, 0.4, ' m').nullable().defined(),
  heightM: figure('The height', 1, 2.3, ' m').nullable().defined(),
  /** hip joint to the ground */
  legM: figure('The leg length', 0.4, 1.4, ' m').nullable().optional().strict(false).default(null),
  birthYear: count('The birth year', 1920, 2100).nullable().defined(),
  /** the day, where it is known: only it says on which day somebody comes of age */
  bornOn: day('the birthday').nullable().optional().strict(false).default(null),
  positions: distinct(name('a position', 40), 8, 'Positions'),
}).test('birth', function birth({ birthYear, bornOn }) {
  return (
    !bornOn ||
    birthYear === Number(bornOn.slice(0, 4)) ||
    this.createError({ path: 'bornOn', message: 'The birthday is of another year.' })
  );
});
export type AthleteFields = InferType<typeof athleteFields>;

export const athleteInput = athleteFields.shape({ id: id() });
export type AthleteInput = InferType<typeof athleteInput>;

export const athleteUpdate = athleteFields.shape({ version: version() });
export type AthleteUpdate = InferType<typeof athleteUpdate>;

/** Puts a thing away, or back: every removal but the last can be undone. */
export const away = object({ away: boolean().strict().required() });

/** pain: nothing at all until somebody has cleared it */
export const RESTRICTION_KINDS = [
  'no-jumping',
  'no-contact',
  'no-sprinting',
  'reduced',
  'pain',
] as const;
export type RestrictionKind = (typeof RESTRICTION_KINDS)[number];

export const restrictionInput = object({
  id: id(),
  athleteId: id(),
  kind: choice('what is not allowed', RESTRICTION_KINDS),
  from: day('the first day'),
  /** null: until somebody lifts it */
  until: day('the last day').nullable().defined(),
  /** of the usual reps, where volume is reduced */
  share: number()
    .typeError('What is left of the reps must be a number.')
    .min(0.05, 'At least a twentieth of the reps is left.')
    .max(0.95, 'Less than all of the reps are left.')
    .default(0.5),
  note: note(200),
}).test('order', function order(value) {
  return (
    !value.from ||
    !value.until ||
    value.from <= value.until ||
    this.createError({ path: 'until', message: 'The last day is before the first.' })
  );
});
export type Restriction = InferType<typeof restrictionInput>;

const { trialSteps, lengthM, intervalS } = STEP_BOUNDS;

export const measuredStep = object({
  lengthM: figure('A step', 0.05, lengthM.max, ' m'),
  intervalS: figureOrNull('A step’s time', intervalS.min, intervalS.max, ' s'),
});

/** A measured run: every step's length and time, counted from a standing start; no time where only a tape was read. */
export const trialInput = object({
  id: id(),
  athleteId: id(),
  takenOn: day('the day'),
  source: choice('who measured', SOURCES),
  note: note(200),
  steps: array(measuredStep.required())
    .required('A run needs its steps.')
    .min(trialSteps.min, `A run needs at least ${trialSteps.min} steps.`)
    .max(trialSteps.max, `A run has at most ${trialSteps.max} steps.`),
});
export type Trial = InferType<typeof trialInput>;

export type Athlete = AthleteInput & {
  /** in the year of today; null when the birth year is not known */
  ageYears: number | null;
  /** whether they may be a minor today: what is known does not say otherwise */
  minor: boolean;
  version: number;
  archived: boolean;
  restrictions: Restriction[];
  /** measured runs, newest first */
  trials: Trial[];
  /** the other tests, newest first */
  readings: ReadingRow[];
};
