import type { AnySchema, ISchema, Lazy, Schema } from 'yup';

type Refused = { path: string; message: string };

const DEEPEST = 30;
/** Half of a letter of two, or the sign that ends a text: no database keeps them. */
const UNKEPT = /[\0\p{Surrogate}]/u;

const join = (path: string, key: string | number): string =>
  typeof key === 'number' ? `${path}[${key}]` : path ? `${path}.${key}` : key;

const isLazy = (schema: ISchema<unknown>): schema is Lazy<unknown> =>
  (schema as { type?: string }).type === 'lazy';

/** What is nested deeper than any form, or holds text that cannot be kept; null when there is nothing. */
export const unreadable = (value: unknown, path = '', depth = 0): Refused | null => {
  if (typeof value === 'string') {
    return UNKEPT.test(value)
      ? { path, message: 'This text holds signs that cannot be kept; type it anew.' }
      : null;
  }
  if (typeof value !== 'object' || value === null) return null;
  if (depth >= DEEPEST) return { path: '', message: 'That is nested too deep to be read.' };
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length; i += 1) {
      const found = unreadable(value[i], join(path, i), depth + 1);
      if (found) return found;
    }
    return null;
  }
  for (const [key, part] of Object.entries(value)) {
    if (UNKEPT.test(key)) return { path, message: 'That could not be read.' };
    const found = unreadable(part, join(path, key), depth + 1);
    if (found) return found;
  }
  return null;
};

/** The most items or letters that a schema allows, and what it says to more. */
export const mostOf = (schema: Schema): { max: number; message: string } | null => {
  const test = (schema as AnySchema).tests.find((one) => one.OPTIONS?.name === 'max');
  const max = test?.OPTIONS?.params?.max;
  if (typeof max !== 'number') return null;
  const { message } = test!.OPTIONS!;
  return { max, message: typeof message === 'string' ? message : 'That is too long.' };
};

/** The schemas that a schema is made of, with where each stands in a value. */
export const partsOf = (
  schema: ISchema<unknown>,
  value: unknown,
): { key: string | number; schema: ISchema<unknown>; value: unknown }[] => {
  const { fields, innerType } = schema as {
    fields?: Record<string, ISchema<unknown>>;
    innerType?: ISchema<unknown>;
  };
  if (Array.isArray(value) && innerType)
    return value.map((part: unknown, key) => ({ key, schema: innerType, value: part }));
  if (fields && typeof value === 'object' && value !== null) {
    return Object.entries(fields)
      .filter(([key]) => Object.hasOwn(value, key))
      .map(([key, part]) => ({
        key,
        schema: part,
        value: (value as Record<string, unknown>)[key],
      }));
  }
  return [];
};

/**
 * The first list or text that is longer than its schema allows; null when there is none. Lengths come
 * before everything else: a check of ten thousand items, or of a pattern over a long text, takes long.
 */
export const firstTooLong = (
  schema: ISchema<unknown>,
  value: unknown,
  path = '',
): Refused | null => {
  const plain = isLazy(schema)
    ? (schema.resolve({ value }) as unknown as Schema)
    : (schema as unknown as Schema);
  const length =
    plain.type === 'string' && typeof value === 'string'
      ? value.trim().length
      : plain.type === 'array' && Array.isArray(value)
        ? value.length
        : 0;
  const most = length > 0 ? mostOf(plain) : null;
  if (most && length > most.max) return { path, message: most.message };
  for (const part of partsOf(plain, value)) {
    const found = firstTooLong(part.schema, part.value, join(path, part.key));
    if (found) return found;
  }
  return null;
};
