import { check } from '@gravek/contract/problem';
import type { FieldValues } from 'react-hook-form';
import type { AnyObjectSchema } from 'yup';
import { useSentForm, type FormCheck } from './sentForm';

/** A form that is checked as the server checks it, by the same schema; see `useSentForm`. */
export const useCheckedForm = <T extends FieldValues>(
  schema: AnyObjectSchema,
  ...rest: Parameters<typeof useSentForm<T>> extends [unknown, ...infer Rest] ? Rest : never
) => useSentForm<T>(((values) => check(schema, values)) as FormCheck<T>, ...rest);
