import type { StraightPlan } from '../runup/straightPlan';
import type { Mark } from './ground';
import { type GroundLine, groundLines } from './lines';
import type { Layout } from './shape';
import { type Footfall, sign } from './walker';

/**
 * A solved straight run-up on the ground, as any sequence has it: prints from the start mark on, straight ahead
 * to the target, with its check marks and the lines that are there already.
 *
 * @param on.target name of what is run to; lines of other targets are left out
 * @param on.widthM between the lines of left and right prints, metres
 * @example
 * const model = estimateStepModel(1.75);
 * const plan = solveStraight({ model, takeoffFoot: 'left', steps: 12, distanceM: 20, absorb: 'early' });
 * straightLayout(plan, { target: 'board', widthM: 0.18 }).footfalls.at(-1)!.n // 12
 */
export const straightLayout = (
  plan: StraightPlan,
  on: { target: string; widthM: number; lines?: readonly GroundLine[] },
): Layout => {
  const { distanceM, steps } = plan;
  const signAt = (kind: Mark['kind'], label: string, toTargetM: number, n: number): Mark => ({
    ...{ kind, label, besideM: 0, aheadM: distanceM - toTargetM, headingDeg: 0, n },
  });
  const marks = [
    signAt('start', 'start', distanceM, 0),
    ...plan.checkMarks.map(({ stepsOut, toTargetM }) =>
      signAt('check', `${stepsOut} out`, toTargetM, steps.length - stepsOut),
    ),
    signAt('target', on.target, 0, steps.length),
  ];
  const track = steps.map(({ timeS, fromStartM }) => ({
    ...{ besideM: 0, aheadM: fromStartM, timeS, facingDeg: 0 },
  }));
  return {
    mirrored: false,
    footfalls: steps.map((step): Footfall => ({
      ...{ n: step.n, foot: step.foot, lengthM: step.lengthM, intervalS: step.intervalS },
      ...{ timeS: step.timeS, speedMps: step.speedMps, toLineM: step.toTargetM },
      ...{ besideM: (sign(step.foot) * on.widthM) / 2, aheadM: step.fromStartM },
      ...{ headingDeg: 0, facingDeg: 0, takeOff: false, landing: false, ball: null },
      contact: step.role === 'build' ? 'step' : 'short',
      phase: step.role,
    })),
    marks,
    track: [{ besideM: 0, aheadM: 0, timeS: 0, facingDeg: 0 }, ...track],
    phases: [],
    others: groundLines(on.lines ?? [], { arc: null, bar: null, marks }),
    totalTimeS: plan.totalTimeS,
    failure: null,
    held: [],
    curve: null,
  };
};
