import type { LengthStyle } from '@gravek/core/units';
import type { PlannedRun } from '@gravek/library/measuring/measuredRun';
import { GATES_M, simulatedPass, simulatedPod } from '@gravek/library/measuring/simulated';
import { clockMs } from '../../controls/clock';
import type { Connect, TypedGates } from './device';

/** A pod speaks once a second. */
const EVERY_MS = 1_000;

/** What goes wrong with real ones, and when, counted in readings. */
const DOUBLED_AT = 4;
const MISSING_AT = 7;
const LOST_AT = 10;
const LOST_FOR = 4;
const WRONG_UNIT_AT = 2;

/**
 * A pod that is made up: it runs the plan, says some things twice, once in other units, is lost for some
 * seconds, and falls under the plan.
 */
export const madeUpPod =
  (plan: PlannedRun): Connect =>
  ({ reading, lost, back }) => {
    let n = 0;
    const timer = setInterval(() => {
      n += 1;
      if (n === LOST_AT) lost();
      if (n === LOST_AT + LOST_FOR) back();
      if (n >= LOST_AT && n < LOST_AT + LOST_FOR) return;
      if (n % MISSING_AT === 0) return;
      const { cadenceSpm, speedMps } = simulatedPod(plan, n);
      const said = {
        atMs: clockMs(),
        count: cadenceSpm,
        speedMps: speedMps === null ? null : speedMps * (n === WRONG_UNIT_AT ? 3.6 : 1),
        running: null,
      };
      reading(said);
      if (n % DOUBLED_AT === 0) reading(said);
    }, EVERY_MS);
    return Promise.resolve({
      name: 'Simulated pod',
      by: 'pod',
      simulated: true,
      contacts: false,
      worn: true,
      stop: () => clearInterval(timer),
    });
  };

/** Between two runs through the gates. */
const RESTS_MS = 5_000;

/** Gates that are made up: the plan is run through them over and over, and one beam is not broken at times. */
export const madeUpGates =
  (plan: PlannedRun): Connect =>
  ({ gates }) => {
    let timers: ReturnType<typeof setTimeout>[] = [];
    const stand: Omit<TypedGates, 'times'> = {
      distances: GATES_M.join(' '),
      style: { unit: 'metric' },
    };
    const begin = (run: number): void => {
      const passes = simulatedPass(plan, run);
      gates({ ...stand, times: '' });
      timers = passes.map(({ timeS }, i) =>
        setTimeout(
          () =>
            gates({
              ...stand,
              times: passes
                .slice(0, i + 1)
                .map((gate) => gate.timeS?.toFixed(2) ?? '–')
                .join(' '),
            }),
          1_000 * (timeS ?? passes[i - 1]?.timeS ?? 0),
        ),
      );
      const lastS = passes.at(-1)?.timeS ?? 0;
      timers.push(setTimeout(() => begin(run + 1), 1_000 * lastS + RESTS_MS));
    };
    begin(1);
    return Promise.resolve({
      name: 'Simulated gates',
      by: 'gates',
      simulated: true,
      contacts: false,
      worn: false,
      stop: () => timers.forEach(clearTimeout),
    });
  };

/** Gates whose times are typed. */
export const typedGates =
  (distances: string, style: LengthStyle): Connect =>
  ({ gates }) => {
    gates({ distances, times: '', style });
    return Promise.resolve({
      name: 'Gates',
      by: 'gates',
      simulated: false,
      contacts: false,
      worn: false,
      stop: () => undefined,
    });
  };
