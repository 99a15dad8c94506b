import { number, whole } from '../check';
import type { Foot } from '../feet';

export type Beat = {
  timeS: number;
  foot: Foot;
  /** the ending, or another contact to be heard out */
  special: boolean;
};

export type RhythmChoices = {
  /** how fast it plays: 1 true, 0.5 half */
  rate?: number;
  /** clicks before the start at the first step's own interval, 0–8 */
  countIn?: number;
  /** only the beats from … to, by their order, 1 first */
  from?: number;
  to?: number;
};

export type TimedBeat = Beat & { n: number; countIn: boolean };

/**
 * Beats as they are to be heard: a part of them, slowed down, after a count-in in the tempo of the first
 * step that is played.
 *
 * @returns beats from time 0 on, seconds, and how long one round takes when it is looped
 * @throws {RangeError} naming the field that is out of range
 * @example playBeats(steadyBeats(180, 1), { rate: 0.5 }).roundS // 2
 */
export const playBeats = (
  beats: readonly Beat[],
  choices: RhythmChoices = {},
): { beats: TimedBeat[]; startS: number; roundS: number } => {
  const count = whole('beats.length', beats.length, { min: 1, max: 10_000 });
  const rate = number('rate', choices.rate ?? 1, { min: 0.1, max: 4 });
  const countIn = whole('countIn', choices.countIn ?? 0, { min: 0, max: 8 });
  const to = whole('to', choices.to ?? count, { min: 1, max: count });
  const from = whole('from', choices.from ?? 1, { min: 1, max: to });
  const began = from === 1 ? 0 : beats[from - 2]!.timeS;
  const part = beats.slice(from - 1, to);
  const first = Math.max(0.1, part[0]!.timeS - began) / rate;
  const startS = countIn * first;
  const timed = part.map((beat, i): TimedBeat => ({
    ...beat,
    n: from + i,
    countIn: false,
    timeS: startS + (beat.timeS - began) / rate,
  }));
  const before = Array.from({ length: countIn }, (_, i): TimedBeat => ({
    n: 0,
    countIn: true,
    foot: 'left',
    special: false,
    timeS: i * first,
  }));
  return {
    beats: [...before, ...timed],
    startS,
    roundS: timed.at(-1)!.timeS - startS,
  };
};

/**
 * A steady beat: one contact after the other, left first.
 *
 * @example steadyBeats(180, 1).map(({ foot }) => foot) // ['left', 'right', 'left']
 */
export const steadyBeats = (cadenceSpm: number, seconds: number): Beat[] => {
  const intervalS = 60 / number('cadenceSpm', cadenceSpm, { min: 30, max: 400 });
  const count = Math.floor(number('seconds', seconds, { above: 0, max: 7200 }) / intervalS);
  return Array.from({ length: count }, (_, i) => ({
    timeS: (i + 1) * intervalS,
    foot: i % 2 === 0 ? 'left' : 'right',
    special: false,
  }));
};

/** Left and right sound a fifth apart, so that they differ to an ear that cannot name notes. */
export const TONE_HZ: Record<Foot | 'countIn', number> = {
  left: 587.33,
  right: 880,
  countIn: 1760,
};
export const TONE_S = 0.09;
const TAIL_S = 0.15;

const toneOf = (beat: Pick<TimedBeat, 'foot' | 'countIn'>): number =>
  TONE_HZ[beat.countIn ? 'countIn' : beat.foot];

/**
 * Sound of beats as samples from −1 to 1: for each contact a short tone that dies away, louder where it
 * is special.
 *
 * @param sampleRate samples a second, 8,000–96,000
 * @example
 * soundOf(steadyBeats(180, 1).map((beat) => ({ ...beat, accent: false })), 8000).length // 9920
 */
export const soundOf = (beats: readonly TimedBeat[], sampleRate: number): Float32Array => {
  whole('sampleRate', sampleRate, { min: 8_000, max: 96_000 });
  const end = (beats.at(-1)?.timeS ?? 0) + TONE_S + TAIL_S;
  const sound = new Float32Array(Math.ceil(end * sampleRate));
  const length = Math.floor(TONE_S * sampleRate);
  for (const beat of beats) {
    const from = Math.round(beat.timeS * sampleRate);
    const hz = toneOf(beat);
    const loud = beat.special ? 0.9 : beat.countIn ? 0.35 : 0.6;
    for (let i = 0; i < length && from + i < sound.length; i += 1) {
      const t = i / sampleRate;
      const swell = Math.min(1, t / 0.003) * Math.exp(-t / 0.022);
      const wave = Math.sin(2 * Math.PI * hz * t) + 0.35 * Math.sin(4 * Math.PI * hz * t);
      sound[from + i] = Math.max(-1, Math.min(1, sound[from + i]! + (loud * swell * wave) / 1.35));
    }
  }
  return sound;
};

/**
 * A WAV file of one channel, 16 bits a sample.
 *
 * @example wavFile(new Float32Array(8000), 8000).length // 16044
 * Source: RIFF/WAVE, PCM format
 */
export const wavFile = (sound: Float32Array, sampleRate: number): Uint8Array => {
  const data = new DataView(new ArrayBuffer(44 + 2 * sound.length));
  const text = (at: number, word: string): void =>
    [...word].forEach((letter, i) => data.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  data.setUint32(4, 36 + 2 * sound.length, true);
  text(8, 'WAVEfmt ');
  data.setUint32(16, 16, true);
  data.setUint16(20, 1, true);
  data.setUint16(22, 1, true);
  data.setUint32(24, sampleRate, true);
  data.setUint32(28, 2 * sampleRate, true);
  data.setUint16(32, 2, true);
  data.setUint16(34, 16, true);
  text(36, 'data');
  data.setUint32(40, 2 * sound.length, true);
  sound.forEach((value, i) =>
    data.setInt16(44 + 2 * i, Math.round(Math.max(-1, Math.min(1, value)) * 32767), true),
  );
  return new Uint8Array(data.buffer);
};
