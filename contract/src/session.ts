import { OUTCOMES, type Side } from '@gravek/core';
import { array, object, string, type InferType } from 'yup';
import type { Approach } from './approach';
import type { Athlete } from './athlete';
import type { Movement } from './movement';
import { choice, count, day, distinct, id, name, note } from './fields';

export const SIDES = ['own', 'other'] as const satisfies readonly Side[];

export const drillSetInput = object({
  id: id(),
  approachId: id(),
  athleteIds: distinct(id(), 60, 'Athletes').min(1, 'Choose at least one athlete.'),
  sets: count('Sets', 1, 20),
  reps: count('Reps', 1, 50),
  sides: array(choice('a side', SIDES))
    .required('Choose a side.')
    .min(1, 'Choose a side.')
    .max(2, 'Two sides at most.'),
  restS: count('Rest', 0, 1800),
  setRestS: count('Rest between sets', 0, 3600),
});
export type DrillSet = InferType<typeof drillSetInput>;

const sessionFields = object({
  date: day('the day'),
  title: name('the session’s name'),
  place: note(80),
  drillSets: array(drillSetInput.required())
    .required('Drill sets are missing.')
    .min(1, 'A session needs at least one drill set.')
    .max(20, 'At most 20 drill sets.'),
});

export const sessionInput = sessionFields.shape({ id: id() });
export type SessionInput = InferType<typeof sessionInput>;

export const sessionUpdate = sessionFields.shape({
  version: count('The version', 1, 2 ** 31 - 1),
});
export type SessionUpdate = InferType<typeof sessionUpdate>;

export type Session = SessionInput & {
  version: number;
  archived: boolean;
  /** reps logged so far, clean or fault */
  logged: number;
};

/** One row of the rep log. A void takes back the row it names; nothing is edited in place. */
export const repInput = object({
  id: id(),
  sessionId: id(),
  drillSetId: id(),
  athleteId: id(),
  set: count('The set', 1, 20),
  side: choice('a side', SIDES),
  rep: count('The rep', 1, 50),
  outcome: choice('an outcome', OUTCOMES),
  voids: string().strict().nullable().default(null),
  faults: distinct(string().strict().required().max(60), 20, 'Faults'),
  /** the fault that the athlete's one cue was for */
  cue: string().strict().nullable().max(60).default(null),
  at: string()
    .strict()
    .required('The time is missing.')
    .test('time', 'That is not a time.', (value) => !Number.isNaN(Date.parse(value ?? ''))),
});
export type Rep = InferType<typeof repInput>;

export const REP_BATCH = 200;

export const repBatch = object({
  reps: array(repInput.required())
    .required('Reps are missing.')
    .min(1, 'There is no rep to store.')
    .max(REP_BATCH, `At most ${REP_BATCH} reps at a time.`),
});

/** What became of each rep of a batch: stored (now or before), or refused with the reason. */
export type RepReceipt = { stored: string[]; refused: { id: string; title: string }[] };

/** All that the field screen needs, so that it can go on without the network. */
export type RunBundle = {
  session: Session;
  approaches: Approach[];
  athletes: Athlete[];
  reps: Rep[];
  counts: FaultCount[];
  /** the club's own, beside the built-in ones */
  movements: Movement[];
};

/** What one session showed of one athlete in one movement. */
export type FaultCount = {
  athleteId: string;
  sessionId: string;
  movement: string;
  date: string;
  /** clean or fault reps that stand */
  reps: number;
  /** fault code → reps that showed it */
  faults: Record<string, number>;
  /** faults that were the cue in this session */
  cues: string[];
};
