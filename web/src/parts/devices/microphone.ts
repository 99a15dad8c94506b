import { type SoundSample, stepsHeard } from '@gravek/core/measuring/sensedSteps';
import { clockMs } from '../../controls/clock';
import { contactReadings } from './contacts';
import { type Connect, DeviceProblem } from './device';
import loudness from './loudness.worklet?worker&url';

/** Seconds of sound that are looked at. */
const OVER_S = 3;
/** Two landings are not heard in less than this. */
const APART_S = 0.18;

const listen = async (): Promise<MediaStream> => {
  // Only over https, or on the device itself.
  const devices = (navigator as { mediaDevices?: MediaDevices }).mediaDevices;
  if (!devices)
    throw new DeviceProblem('This browser gives no microphone, or not at this address.');
  try {
    // What makes speech clear takes landings away.
    return await devices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (error) {
    throw new DeviceProblem(
      (error as { name?: string }).name === 'NotFoundError'
        ? 'There is no microphone on this device.'
        : 'The microphone may not be used; allow it in the browser’s settings.',
    );
  }
};

/** Contacts marked by ear: the phone lies by the track, and hears each foot land. */
export const microphone: Connect = async ({ reading, landed, lost }) => {
  const stream = await listen();
  const sound = new AudioContext();
  const stop = (): void => {
    stream.getTracks().forEach((track) => track.stop());
    void sound.close();
  };
  try {
    await sound.audioWorklet.addModule(loudness);
    await sound.resume();
  } catch {
    stop();
    throw new DeviceProblem('This browser cannot listen for landings.');
  }
  const node = new AudioWorkletNode(sound, 'loudness', { numberOfOutputs: 0 });
  sound.createMediaStreamSource(stream).connect(node);
  stream.getAudioTracks()[0]?.addEventListener('ended', lost);
  const heard = contactReadings({ reading, landed });
  // The audio's own clock runs evenly; messages of it come when they come.
  let aheadS: number | null = null;
  let samples: SoundSample[] = [];
  let lastS = -Infinity;
  node.port.onmessage = ({ data }: MessageEvent<SoundSample[]>) => {
    const nowS = data.at(-1)!.atS;
    aheadS ??= clockMs() / 1000 - nowS;
    samples = [...samples.filter(({ atS }) => atS > nowS - OVER_S), ...data];
    for (const atS of stepsHeard(samples)) {
      if (atS < lastS + APART_S) continue;
      lastS = atS;
      heard((atS + aheadS) * 1000);
    }
  };
  return { name: 'Microphone', by: 'sound', simulated: false, contacts: true, worn: false, stop };
};
