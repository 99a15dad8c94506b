import type { DeviceReading } from '@gravek/core/measuring/deviceCourse';
import { seeded } from '@gravek/core/chance/random';
import { passedAt } from './gates';
import type { PlannedRun } from './measuredRun';

/** Seconds that a made-up athlete stands between runs. */
const STANDS_S = 3;
/** The fault that is to be found: from here on slower feet, and less speed, than the plan has. */
const FALLS_FROM_S = 3;
const FALLS_FROM = 0.5;
const FALLS_BACK = 0.93;
const SCATTER = 0.01;
const USUAL_STEP_M = 1.05;

const durationOf = ({ steps }: PlannedRun): number =>
  steps.reduce((sum, { intervalS }) => sum + intervalS, 0);

/**
 * What a made-up pod says at a second: it runs the plan over and over, with the scatter of a real runner,
 * and falls back under it; a steady run goes on.
 *
 * @param n readings since it was switched on, from 1, one a second
 */
export const simulatedPod = (plan: PlannedRun, n: number): Omit<DeviceReading, 'atS'> => {
  const wobble = 1 + SCATTER * (seeded(100 + n)() - 0.5);
  const falling = (falls: boolean): number => wobble * (falls ? FALLS_BACK : 1);
  if (plan.steady) {
    const { cadenceSpm, speedMps } = plan.steady;
    const spm = Math.round(cadenceSpm * falling(n > FALLS_FROM_S));
    const stepM = speedMps === null ? USUAL_STEP_M : (60 * speedMps) / cadenceSpm;
    return { cadenceSpm: spm, speedMps: (spm / 60) * stepM };
  }
  const lastsS = durationOf(plan);
  const atS = (n - 1) % (Math.ceil(lastsS) + STANDS_S);
  if (atS > lastsS) return { cadenceSpm: 0, speedMps: 0 };
  let endS = 0;
  // The step that ends about half a second on is what it counts next.
  const step =
    plan.steps.find(({ intervalS }) => {
      endS += intervalS;
      return endS >= atS + 0.5;
    }) ?? plan.steps.at(-1)!;
  const spm = Math.round((60 / step.intervalS) * falling(atS > FALLS_FROM * lastsS));
  return { cadenceSpm: spm, speedMps: (spm / 60) * (step.lengthM ?? USUAL_STEP_M) };
};

/** Where made-up gates stand, metres from the start; those beyond the end of the run are left away. */
export const GATES_M = [5, 10, 15, 20, 30] as const;

/**
 * When a made-up run of a plan passes gates: a hundredth off at most, slower than planned from the middle
 * on; null where a beam was not broken, which happens at the second gate of every third run.
 *
 * @param run how manieth, from 1
 */
export const simulatedPass = (
  plan: PlannedRun,
  run: number,
): { distanceM: number; timeS: number | null }[] => {
  const random = seeded(29 + run);
  const steps = plan.steps.map((step, i) => ({
    ...step,
    intervalS: step.intervalS / (i > FALLS_FROM * plan.steps.length ? FALLS_BACK : 1),
  }));
  return GATES_M.flatMap((distanceM, i) => {
    const timeS = passedAt(steps, distanceM);
    if (timeS === null) return [];
    const silent = i === 1 && run % 3 === 0;
    return [
      { distanceM, timeS: silent ? null : Number((timeS + 0.02 * (random() - 0.5)).toFixed(3)) },
    ];
  });
};

/**
 * The same as a table that gates would write: semicolons and decimal commas, and a head that says what it is.
 *
 * @example
 * const plan = { steps: [{ lengthM: 1.2, intervalS: 0.3 }, { lengthM: 1.5, intervalS: 0.28 }], steady: null };
 * readTable(simulatedGates(plan)).heads // ['distance m', 'simulated time']
 */
export const simulatedGates = (plan: PlannedRun): string =>
  [
    'distance m;simulated time',
    '0;0,000',
    ...simulatedPass(plan, 3).map(
      ({ distanceM, timeS }) =>
        `${distanceM};${timeS === null ? '' : timeS.toFixed(3).replace('.', ',')}`,
    ),
  ].join('\n');
