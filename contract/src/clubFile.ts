import { array, boolean, type InferType, number, object, type Schema, string } from 'yup';
import { invitationInput } from './account';
import { approachInput } from './approach';
import { athleteInput, restrictionInput, trialInput } from './athlete';
import { clubSettings } from './club';
import { choice, choiceOr, code, day, figure, id, moment, movementCode, note } from './fields';
import { groundInput } from './ground';
import { movementInput } from './movementSchema';
import { ownCountInput } from './ownView';
import { readingInput } from './reading';
import { repInput } from './repSchema';
import { ruleSetInput } from './ruleSet';
import { RUNGS } from './rungs';
import { sessionInput } from './sessionSchema';
import { reviewInput } from './watched';

export const CLUB_FILE_VERSION = 7;

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
  movement: movementCode().required('The movement is missing.'),
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
const rungChoice = object({
  ...chosen,
  rung: choiceOr('a rung', RUNGS, null),
  /** of a progression, and then no rung is meant */
  drill: code('The drill').nullable().default(null),
});

/** The account behind the demo's one-press entry. */
export const DEMO_EMAIL = 'coach@demo.invalid';

/** What a club file says of itself, beside its lists; see docs/file-format.md. */
export const clubFileHead = object({
  format: choice('the format', ['gravek-club'] as const),
  version: number()
    .strict()
    .required('The file does not say its version.')
    .integer('A version is a whole number.')
    .min(1, 'There is no such version.')
    .max(CLUB_FILE_VERSION, 'This file was made by a newer Gravek. Update Gravek, then load it.'),
  clubId: id(),
  club: clubSettings.required('The file holds no club.'),
});

type ListOf<S extends Schema> = {
  /** what each of them must be */
  item: S;
  /** what a club never comes near is too many */
  most: number;
  /** what is said where the list is not there; null where it may be left out */
  missing: string | null;
};

const list = <S extends Schema>(
  item: S,
  most: number,
  missing: string | null = null,
): ListOf<S> => ({ item, most, missing });

/** What a club file lists. */
export const CLUB_LISTS = {
  people: list(person, 200, 'The file holds no people.'),
  athletes: list(athleteInput.shape({ archived: flag() }), 5_000, 'The file holds no athletes.'),
  restrictions: list(
    restrictionInput.shape({ removed: flag() }),
    20_000,
    'The restrictions are missing.',
  ),
  trials: list(trialInput.shape({ removed: flag() }), 20_000, 'The measured runs are missing.'),
  readings: list(readingInput.shape({ removed: flag() }), 20_000),
  movements: list(movementInput.shape({ archived: flag() }), 200),
  ruleSets: list(ruleSetInput.shape({ archived: flag() }), 200),
  grounds: list(groundInput.shape({ archived: flag() }), 200),
  approaches: list(
    approachInput.shape({
      archived: flag(),
      savedAt: moment('The time').optional(),
      solved: array(solvedFor.required()).max(1_000, 'At most 1000 of them are read.').optional(),
    }),
    5_000,
    'The approaches are missing.',
  ),
  sessions: list(sessionInput.shape({ archived: flag() }), 20_000, 'The sessions are missing.'),
  reviews: list(reviewInput.shape({ archived: flag() }), 20_000),
  cueChoices: list(cueChoice, 200_000),
  rungChoices: list(rungChoice, 200_000),
  /** what athletes counted of themselves */
  ownCounts: list(
    ownCountInput.shape({ athleteId: id(), name: note(200, 'what was done') }),
    500_000,
  ),
  /** with who logged it, where that is known */
  reps: list(repInput.shape({ loggedBy: id().optional() }), 2_000_000, 'The reps are missing.'),
};

export type ClubList = keyof typeof CLUB_LISTS;
export type ClubItem<L extends ClubList> = InferType<(typeof CLUB_LISTS)[L]['item']>;
export type RepInFile = ClubItem<'reps'>;

type LeftOut = 'reviews' | 'cueChoices' | 'rungChoices' | 'ownCounts';

/** A whole club as one JSON document. */
export type ClubFile = InferType<typeof clubFileHead> & {
  [L in Exclude<ClubList, LeftOut>]: ClubItem<L>[];
} & { [L in LeftOut]?: ClubItem<L>[] | undefined };
