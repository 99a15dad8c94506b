import { array, boolean, number, object, string, type InferType } from 'yup';
import { athleteInput, restrictionInput, trialInput } from './athlete';
import { approachInput } from './approach';
import { movementInput } from './movementSchema';
import { readingInput } from './reading';
import { groundInput } from './ground';
import { ruleSetInput } from './ruleSet';
import { invitationInput } from './account';
import { clubSettings } from './club';
import { choice, choiceOr, code, day, figure, id, moment, note } from './fields';
import { RUNGS } from './rungs';
import { repInput, sessionInput } from './sessionSchema';
import { reviewInput } from './watched';

export const CLUB_FILE_VERSION = 6;
/** Bytes of a club file that is read from the app; larger ones are loaded at the terminal. */
export const CLUB_FILE_MAX = 120_000_000;

export const MOST_REPS = 2_000_000;

/** What a club never comes near is too many. */
const upTo = (most: number): [number, string] => [most, `At most ${most} of them are read.`];

/** Whether it was put away, or taken out; left out where it was not. */
const flag = () => boolean().strict().optional();

/** Who is in the club; without a password, who comes in by a link to a new one. */
const person = invitationInput.shape({
  /** of the demo's two accounts only */
  password: string().max(200, 'Keep the password within 200 characters.').optional(),
  /** as reps and choices name who made them */
  account: id().optional(),
});

/** By which measures a plan was solved for somebody, and when; it stays as it is until it is saved again. */
const solvedFor = object({
  athleteId: id(),
  /** on the plan's own list, not only in a session that runs it */
  listed: boolean().strict().required(),
  measured: boolean().strict().required(),
  at: moment('The time'),
  model: object({
    firstLengthM: figure('The first step', 0.05, 10, ' m'),
    topLengthM: figure('The full step', 0.05, 10, ' m'),
    lengthRate: figure('The rate', 0.3, 20),
    firstCadenceSpm: figure('The first cadence', 1, 1000),
    topCadenceSpm: figure('The full cadence', 1, 1000),
    cadenceRate: figure('The rate', 0.3, 20),
  }),
});

/** What somebody has chosen otherwise than the figures did. */
const chosen = {
  id: id(),
  athleteId: id(),
  movement: code('The movement').required('The movement is missing.'),
  reason: note(200),
  account: id(),
  day: day('the day'),
  at: moment('The time'),
};
const cueChoice = object({
  ...chosen,
  fault: code('The fault').nullable().default(null),
  drill: code('The drill').nullable().default(null),
  toldAt: moment('The time').nullable().default(null),
});
const rungChoice = object({ ...chosen, rung: choiceOr('a rung', RUNGS, null) });

/** The account behind the demo's one-press entry. */
export const DEMO_EMAIL = 'coach@demo.invalid';

/** A rep with who logged it, where that is known. */
export const repInFile = repInput.shape({ loggedBy: id().optional() });
export type RepInFile = InferType<typeof repInFile>;

/** A whole club as one JSON document; see docs/file-format.md. */
export const clubFile = object({
  format: choice('the format', ['gravek-club'] as const),
  version: number()
    .strict()
    .required('The file does not say its version.')
    .integer('A version is a whole number.')
    .min(1, 'There is no such version.')
    .max(CLUB_FILE_VERSION, 'This file was made by a newer Gravek. Update Gravek, then load it.'),
  clubId: id(),
  club: clubSettings.required('The file holds no club.'),
  people: array(person.required())
    .max(...upTo(200))
    .required('The file holds no people.')
    .min(1),
  athletes: array(athleteInput.shape({ archived: flag() }).required())
    .max(...upTo(5_000))
    .required('The file holds no athletes.'),
  restrictions: array(restrictionInput.shape({ removed: flag() }).required())
    .max(...upTo(20_000))
    .required('The restrictions are missing.'),
  trials: array(trialInput.shape({ removed: flag() }).required())
    .max(...upTo(20_000))
    .required(),
  readings: array(readingInput.shape({ removed: flag() }).required())
    .max(...upTo(20_000))
    .default([]),
  movements: array(movementInput.shape({ archived: flag() }).required())
    .max(...upTo(200))
    .default([]),
  ruleSets: array(ruleSetInput.shape({ archived: flag() }).required())
    .max(...upTo(200))
    .default([]),
  grounds: array(groundInput.shape({ archived: flag() }).required())
    .max(...upTo(200))
    .default([]),
  approaches: array(
    approachInput
      .shape({
        archived: flag(),
        savedAt: moment('The time').optional(),
        solved: array(solvedFor.required())
          .max(...upTo(1_000))
          .optional(),
      })
      .required(),
  )
    .max(...upTo(5_000))
    .required(),
  sessions: array(sessionInput.shape({ archived: flag() }).required())
    .max(...upTo(20_000))
    .required(),
  reviews: array(reviewInput.shape({ archived: flag() }).required())
    .max(...upTo(20_000))
    .optional(),
  cueChoices: array(cueChoice.required())
    .max(...upTo(200_000))
    .optional(),
  rungChoices: array(rungChoice.required())
    .max(...upTo(200_000))
    .optional(),
  reps: array(repInFile.required())
    .max(...upTo(MOST_REPS))
    .required(),
});
export type ClubFile = InferType<typeof clubFile>;
