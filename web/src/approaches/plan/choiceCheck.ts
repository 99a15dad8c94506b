import { sequenceChoices, straightChoices, type Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import { check } from '@gravek/contract/problem';

/** Messages by field for choices as they stand; empty when they can be solved. */
export const choiceMessages = (choices: Choices): Record<string, string> => {
  const checked = isSequence(choices)
    ? check(sequenceChoices, choices)
    : check(straightChoices, choices);
  return checked.ok ? {} : checked.fields;
};
