import { check } from '@gravek/contract';
import type { FieldErrors, FieldValues, Path, Resolver, UseFormSetError } from 'react-hook-form';
import type { AnyObjectSchema } from 'yup';
import { fieldsOf, sentenceOf } from '../api/client';

/** Checks a form by the same schema that the server uses. */
export const checkedBy =
  <T extends FieldValues>(schema: AnyObjectSchema): Resolver<T> =>
  (values) => {
    const checked = check(schema, values);
    if (checked.ok) return { values: checked.value as T, errors: {} };
    const errors = Object.fromEntries(
      Object.entries(checked.fields).map(([path, message]) => [path, { type: 'check', message }]),
    );
    return { values: {}, errors: errors as FieldErrors<T> };
  };

/** Puts what the server had to say at the fields it is about, or over the form. */
export const showProblem = <T extends FieldValues>(
  error: unknown,
  setError: UseFormSetError<T>,
): void => {
  const fields = Object.entries(fieldsOf(error));
  if (fields.length === 0) setError('root', { message: sentenceOf(error) });
  for (const [path, message] of fields) setError(path as Path<T>, { message });
};

/** An empty number field means that the figure is not known. */
export const numberOrNull = (text: unknown): number | null | string => {
  if (text === '' || text === null || text === undefined) return null;
  const value = Number(String(text).replace(',', '.'));
  return Number.isFinite(value) ? value : String(text);
};

/** Of what fields hold as text, the messages about text that could not be read. */
export const unread = (typed: Record<string, string | null>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(typed).filter((entry): entry is [string, string] => entry[1] !== null),
  );
