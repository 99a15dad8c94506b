import { spanM, type Body } from '@gravek/core/layout/body';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement, MovementPhase } from '@gravek/contract/movement';

type Slides = Extract<MovementPhase['steps'], { kind: 'shuffle' }>;

/** A lane between its lines where neither the ground nor a test says how wide it is, metres. */
const USUAL_LANE_M = 4.9;
const LEAST_WAY_M = 0.5;

/** Slides that cross a lane end with a touch of its edge. */
const crossesLane = (phases: readonly MovementPhase[], i: number): boolean =>
  phases[i]!.steps.kind === 'shuffle' && phases[i + 1]?.steps.kind === 'hold';

/** The edges of the lane as the movement draws them: first where the slides begin, then where they end. */
const laneEdges = ({ others }: Movement): Movement['others'] =>
  others.filter(({ kind, name }) => kind === 'line' && name === 'lane');

/**
 * The movement with as many slides as take the athlete from edge to edge of the lane, and the far edge where it
 * is. How far a slide goes is the athlete's own where slides were counted, else as the movement writes it. A
 * movement that draws no lane is changed only for whoever was counted.
 *
 * @example inOwnSlides(slideCloseOut, { ...body, lane: { laneM: 4.9, slides: 3 } }).phases[1].steps.steps // 3
 */
export const inOwnSlides = (movement: Movement, body: Body, ground?: OnGround | null): Movement => {
  const { lane } = body;
  const [near, far] = laneEdges(movement);
  if (!(lane || far) || !movement.phases.some((_, i, all) => crossesLane(all, i))) return movement;
  const laneM = ground?.rim?.laneM ?? lane?.laneM ?? USUAL_LANE_M;
  return {
    ...movement,
    phases: movement.phases.map((phase, i, all) => {
      if (!crossesLane(all, i)) return phase;
      const steps = phase.steps as Slides;
      const insideM = near ? spanM(near.aside, body) : spanM(steps.width, body) / 2;
      const across = (wideM: number): number => Math.max(LEAST_WAY_M, wideM - 2 * insideM);
      const slideM = lane ? across(lane.laneM) / lane.slides : spanM(steps.step, body);
      const slides = Math.max(1, Math.round(across(laneM) / slideM));
      return {
        ...phase,
        steps: { ...steps, steps: slides, step: { value: across(laneM) / slides, of: 'm' } },
      };
    }),
    others: movement.others.map((other) =>
      near && other === far
        ? { ...other, aside: { value: laneM - spanM(near.aside, body), of: 'm' } }
        : other,
    ),
  };
};
