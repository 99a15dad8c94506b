import {
  check,
  straightChoices,
  type Approach,
  type Athlete,
  type StraightChoices,
} from '@gravek/contract';
import { v7 as uuid } from 'uuid';

/** A plan as it is being worked on. */
export type PlanDraft = {
  id: string;
  name: string;
  choices: StraightChoices;
  athleteIds: string[];
  /** step counts to compare */
  from: number;
  to: number;
  /** null before it was first saved */
  version: number | null;
};

const USUAL: StraightChoices = {
  target: 'board',
  takeoffFoot: 'own',
  startFoot: null,
  steps: 12,
  distanceM: null,
  ending: { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
  absorb: 'early',
  tolerance: 0.1,
  speedFraction: 1,
  checkMarks: [4],
};

export const around = (steps: number): { from: number; to: number } => ({
  from: Math.max(1, steps - 2),
  to: Math.min(60, Math.max(1, steps - 2) + 4),
});

export const newDraft = (athlete: Athlete | undefined): PlanDraft => ({
  id: uuid(),
  name: athlete ? `${athlete.name.split(' ')[0]}’s run-up` : 'Straight run-up',
  choices: USUAL,
  athleteIds: athlete ? [athlete.id] : [],
  ...around(USUAL.steps),
  version: null,
});

export const draftOf = (approach: Approach): PlanDraft => ({
  id: approach.id,
  name: approach.name,
  choices: approach.choices,
  athleteIds: approach.athleteIds,
  ...around(approach.choices.steps),
  version: approach.version,
});

/** Messages by field for choices as they stand; empty when they can be solved. */
export const choiceMessages = (choices: StraightChoices): Record<string, string> => {
  const checked = check(straightChoices, choices);
  return checked.ok ? {} : checked.fields;
};
