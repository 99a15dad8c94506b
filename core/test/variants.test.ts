import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { likelyTries } from '../src/session/sets';
import {
  AS_PLANNED,
  keptVariants,
  slotsOf,
  struckKey,
  variantFrom,
  variantKey,
  variantsOf,
  type Axes,
  type Varied,
} from '../src/session/variants';
import { evenly } from './evenly';

const some = (prefix: string, max: number) =>
  fc.integer({ min: 0, max }).map((n) => Array.from({ length: n }, (_, i) => `${prefix}${i}`));

const axes: fc.Arbitrary<Axes> = fc.record({
  moves: some('move', 3),
  endings: some('end', 2),
  exits: some('read:exit', 2),
  ways: some('school:way', 2),
  spots: some('left wing ', 2),
  sides: fc.constantFrom<Axes['sides']>(['own'], ['other'], ['own', 'other']),
  leadFeet: fc.constantFrom<Axes['leadFeet']>([], ['left'], ['left', 'right']),
  paces: fc.constantFrom<Axes['paces']>([1], [0.5], [1, 0.25, 0.5]),
  rungs: some('rung', 2),
});

const varied: fc.Arbitrary<Varied> = fc
  .record({
    vary: axes,
    order: fc.constantFrom<Varied['order']>('blocked', 'mixed'),
    slowFirst: fc.boolean(),
    seed: fc.integer({ min: 1, max: 9999 }),
    out: fc.array(fc.nat({ max: 400 }), { maxLength: 5 }),
  })
  .map(({ out, ...set }) => {
    const all = variantsOf(set.vary);
    return { ...set, struck: out.map((n) => struckKey(all[n % all.length]!)) };
  });

describe('variants', () => {
  it('multiply, differ from one another, and are read back from their names', () => {
    fc.assert(
      fc.property(axes, (vary) => {
        const all = variantsOf(vary);
        const sizes = Object.values(vary).map((list) => Math.max(1, list.length));
        expect(all).toHaveLength(sizes.reduce((a, b) => a * b, 1));
        expect(new Set(all.map(struckKey)).size).toBe(all.length);
        for (const variant of all)
          expect(variantFrom(variantKey(variant), variant.side)).toEqual(variant);
      }),
    );
  });

  it('is nothing where nothing differs, and reads rubbish as planned', () => {
    const [plain] = variantsOf(AS_PLANNED.vary);
    expect(variantKey(plain!)).toBe('');
    expect(variantFrom('pace=fast lead=both =', 'own')).toEqual(plain);
  });
});

describe('the order of a round', () => {
  it('has every combination that was not struck out as often as asked, the same for one seed', () => {
    fc.assert(
      fc.property(
        varied,
        fc.integer({ min: 1, max: 5 }),
        fc.nat({ max: 4 }),
        (set, reps, round) => {
          const slots = slotsOf(set, reps, round);
          const kept = keptVariants(set);
          expect(slots).toHaveLength(kept.length * reps);
          const names = new Set(slots.map((slot) => `${struckKey(slot.variant)} ${slot.rep}`));
          expect(names.size).toBe(slots.length);
          for (const struck of set.struck) {
            expect(slots.some((slot) => struckKey(slot.variant) === struck)).toBe(false);
          }
          expect(slotsOf(set, reps, round)).toEqual(slots);
          if (set.slowFirst) {
            const paces = slots.map((slot) => slot.variant.pace);
            expect(paces).toEqual([...paces].sort((a, b) => a - b));
          }
        },
      ),
    );
  });

  it('has none twice running where it is mixed and there are two', () => {
    fc.assert(
      fc.property(varied, fc.integer({ min: 1, max: 6 }), (set, reps) => {
        const slots = slotsOf({ ...set, order: 'mixed', slowFirst: false }, reps, 1);
        if (keptVariants(set).length < 2) return;
        slots.slice(1).forEach((slot, i) => expect(slot.variant).not.toBe(slots[i]!.variant));
      }),
    );
  });

  it('is another in another round', () => {
    const set: Varied = {
      ...AS_PLANNED,
      order: 'mixed',
      vary: { ...AS_PLANNED.vary, moves: ['a', 'b', 'c', 'd'], endings: ['e', 'f'] },
    };
    expect(slotsOf(set, 2, 1)).not.toEqual(slotsOf(set, 2, 2));
  });
});

describe('likely tries', () => {
  it('are the mean of makes over rate where nobody is sent on', () => {
    const input = { makes: 5, makeRate: 0.55 };
    expect(likelyTries({ ...input, most: 200 })).toBeCloseTo(5 / 0.55, 6);
  });

  it('lie between the makes and the most, and agree with what is thrown', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 0, max: 6 }),
        evenly(0, 1),
        (makes, more, makeRate) => {
          const most = makes + more;
          const tries = likelyTries({ makes, most, makeRate });
          expect(tries).toBeGreaterThanOrEqual(makes - 1e-9);
          expect(tries).toBeLessThanOrEqual(most + 1e-9);
        },
      ),
    );
    expect(likelyTries({ makes: 2, most: 3, makeRate: 0.5 })).toBeCloseTo(2 * 0.25 + 3 * 0.75, 9);
    expect(likelyTries({ makes: 4, most: 2, makeRate: 0.9 })).toBe(2);
  });
});
