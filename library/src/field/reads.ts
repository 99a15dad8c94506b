import type { Variant } from '@gravek/core/variants';
import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import { phasesOn } from '../plan';

/** An exit of a read: its code as reps name it, `phase:option`. */
export type Exit = { code: string; name: string; weight: number };

/**
 * The exits of the first read on the way of a plan: each may be taken, whatever was called.
 *
 * @param movement in the words that hold for the athlete
 * @returns none where there is no read
 */
export const exitsToRead = (movement: Movement | null, choices: Choices | null): Exit[] => {
  if (!movement || !choices || !isSequence(choices)) return [];
  const phase = phasesOn(movement, choices).find(({ read }) => read);
  return (phase?.read?.options ?? []).map((option) => ({
    code: `${phase!.code}:${option.code}`,
    name: option.name,
    weight: option.weight,
  }));
};

/**
 * The exits that may be called of a turn: the one that its set or plan has chosen, else all of the read.
 *
 * @example
 * exitsToCall(exits, choices, { ...variant, exit: 'give:left' }) // only “To the left”
 */
export const exitsToCall = (
  exits: readonly Exit[],
  choices: Choices | null,
  { exit }: Pick<Variant, 'exit'>,
): Exit[] => {
  const chosen = askedExit(choices, { exit });
  const callable = exits.filter(({ code }) => code === chosen);
  return callable.length > 0 ? callable : [...exits];
};

/** The exit that a turn is asked for; null where the athlete reads it. */
export const askedExit = (
  choices: Choices | null | undefined,
  { exit }: Pick<Variant, 'exit'>,
): string | null => {
  if (exit !== null) return exit;
  const [read] = choices && isSequence(choices) ? Object.entries(choices.reads) : [];
  return read ? read.join(':') : null;
};
