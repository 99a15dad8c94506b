import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { playBeats, soundOf, steadyBeats, wavFile, type Beat } from '../src/runup/rhythm';

/** Beats at rising, uneven times, the feet in turn. */
const rhythms = fc
  .array(fc.double({ min: 0.12, max: 0.9, noNaN: true }), { minLength: 1, maxLength: 40 })
  .map((gaps) => {
    let timeS = 0;
    return gaps.map((gap, i): Beat => {
      timeS += gap;
      return { timeS, foot: i % 2 ? 'right' : 'left', special: i === gaps.length - 1 };
    });
  });

const choices = fc.record({
  rate: fc.constantFrom(1, 0.75, 0.5, 0.25),
  countIn: fc.integer({ min: 0, max: 8 }),
  part: fc.tuple(fc.nat(), fc.nat()),
});

describe('beats as they are heard', () => {
  it('keep the plan’s own gaps at every rate, in every part, after every count-in', () => {
    fc.assert(
      fc.property(rhythms, choices, (beats, { rate, countIn, part: [a, b] }) => {
        const from = 1 + (a % beats.length);
        const to = from + (b % (beats.length - from + 1));
        const heard = playBeats(beats, { rate, countIn, from, to });
        const counted = heard.beats.filter((beat) => beat.countIn);
        const own = heard.beats.filter((beat) => !beat.countIn);
        expect(counted).toHaveLength(countIn);
        expect(own.map((beat) => beat.n)).toEqual(
          Array.from({ length: to - from + 1 }, (_, i) => from + i),
        );
        own.forEach((beat, i) => {
          expect(beat.foot).toBe(beats[from - 1 + i]!.foot);
          if (i === 0) return;
          const gap = beats[from - 1 + i]!.timeS - beats[from - 2 + i]!.timeS;
          expect(beat.timeS - own[i - 1]!.timeS).toBeCloseTo(gap / rate, 9);
        });
        expect(heard.startS + heard.roundS).toBeCloseTo(own.at(-1)!.timeS, 9);
      }),
    );
  });

  it('are counted in at one tempo that leads into the first step', () => {
    fc.assert(
      fc.property(rhythms, fc.integer({ min: 2, max: 8 }), (beats, countIn) => {
        const heard = playBeats(beats, { countIn });
        const counted = heard.beats.filter((beat) => beat.countIn);
        const gap = counted[1]!.timeS;
        counted.forEach((beat, i) => expect(beat.timeS).toBeCloseTo(i * gap, 9));
        expect(heard.startS).toBeCloseTo(countIn * gap, 9);
        expect(heard.beats[countIn]!.timeS - heard.startS).toBeCloseTo(beats[0]!.timeS, 9);
      }),
    );
  });

  it.each([
    [{ rate: 0 }, 'rate'],
    [{ countIn: 9 }, 'countIn'],
    [{ from: 0 }, 'from'],
    [{ from: 3, to: 2 }, 'from'],
    [{ to: 99 }, 'to'],
  ])('%o is refused by name', (asked, field) => {
    const beats: Beat[] = [0.3, 0.6, 0.9].map((timeS) => ({ timeS, foot: 'left', special: false }));
    expect(() => playBeats(beats, asked)).toThrow(RangeError);
    expect(() => playBeats(beats, asked)).toThrow(field);
  });
});

describe('the sound of beats', () => {
  it('never leaves −1 to 1, however close the feet come, and ends in silence', () => {
    fc.assert(
      fc.property(rhythms, (beats) => {
        const crowded = beats.map((beat) => ({ ...beat, timeS: beat.timeS / 12 }));
        const sound = soundOf(playBeats(crowded).beats, 8_000);
        expect(sound.every((value) => Math.abs(value) <= 1)).toBe(true);
        expect(Math.abs(sound.at(-1)!)).toBeLessThan(1e-6);
      }),
      { numRuns: 40 },
    );
  });

  it('tells left from right by pitch: each crosses zero as often as its tone says', () => {
    const crossings = (foot: 'left' | 'right'): number => {
      const sound = soundOf(playBeats([{ timeS: 0.2, foot, special: false }]).beats, 48_000).slice(
        0.2 * 48_000,
        0.28 * 48_000,
      );
      return sound.reduce(
        (sum, value, i) => sum + (i > 0 && Math.sign(value) !== Math.sign(sound[i - 1]!) ? 1 : 0),
        0,
      );
    };
    const [left, right] = [crossings('left'), crossings('right')];
    expect(right / left).toBeGreaterThan(1.3);
  });

  it('goes into the file sample by sample', () => {
    const sound = Float32Array.from([0, 0.5, -0.5, 1, -1, 2]);
    const view = new DataView(wavFile(sound, 16_000).buffer);
    expect(view.getUint32(24, true)).toBe(16_000);
    const samples = Array.from(sound, (_, i) => view.getInt16(44 + 2 * i, true));
    expect(samples).toEqual([0, 16384, -16383, 32767, -32767, 32767]);
  });
});

it('a steady beat is steady for as long as it is asked', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 120, max: 220 }),
      fc.integer({ min: 1, max: 30 }),
      (cadenceSpm, minutes) => {
        const beats = steadyBeats(cadenceSpm, 60 * minutes);
        expect(Math.abs(beats.length - cadenceSpm * minutes)).toBeLessThanOrEqual(1);
        const gaps = beats.slice(1).map((beat, i) => beat.timeS - beats[i]!.timeS);
        for (const gap of gaps) expect(gap).toBeCloseTo(60 / cadenceSpm, 6);
        expect(beats.every((beat, i) => beat.foot === (i % 2 ? 'right' : 'left'))).toBe(true);
      },
    ),
    { numRuns: 20 },
  );
});
