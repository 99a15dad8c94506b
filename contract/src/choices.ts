import type { Choices, SequenceChoices } from './approach';

/** Whether choices are those of a sequence of phases, or of a straight run-up. */
export const isSequence = (choices: Choices): choices is SequenceChoices => 'kind' in choices;
