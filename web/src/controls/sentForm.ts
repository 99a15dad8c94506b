import type { Checked } from '@gravek/contract/problem';
import {
  set,
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormProps,
} from 'react-hook-form';
import { fieldsOf, sentenceOf } from '../api/client';

/** Looks at what was typed; may take a moment, such as to load what it is checked by. */
export type FormCheck<T> = (values: unknown) => Checked<T> | Promise<Checked<T>>;

const checkedBy =
  <T extends FieldValues>(check: FormCheck<T>): Resolver<T> =>
  async (values) => {
    // As it was when it was sent: while the check loads, somebody may type on.
    let checked: Checked<T>;
    try {
      checked = await check(structuredClone(values));
    } catch (error) {
      const root = { type: 'check', message: sentenceOf(error) };
      return { values: {}, errors: { root } as FieldErrors<T> };
    }
    if (checked.ok) return { values: checked.value, errors: {} };
    const errors: Record<string, unknown> = {};
    for (const [path, message] of Object.entries(checked.fields)) {
      set(errors, path, { type: 'check', message });
    }
    return { values: {}, errors: errors as FieldErrors<T> };
  };

/**
 * A form that puts what its check and the server have to say at the fields it is about, or over the form.
 *
 * @param send what to do with values that pass; what it throws is shown, and nothing typed is lost
 */
export const useSentForm = <T extends FieldValues>(
  check: FormCheck<T>,
  options: Pick<UseFormProps<T>, 'values' | 'resetOptions'> & { defaultValues?: DefaultValues<T> },
  send: (values: T) => Promise<unknown>,
) => {
  const form = useForm<T>({ resolver: checkedBy<T>(check), ...options });
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
