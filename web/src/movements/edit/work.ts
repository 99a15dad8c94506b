import type { Body } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import type { Movement } from '@gravek/contract/movement';
import { createContext, use } from 'react';
import { get, set } from 'react-hook-form';

/** Text that could not be read as the value that it stands for, and why not. */
export type Typed = { text: string; message: string };

/** A movement being worked on, and what is wrong with it by path. */
export type Work = {
  movement: Movement;
  problems: Readonly<Record<string, string>>;
  /** by path, beside the value that was there before */
  typed: Readonly<Record<string, Typed>>;
  change: (path: string, value: unknown) => void;
  /** keeps text that cannot be read; null when it can */
  keep: (path: string, typed: Typed | null) => void;
  body: Body;
  style: LengthStyle;
};

export const WorkContext = createContext<Work | null>(null);

export const useWork = (): Work => {
  const work = use(WorkContext);
  if (!work) throw new Error('outside of the editor');
  return work;
};

/** One value of the movement, what is wrong with it, and how to change it. */
export const useAt = <T>(path: string) => {
  const { movement, problems, typed, change, keep } = useWork();
  return {
    value: get(movement, path) as T,
    message: problems[path],
    set: (value: T) => change(path, value),
    /** for inputs that may hold what cannot be read */
    kept: typed[path]?.text,
    say: (message: string | null, text: string) =>
      keep(path, message === null ? null : { text, message }),
  };
};

/** A copy of a movement with one value changed. */
export const changed = (movement: Movement, path: string, value: unknown): Movement => {
  const copy = structuredClone(movement);
  set(copy, path, value);
  return copy;
};

/** Typed text of other paths than those at or under one, such as of a list that has changed. */
export const typedElsewhere = (
  typed: Readonly<Record<string, Typed>>,
  path: string,
): Record<string, Typed> =>
  Object.fromEntries(
    Object.entries(typed).filter(
      ([key]) => key !== path && !key.startsWith(`${path}.`) && !key.startsWith(`${path}[`),
    ),
  );

/** A code that none of a list has. */
export const freeCode = (list: readonly { code: string }[], stem: string): string => {
  for (let n = list.length + 1; ; n += 1) {
    const code = `${stem}-${n}`;
    if (!list.some((one) => one.code === code)) return code;
  }
};
