import { ValidationError, type AnyObjectSchema, type InferType } from 'yup';

/** The body of every error answer, `application/problem+json`. */
export type Problem = {
  status: number;
  /** one sentence that a coach can read */
  title: string;
  /** what is wrong with each field, by its path */
  fields?: Record<string, string>;
  /** the row as it stands now, when somebody else has changed it */
  current?: unknown;
};

export type Checked<T> = { ok: true; value: T } | { ok: false; fields: Record<string, string> };

/** Checks a value against a schema; unknown keys are dropped, all faults are reported at once. */
export const check = <S extends AnyObjectSchema>(
  schema: S,
  value: unknown,
): Checked<InferType<S>> => {
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
    for (const one of error.inner.length > 0 ? error.inner : [error]) {
      fields[one.path ?? ''] ??= one.message;
    }
    return { ok: false, fields };
  }
};
