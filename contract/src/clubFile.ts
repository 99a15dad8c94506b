import { array, number, object, type InferType } from 'yup';
import { athleteInput, restrictionInput, trialInput } from './athlete';
import { approachInput } from './approach';
import { movementInput } from './movementSchema';
import { readingInput } from './reading';
import { groundInput } from './ground';
import { ruleSetInput } from './ruleSet';
import { clubSettings, memberInput } from './club';
import { choice, id } from './fields';
import { repInput, sessionInput } from './session';

export const CLUB_FILE_VERSION = 4;

/** What a club never comes near is too many. */
const upTo = (most: number): [number, string] => [most, `At most ${most} of them are read.`];

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
  people: array(memberInput.required())
    .max(...upTo(200))
    .required('The file holds no people.')
    .min(1),
  athletes: array(athleteInput.required())
    .max(...upTo(5_000))
    .required('The file holds no athletes.'),
  restrictions: array(restrictionInput.required())
    .max(...upTo(20_000))
    .required('The restrictions are missing.'),
  trials: array(trialInput.required())
    .max(...upTo(20_000))
    .required(),
  readings: array(readingInput.required())
    .max(...upTo(20_000))
    .default([]),
  movements: array(movementInput.required())
    .max(...upTo(200))
    .default([]),
  ruleSets: array(ruleSetInput.required())
    .max(...upTo(200))
    .default([]),
  grounds: array(groundInput.required())
    .max(...upTo(200))
    .default([]),
  approaches: array(approachInput.required())
    .max(...upTo(5_000))
    .required(),
  sessions: array(sessionInput.required())
    .max(...upTo(20_000))
    .required(),
  reps: array(repInput.required())
    .max(...upTo(2_000_000))
    .required(),
});
export type ClubFile = InferType<typeof clubFile>;
