import { seeded } from '@gravek/core';
import { clockMs } from '../controls/clock';
import type { Connect } from './device';

/** A pod speaks once a second. */
const EVERY_MS = 1_000;

/** What goes wrong with real ones, and when, counted in readings. */
const DOUBLED_AT = 4;
const MISSING_AT = 7;
const LOST_AT = 10;
const LOST_FOR = 4;
const WRONG_UNIT_AT = 5;
/** From here on the athlete falls back under what was planned: the fault that is to be found. */
const FALLS_BACK_AT = 3;
const FALLS_BACK = 0.93;

/**
 * A pod that is made up: it runs at a planned cadence with the scatter of a real runner, says some things
 * twice or in other units, is lost for some seconds, and falls under the plan.
 *
 * @param targetSpm cadence that is planned
 */
export const simulatedPod =
  (targetSpm: number): Connect =>
  ({ reading, lost, back }) => {
    const random = seeded(17);
    let n = 0;
    const timer = setInterval(() => {
      n += 1;
      if (n === LOST_AT) lost();
      if (n === LOST_AT + LOST_FOR) back();
      if (n >= LOST_AT && n < LOST_AT + LOST_FOR) return;
      if (n % MISSING_AT === 0) return;
      const part = n > FALLS_BACK_AT ? FALLS_BACK : 1;
      const cadenceSpm = Math.round(targetSpm * part * (1 + 0.01 * (random() - 0.5)));
      const stepM = 1.05;
      const said = {
        atMs: clockMs(),
        cadenceSpm,
        speedMps: (cadenceSpm / 60) * stepM * (n === WRONG_UNIT_AT ? 3.6 : 1),
        oneFoot: false,
      };
      reading(said);
      if (n % DOUBLED_AT === 0) reading(said);
    }, EVERY_MS);
    return Promise.resolve({
      name: 'Simulated pod',
      by: 'pod',
      simulated: true,
      stop: () => clearInterval(timer),
    });
  };
