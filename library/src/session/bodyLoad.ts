import type { Body } from '@gravek/core/layout/body';
import { modelCadenceSpm, modelLengthM } from '@gravek/core/runup/stepModel';
import type { BodyLoad } from '@gravek/core/session/repLog';
import type { Solved } from '@gravek/contract/plan';

/** Slower than this part of somebody's top speed is no sprinting. */
const SPRINT_FROM = 0.75;
/** A step by which everybody is as good as at top speed. */
const LATE_STEP = 60;

const topSpeedMps = ({ model, sprint }: Body): number =>
  sprint?.topSpeedMps ?? (modelLengthM(model, LATE_STEP) * modelCadenceSpm(model, LATE_STEP)) / 60;

/**
 * What one rep of a plan puts on a body: feet that land, take-offs (two feet together are one), throws,
 * and metres at three quarters of the own top speed or more.
 *
 * @returns null where the plan cannot be run
 * @example bodyLoad(solve(blockJump, sequenceStart(), body), body).jumps // 1
 */
export const bodyLoad = ({ layout }: Pick<Solved, 'layout'>, body: Body): BodyLoad | null => {
  if (!layout) return null;
  const falls = layout.footfalls.filter((fall) => fall.n > 0);
  const fast = SPRINT_FROM * topSpeedMps(body);
  return {
    contacts: falls.length,
    jumps: new Set(falls.filter((fall) => fall.takeOff).map((fall) => fall.n)).size,
    throws: falls.filter((fall) => fall.ball === 'release').length,
    sprintM:
      Math.round(
        10 *
          falls
            .filter((fall) => fall.speedMps >= fast)
            .reduce((sum, fall) => sum + Math.max(0, fall.lengthM), 0),
      ) / 10,
  };
};
