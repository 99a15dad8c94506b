import type { Layout } from '@gravek/core/layout/shape';
import type { Beat } from '@gravek/core/runup/rhythm';

/** The contacts of a laid-out sequence; feet that land together are heard together. */
export const beatsOfLayout = (layout: Layout): Beat[] =>
  layout.footfalls
    .filter((fall) => fall.n > 0)
    .map((fall) => ({ timeS: fall.timeS, foot: fall.foot, special: fall.contact !== 'step' }));

/** The phase that passes at a moment. */
export const phaseAt =
  (layout: Layout, phases: readonly { code: string; name: string }[]) =>
  (timeS: number): string => {
    const at = layout.phases.find((phase) => timeS <= phase.toS + 1e-9) ?? layout.phases.at(-1);
    return phases.find((phase) => phase.code === at?.code)?.name ?? '';
  };

/** When each phase goes on, with the name that a coach reads. */
export const phaseSpans = (
  layout: Layout,
  phases: readonly { code: string; name: string }[],
): { name: string; fromS: number; toS: number }[] =>
  layout.phases.map(({ code, fromS, toS }) => ({
    name: phases.find((phase) => phase.code === code)?.name ?? code,
    fromS,
    toS,
  }));
