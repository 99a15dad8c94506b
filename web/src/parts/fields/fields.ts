import type { Body } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import { createContext, use } from 'react';
import { get, set } from 'react-hook-form';

/** Text that could not be read as the value that it stands for, and why not. */
export type Typed = { text: string; message: string };

/** Such texts by the path of their value, which stays what it was before. */
export type TypedTexts = Readonly<Record<string, Typed>>;

/** A thing that is changed in a form, field by field, each by its path. */
export type FormFields = {
  value: object;
  typed: TypedTexts;
  change: (path: string, value: unknown) => void;
  /** keeps text that cannot be read; null when it can */
  keep: (path: string, typed: Typed | null) => void;
  /** what is wrong with it, by path */
  problems: Readonly<Record<string, string>>;
  style: LengthStyle;
  /** in whose measures lengths are counted; null where all of them are metres */
  body: Body | null;
};

export const FieldsContext = createContext<FormFields | null>(null);

export const useFields = (): FormFields => {
  const fields = use(FieldsContext);
  if (!fields) throw new Error('outside of a form');
  return fields;
};

/** One value of the form, what is wrong with it, and how to change it. */
export const useAt = <T>(path: string) => {
  const { value, problems, typed, change, keep } = useFields();
  return {
    value: get(value, path) as T,
    message: problems[path],
    set: (next: T) => change(path, next),
    /** for inputs that may hold what cannot be read */
    kept: typed[path]?.text,
    say: (message: string | null, text: string) =>
      keep(path, message === null ? null : { text, message }),
  };
};

/** Texts of other paths than those at or under one, such as of a list that has changed. */
const typedElsewhere = (typed: TypedTexts, path: string): TypedTexts =>
  Object.fromEntries(
    Object.entries(typed).filter(
      ([key]) => key !== path && !key.startsWith(`${path}.`) && !key.startsWith(`${path}[`),
    ),
  );

/**
 * How fields change a thing and the texts beside it.
 *
 * @param store takes both as they are then, and the path that was changed
 */
export const changesOf = <T extends object>(
  value: T,
  typed: TypedTexts,
  store: (value: T, typed: TypedTexts, path: string) => void,
): Pick<FormFields, 'value' | 'typed' | 'change' | 'keep'> => ({
  value,
  typed,
  change: (path, next) => {
    const copy = structuredClone(value);
    set(copy, path, next);
    store(copy, typedElsewhere(typed, path), path);
  },
  keep: (path, text) => {
    if (text === null && !(path in typed)) return;
    const others = typedElsewhere(typed, path);
    store(value, text === null ? others : { ...others, [path]: text }, path);
  },
});

/** What is wrong by the texts that cannot be read, by path. */
export const messagesOf = (typed: TypedTexts): Record<string, string> =>
  Object.fromEntries(Object.entries(typed).map(([path, { message }]) => [path, message]));
