import { READING_KINDS, readingResult, type Reading } from '@gravek/core/measuring/measures';
import {
  array,
  lazy,
  number,
  object,
  type AnyObjectSchema,
  type MixedSchema,
  type Schema,
} from 'yup';

import { choice, day, figureOrNull, id, note } from './fields';
import { SOURCES } from './source';

const figures = (what: string, unit: string, most = 60) =>
  array(number().strict().typeError(`${what}: write numbers, ${unit}.`).required())
    .required(`${what} are missing.`)
    .min(1, `${what}: write at least one.`)
    .max(most, `${what}: at most ${most}.`);
const length = (what: string) =>
  number().strict().typeError(`${what} must be a number.`).required(`${what} is missing.`);

const counts = () =>
  array(object({ count: length('The count'), seconds: length('The time') }).required())
    .required('The counts are missing.')
    .min(1, 'One count at least.')
    .max(20, 'At most twenty counts.');

const SHAPES: Record<Reading['kind'], Record<string, Schema>> = {
  sprint: {
    splits: array(
      object({ distanceM: length('The distance'), timeS: length('The time') }).required(),
    )
      .required('The times are missing.')
      .min(2, 'Two distances at least.')
      .max(12, 'At most twelve distances.'),
  },
  curve: { radiusM: length('The radius'), chordsM: figures('Tapes', 'in metres') },
  cadence: { counts: counts() },
  'easy-cadence': { counts: counts() },
  stop: { speedMps: length('The speed'), distancesM: figures('Stopping distances', 'in metres') },
  reaction: { timesS: figures('Times', 'in seconds') },
  'short-step': { lengthsM: figures('Steps', 'in metres') },
  lane: { laneM: length('The lane'), steps: figures('Counts', 'of steps') },
  'run-through': { missesM: figures('Misses', 'in metres') },
  'take-offs': {
    spots: array(
      object({ alongM: length('Inside the upright'), outM: length('Out from the bar') }).required(),
    )
      .required('The take-offs are missing.')
      .min(1, 'One take-off at least.')
      .max(60, 'At most sixty take-offs.'),
  },
  steady: {
    targetSpm: figureOrNull('The target', 60, 300, ' steps/min'),
    minutesSpm: figures('Minutes', 'in steps a minute', 180),
    minutesMps: array(number().strict().typeError('Speeds: write numbers.').nullable().defined())
      .max(180, 'Speeds: at most 180.')
      .nullable()
      .optional(),
  },
};

/** Cadences between a walk and the fastest feet, steps a minute. */
const SLOWEST_SPM = 60;
const FASTEST_SPM = 400;

/** The first count of one foot that no runner makes, such as a tap after the time was over; or null. */
const oddCount = (taken: Reading): number | null => {
  if (taken.kind !== 'cadence' && taken.kind !== 'easy-cadence') return null;
  const odd = taken.counts.findIndex(({ count, seconds }) => {
    const spm = (120 * count) / seconds;
    return spm < SLOWEST_SPM || spm > FASTEST_SPM;
  });
  return odd < 0 ? null : odd;
};

/** A figure that the test's own computation refuses is pointed out at its field. */
const reading = lazy((value: unknown): AnyObjectSchema => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  const shape =
    typeof kind === 'string' && Object.hasOwn(SHAPES, kind) ? SHAPES[kind as Reading['kind']] : {};
  return object({ kind: choice('a test', READING_KINDS), ...shape })
    .required('The reading is missing.')
    .test('computes', function computes(input) {
      const inputReading = input as unknown as Reading;
      if (
        !Object.values(shape).every((part, i) =>
          part.isValidSync(Object.values(pick(input, shape))[i]),
        )
      )
        return true;
      try {
        readingResult(inputReading);
        const odd = oddCount(inputReading);
        return odd === null
          ? true
          : this.createError({
              path: `${this.path}.counts[${odd}].count`,
              message: `Nobody runs so: that comes to under ${SLOWEST_SPM} or over ${FASTEST_SPM} steps a minute. Take this count out, or count again.`,
            });
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        const [, field = '', text = ''] = /^([\w[\].]+) (.*)$/.exec(error.message) ?? [];
        return this.createError({
          path: `${this.path}.${field}`,
          message: `This ${text}.`,
        });
      }
    });
});

const pick = (source: object, shape: object): Record<string, unknown> =>
  Object.fromEntries(
    Object.keys(shape).map((key) => [key, (source as Record<string, unknown>)[key]]),
  );

/** One of the tests that coaches do beside the measured run. */
export const readingInput = object({
  id: id(),
  athleteId: id(),
  takenOn: day('the day'),
  source: choice('who measured', SOURCES),
  note: note(200),
  // Yup cannot infer what `lazy` gives, so the type is stated.
  reading: reading as unknown as MixedSchema<Reading>,
});

export type ReadingRow = {
  id: string;
  athleteId: string;
  takenOn: string;
  source: (typeof SOURCES)[number];
  note: string;
  reading: Reading;
};
