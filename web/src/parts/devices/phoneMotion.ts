import { type MotionSample, stepsFelt } from '@gravek/core/measuring/sensedSteps';
import { clockMs } from '../../controls/clock';
import { type Connect, DeviceProblem } from './device';

/** Seconds over which steps are counted. */
const OVER_S = 4;
const EVERY_MS = 1_000;
/** A step that was told is not told again though its peak has moved a little. */
const APART_S = 0.1;
const HEARD_WITHIN_MS = 1_500;
const GRAVITY = 9.81;

type Asks = { requestPermission?: () => Promise<string> };

/** The phone's own motion sensor as a step counter; the phone is worn by the runner. */
export const phoneMotion: Connect = async ({ reading, landed }) => {
  if (typeof DeviceMotionEvent === 'undefined')
    throw new DeviceProblem('This device feels no motion.');
  const ask = (DeviceMotionEvent as unknown as Asks).requestPermission;
  if (ask && (await ask()) !== 'granted')
    throw new DeviceProblem('Motion may not be read; allow it in the browser’s settings.');
  let samples: MotionSample[] = [];
  let toldS = -Infinity;
  const feel = (event: DeviceMotionEvent): void => {
    const accelerated = event.acceleration;
    const whole = event.accelerationIncludingGravity;
    const lengthOf = (acceleration: DeviceMotionEventAcceleration | null): number =>
      Math.hypot(acceleration?.x ?? 0, acceleration?.y ?? 0, acceleration?.z ?? 0);
    // Phones that cannot tell gravity from motion give both together.
    const mps2 =
      accelerated && accelerated.x !== null
        ? lengthOf(accelerated)
        : Math.abs(lengthOf(whole) - GRAVITY);
    samples.push({ atS: clockMs() / 1000, mps2 });
  };
  window.addEventListener('devicemotion', feel);
  await new Promise((resolve) => setTimeout(resolve, HEARD_WITHIN_MS));
  if (samples.length === 0) {
    window.removeEventListener('devicemotion', feel);
    throw new DeviceProblem('This device feels no motion.');
  }
  const timer = setInterval(() => {
    const now = clockMs() / 1000;
    samples = samples.filter(({ atS }) => atS > now - OVER_S);
    const steps = stepsFelt(samples);
    for (const atS of steps.filter((step) => step > toldS + APART_S)) {
      toldS = atS;
      landed(1000 * atS);
    }
    const [first, last] = [steps[0], steps.at(-1)];
    const cadenceSpm =
      steps.length > 2 && first !== undefined && last !== undefined
        ? (60 * (steps.length - 1)) / (last - first)
        : 0;
    reading({ atMs: clockMs(), count: cadenceSpm, speedMps: null, running: null });
  }, EVERY_MS);
  return {
    name: 'This phone',
    by: 'phone',
    simulated: false,
    contacts: false,
    worn: true,
    stop: () => {
      clearInterval(timer);
      window.removeEventListener('devicemotion', feel);
    },
  };
};
