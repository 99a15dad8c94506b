import { courseOf, type Course, type DeviceReading } from '@gravek/core';
import type { MeasuredRun } from '@gravek/contract';
import { create } from 'zustand';
import { DeviceProblem, type Connect, type Device, type Said } from './device';

type State = {
  is: 'off' | 'connecting' | 'on' | 'lost';
  device: Device | null;
  /** since the rep before was answered */
  said: readonly Said[];
  problem: string | null;
  /** which device is being asked */
  choosing: boolean;
};

/** Readings of one rep that are kept, one a second. */
const MOST = 180;
const MOST_STEPS = 80;

const OFF: State = { is: 'off', device: null, said: [], problem: null, choosing: false };

/** The device that measures what is run on this screen. */
export const useDevice = create<State>()(() => OFF);

/** Which connection is meant: what an earlier one still says is not heard. */
let current = 0;

export const connect = async (by: Connect): Promise<void> => {
  disconnect();
  current += 1;
  const own = current;
  const heard = (change: (state: State) => Partial<State>): void => {
    if (own === current) useDevice.setState(change);
  };
  useDevice.setState({ is: 'connecting', problem: null });
  try {
    const device = await by({
      reading: (one) => heard(({ said }) => ({ said: [...said, one].slice(-10 * MOST) })),
      lost: () => heard(() => ({ is: 'lost' })),
      back: () => heard(() => ({ is: 'on' })),
    });
    if (own === current) useDevice.setState({ is: 'on', device });
    else device.stop();
  } catch (error) {
    if (!(error instanceof DeviceProblem)) throw error;
    heard(() => ({ ...OFF, choosing: true, problem: error.message }));
  }
};

export const disconnect = (): void => {
  current += 1;
  useDevice.getState().device?.stop();
  useDevice.setState(OFF);
};

/** What was said since the rep before, as a course that begins at 0. */
export const courseNow = (said: readonly Said[]): Course => {
  const beganMs = said[0]?.atMs ?? 0;
  return courseOf(
    said.map(({ atMs, cadenceSpm, speedMps }): DeviceReading => ({
      atS: (atMs - beganMs) / 1000,
      cadenceSpm,
      speedMps,
    })),
  );
};

/** What was measured of the rep that is answered; what is said from here on is of the next. */
export const takeMeasured = (): MeasuredRun | null => {
  const { device, said } = useDevice.getState();
  const { readings } = courseNow(said);
  useDevice.setState({ said: [] });
  const run = readings.filter(({ cadenceSpm }) => cadenceSpm > 0).slice(-MOST);
  if (!device || run.length === 0) return null;
  const beganS = run[0]!.atS;
  return {
    by: device.by,
    simulated: device.simulated,
    // A tap is a contact; a pod says no single steps.
    steps:
      device.by === 'taps'
        ? run.slice(-MOST_STEPS).map(({ cadenceSpm }) => ({
            lengthM: null,
            intervalS: Number(Math.max(0.02, 60 / cadenceSpm).toFixed(3)),
          }))
        : [],
    course: run.map(({ atS, cadenceSpm, speedMps }) => ({
      atS: Number((atS - beganS).toFixed(1)),
      cadenceSpm: Number(cadenceSpm.toFixed(1)),
      speedMps: speedMps === null ? null : Number(speedMps.toFixed(2)),
    })),
  };
};
