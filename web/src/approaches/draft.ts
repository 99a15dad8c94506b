import {
  check,
  isSequence,
  straightChoices,
  type Approach,
  type Athlete,
  type Choices,
  type Movement,
  type SequenceChoices,
  type StraightChoices,
} from '@gravek/contract';
import { sequenceStart, straightStart } from '@gravek/library';
import { v7 as uuid } from 'uuid';

/** A plan as it is being worked on. */
export type PlanDraft<C extends Choices = Choices> = {
  id: string;
  name: string;
  movement: string;
  choices: C;
  athleteIds: string[];
  /** null before it was first saved */
  version: number | null;
};

/** A run-up with the step counts to compare. */
export type StripDraft = PlanDraft<StraightChoices> & { from: number; to: number };

/** Check marks lie where a coach can still see the feet and the athlete can still adjust. */
const USUAL_CHECK_MARKS = [4];
/** A coach who opens a new plan has a little more to give than the solver's own default. */
const USUAL_TOLERANCE = 0.1;

export const around = (steps: number): { from: number; to: number } => ({
  from: Math.max(1, steps - 2),
  to: Math.min(60, Math.max(1, steps - 2) + 4),
});

const fresh = (movement: Movement, athlete: Athlete | undefined) => ({
  id: uuid(),
  name: (athlete
    ? `${athlete.name.split(' ')[0]}’s ${movement.code === 'straight-run-up' ? 'run-up' : movement.name.toLowerCase()}`
    : movement.name
  ).slice(0, 80),
  movement: movement.code,
  athleteIds: athlete ? [athlete.id] : [],
  version: null,
});

export const newStrip = (
  movement: Movement,
  start: StraightChoices,
  athlete: Athlete | undefined,
): StripDraft => ({
  ...fresh(movement, athlete),
  choices: {
    ...start,
    checkMarks: USUAL_CHECK_MARKS.filter((mark) => mark < start.steps),
    tolerance: USUAL_TOLERANCE,
  },
  ...around(start.steps),
});

export const newSequence = (
  movement: Movement,
  athlete: Athlete | undefined,
): PlanDraft<SequenceChoices> => ({
  ...fresh(movement, athlete),
  choices: { ...sequenceStart(), ruleSet: movement.ruleSets[0] ?? null },
});

const saved = <C extends Choices>(approach: Approach, choices: C): PlanDraft<C> => ({
  id: approach.id,
  name: approach.name,
  movement: approach.movement,
  choices,
  athleteIds: approach.athleteIds,
  version: approach.version,
});

/** @throws {TypeError} for a plan that is no run-up */
export const stripOf = (approach: Approach): StripDraft => {
  if (isSequence(approach.choices)) throw new TypeError('a sequence is not planned on the strip');
  return { ...saved(approach, approach.choices), ...around(approach.choices.steps) };
};

/** @throws {TypeError} for a run-up */
export const sequenceOfPlan = (approach: Approach): PlanDraft<SequenceChoices> => {
  if (!isSequence(approach.choices)) throw new TypeError('a run-up is planned on the strip');
  return saved(approach, approach.choices);
};

/** A run-up with a target is planned on the strip, everything else as a sequence. */
export const stripStart = (
  movement: Movement,
  approach: Approach | null,
): StraightChoices | null => {
  if (approach) return isSequence(approach.choices) ? null : approach.choices;
  return straightStart(movement);
};

/** Messages by field for choices as they stand; empty when they can be solved. */
export const choiceMessages = (choices: StraightChoices): Record<string, string> => {
  const checked = check(straightChoices, choices);
  return checked.ok ? {} : checked.fields;
};
