import { array, number, object, type InferType } from 'yup';
import { athleteInput, restrictionInput, trialInput } from './athlete';
import { approachInput } from './approach';
import { movementInput } from './movementSchema';
import { readingInput } from './reading';
import { ruleSetInput } from './ruleSet';
import { clubSettings, memberInput } from './club';
import { choice, id } from './fields';
import { repInput, sessionInput } from './session';

export const CLUB_FILE_VERSION = 3;

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
  people: array(memberInput.required()).required('The file holds no people.').min(1),
  athletes: array(athleteInput.required()).required('The file holds no athletes.'),
  restrictions: array(restrictionInput.required()).required(),
  trials: array(trialInput.required()).required(),
  readings: array(readingInput.required()).default([]),
  movements: array(movementInput.required()).default([]),
  ruleSets: array(ruleSetInput.required()).default([]),
  approaches: array(approachInput.required()).required(),
  sessions: array(sessionInput.required()).required(),
  reps: array(repInput.required()).required(),
});
export type ClubFile = InferType<typeof clubFile>;
