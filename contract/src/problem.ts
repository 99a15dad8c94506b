import { ValidationError, type AnyObjectSchema, type InferType } from 'yup';
import { firstBeyond, isTooDeep } from './bounds';

/** The body of every error answer, `application/problem+json`. */
export type Problem = {
  status: number;
  /** one sentence that a coach can read */
  title: string;
  /** what is wrong with each field, by its path */
  fields?: Record<string, string>;
  /** the row as it stands now, when somebody else has changed it */
  current?: unknown;
  /** the password must be given again first */
  confirm?: true;
  /** signing in takes a code besides the password */
  secondStep?: true;
};

export type Checked<T> = { ok: true; value: T } | { ok: false; fields: Record<string, string> };

/** More faults than anybody mends at once; the others come when these are mended. */
const MOST_FAULTS = 40;

/**
 * Checks a value against a schema; unknown keys are dropped, faults are reported together. What is too
 * long, too deep or cannot be kept is refused before any schema looks at it piece by piece.
 */
export const check = <S extends AnyObjectSchema>(
  schema: S,
  value: unknown,
): Checked<InferType<S>> => {
  if (isTooDeep(value)) {
    return { ok: false, fields: { '': 'That is nested too deep to be read.' } };
  }
  const refused = firstBeyond(schema, value);
  if (refused) return { ok: false, fields: { [refused.path]: refused.message } };
  try {
    return {
      ok: true,
      value: schema.validateSync(value ?? {}, { abortEarly: false, stripUnknown: true }),
    };
  } catch (error) {
    // Yup stumbles over keys that every object has, such as toString; nobody's form sends them.
    if (error instanceof TypeError) return { ok: false, fields: { '': 'That could not be read.' } };
    if (!(error instanceof ValidationError)) throw error;
    const fields: Record<string, string> = {};
    for (const other of (error.inner.length > 0 ? error.inner : [error]).slice(0, MOST_FAULTS)) {
      fields[other.path ?? ''] ??= other.message;
    }
    return { ok: false, fields };
  }
};
