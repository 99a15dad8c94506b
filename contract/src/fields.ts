import { array, number, string, type ArraySchema, type AnyObject, type ISchema } from 'yup';

const DAY = /^\d{4}-\d\d-\d\d$/;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Id made by whoever creates the row, so that a retry is the same write. */
export const id = () =>
  string().strict().required('An id is missing.').matches(UUID, 'That is not an id.');

export const name = (what: string, max = 80) =>
  string().trim().required(`Give ${what}.`).max(max, `Keep ${what} within ${max} characters.`);

export const note = (max = 500) =>
  string().trim().max(max, `Keep the note within ${max} characters.`).default('');

/** A name from data that programs go by, such as that of a fault. */
export const code = (what: string) =>
  string()
    .strict()
    .max(60, `${what} is too long.`)
    // No control characters, and no half of a letter of two.
    .matches(/^[^\u0000-\u001f\ud800-\udfff]*$/u, `${what} cannot be read.`);

const ISO = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,6})?Z$/;

/** A moment that exists, as `toISOString` writes it. */
export const moment = (what: string) =>
  string()
    .strict()
    .required(`${what} is missing.`)
    .test('moment', `${what} is not a time.`, (value) => {
      if (!value || !ISO.test(value)) return false;
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
    .matches(DAY, `Write ${what} as year-month-day.`)
    .test('exists', `There is no such day; check ${what}.`, (value) => {
      if (!value || !DAY.test(value)) return true;
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
    .oneOf([...options], `Choose ${what}.`)
    .required(`Choose ${what}.`);

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
