import { check } from '@gravek/contract';
import {
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type Path,
  type Resolver,
  set,
  type UseFormProps,
} from 'react-hook-form';
import type { AnyObjectSchema } from 'yup';
import { fieldsOf, sentenceOf } from '../api/client';

/** Checks a form by the same schema that the server uses. */
const checkedBy =
  <T extends FieldValues>(schema: AnyObjectSchema): Resolver<T> =>
  (values) => {
    const checked = check(schema, values);
    if (checked.ok) return { values: checked.value as T, errors: {} };
    const errors: Record<string, unknown> = {};
    for (const [path, message] of Object.entries(checked.fields)) {
      set(errors, path, { type: 'check', message });
    }
    return { values: {}, errors: errors as FieldErrors<T> };
  };

/**
 * A form that is checked as the server checks it, and puts what the server has to say at the fields
 * it is about, or over the form.
 *
 * @param send what to do with values that pass; what it throws is shown, and nothing typed is lost
 */
export const useCheckedForm = <T extends FieldValues>(
  schema: AnyObjectSchema,
  options: Pick<UseFormProps<T>, 'values' | 'resetOptions'> & { defaultValues?: DefaultValues<T> },
  send: (values: T) => Promise<unknown>,
) => {
  const form = useForm<T>({ resolver: checkedBy<T>(schema), ...options });
  const submit = form.handleSubmit(async (values) => {
    try {
      await send(values);
    } catch (error) {
      const fields = Object.entries(fieldsOf(error));
      if (fields.length === 0) form.setError('root', { message: sentenceOf(error) });
      for (const [path, message] of fields) form.setError(path as Path<T>, { message });
    }
  });
  const { errors, isSubmitting } = form.formState;
  return {
    register: form.register,
    watch: form.watch,
    errors,
    busy: isSubmitting,
    over: errors.root?.message ?? null,
    onSubmit: (event: React.SyntheticEvent) => void submit(event),
  };
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
