import type { BodyFigure } from '@gravek/core/body/bodyFigures';
import type { Posture, PostureMoment } from '@gravek/core/body/keyframes';
import type { OtherThing } from '@gravek/core/layout/otherThings';
import type { Part } from '@gravek/core/layout/part';
import { OWN_SIDES, type PhaseSteps } from '@gravek/core/layout/sequence';
import { array, type InferType, mixed, type MixedSchema, object, string } from 'yup';
import { choice, count, distinct, figure, foot, name, note, partSpeeds } from './fields';
import {
  code,
  codeOf,
  codes,
  fault,
  list,
  other,
  part,
  partCode,
  phase,
  turn,
  words,
} from './movementParts';
import { posture } from './posture';
import { RUNGS } from './rungs';
import { setUp, type SetUp } from './setUp';

export const LOADS = ['jump', 'sprint', 'contact', 'volume'] as const;
/** What a movement asks of the body; restrictions bar it by these. */
export type Load = (typeof LOADS)[number];

const change = object({
  phase: partCode(),
  set: mixed<Record<string, unknown>>()
    .required('A change must set something.')
    .test('plain', 'A change must set something.', (value) => typeof value === 'object'),
});

/** Steps that are otherwise: in a way of teaching, or on the other side of a place. */
const changes = () => array(change.required()).max(24, 'At most 24 changes.').default([]);

/** Turns before a phase instead; 0° for none. */
const turns = () =>
  array(object({ phase: partCode(), turn: turn().required() }).required())
    .max(12, 'At most 12 turns.')
    .optional();

/** What is looked at instead, by phase and by what was looked at. */
const checkpointsInstead = () =>
  array(
    object({
      phase: partCode(),
      look: name('what is looked at', 60),
      right: words('what right looks like', 200),
    }).required(),
  )
    .max(12, 'At most 12 checkpoints.')
    .optional();

export const PLACES = ['rim', 'goal', 'net', 'diamond'] as const;

/**
 * What is built where a movement is done, and the spots at which it may be done. A spot is measured from the
 * middle of the end line, the goal line or the net, on a diamond from home: out into the court, and beside, to
 * the right as one faces it. On a diamond metres are those of bases 18.3 m apart.
 */
const place = object({
  kind: choice('what is built', PLACES),
  /** start, end, or the phase that begins at the spot */
  at: codeOf('Choose what is done at the spot.'),
  spots: array(
    object({
      code: code('A spot'),
      name: name('the spot’s name', 24),
      /** what it is called on the other side, where that is more than left and right */
      twin: note(24, 'its name on the other side').default(undefined),
      outM: figure('Out from the line', 0, 40, ' m'),
      besideM: figure('Beside the middle', 0, 30, ' m'),
      /** from facing the rim, the goal or the net: to the right positive */
      faceDeg: figure('Turned by', -180, 180, '°'),
      /** where that is in front of a goal with its area, where the movement is written for a rim */
      onGoal: object({
        outM: figure('Out from the goal line', 0, 40, ' m'),
        besideM: figure('Beside the middle', 0, 30, ' m'),
      })
        .nullable()
        .default(undefined),
    }).required(),
  )
    .required('A place needs a spot.')
    .min(1, 'A place needs a spot.')
    .max(8, 'At most 8 spots.'),
  /** on which side of the place it is written; the athlete's mirror is that of the other */
  writtenOn: foot('the side of the place'),
  /** phases whose steps change over on the other side of the place: what goes to its middle and to its end */
  swaps: array(object({ a: partCode(), b: partCode() }).required())
    .max(8, 'At most 8 pairs.')
    .optional(),
  /** what is otherwise on the other side of the place, for the same hand */
  otherSide: object({
    changes: array(
      change.shape({
        /** only where it is taught that way: a school and its way, joined by a colon */
        taughtBy: string().max(121, 'Choose a way of teaching.').nullable().default(undefined),
      }),
    )
      .max(24, 'At most 24 changes.')
      .default([]),
    turns: turns(),
    checkpoints: checkpointsInstead(),
    /** whoever and whatever stands there instead, all of it */
    others: array(other.required() as unknown as MixedSchema<OtherThing>)
      .max(24, 'At most 24 things around it.')
      .default([]),
  })
    .nullable()
    .optional()
    .default(undefined),
});

const drillPhases = () =>
  array(phase.required()).max(12, 'At most 12 phases of a drill.').optional();

const drill = object({
  code: code('A drill'),
  name: name('the drill’s name', 80),
  how: words('how the drill goes', 500),
  part: part as unknown as MixedSchema<Part>,
  speedFraction: figure('The speed', 0.2, 1),
  /** phase → how much of that speed it is run at; the others at all of it */
  speeds: partSpeeds().optional(),
  /** what it asks of the body, where that is not what the movement does; null for the same */
  loads: distinct(choice('a load', LOADS), LOADS.length, 'Loads').nullable().optional(),
  /** said where it is planned and run; short */
  caution: note(120, 'the caution').default(undefined),
  /** exit that the drill forces, by its code; null leaves the read open */
  force: string().max(60, 'Choose an exit.').nullable().default(null),
  rungs: distinct(choice('a rung', RUNGS), RUNGS.length, 'Rungs').min(
    1,
    'A drill needs at least one rung.',
  ),
  /** steps of its own in place of the movement's, where it is no part of it */
  phases: drillPhases(),
  /** whoever and whatever stands around those steps */
  others: array(other.required()).max(12, 'At most 12 things around a drill.').optional(),
  /** start, end, or the phase of its own that begins at the spot; without it the drill has no place */
  placeAt: codeOf('Choose what is done at the spot.').optional(),
  /** how it is run; as usual where nothing is said */
  setUp: setUp.optional().default(undefined),
});

const school = object({
  code: code('A school'),
  question: words('the question the schools disagree on', 120),
  options: array(
    object({
      code: code('A way of teaching'),
      name: name('the way’s name'),
      reason: words('the reason its coaches give'),
      changes: changes(),
      skips: codes('Skipped phases').default([]),
      /** faults that are none in this way of teaching */
      without: codes('Faults').optional(),
      /** faults seen or cued otherwise in this way of teaching */
      faults: array(
        object({
          code: codeOf('Choose a fault.'),
          sees: note(300, 'what is seen'),
          cue: note(80, 'the cue'),
        }).required(),
      )
        .max(12, 'At most 12 faults.')
        .optional(),
      turns: turns(),
      /** how the body is held instead, by phase */
      postures: array(object({ phase: partCode(), posture: posture().required() }).required())
        .max(24, 'At most 24 postures.')
        .optional(),
      checkpoints: checkpointsInstead(),
    }).required(),
  )
    .required('A school needs its ways.')
    .min(2, 'A disagreement needs two ways at least.')
    .max(4, 'Four ways at most.'),
});

/** What the parts of a movement may be, each by itself; `movementSchema` also sees that they hang together. */
export const movementShape = object({
  code: code('A movement'),
  /** grows when the built-in content changes */
  revision: count('The revision', 1, 100_000),
  name: name('the movement’s name', 60),
  summary: words('in a sentence what is planned', 300),
  usedBy: list('who uses it', 20).min(1, 'Say who uses it.'),
  /** situations in which a coach looks for it */
  faces: list('what the athlete faces', 12),
  /** what else people call it, and what they say when they mean it */
  alsoCalled: array(name('what else it is called', 60)).max(40, 'At most 40 of them.').optional(),
  loads: distinct(choice('a load', LOADS), LOADS.length, 'Loads'),
  writtenFor: object({
    by: choice('what decides the side', OWN_SIDES),
    side: foot('the side it is written for'),
  }).required(),
  phases: array(phase.required())
    .required('A movement needs phases.')
    .min(1, 'A movement needs at least one phase.')
    .max(30, 'At most 30 phases.'),
  others: array(other.required()).max(24, 'At most 24 things around.').default([]),
  /** what is built there, and at which spots of it it is done; null where nothing is */
  place: place.nullable().optional().default(undefined),
  /** what changes for a body under some height */
  small: object({
    underM: figure('The height', 1, 2, ' m'),
    changes: array(change.required()).max(24, 'At most 24 changes.').required('Say what changes.'),
  })
    .nullable()
    .default(undefined),
  faults: array(fault.required())
    .required('A movement needs faults.')
    .min(1, 'A movement needs at least one fault to look for.')
    .max(30, 'At most 30 faults.'),
  drills: array(drill.required()).required('Drills are missing.').max(30, 'At most 30 drills.'),
  /** codes of drills in the order in which they are taught, each with the sign to go on to the next */
  progression: array(
    object({
      drill: codeOf('Choose a drill.'),
      /** what shows that it is time for the next */
      goOn: note(120, 'the sign to go on'),
      /** in which weeks, where it is a matter of weeks */
      weeks: note(40, 'the weeks'),
    }).required(),
  )
    .max(20, 'At most 20 steps.')
    .optional(),
  schools: array(school.required()).max(12, 'At most 12 schools.').default([]),
  ruleSets: codes('Rule sets').default([]),
  cautions: list('the cautions', 12, 200),
});

type Shape = InferType<typeof movementShape>;
/** What is looked at in a phase, and what the drawn body must show of it where it can be read off the side view. */
export type Checkpoint = {
  look: string;
  right: string;
  drawn?: { figure: BodyFigure; of: PostureMoment; from: number; to: number } | null | undefined;
};
export type MovementPhase = Omit<
  Shape['phases'][number],
  'steps' | 'ball' | 'posture' | 'checkpoints'
> & {
  checkpoints: Checkpoint[];
  steps: PhaseSteps;
  ball: 'gather' | 'release' | 'dribble' | null;
  posture?: Posture | null | undefined;
};
export type Movement = Omit<Shape, 'phases' | 'drills' | 'others'> & {
  phases: MovementPhase[];
  drills: (Omit<Shape['drills'][number], 'part' | 'phases' | 'others' | 'setUp'> & {
    part: Part;
    phases?: MovementPhase[] | undefined;
    others?: OtherThing[] | undefined;
    setUp?: SetUp | undefined;
  })[];
  others: OtherThing[];
};
export type Fault = Movement['faults'][number];
export type Drill = Movement['drills'][number];
export type School = Movement['schools'][number];
