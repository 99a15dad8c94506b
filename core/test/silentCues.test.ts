import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SILENT_CUES, silentAt, silentCues } from '../src/session/silentCues';

const weights = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 12 });
const seed = fc.integer({ min: 0, max: 99 });

describe('cues that a partner shows', () => {
  it('are the same for the same seed, one after the other, each told before it shows', () => {
    fc.assert(
      fc.property(weights, seed, (weights, seed) => {
        const cues = silentCues({ weights, seed });
        expect(silentCues({ weights: [...weights], seed })).toEqual(cues);
        expect(cues.map(({ n }) => n)).toEqual(
          Array.from({ length: SILENT_CUES }, (_, i) => i + 1),
        );
        cues.forEach(({ tellS, showS, option }, i) => {
          expect(weights[option]).toBeGreaterThan(0);
          expect(showS - tellS).toBeGreaterThanOrEqual(2.5);
          expect(showS - tellS).toBeLessThanOrEqual(5);
          // Time to run and to come back before the next is told.
          if (cues[i + 1]) expect(cues[i + 1]!.tellS - showS).toBeGreaterThanOrEqual(9);
        });
      }),
    );
  });

  it('come as often as their weights say, over all seeds', () => {
    const drawn = [0, 0, 0];
    for (let seed = 0; seed < 100; seed += 1)
      for (const { option } of silentCues({ weights: [3, 2, 1], seed })) drawn[option]! += 1;
    expect(drawn[0]! / 1000).toBeCloseTo(1 / 2, 1);
    expect(drawn[1]! / 1000).toBeCloseTo(1 / 3, 1);
    expect(drawn[2]! / 1000).toBeCloseTo(1 / 6, 1);
  });

  it('stand where the time says', () => {
    const cues = silentCues({ weights: [1, 1], seed: 12 });
    const [first, second] = cues;
    expect(silentAt(cues, first!.tellS - 0.1)).toEqual({
      cue: null,
      isShown: false,
      isOver: false,
    });
    expect(silentAt(cues, first!.tellS)).toEqual({ cue: first, isShown: false, isOver: false });
    expect(silentAt(cues, first!.showS)).toEqual({ cue: first, isShown: true, isOver: false });
    expect(silentAt(cues, second!.tellS)).toMatchObject({ cue: second, isShown: false });
    expect(silentAt(cues, cues.at(-1)!.tellS + 15)).toEqual({
      ...{ cue: null, isShown: false, isOver: true },
    });
    expect(() => silentCues({ weights: [], seed: 1 })).toThrow(RangeError);
    expect(() => silentCues({ weights: [1], seed: 100 })).toThrow(RangeError);
  });
});
