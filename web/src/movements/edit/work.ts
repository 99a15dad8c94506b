import type { Body, LengthStyle } from '@gravek/core';
import type { Movement } from '@gravek/contract';
import { createContext, use } from 'react';
import { get, set } from 'react-hook-form';

/** A movement being worked on, and what is wrong with it by path. */
export type Work = {
  movement: Movement;
  problems: Readonly<Record<string, string>>;
  change: (path: string, value: unknown) => void;
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
  const { movement, problems, change } = useWork();
  return {
    value: get(movement, path) as T,
    message: problems[path],
    set: (value: T) => change(path, value),
  };
};

/** A copy of a movement with one value changed. */
export const changed = (movement: Movement, path: string, value: unknown): Movement => {
  const copy = structuredClone(movement);
  set(copy, path, value);
  return copy;
};

/** A code that none of a list has. */
export const freeCode = (list: readonly { code: string }[], stem: string): string => {
  for (let n = list.length + 1; ; n += 1) {
    const code = `${stem}-${n}`;
    if (!list.some((one) => one.code === code)) return code;
  }
};
