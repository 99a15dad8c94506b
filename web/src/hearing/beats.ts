import type { Beat, Layout, StraightPlan } from '@gravek/core';

/** The contacts of a laid-out sequence; feet that land together are heard together. */
export const beatsOfLayout = (layout: Layout): Beat[] =>
  layout.footfalls
    .filter((fall) => fall.n > 0)
    .map((fall) => ({ timeS: fall.timeS, foot: fall.foot, special: fall.contact !== 'step' }));

/** The contacts of a run-up. */
export const beatsOfPlan = (plan: StraightPlan): Beat[] =>
  plan.steps.map((step) => ({
    timeS: step.timeS,
    foot: step.foot,
    special: step.role !== 'build',
  }));

/** The phase that passes at a moment. */
export const phaseAt =
  (layout: Layout, phases: readonly { code: string; name: string }[]) =>
  (timeS: number): string => {
    const at = layout.phases.find((phase) => timeS <= phase.toS + 1e-9) ?? layout.phases.at(-1);
    return phases.find((one) => one.code === at?.code)?.name ?? '';
  };
