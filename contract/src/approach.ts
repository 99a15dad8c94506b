import type { Absorb, Ending, Pin } from '@gravek/core/runup/straightPlan';
import {
  type AnyObjectSchema,
  array,
  type InferType,
  lazy,
  mixed,
  type MixedSchema,
  object,
  string,
  type ValidationError,
} from 'yup';
import {
  choice,
  count,
  distinct,
  figure,
  foot,
  id,
  movementCode,
  name,
  partSpeeds,
  version,
} from './fields';
import { onGround } from './ground';
import { RUNGS } from './rungs';
import { TARGETS } from './targets';

const ENDINGS = {
  even: object({ kind: choice('an ending', ['even'] as const) }),
  penultimate: object({
    kind: choice('an ending', ['penultimate'] as const),
    longer: figure('Longer', 0, 0.3),
    shorter: figure('Shorter', 0, 0.3),
  }),
  short: object({
    kind: choice('an ending', ['short'] as const),
    count: count('Short steps', 1, 20),
    taperSteps: count('Steps to shorten over', 0, 20),
    lengthM: figure('The short step', 0.03, 1.5, ' m'),
    cadenceSpm: figure('The short cadence', 60, 900, ' steps/min'),
  }),
};

const ending = lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return (
    ENDINGS[kind as keyof typeof ENDINGS] ??
    object({ kind: choice('an ending', ['even', 'penultimate', 'short'] as const) })
  ).required();
});

const absorb = lazy((value: unknown) =>
  typeof value === 'object' && value !== null
    ? object({ stepsOut: count('The adjusting step', 0, 59) }).required()
    : choice('what takes the correction', ['even', 'early'] as const),
);

/** Codes by code, such as the exit taken at each read. */
const chosen = (what: string) =>
  mixed<Record<string, string>>()
    .required(`${what} are missing.`)
    .test('codes', `${what} must be chosen by their codes.`, (value) => {
      if (value === undefined) return true;
      if (typeof value !== 'object' || Array.isArray(value)) return false;
      const entries = Object.entries(value);
      return (
        entries.length <= 24 &&
        entries.every(
          ([key, code]) => key.length <= 60 && typeof code === 'string' && code.length <= 60,
        )
      );
    });

/** How far up its ladder it is run; contact begins with the object. Left out: at full, against air. */
const rung = () => choice('a rung', RUNGS).optional();

/** What a coach chooses for a straight run-up; athletes bring their own steps. */
export const straightChoices = object({
  target: choice('a target', TARGETS),
  /** own: as the athlete takes off */
  takeoffFoot: choice('a take-off foot', ['own', 'left', 'right'] as const),
  startFoot: foot('a first foot').nullable().defined(),
  steps: count('Steps', 1, 60),
  /** start mark to target; null for a free start */
  distanceM: figure('The start mark', 0.3, 100, ' m').nullable().defined(),
  ending,
  absorb,
  tolerance: figure('A step may change by', 0.005, 0.25),
  speedFraction: figure('The speed', 0.2, 1.1),
  /** school → way of teaching */
  schools: chosen('Ways of teaching').optional(),
  rung: rung(),
  /** where it is set out; absent or null for nowhere in particular */
  ground: onGround.nullable().optional().default(undefined),
  checkMarks: array(count('A check mark', 1, 59))
    .required('Check marks are missing.')
    .max(6, 'At most six check marks.'),
  /** steps whose length the coach has set */
  pins: array(
    object({
      step: count('A pinned step', 1, 60),
      lengthM: figure('A step', 0.03, 4, ' m'),
    }).required(),
  )
    .max(60, 'At most 60 pinned steps.')
    .default([]),
}).test('fits-steps', function fitsSteps(value): true | ValidationError {
  const {
    steps,
    ending: end,
    absorb: taken,
    pins,
  } = value as unknown as {
    steps: number;
    ending?: Ending;
    absorb?: Absorb;
    pins?: Pin[];
  };
  const beyond = pins?.find((pin) => pin.step > steps);
  if (beyond) {
    return this.createError({
      path: this.path ? `${this.path}.pins` : 'pins',
      message: `Step ${beyond.step} is pinned, but the run has ${steps} steps.`,
    });
  }
  if (end?.kind === 'short' && end.count + end.taperSteps >= steps) {
    return this.createError({
      path: this.path ? `${this.path}.ending.count` : 'ending.count',
      message: `Short and shortening steps take up all ${steps} steps; leave at least one before them.`,
    });
  }
  if (typeof taken === 'object' && taken !== null && taken.stepsOut >= steps) {
    return this.createError({
      path: this.path ? `${this.path}.absorb.stepsOut` : 'absorb.stepsOut',
      message: `There is no step ${taken.stepsOut} out in a run of ${steps}.`,
    });
  }
  return true;
});

export type StraightChoices = Omit<InferType<typeof straightChoices>, 'ending' | 'absorb'> & {
  ending: Ending;
  absorb: Absorb;
};

/** How long a usual turn takes and what ground it gains, by the way of turning; of a grown defender. */
const USUAL_TURNS = { slideS: 0.45, slideBackM: 0.25, openS: 0.25, openBackM: 0.35 };

/** Choices from when the moment of the turn was solved: depth, runner and steps stay, the rest is as usual. */
const withInFront = (value: unknown): unknown => {
  const { cushion, ...choices } = (value ?? {}) as { cushion?: unknown; inFront?: unknown };
  if (typeof cushion !== 'object' || cushion === null || choices.inFront) return value;
  return {
    ...choices,
    inFront: { ...USUAL_TURNS, dallySpeedMps: 1.2, steps: 4, ...cushion },
  };
};

/** What a coach chooses for any other movement. */
export const sequenceChoices = object({
  kind: choice('a kind of plan', ['sequence'] as const),
  /** phase → exit taken at its read */
  reads: chosen('Exits'),
  /** school → way of teaching */
  schools: chosen('Ways of teaching'),
  /** a drill by its code; null for the whole */
  drill: string().strict().nullable().defined().max(60, 'Choose a drill.'),
  speedFraction: figure('The speed', 0.2, 1.1),
  /** phase → part of that speed it is run at; the others at all of it */
  speeds: partSpeeds().optional(),
  rung: rung(),
  /** where it is set out; absent or null for nowhere in particular */
  ground: onGround.nullable().optional().default(undefined),
  /** where in its place it is done, and on which side of it; absent or null as the movement is written */
  spot: object({
    code: string().strict().required('Choose a spot.').max(60, 'Choose a spot.'),
    side: foot('a side of the place').nullable().defined(),
  })
    .nullable()
    .optional()
    .default(undefined),
  /** a rule set by its code or id; null for none */
  ruleSet: string().strict().nullable().defined().max(60, 'Choose a rule set.'),
  /** a curved run-up's own spot, angle and steps; null as the movement says */
  bar: object({
    alongM: figure('Inside the upright', -3, 3, ' m'),
    outM: figure('Out from the bar', 0.2, 3, ' m'),
    takeoffAngleDeg: figure('The take-off angle', 5, 60, '°'),
    entryFlareDeg: figure('The flare', 0, 45, '°'),
    curveSteps: count('Curve steps', 1, 12),
    straightSteps: count('Straight steps', 0, 20),
    uprightGapM: figure('Between the uprights', 2, 8, ' m'),
    apron: object({
      besideM: figure('The apron beside', 0.5, 40, ' m'),
      outM: figure('The apron out', 0.5, 40, ' m'),
    })
      .nullable()
      .default(null),
  })
    .nullable()
    .default(null),
  /** the runner that a defender gives ground to, and how it is given; null as usual */
  inFront: object({
    depthM: figure('The depth', 0, 20, ' m'),
    /** the athlete whose times these are; null for nobody in particular */
    runnerId: id().nullable().optional(),
    runnerTopMps: figure('The runner’s top speed', 1, 13, ' m/s'),
    runnerTauS: figure('The runner’s time constant', 0.2, 4, ' s'),
    /** how fast the runner comes on before going */
    dallySpeedMps: figure('The runner’s speed before going', 0, 5, ' m/s'),
    steps: count('The short steps', 0, 12),
    stepM: figure('The short step', 0.02, 1, ' m'),
    cadenceSpm: figure('The cadence', 60, 900, ' steps/min'),
    slideS: figure('Slide and plant', 0.05, 2, ' s'),
    slideBackM: figure('Ground gained by slide and plant', -1, 2, ' m'),
    openS: figure('Opening at once', 0.05, 2, ' s'),
    openBackM: figure('Ground gained by opening at once', -1, 2, ' m'),
    keepM: figure('The distance kept', 0, 5, ' m'),
  })
    .nullable()
    .default(null),
  /** a keeper's lanes and the wide pass; null as usual */
  arc: object({
    depthM: figure('The depth', 0.3, 15, ' m'),
    lanes: count('Lanes', 2, 15),
    spreadDeg: figure('The outermost lane', 5, 90, '°'),
    fromLane: count('The lane it starts in', 1, 15),
    toLane: count('The lane it ends in', 1, 15),
    speedMps: figure('The speed', 0.3, 8, ' m/s'),
    goalM: figure('The goal', 1, 12, ' m').optional(),
  })
    .nullable()
    .default(null),
  /** a raised cadence; null as usual */
  cadence: object({
    /** null: the athlete's own as it was counted last, a usual one until then */
    baselineSpm: figure('The baseline', 60, 300, ' steps/min').nullable().defined(),
    increasePct: figure('The increase', -30, 30, ' %'),
    weeks: count('Weeks', 1, 52),
    /** the week whose cadence is run; 0 is the baseline */
    week: count('The week', 0, 52).optional(),
    speedMps: figure('The pace', 0.5, 10, ' m/s'),
  })
    .nullable()
    .default(null),
}).transform(withInFront);
export type SequenceChoices = InferType<typeof sequenceChoices>;

export type Choices = StraightChoices | SequenceChoices;

const anyChoices = lazy((value: unknown): AnyObjectSchema =>
  (value as { kind?: unknown } | null)?.kind === 'sequence'
    ? sequenceChoices.required()
    : straightChoices.required(),
);

const approachFields = object({
  name: name('the approach’s name'),
  /** code of a built-in movement, or id of one of the club's own */
  movement: movementCode().required('Choose a movement.'),
  // Yup cannot infer what `lazy` gives, so the type is stated.
  choices: anyChoices as unknown as MixedSchema<Choices>,
  athleteIds: distinct(id(), 60, 'Athletes'),
});

export const approachInput = approachFields.shape({ id: id() });
export type ApproachInput = InferType<typeof approachInput>;

export const approachUpdate = approachFields.shape({
  version: version(),
});
