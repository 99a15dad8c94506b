import { footCount, type CountReading } from '@gravek/core/runup/footCount';
import { courseOf, type Course, type DeviceReading } from '@gravek/core/measuring/deviceCourse';
import type { TimedBy } from '@gravek/contract/drillSet';
import type { MeasuredRun } from '@gravek/contract/session';
import { gatesMeasured, readPasses } from '@gravek/library/measuring/gates';
import { measuredOf, type PlannedRun } from '@gravek/library/measuring/measuredRun';
import { create } from 'zustand';
import { DeviceProblem, type Connect, type Device, type Said, type TypedGates } from './device';

type State = {
  is: 'off' | 'connecting' | 'on' | 'lost';
  device: Device | null;
  /** who wears it, or ran first since it measures */
  of: Wearer | null;
  /** the turn that is measured now */
  turn: string | null;
  /** since the rep before was answered */
  said: readonly Said[];
  /** moments at which feet have landed since then, by the page's clock */
  landedMs: readonly number[];
  /** all that a pod has said since it is worn by the same athlete: whether it counts one foot is told by that */
  heard: readonly Said[];
  /** 2 where it counts one foot only */
  factor: 1 | 2;
  /** of the rep that is run now; null where no gates measure */
  gates: TypedGates | null;
  problem: string | null;
  /** which device is being asked */
  choosing: boolean;
};

export type Wearer = { id: string; name: string };

/** Readings that are held at most: three hours, one a second; and those by which a pod is judged. */
const MOST_SAID = 10_800;
const MOST_HEARD = 1_200;
const MOST_LANDED = 300;

const asCount = ({ count, speedMps, running }: Said): CountReading => ({
  cadence: count,
  speedMps,
  running,
});

const OFF: State = {
  is: 'off',
  device: null,
  of: null,
  turn: null,
  said: [],
  landedMs: [],
  heard: [],
  factor: 1,
  gates: null,
  problem: null,
  choosing: false,
};

/** The device that measures what is run on this screen. */
export const useDevice = create<State>()(() => OFF);

/** Which connection is meant: what an earlier one still says is not heard. */
let current = 0;

export const connect = async (by: Connect, of: Wearer): Promise<void> => {
  disconnect();
  current += 1;
  const connected = current;
  const heard = (change: (state: State) => Partial<State>): void => {
    if (connected === current) useDevice.setState(change);
  };
  useDevice.setState({ is: 'connecting', of, problem: null });
  try {
    const device = await by({
      reading: (other) =>
        heard(({ device, said, heard: before }) => {
          const all = [...before, other].slice(-MOST_HEARD);
          // Who taps, hears or feels steps counts both feet.
          const factor =
            device?.by === 'pod' ? footCount({ readings: all.map(asCount) }).factor : 1;
          return { said: [...said, other].slice(-MOST_SAID), heard: all, factor };
        }),
      landed: (atMs) =>
        heard(({ landedMs }) => ({ landedMs: [...landedMs, atMs].slice(-MOST_LANDED) })),
      lost: () => heard(() => ({ is: 'lost' })),
      back: () => heard(() => ({ is: 'on' })),
      gates: (gates) => heard(() => ({ gates })),
    });
    if (connected === current) useDevice.setState({ is: 'on', device });
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

/** Somebody else wears it from now on. */
export const wearBy = (of: Wearer): void =>
  useDevice.setState({ of, said: [], landedMs: [], heard: [], factor: 1 });

/** Whether the device measures an athlete: one that is worn measures only who wears it. */
export const measures = (
  { device, of }: Pick<State, 'device' | 'of'>,
  athleteId: string,
): boolean => device !== null && (!device.worn || of?.id === athleteId);

/** Another turn is up though nobody answered the one before: what ran through a device by the track was that one's. */
export const isUp = (turn: string): void =>
  useDevice.setState((state) =>
    state.turn === turn
      ? state
      : {
          turn,
          ...(state.turn === null || state.device?.worn
            ? {}
            : { said: [], landedMs: [], gates: state.gates && { ...state.gates, times: '' } }),
        },
  );

/** What was said since the rep before, as a course that begins at 0. */
export const courseNow = ({ said, factor }: Pick<State, 'said' | 'factor'>): Course => {
  const beganMs = said[0]?.atMs ?? 0;
  return courseOf(
    said.map(({ atMs, count, speedMps, running }): DeviceReading => ({
      atS: (atMs - beganMs) / 1000,
      cadenceSpm: factor * count,
      speedMps,
      ...(running === null ? {} : { running }),
    })),
  );
};

/** What is measured of the rep that is run, beside its plan; or why typed times cannot be. */
export const measuredNow = (
  { device, gates }: Pick<State, 'device' | 'gates'>,
  { readings }: Pick<Course, 'readings'>,
  plan: PlannedRun | null,
): { run: MeasuredRun | null; why: string | null } => {
  if (!device) return { run: null, why: null };
  if (!gates) return { run: measuredOf(device, readings, plan), why: null };
  const read = readPasses(gates.distances, gates.times, gates.style);
  if (!read.ok) return { run: null, why: read.why };
  if (read.splits.length === 0) return { run: null, why: null };
  try {
    return { run: gatesMeasured(read.splits, plan, device.simulated, gates.style), why: null };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { run: null, why: `Check the times: ${error.message}.` };
  }
};

/**
 * What was measured of the rep that is answered; what is said from here on is of the next.
 *
 * @returns unread: times that were typed and cannot be, so that they are not lost
 */
export const takeMeasured = (
  athleteId: string,
  plan: PlannedRun | null,
): { run: MeasuredRun | null; unread: string | null } => {
  const state = useDevice.getState();
  if (!measures(state, athleteId)) return { run: null, unread: null };
  const { run, why } = measuredNow(state, courseNow(state), plan);
  useDevice.setState({
    said: [],
    landedMs: [],
    gates: state.gates && { ...state.gates, times: '' },
  });
  return { run, unread: why && (state.gates?.times.trim() || null) };
};

/**
 * How soon after a call the first foot landed, where a device has heard or felt it.
 *
 * @param calledMs when the call began to sound, and when it was over: what is heard meanwhile is the call
 * @returns null where nothing was heard
 */
export const firstStepAfter = (
  athleteId: string,
  called: { fromMs: number; untilMs: number },
): { lateS: number; lateBy: TimedBy } | null => {
  const { device, of, landedMs } = useDevice.getState();
  if (!device || device.simulated || !measures({ device, of }, athleteId)) return null;
  // A thumb that taps is the coach's reaction, not the athlete's.
  if (device.by !== 'sound' && device.by !== 'phone') return null;
  const hears = device.by === 'sound' ? called.untilMs : called.fromMs;
  const firstMs = landedMs.find((atMs) => atMs > hears);
  return firstMs === undefined
    ? null
    : { lateS: (firstMs - called.fromMs) / 1000, lateBy: device.by };
};
