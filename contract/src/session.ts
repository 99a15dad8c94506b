import { OUTCOMES, type Side } from '@gravek/core';
import { array, mixed, number, object, type InferType } from 'yup';
import { BY_ITSELF } from './bounds';
import {
  choice,
  code,
  count,
  day,
  distinct,
  foot,
  id,
  idOrNone,
  moment,
  name,
  note,
  version,
} from './fields';

export const SIDES = ['own', 'other'] as const satisfies readonly Side[];

/** Parts of a plan's speed that a set may run the way in at. */
export const PACES = [1, 0.75, 0.5, 0.25] as const;

export const drillSetInput = object({
  id: id(),
  approachId: id(),
  /** part of the plan's speed for the way in; short steps and what follows stay as they are */
  pace: number().oneOf(PACES, 'Choose how fast the way in is run.').default(1),
  /** none only where the last one has been deleted since */
  athleteIds: distinct(id(), 60, 'Athletes'),
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
  /** one of the club's grounds; null for elsewhere, which the place then tells */
  groundId: idOrNone(),
  place: note(80),
  drillSets: array(drillSetInput.required())
    .required('Drill sets are missing.')
    .min(1, 'A session needs at least one drill set.')
    .max(20, 'At most 20 drill sets.'),
});

export const sessionInput = sessionFields.shape({ id: id() });
export type SessionInput = InferType<typeof sessionInput>;

export const sessionUpdate = sessionFields.shape({
  version: version(),
});
export type SessionUpdate = InferType<typeof sessionUpdate>;

export type Session = SessionInput & {
  version: number;
  archived: boolean;
  /** reps logged so far, clean or fault */
  logged: number;
};

/**
 * One row of the rep log. It says by itself what was done, so that no later change of a plan or session
 * can make it mean something else. A void takes back the row it names; nothing is edited in place.
 */
export const repInput = object({
  id: id(),
  sessionId: id(),
  drillSetId: id(),
  athleteId: id(),
  movement: code('The movement').required('The movement is missing.'),
  /** the drill whose part was run; null for the whole */
  part: code('The part').nullable().default(null),
  set: count('The set', 1, 20),
  side: choice('a side', SIDES),
  rep: count('The rep', 1, 50),
  /** the athlete's how-manieth turn of the drill set: early or late */
  turn: count('The turn', 1, 2000),
  leadFoot: foot('the lead foot').nullable().default(null),
  /** asked speed, per cent of full */
  speedPct: count('The speed', 1, 120).nullable().default(null),
  outcome: choice('an outcome', OUTCOMES),
  voids: id().nullable().default(null),
  faults: distinct(code('A fault').required('A fault is missing.'), 20, 'Faults'),
  /** the fault that the athlete's one cue was for */
  cue: code('The cue').nullable().default(null),
  /** what logged it, and its own running number: order goes by these, not by clocks */
  device: id(),
  deviceNo: count('The device’s number', 1, 2 ** 31 - 1),
  at: moment('The time'),
}).test('void', 'A row that takes one back names it, and no other row does.', (rep) =>
  rep.outcome === 'void' ? Boolean(rep.voids) : !rep.voids,
);
export type Rep = InferType<typeof repInput>;

/** A rep as the server holds it. */
export type StoredRep = Rep & {
  /** when it was taken, counted in its session from 1 */
  arrival: number;
};

/** so few that a refusal of each is still a small answer */
export const REP_BATCH = 100;

/** Rows from a phone's queue; each is checked by itself, so that a bad one does not hold up the rest. */
export const repBatch = object({
  reps: array(mixed<object>().required('A rep is missing.').meta(BY_ITSELF))
    .required('Reps are missing.')
    .min(1, 'There is no rep to store.')
    .max(REP_BATCH, `At most ${REP_BATCH} reps at a time.`),
});

/** What became of each rep of a batch: stored (now or before), or refused with the reason. */
export type RepReceipt = {
  stored: { id: string; arrival: number }[];
  refused: { id: string; title: string }[];
};

/** A page of a session's log: what arrived after a number, and whether there is more. */
export type LogPage = { items: StoredRep[]; more: boolean };
