import { bodyOf } from '@gravek/core/layout/body';
import type { Choices, SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { Approach } from '@gravek/contract/plan';
import { forBody } from '@gravek/library/movement/schools';
import { sequenceStart, straightStart } from '@gravek/library/planning/planStart';
import { v7 as uuid } from 'uuid';

/** A plan as it is being worked on. */
export type PlanDraft = {
  id: string;
  name: string;
  movement: string;
  choices: Choices;
  athleteIds: string[];
  /** null before it was first saved */
  version: number | null;
  /** step counts of a run-up to compare */
  from: number;
  to: number;
};

/** Check marks lie where a coach can still see the feet and the athlete can still adjust. */
const USUAL_CHECK_MARKS = [4];
/** A coach who opens a new plan has a little more to give than the solver's own default. */
const USUAL_TOLERANCE = 0.1;

/** Step counts worth comparing with one. */
export const around = (steps: number): { from: number; to: number } => ({
  from: Math.max(1, steps - 2),
  to: Math.min(60, Math.max(1, steps - 2) + 4),
});

const compared = (choices: Choices) => around(isSequence(choices) ? 1 : choices.steps);

/** What a new plan is called until the coach says otherwise. */
export const usualName = (movement: Movement, athlete: Athlete | undefined): string =>
  (athlete
    ? `${athlete.name.split(' ')[0]}’s ${movement.code === 'straight-run-up' ? 'run-up' : movement.name.toLowerCase()}`
    : movement.name
  ).slice(0, 80);

/** What the coach has chosen before planning: for whom, and what of a movement. */
export type Asked = Partial<Pick<SequenceChoices, 'reads' | 'schools' | 'drill' | 'spot'>> & {
  athleteId?: string | undefined;
};

const startOf = (
  movement: Movement,
  athlete: Athlete | undefined,
  { athleteId: _athlete, ...change }: Asked,
): Choices => {
  const start = straightStart(athlete ? forBody(movement, bodyOf(athlete)) : movement);
  // A drill or another exit of a run-up is a part or a way of its own, not the run to the target.
  const whole = !change.drill && Object.keys(change.reads ?? {}).length === 0;
  return start && whole
    ? {
        ...start,
        checkMarks: USUAL_CHECK_MARKS.filter((mark) => mark < start.steps),
        tolerance: USUAL_TOLERANCE,
        schools: change.schools ?? {},
      }
    : { ...sequenceStart(), ruleSet: movement.ruleSets[0] ?? null, ...change };
};

export const newPlan = (
  movement: Movement,
  athlete: Athlete | undefined,
  ground: OnGround | null,
  fromAddress: Asked = {},
): PlanDraft => {
  const choices = { ...startOf(movement, athlete, fromAddress), ...(ground && { ground }) };
  return {
    id: uuid(),
    name: usualName(movement, athlete),
    movement: movement.code,
    choices,
    athleteIds: athlete ? [athlete.id] : [],
    version: null,
    ...compared(choices),
  };
};

export const draftOf = ({
  id,
  name,
  movement,
  choices,
  athleteIds,
  version,
}: Approach): PlanDraft => ({
  id,
  name,
  movement,
  choices,
  athleteIds,
  version,
  ...compared(choices),
});

/** The draft of a plan is kept under this name. */
export const draftName = (approachId: string): string => `approach.${approachId}`;
