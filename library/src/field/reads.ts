import type { Variant } from '@gravek/core/session/variants';
import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import { phaseOf } from '../movement/byCode';
import { phasesOn } from '../planning/branches';

/** An exit of a read: its code as reps name it, `phase:option`. */
export type Exit = { code: string; name: string; weight: number };

/**
 * The exits of the read that a turn is about: of the exit that its set asks for, else the first read on the way
 * of the plan. Each may be taken, whatever was called.
 *
 * @param movement in the words that hold for the athlete
 * @param exit that the set asks for, as `phase:option`; null where it asks for none
 * @returns none where there is no read
 */
export const exitsToRead = (
  movement: Movement | null,
  choices: Choices | null,
  exit: string | null = null,
): Exit[] => {
  if (!movement || !choices || !isSequence(choices)) return [];
  const readPhase = exit === null ? undefined : phaseOf(movement, exit.split(':')[0]!);
  const phase = readPhase?.read ? readPhase : phasesOn(movement, choices).find(({ read }) => read);
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
 * const exits = ['give:left', 'give:right'].map((code) => ({ code, name: code, weight: 1 }));
 * exitsToCall(exits, null, { exit: 'give:left' }).map(({ code }) => code) // ['give:left']
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

/**
 * The exit that a turn is asked for; null where the athlete reads it.
 *
 * @example askedExit(null, { exit: 'give:left' }) // 'give:left'
 */
export const askedExit = (
  choices: Choices | null | undefined,
  { exit }: Pick<Variant, 'exit'>,
): string | null => {
  if (exit !== null) return exit;
  const [read] = choices && isSequence(choices) ? Object.entries(choices.reads) : [];
  return read ? read.join(':') : null;
};
