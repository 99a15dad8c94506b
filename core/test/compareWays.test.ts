import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareWays, type WayCounts, type WayLook, type WayStratum } from '../src/cue/compareWays';
import { seeded } from '../src/chance/random';

const counts = (change: Partial<WayCounts> = {}): WayCounts => ({
  ...{ reps: 10, clean: 5, held: 0, heldS: 0, heard: 0, heardS: 0 },
  ...change,
});

const cell: fc.Arbitrary<WayCounts> = fc
  .record({
    reps: fc.nat({ max: 30 }),
    share: fc.double({ min: 0, max: 1, noNaN: true }),
    held: fc.nat({ max: 10 }),
    heldS: fc.double({ min: 0, max: 5, noNaN: true }),
    heard: fc.nat({ max: 10 }),
    heardS: fc.double({ min: 0.1, max: 1, noNaN: true }),
  })
  .map(({ reps, share, held, heldS, heard, heardS }) => ({
    ...{ reps, clean: Math.round(reps * share) },
    ...{ held, heldS: held * heldS, heard, heardS: heard * heardS },
  }));

const strata: fc.Arbitrary<WayStratum[]> = fc.array(
  fc.record({
    athlete: fc.constantFrom('ana', 'bo', 'cy', 'di', 'ed', 'flo', '__proto__'),
    side: fc.constantFrom('own' as const, 'other' as const),
    a: cell,
    b: cell,
  }),
  { maxLength: 20 },
);

const lookOf = (looks: readonly WayLook[], measure: WayLook['measure']): WayLook =>
  looks.find((look) => look.measure === measure && look.side === null)!;

describe('two ways of teaching, held against each other by the reps of those who did both', () => {
  it('say the same whichever is named first, and no chance is more than one or less than none', () => {
    fc.assert(
      fc.property(strata, (given) => {
        const looks = compareWays(given);
        const turned = compareWays(given.map(({ a, b, ...one }) => ({ ...one, a: b, b: a })));
        expect(turned).toHaveLength(looks.length);
        looks.forEach((look, i) => {
          expect(turned[i]!.a.value).toBeCloseTo(look.b.value, 9);
          expect(turned[i]!.b.reps).toBe(look.a.reps);
          if (look.chance === null) return expect(turned[i]!.chance).toBeNull();
          expect(turned[i]!.chance).toBeCloseTo(look.chance, 9);
          expect(look.chance).toBeGreaterThanOrEqual(0);
          expect(look.chance).toBeLessThanOrEqual(1);
        });
      }),
    );
  });

  it('a better athlete who did the one way only makes it no better', () => {
    const looks = compareWays([
      {
        athlete: 'ana',
        side: 'own',
        a: counts({ reps: 200, clean: 190 }),
        b: counts({ reps: 0, clean: 0 }),
      },
      ...['bo', 'cy'].map((athlete) => ({
        ...{ athlete, side: 'own' as const },
        a: counts({ reps: 40, clean: 20 }),
        b: counts({ reps: 40, clean: 20 }),
      })),
    ]);
    const clean = lookOf(looks, 'clean');
    expect(clean).toMatchObject({ athletes: 2, a: { reps: 80, value: 0.5 } });
    expect(clean.chance).toBeCloseTo(1, 9);
  });

  it('of few reps, of reps that were all clean, and of seconds of four athletes nothing is said', () => {
    const few = compareWays([{ athlete: 'ana', side: 'own', a: counts(), b: counts() }]);
    expect(lookOf(few, 'clean').chance).toBeNull();
    expect(few.some(({ measure }) => measure === 'held')).toBe(false);
    const all = counts({ reps: 90, clean: 90 });
    expect(
      lookOf(compareWays([{ athlete: 'ana', side: 'own', a: all, b: all }]), 'clean').chance,
    ).toBeNull();
    const timed = (n: number): WayLook =>
      lookOf(
        compareWays(
          Array.from({ length: n }, (_, i) => ({
            ...{ athlete: `a${i}`, side: 'own' as const },
            a: counts({ heard: 10, heardS: 6 }),
            b: counts({ heard: 10, heardS: 5 + 0.01 * i }),
          })),
        ),
        'reaction',
      );
    expect(timed(4).chance).toBeNull();
    expect(timed(5).chance).toBeLessThan(0.001);
    expect(timed(5).b.value).toBeCloseTo(0.502, 9);
  });

  it('finds in most seasons a way that is cleaner by a fifth, and hardly ever one that is not', () => {
    const season = (betterBy: number, seed: number): number => {
      const next = seeded(seed);
      const ran = (rate: number): WayCounts =>
        counts({
          reps: 8,
          clean: Array.from({ length: 8 }, () => next() < rate).filter(Boolean).length,
        });
      const looks = compareWays(
        Array.from({ length: 60 }, (_, i) => {
          const own = 0.2 + 0.5 * ((i % 10) / 10);
          return {
            ...{ athlete: `a${i % 10}`, side: 'own' as const },
            ...{ a: ran(own), b: ran(own + betterBy) },
          };
        }),
      );
      return lookOf(looks, 'clean').chance!;
    };
    const seeds = Array.from({ length: 200 }, (_, i) => i + 1);
    const found = (betterBy: number): number =>
      seeds.filter((seed) => season(betterBy, seed) < 0.05).length / seeds.length;
    expect(found(0.2)).toBeGreaterThan(0.95);
    expect(found(0)).toBeLessThan(0.1);
  });

  it('says each side where both were done, and refuses counts that cannot be', () => {
    const one = { athlete: 'ana', a: counts(), b: counts() };
    expect(compareWays([{ ...one, side: 'own' }]).map(({ side }) => side)).toEqual([null]);
    expect(
      compareWays([
        { ...one, side: 'own' },
        { ...one, side: 'other' },
      ]).map(({ side }) => side),
    ).toEqual([null, 'own', 'other']);
    expect(() => compareWays([{ ...one, side: 'own', b: counts({ reps: 3, clean: 4 }) }])).toThrow(
      'strata[0].b.clean',
    );
  });
});
