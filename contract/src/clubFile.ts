import { array, number, object, type AnyObjectSchema, type InferType } from 'yup';
import { athleteInput, restrictionInput, trialInput } from './athlete';
import { approachInput } from './approach';
import { movementInput } from './movementSchema';
import { readingInput } from './reading';
import { ruleSetInput } from './ruleSet';
import { clubSettings, memberInput } from './club';
import { choice, id } from './fields';
import { repInput, sessionInput } from './session';

export const CLUB_FILE_VERSION = 3;

/** A list of the file; what a club never comes near is too many. */
const list = <S extends AnyObjectSchema>(of: S, most: number) =>
  array(of.required()).max(most, `At most ${most} of them are read.`);

/** The account behind the demo's one-press entry. */
export const DEMO_EMAIL = 'coach@demo.invalid';

/** A whole club as one JSON document; see docs/file-format.md. */
export const clubFile = object({
  format: choice('the format', ['gravek-club'] as const),
  version: number()
    .strict()
    .required('The file does not say its version.')
    .max(CLUB_FILE_VERSION, 'This file was made by a newer Gravek. Update Gravek, then load it.'),
  clubId: id(),
  club: clubSettings.required('The file holds no club.'),
  people: list(memberInput, 200).required('The file holds no people.').min(1),
  athletes: list(athleteInput, 5_000).required('The file holds no athletes.'),
  restrictions: list(restrictionInput, 20_000).required('The restrictions are missing.'),
  trials: list(trialInput, 20_000).required(),
  readings: list(readingInput, 20_000).default([]),
  movements: list(movementInput, 200).default([]),
  ruleSets: list(ruleSetInput, 200).default([]),
  approaches: list(approachInput, 5_000).required(),
  sessions: list(sessionInput, 20_000).required(),
  reps: list(repInput, 2_000_000).required(),
});
export type ClubFile = InferType<typeof clubFile>;
