import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  setLocale,
  string,
  type ArraySchema,
  type AnyObject,
  type ISchema,
  type MixedSchema,
  type Schema,
} from 'yup';

// What is refused is never printed: an answer must not grow with what was asked.
setLocale({
  mixed: {
    default: 'That is not right.',
    required: 'Something is missing.',
    defined: 'Something is missing.',
    notNull: 'Something is missing.',
    oneOf: 'That is none of the choices.',
    notOneOf: 'That is none of the choices.',
    notType: 'That is not what belongs here.',
  },
  string: { min: 'That is too short.', max: 'That is too long.', matches: 'That cannot be read.' },
  number: {
    min: 'That number is too small.',
    max: 'That number is too large.',
    integer: 'That must be a whole number.',
  },
  array: { min: 'There are too few of them.', max: 'There are too many of them.' },
});

const DAY = /^\d{4}-\d\d-\d\d$/;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Id made by whoever creates the row, so that a retry is the same write. */
export const id = () =>
  string()
    .strict()
    .required('An id is missing.')
    .max(36, 'That is not an id.')
    .matches(UUID, 'That is not an id.');

/** The id of something that may be named; null where nothing is, also where it is left out. */
export const idOrNone = () =>
  string()
    .max(36, 'That is not an id.')
    .matches(UUID, 'That is not an id.')
    .nullable()
    .default(null);

const CONTROL = /[\p{Cc}\p{Zl}\p{Zp}]+/gu;
const CONTROL_IN_LINES = /[^\P{Cc}\n\t]+/gu;
/** Signs that show nothing; what joins or dresses letters is left to `LOOSE_JOINER`. */
const INVISIBLE = /(?![\u200c\u200d\ufe0e\ufe0f])[\p{Cf}\p{Default_Ignorable_Code_Point}\u2800]/gu;
/** Joiners that stand between no two letters or pictures. */
const LOOSE_JOINER =
  /(?<![\p{L}\p{M}\p{Extended_Pictographic}\p{Emoji_Modifier}])[\u200c\u200d\ufe0e\ufe0f]+|[\u200c\u200d]+(?![\p{L}\p{M}\p{Extended_Pictographic}])/gu;

/** Takes out what nobody sees and nobody typed: it comes along when text is pasted. */
const visible = (text: string): string => text.replace(INVISIBLE, '').replace(LOOSE_JOINER, '');

export const name = (what: string, max = 80) =>
  string()
    .transform((text: unknown) =>
      typeof text === 'string' ? visible(text.replace(CONTROL, ' ')) : text,
    )
    .trim()
    .required(`Give ${what}.`)
    .max(max, `Keep ${what} within ${max} characters.`);

export const note = (max = 500, what = 'the note') =>
  string()
    .transform((text: unknown) =>
      typeof text === 'string' ? visible(text.replace(CONTROL_IN_LINES, '')) : text,
    )
    .trim()
    .max(max, `Keep ${what} within ${max} characters.`)
    .default('');

/** Which change of a row a write was made from; the next one must still be a number of the database. */
export const version = () => count('The version', 1, 2 ** 31 - 2);

/** Code of a movement: a chain is called by all its parts. */
export const movementCode = () => code('The movement', 200);

/** A name from data that programs go by, such as that of a fault. */
export const code = (what: string, most = 60) =>
  string()
    .strict()
    .max(most, `${what} is too long.`)
    // No control characters, and no half of a letter of two.
    .matches(/^[^\u0000-\u001f\ud800-\udfff]*$/u, `${what} cannot be read.`);

const ISO = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,6})?Z$/;

/** Nobody plans or logs outside these years. */
const inYears = (text: string): boolean => text >= '1900' && text < '2200';

/** A moment that exists, as `toISOString` writes it. */
export const moment = (what: string) =>
  string()
    .strict()
    .required(`${what} is missing.`)
    .max(40, `${what} is not a time.`)
    .test('moment', `${what} is not a time.`, (value: string | null | undefined) => {
      // Whether it may be missing is said by the field itself.
      if (value === undefined || value === null) return true;
      if (!ISO.test(value) || !inYears(value)) return false;
      const read = new Date(value);
      return (
        !Number.isNaN(read.getTime()) && read.toISOString().slice(0, 19) === value.slice(0, 19)
      );
    });

/** A day that exists, yyyy-mm-dd. */
export const day = (what: string) =>
  string()
    .strict()
    .required(`Give ${what}.`)
    .max(10, `Write ${what} as year-month-day.`)
    .matches(DAY, `Write ${what} as year-month-day.`)
    .test('exists', `There is no such day; check ${what}.`, (value) => {
      if (!value || !DAY.test(value)) return true;
      if (!inYears(value)) return false;
      const date = new Date(`${value}T00:00:00Z`);
      return !Number.isNaN(date.getTime()) && date.toISOString().slice(0, 10) === value;
    });

/** A whole number within bounds. */
export const count = (what: string, min: number, max: number) =>
  number()
    .strict()
    .typeError(`${what} must be a whole number.`)
    .required(`${what} is missing.`)
    .integer(`${what} must be a whole number.`)
    .min(min, `${what} must be at least ${min}.`)
    .max(max, `${what} must be at most ${max}.`);

/** A number within bounds. */
export const figure = (what: string, min: number, max: number, unit = '') =>
  number()
    .strict()
    .typeError(`${what} must be a number.`)
    .required(`${what} is missing.`)
    .min(min, `${what} must be at least ${min}${unit}.`)
    .max(max, `${what} must be at most ${max}${unit}.`);

export const choice = <T extends string>(what: string, options: readonly T[]) =>
  string<T>()
    .strict()
    .max(60, `Choose ${what}.`)
    .oneOf([...options], `Choose ${what}.`)
    .required(`Choose ${what}.`);

// What may be left out: a strict field would not take its default.

/** One of some words; as given where it is left out. */
export const choiceOr = <T extends string, D extends T | null>(
  what: string,
  options: readonly T[],
  otherwise: D,
) =>
  string<T>()
    .max(60, `Choose ${what}.`)
    .oneOf(otherwise === null ? [...options, null as never] : [...options], `Choose ${what}.`)
    .nullable()
    .default(otherwise as never) as unknown as MixedSchema<T | D, AnyObject>;

/** A whole number within bounds; as given where it is left out. */
export const countOr = <D extends number | null>(
  what: string,
  min: number,
  max: number,
  otherwise: D,
) => orElse(count(what, min, max), otherwise) as unknown as MixedSchema<number | D, AnyObject>;

/** A number within bounds; null where it is left out. */
export const figureOrNull = (what: string, min: number, max: number, unit = '') =>
  orElse(figure(what, min, max, unit), null) as unknown as MixedSchema<number | null, AnyObject>;

/** Yes or no; as given where it is left out. */
export const flagOr = <D extends boolean | null>(otherwise: D) =>
  lazy((value: unknown) =>
    value === undefined || (value === null && otherwise === null)
      ? mixed().nullable().default(otherwise)
      : boolean().strict().required(),
  ) as unknown as MixedSchema<boolean | D, AnyObject>;

/** A strict field that may be left out. */
const orElse = (field: Schema, otherwise: number | null) =>
  lazy((value: unknown) =>
    value === undefined || (value === null && otherwise === null)
      ? mixed().nullable().default(otherwise)
      : field,
  );

/** A list that is there, without repeats. */
export const distinct = <S extends ISchema<string, AnyObject>>(
  of: S,
  max: number,
  what: string,
): ArraySchema<string[], AnyObject> =>
  array(of as never)
    .required(`${what} are missing.`)
    .max(max, `At most ${max} ${what.toLowerCase()}.`)
    .test(
      'distinct',
      `${what} must not repeat.`,
      (list) => !list || new Set(list).size === list.length,
    ) as unknown as ArraySchema<string[], AnyObject>;

export const foot = (what: string) => choice(what, ['left', 'right'] as const);

/** Phase → part of the plan's speed. */
export const partSpeeds = () =>
  mixed<Record<string, number>>().test(
    'speeds',
    'Speeds by phase must be parts of full speed, from 0.1 to 1.',
    (value) =>
      value === undefined ||
      (typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.keys(value).length <= 24 &&
        Object.entries(value).every(
          ([phase, part]) =>
            phase.length <= 60 && typeof part === 'number' && part >= 0.1 && part <= 1,
        )),
  );
