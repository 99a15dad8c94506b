import { check } from '@gravek/contract/problem';
import type { FieldValues } from 'react-hook-form';
import type { AnyObjectSchema } from 'yup';
import { useSentForm, type FormCheck } from './sentForm';

/** A form that is checked as the server checks it, by the same schema; see `useSentForm`. */
export const useCheckedForm = <T extends FieldValues>(
  schema: AnyObjectSchema,
  ...rest: Parameters<typeof useSentForm<T>> extends [unknown, ...infer Rest] ? Rest : never
) => useSentForm<T>(((values) => check(schema, values)) as FormCheck<T>, ...rest);

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
