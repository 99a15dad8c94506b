import type { AnySchema, ISchema, Lazy, Schema } from 'yup';

type Refused = { path: string; message: string };

const DEEPEST = 30;
/** Half of a letter of two, or the sign that ends a text: no database keeps them. */
const UNKEPT = /[\0\p{Surrogate}]/u;

const join = (path: string, key: string | number): string =>
  typeof key === 'number' ? `${path}[${key}]` : path ? `${path}.${key}` : key;

const isLazy = (schema: ISchema<unknown>): schema is Lazy<unknown> =>
  (schema as { type?: string }).type === 'lazy';

/** Nested deeper than any form is. */
export const isTooDeep = (value: unknown, depth = 0): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (depth >= DEEPEST || Object.values(value).some((part) => isTooDeep(part, depth + 1)));

/** The most items or letters that a schema allows, and what it says to more. */
export const mostOf = (schema: Schema): { max: number; message: string } | null => {
  const test = (schema as AnySchema).tests.find((check) => check.OPTIONS?.name === 'max');
  const max = test?.OPTIONS?.params?.max;
  if (typeof max !== 'number') return null;
  const { message } = test!.OPTIONS!;
  return { max, message: typeof message === 'string' ? message : 'That is too long.' };
};

/** Says of a schema that its value is checked later, by itself. */
export const BY_ITSELF = { byItself: true };

/**
 * The first list or text that is longer than its schema allows, or text that cannot be kept; null when
 * there is none. This comes before everything else: a check of ten thousand items, or of a pattern over a
 * long text, takes long. What a schema does not name is dropped anyway and not looked at.
 *
 * @param schema undefined inside of what a schema leaves open
 */
export const firstBeyond = (
  schema: ISchema<unknown> | undefined,
  value: unknown,
  path = '',
): Refused | null => {
  const plain = (schema && isLazy(schema) ? schema.resolve({ value }) : schema) as
    | (Schema & { fields?: Record<string, ISchema<unknown>>; innerType?: ISchema<unknown> })
    | undefined;
  if (typeof value === 'string') {
    const most = plain?.type === 'string' ? mostOf(plain) : null;
    if (most && value.trim().length > most.max) return { path, message: most.message };
    return UNKEPT.test(value)
      ? { path, message: 'This text holds signs that cannot be kept; type it anew.' }
      : null;
  }
  if (typeof value !== 'object' || value === null) return null;
  if ((plain?.spec.meta as Partial<typeof BY_ITSELF> | undefined)?.byItself) return null;
  if (Array.isArray(value)) {
    const most = plain?.type === 'array' ? mostOf(plain) : null;
    if (most && value.length > most.max) return { path, message: most.message };
    // Another list than the schema's is refused as a whole; its items are not looked at.
    if (plain && plain.type !== 'array' && plain.type !== 'mixed') return null;
    for (let i = 0; i < value.length; i += 1) {
      const found = firstBeyond(plain?.innerType, value[i], join(path, i));
      if (found) return found;
    }
    return null;
  }
  for (const [key, part] of Object.entries(value)) {
    if (plain?.fields) {
      if (!Object.hasOwn(plain.fields, key)) continue;
    } else if (UNKEPT.test(key)) return { path, message: 'That could not be read.' };
    const found = firstBeyond(plain?.fields?.[key], part, join(path, key));
    if (found) return found;
  }
  return null;
};
