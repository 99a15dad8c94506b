import { spanM, type Body } from '@gravek/core/layout/body';
import type { Movement, MovementPhase } from '@gravek/contract/movement';

type Slides = Extract<MovementPhase['steps'], { kind: 'shuffle' }>;

/** Slides that cross a lane end with a touch of its edge. */
const crossesLane = (phases: readonly MovementPhase[], i: number): boolean =>
  phases[i]!.steps.kind === 'shuffle' && phases[i + 1]?.steps.kind === 'hold';

/**
 * The movement with as many slides across the lane as the athlete needs, where they were counted: each as long
 * as brings one from edge to edge.
 *
 * @example inOwnSlides(slideCloseOut, { ...body, lane: { laneM: 4.9, slides: 3 } }).phases[1].steps.steps // 3
 */
export const inOwnSlides = (movement: Movement, body: Body): Movement => {
  const { lane } = body;
  if (!lane || !movement.phases.some((_, i, all) => crossesLane(all, i))) return movement;
  const slides = Math.max(1, Math.round(lane.slides));
  return {
    ...movement,
    phases: movement.phases.map((phase, i, all) => {
      if (!crossesLane(all, i)) return phase;
      const steps = phase.steps as Slides;
      const wayM = Math.max(0.5, lane.laneM - spanM(steps.width, body));
      return {
        ...phase,
        steps: { ...steps, steps: slides, step: { value: wayM / slides, of: 'm' } },
      };
    }),
  };
};
