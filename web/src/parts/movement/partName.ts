import type { Part } from '@gravek/core/layout/part';
import type { Movement } from '@gravek/contract/movement';
import { phaseOf } from '@gravek/library/movement/byCode';

/** A part of a sequence in words. */
export const partName = (movement: Movement, part: Part): string => {
  const name = (code: string): string => phaseOf(movement, code)?.name.toLowerCase() ?? code;
  switch (part.kind) {
    case 'all':
      return 'The whole';
    case 'last':
      return part.steps === 1 ? 'The last step' : `The last ${part.steps} steps`;
    case 'steps':
      return part.from === part.to ? `Step ${part.from}` : `Steps ${part.from} to ${part.to}`;
    case 'phases':
      return part.from === part.to
        ? `Only ${name(part.from)}`
        : `From ${name(part.from)} to ${name(part.to)}`;
    case 'until-read':
      return 'Up to the first read';
    case 'hold':
      return `Hold at step ${part.step}`;
  }
};
