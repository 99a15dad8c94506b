import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { callEvents, type CallAsk } from '../src/session/calls';

const gaps = (times: readonly number[]): number[] => times.slice(1).map((t, i) => t - times[i]!);

describe('calls', () => {
  it('are in order and the same for the same seed, whatever is asked', () => {
    const asks: CallAsk[] = [
      { kind: 'tempo', cadenceSpm: 180, seconds: 20 },
      { kind: 'rhythm', beats: [{ timeS: 0.3, foot: 'left', special: false }] },
      { kind: 'steps', steps: 8, leastS: 0.5, mostS: 2, first: 'right' },
      { kind: 'reads', options: [{ weight: 1, word: 'left' }] },
      { kind: 'start', leastS: 1, mostS: 2.5 },
    ];
    fc.assert(
      fc.property(fc.constantFrom(...asks), fc.integer({ min: 1, max: 1e6 }), (ask, seed) => {
        const events = callEvents(ask, seed);
        expect(callEvents(ask, seed)).toEqual(events);
        expect(events[0]!.timeS).toBe(0);
        for (const gap of gaps(events.map((event) => event.timeS))) expect(gap).toBeGreaterThan(0);
      }),
    );
  });

  it('call steps at uneven gaps within bounds, feet in turn, then hold', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        fc.integer({ min: 2, max: 20 }),
        fc.integer(),
        (leastS, more, steps, seed) => {
          const mostS = leastS + more;
          const events = callEvents({ kind: 'steps', steps, leastS, mostS, first: 'right' }, seed);
          const called = events.filter((event) => event.kind === 'step');
          expect(called.map((event) => event.foot)).toEqual(
            Array.from({ length: steps }, (_, i) => (i % 2 ? 'left' : 'right')),
          );
          for (const gap of gaps(called.map((event) => event.timeS))) {
            expect(gap).toBeGreaterThanOrEqual(leastS - 1e-9);
            expect(gap).toBeLessThanOrEqual(mostS + 1e-9);
          }
          expect(events.at(-1)).toMatchObject({ kind: 'hold', word: 'hold' });
        },
      ),
    );
    const one = callEvents({ kind: 'steps', steps: 8, leastS: 0.5, mostS: 2, first: 'left' }, 3);
    const own = gaps(one.filter((it) => it.kind === 'step').map((it) => it.timeS));
    expect(Math.max(...own) - Math.min(...own)).toBeGreaterThan(0.3);
  });

  it('count steps where not all who go begin on the same foot', () => {
    const events = callEvents({ kind: 'steps', steps: 22, leastS: 1, mostS: 2, first: null }, 3);
    const called = events.filter((event) => event.kind === 'step');
    expect(called.every(({ foot }) => foot === null)).toBe(true);
    expect(called.slice(0, 3).map(({ word }) => word)).toEqual(['one', 'two', 'three']);
    expect(called.slice(19).map(({ word }) => word)).toEqual(['twenty', null, null]);
  });

  it('call reads as often as they weigh, and each as often where nothing weighs', () => {
    const often = (weights: number[]): number[] => {
      const counts = weights.map(() => 0);
      for (let seed = 1; seed <= 4000; seed += 1) {
        const options = weights.map((weight) => ({ weight, word: null }));
        counts[callEvents({ kind: 'reads', options }, seed).at(-1)!.option!]! += 1;
      }
      return counts.map((n) => n / 4000);
    };
    const [a, b, c] = often([3, 1, 0]);
    expect(a).toBeCloseTo(0.75, 1);
    expect(b).toBeCloseTo(0.25, 1);
    expect(c).toBe(0);
    for (const share of often([0, 0])) expect(share).toBeCloseTo(0.5, 1);
  });

  it('start after a hold within bounds, and keep a tempo to the beat', () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const [, set, go] = callEvents({ kind: 'start', leastS: 1.2, mostS: 2.4 }, seed);
        expect(go!.timeS - set!.timeS).toBeGreaterThanOrEqual(1.2);
        expect(go!.timeS - set!.timeS).toBeLessThanOrEqual(2.4);
      }),
    );
    const beats = callEvents({ kind: 'tempo', cadenceSpm: 176, seconds: 30 }, 1);
    for (const gap of gaps(beats.map((beat) => beat.timeS))) expect(gap).toBeCloseTo(60 / 176, 9);
    expect(() =>
      callEvents({ kind: 'steps', steps: 3, leastS: 2, mostS: 1, first: 'left' }, 1),
    ).toThrow('mostS');
  });
});
