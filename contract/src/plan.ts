import type { Foot } from '@gravek/core/feet';
import type { Layout } from '@gravek/core/layout/shape';
import type { StepModel } from '@gravek/core/runup/stepModel';
import type { StraightResult } from '@gravek/core/runup/straightPlan';
import type { Choices } from './approach';
export type ModelSource = 'measured' | 'estimate';

/** What a plan comes to for one athlete, whatever its movement. */
export type Solved = {
  /** every footfall on the ground; null when it cannot be run */
  layout: Layout | null;
  /** beside it, the figures of a run-up to a target, or why it cannot be run; null for other movements */
  straight: StraightResult | null;
};

/** An approach solved for one athlete, kept as it was. */
export type SolvedApproach = Solved & {
  athleteId: string;
  model: StepModel;
  modelSource: ModelSource;
  solverVersion: number;
  solvedAt: string;
};

/** What every screen tells of a plan in a line, whatever its kind. */
export type Outline = {
  firstFoot: Foot;
  lastFoot: Foot;
  /** start mark to target, metres; null for a sequence that runs at no target */
  startM: number | null;
  totalTimeS: number;
  /** feet that land together are one step */
  steps: number;
  contacts: { foot: Foot; timeS: number; special: boolean }[];
  checkMarks: { stepsOut: number; toTargetM: number }[];
};

/** A plan that was solved by measures that have changed since, and for whom. */
export type OutdatedPlan = {
  approachId: string;
  name: string;
  athletes: { id: string; name: string }[];
};

/** An approach as lists show it. */
export type ApproachSummary = {
  id: string;
  name: string;
  movement: string;
  choices: Choices;
  /** those it is planned for; a session may have it solved for more */
  athleteIds: string[];
  version: number;
  archived: boolean;
  savedAt: string;
  /** steps of the first athlete; null when nobody can run it */
  steps: number | null;
  /** nearest and farthest start mark, metres; null where there is none */
  startM: { from: number; to: number } | null;
  /** mean time of a rep, seconds */
  runS: number | null;
  /** athletes whom it does not fit */
  misfits: string[];
};

export type Approach = Omit<ApproachSummary, 'steps' | 'startM' | 'runS' | 'misfits'> & {
  solved: SolvedApproach[];
};

/** What an athlete is planned to run. */
export type AthletePlan = {
  id: string;
  name: string;
  modelSource: ModelSource;
  /** null when it does not fit */
  outline: Pick<Outline, 'startM' | 'steps' | 'firstFoot' | 'checkMarks'> | null;
};
