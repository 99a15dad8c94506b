import { parseMidi } from 'midi-file';
import { expect, it } from 'vitest';
import { midiFile } from '../src/hearing/midi';

it('a MIDI file holds every beat at its time', () => {
  const beats = [0.31, 0.58, 0.83].map((timeS, i) => ({
    timeS,
    foot: i % 2 ? ('right' as const) : ('left' as const),
    special: false,
    n: i + 1,
    countIn: false,
  }));
  const { tracks, header } = parseMidi(midiFile(beats, 'Three'));
  expect(header).toMatchObject({ format: 0, numTracks: 1, ticksPerBeat: 480 });
  let ticks = 0;
  const heard = tracks[0]!.flatMap((event) => {
    ticks += event.deltaTime;
    return event.type === 'noteOn' ? [ticks / 960] : [];
  });
  heard.forEach((at, i) => expect(at).toBeCloseTo(beats[i]!.timeS, 2));
  expect(heard).toHaveLength(3);
});
