import type { Body } from '@gravek/core/layout/body';
import type { Movement } from '@gravek/contract/movement';
import { useFields } from '../../parts/fields/fields';

/** The movement that is changed, what is wrong with it by path, and the body that its lengths are shown for. */
export const useWork = () => {
  const { value, problems, body } = useFields();
  return { movement: value as Movement, problems, body: body as Body };
};

/** A code that none of a list has. */
export const freeCode = (list: readonly { code: string }[], stem: string): string => {
  for (let n = list.length + 1; ; n += 1) {
    const code = `${stem}-${n}`;
    if (!list.some((item) => item.code === code)) return code;
  }
};

/** A list's codes with their names, to choose from. */
export const codeNames = (list: readonly { code: string; name: string }[]): [string, string][] =>
  list.map((item) => [item.code, item.name]);
