import type { TimedBeat } from '@gravek/core/runup/rhythm';
import { writeMidi, type MidiEvent } from 'midi-file';

const TICKS_A_BEAT = 480;
/** 120 beats a minute: 960 ticks a second. */
const BEAT_US = 500_000;
const NOTES = { left: 74, right: 81, countIn: 93 } as const;
const TONE_TICKS = 60;

/** A standard MIDI file of one track: each contact a note, left and right a fifth apart. */
export const midiFile = (beats: readonly TimedBeat[], name: string): Uint8Array => {
  const ticks = (seconds: number): number =>
    Math.round((seconds * TICKS_A_BEAT * 1_000_000) / BEAT_US);
  const notes = beats
    .flatMap((beat) => {
      const noteNumber = NOTES[beat.countIn ? 'countIn' : beat.foot];
      const at = ticks(beat.timeS);
      return [
        { at, noteNumber, type: 'noteOn' as const, velocity: beat.special ? 120 : 90 },
        { at: at + TONE_TICKS, noteNumber, type: 'noteOff' as const, velocity: 0 },
      ];
    })
    .sort((a, b) => a.at - b.at);
  let before = 0;
  const events: MidiEvent[] = [
    { deltaTime: 0, meta: true, type: 'trackName', text: name },
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: BEAT_US },
    ...notes.map(({ at, ...note }): MidiEvent => {
      const deltaTime = at - before;
      before = at;
      return { ...note, deltaTime, channel: 0 };
    }),
    { deltaTime: 0, meta: true, type: 'endOfTrack' },
  ];
  return Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: TICKS_A_BEAT },
      tracks: [events],
    }),
  );
};
