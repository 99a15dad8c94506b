import { podReading } from '@gravek/core/measuring/podReading';
import { clockMs } from '../../controls/clock';
import { DeviceProblem, type Connect } from './device';

const SERVICE = 'running_speed_and_cadence';
const MEASUREMENT = 'rsc_measurement';
/** Between tries to reach a pod again. */
const AGAIN_MS = 2_000;

/** A step pod, by the open service that all of them speak. */
export const bluetoothPod: Connect = async ({ reading, lost, back }) => {
  // Only over https, or on the device itself; some browsers have none at all.
  const bluetooth = (navigator as { bluetooth?: Bluetooth }).bluetooth;
  if (!bluetooth) {
    throw new DeviceProblem(
      'This browser reaches no Bluetooth devices; Chrome and Edge do, on a secure address.',
    );
  }
  let pod: BluetoothDevice;
  try {
    pod = await bluetooth.requestDevice({ filters: [{ services: [SERVICE] }] });
  } catch {
    throw new DeviceProblem('No pod was chosen.');
  }
  let stopped = false;
  const hear = (event: Event): void => {
    const { value } = event.target as BluetoothRemoteGATTCharacteristic;
    if (!value) return;
    try {
      const bytes = new Uint8Array(value.buffer, value.byteOffset, value.byteLength);
      const { count, speedMps, running } = podReading({ bytes });
      reading({ atMs: clockMs(), count, speedMps, running });
    } catch (error) {
      // A message that was cut off says nothing; the next one comes in a second.
      if (!(error instanceof RangeError)) throw error;
    }
  };
  const begin = async (): Promise<void> => {
    const server = await pod.gatt!.connect();
    const service = await server.getPrimaryService(SERVICE);
    const measurement = await service.getCharacteristic(MEASUREMENT);
    measurement.addEventListener('characteristicvaluechanged', hear);
    await measurement.startNotifications();
  };
  const again = (): void => {
    if (stopped) return;
    begin().then(back, () => setTimeout(again, AGAIN_MS));
  };
  pod.addEventListener('gattserverdisconnected', () => {
    if (stopped) return;
    lost();
    again();
  });
  try {
    await begin();
  } catch {
    throw new DeviceProblem('The pod did not answer. Is it awake, and with no other app?');
  }
  return {
    name: pod.name ?? 'Step pod',
    by: 'pod',
    simulated: false,
    contacts: false,
    worn: true,
    stop: () => {
      stopped = true;
      pod.gatt?.disconnect();
    },
  };
};
