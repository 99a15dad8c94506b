import { runThroughs } from '@gravek/core/measuring/measures';
import { type NearbyPlan, nearbyPlans } from '@gravek/core/runup/stepCounts';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import type { StraightChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Solved } from '@gravek/contract/plan';
import { straightAsk } from '@gravek/library/planning/solvePlan';
import { useMemo } from 'react';
import { around, type PlanDraft } from './draft';
import type { ChoiceParts, PlanParts } from './parts';

export const NO_PINS: readonly never[] = [];

type RunUp = {
  ask: StraightInput;
  plan: StraightPlan | null;
  /** what works near an ask that does not */
  nearby: NearbyPlan[];
  /** what is drawn: the plan, or the nearest that works */
  drawn: StraightPlan | null;
};

/** How the athlete's newest run-throughs landed, where there are two and more. */
export const loggedOf = ({ readings }: Athlete): { n: number; sdM: number } | null => {
  const newest = readings.find((row) => row.reading.kind === 'run-through')?.reading;
  if (newest?.kind !== 'run-through') return null;
  const { n, sdM } = runThroughs(newest.missesM);
  return sdM === null ? null : { n, sdM };
};

/** The straight run's figures of a plan, and what works nearby where it cannot be run. */
const runUpOf = (
  choices: StraightChoices,
  { body }: Pick<PlanParts, 'body'>,
  solved: Solved | null,
): RunUp | null => {
  if (!solved?.straight) return null;
  const ask = straightAsk(choices, body, body.model);
  const { straight } = solved;
  const nearby = straight.feasible ? [] : nearbyPlans(ask, straight);
  const plan = straight.feasible ? straight : null;
  return { ask, plan, nearby, drawn: plan ?? nearby[0]?.plan ?? null };
};

export const useRunUp = (
  choices: StraightChoices,
  { body, solved }: Pick<PlanParts, 'body' | 'solved'>,
): RunUp | null => useMemo(() => runUpOf(choices, { body }, solved), [choices, body, solved]);

/** The draft with some choices changed; the counts that are compared keep up with the count that is chosen. */
const withChoices = (
  draft: PlanDraft,
  choices: StraightChoices,
  change: Partial<StraightChoices>,
): PlanDraft => {
  // A pin holds for its count only.
  const free = change.steps !== undefined && change.steps !== choices.steps ? { pins: [] } : {};
  const next = { ...choices, ...free, ...change };
  const { steps } = next;
  const inRange =
    change.steps === undefined || (change.steps >= draft.from && change.steps <= draft.to);
  return {
    ...draft,
    choices: next,
    ...(inRange || !Number.isInteger(steps) ? {} : around(Math.min(60, Math.max(1, steps)))),
  };
};

/** How the parts of a run-up change it. */
export const useSetting = ({
  draft,
  choices,
  onDraft,
}: Pick<ChoiceParts<StraightChoices>, 'draft' | 'choices' | 'onDraft'>) => {
  const set = (change: Partial<StraightChoices>, what = Object.keys(change).join()): void =>
    onDraft(withChoices(draft, choices, change), what);
  const pin = (step: number, lengthM: number | null): void => {
    const others = choices.pins.filter((pin) => pin.step !== step);
    const pins =
      lengthM === null ? others : [...others, { step, lengthM }].sort((a, b) => a.step - b.step);
    set({ pins }, `pin ${step}`);
  };
  return { set, pin };
};
