import { soundOf, type TimedBeat } from '@gravek/core/runup/rhythm';

let context: AudioContext | null = null;

/** The device's speaker; it sounds only after a press. */
export const speaker = (): AudioContext => {
  const audio = (context ??= new AudioContext());
  void audio.resume();
  return audio;
};

/** Time until the first sound, so that none is cut off. */
const LEAD_S = 0.06;

export const bufferOf = (audio: AudioContext, samples: Float32Array): AudioBuffer => {
  const buffer = audio.createBuffer(1, Math.max(1, samples.length), audio.sampleRate);
  buffer.getChannelData(0).set(samples);
  return buffer;
};

/** One round whose end runs on into its beginning. */
const wrapped = (samples: Float32Array, length: number): Float32Array => {
  const round = new Float32Array(length);
  samples.forEach((value, i) => {
    round[i % length]! += value;
  });
  return round;
};

export type Sounding = {
  /** seconds since the first beat could sound; negative before */
  now: () => number;
  stop: () => void;
};

/**
 * Plays beats on the device's speaker, after the count-in once or round and round.
 *
 * @param startS when the count-in is over
 * @param roundS how long a round is
 */
export const startSound = (
  beats: readonly TimedBeat[],
  startS: number,
  roundS: number,
  loop: boolean,
): Sounding => {
  const audio = speaker();
  const rate = audio.sampleRate;
  const begin = audio.currentTime + LEAD_S;
  const playing: AudioBufferSourceNode[] = [];
  const play = (samples: Float32Array, at: number, round: boolean): void => {
    const source = audio.createBufferSource();
    source.buffer = bufferOf(audio, samples);
    source.loop = round;
    source.connect(audio.destination);
    source.start(at);
    playing.push(source);
  };
  if (!loop) play(soundOf(beats, rate), begin, false);
  else {
    const countIn = beats.filter((beat) => beat.countIn);
    if (countIn.length > 0) play(soundOf(countIn, rate), begin, false);
    const round = beats
      .filter((beat) => !beat.countIn)
      .map((beat) => ({ ...beat, timeS: beat.timeS - startS }));
    const length = Math.max(1, Math.round(roundS * rate));
    play(wrapped(soundOf(round, rate), length), begin + startS, true);
  }
  return {
    now: () => audio.currentTime - begin,
    stop: () => playing.forEach((source) => source.stop()),
  };
};
