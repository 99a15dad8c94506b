import type { PlannedRun } from '@gravek/library/measuring/measuredRun';
import { afterEach, describe, expect, it } from 'vitest';
import { contactReadings } from '../src/parts/devices/contacts';
import { DeviceProblem, type Connect, type Device, type Hears } from '../src/parts/devices/device';
import {
  connect,
  disconnect,
  isUp,
  measures,
  takeMeasured,
  useDevice,
  wearBy,
} from '../src/parts/devices/useDevice';

const MIRELA = { id: 'a', name: 'Mirela' };
const ODRAN = { id: 'b', name: 'Odran' };
const PLAN: PlannedRun = {
  steps: [0.5, 0.3, 0.25].map((intervalS) => ({ lengthM: 1.5, intervalS })),
  steady: null,
};

const made = (change: Partial<Device> = {}) => {
  let hears: Hears | undefined;
  let stopped = false;
  const by: Connect = (own) => {
    hears = own;
    return Promise.resolve({
      ...{ name: 'Pod', by: 'pod', simulated: false, contacts: false, worn: true, ...change },
      stop: () => {
        stopped = true;
      },
    });
  };
  const says = (atS: number, cadenceSpm = 220): void =>
    hears!.reading({ atMs: 1_000 * atS, count: cadenceSpm, speedMps: null, running: null });
  return { by, says, hears: () => hears!, stopped: () => stopped };
};

afterEach(disconnect);

describe('a device on the field', () => {
  it('that is worn measures the reps of who wears it, and nobody else’s', async () => {
    const pod = made();
    await connect(pod.by, MIRELA);
    isUp('first');
    pod.says(1);
    pod.says(2);
    // Somebody else is answered in between: the pod ran with Mirela.
    isUp('second');
    expect(measures(useDevice.getState(), ODRAN.id)).toBe(false);
    expect(takeMeasured(ODRAN.id, PLAN).run).toBeNull();
    expect(takeMeasured(MIRELA.id, PLAN).run!.course).toHaveLength(2);
    expect(takeMeasured(MIRELA.id, PLAN).run).toBeNull();
    pod.says(9);
    wearBy(ODRAN);
    expect(takeMeasured(ODRAN.id, PLAN).run).toBeNull();
    pod.says(12);
    expect(takeMeasured(ODRAN.id, PLAN).run!.course).toHaveLength(1);
  });

  it('by the track measures whoever is up, and what ran unanswered is not the next one’s', async () => {
    const ear = made({ by: 'sound', contacts: true, worn: false });
    await connect(ear.by, MIRELA);
    isUp('first');
    ear.says(1, 200);
    ear.says(1.3, 200);
    isUp('first');
    expect(useDevice.getState().said).toHaveLength(2);
    isUp('second');
    expect(takeMeasured(ODRAN.id, PLAN).run).toBeNull();
    ear.says(5, 200);
    expect(takeMeasured(ODRAN.id, PLAN).run!.steps).toHaveLength(1);
  });

  it('takes typed times, or gives back those that cannot be', async () => {
    const gates = made({ by: 'gates', worn: false });
    await connect(gates.by, MIRELA);
    isUp('first');
    const stand = { distances: '1 3', style: { unit: 'metric' } } as const;
    gates.hears().gates({ ...stand, times: '0.5 0.4' });
    expect(takeMeasured(MIRELA.id, PLAN)).toEqual({ run: null, unread: '0.5 0.4' });
    gates.hears().gates({ ...stand, times: '0.5 0.8' });
    expect(takeMeasured(MIRELA.id, PLAN)).toMatchObject({
      run: { by: 'gates', course: [{}, {}] },
      unread: null,
    });
    expect(useDevice.getState().gates).toEqual({ ...stand, times: '' });
  });

  it('is not heard any more once another was chosen; one that cannot be reached says why', async () => {
    const first = made();
    await connect(first.by, MIRELA);
    const second = made();
    await connect(second.by, MIRELA);
    expect(first.stopped()).toBe(true);
    first.says(1);
    first.hears().lost();
    expect(useDevice.getState()).toMatchObject({ is: 'on', said: [] });
    await connect(() => Promise.reject(new DeviceProblem('Asleep.')), MIRELA);
    expect(useDevice.getState()).toMatchObject({ is: 'off', choosing: true, problem: 'Asleep.' });
    expect(takeMeasured(MIRELA.id, PLAN).run).toBeNull();
  });
});

describe('contacts', () => {
  it('end steps; a pause begins another run, a thumb that slips none', () => {
    const cadences: number[] = [];
    const landings: number[] = [];
    const landed = contactReadings({
      reading: ({ count }) => cadences.push(Math.round(count)),
      landed: (atMs) => landings.push(atMs),
    });
    for (const atMs of [0, 300, 360, 600, 5_000, 5_250]) landed(atMs);
    expect(cadences).toEqual([200, 200, 240]);
    // The first of a run is a landing as well, though it ends no step.
    expect(landings).toEqual([0, 300, 600, 5_000, 5_250]);
  });
});
