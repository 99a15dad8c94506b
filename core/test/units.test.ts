import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseLength } from '../src/lengthText';
import {
  bareUnit,
  formatLength,
  formatSpeed,
  LENGTH_UNITS,
  lengthParts,
  type LengthStyle,
  speedParts,
  wayParts,
} from '../src/units';
import { evenly } from './evenly';

const read = (text: string, style: LengthStyle = { unit: 'metric' }) => {
  const result = parseLength(text, style);
  return result.ok ? result.lengthM : result.message;
};

describe('a way that was run', () => {
  it.each([
    [850, 'metric', '850 m'],
    [12_400, 'metric', '12.40 km'],
    [850, 'imperial', '930 yd'],
    [3_218.688, 'yards', '2.00 mi'],
  ] as const)('of %d m in %s is %s', (wayM, unit, words) => {
    expect(Object.values(wayParts(wayM, unit)).join(' ')).toBe(words);
  });
});

describe('parseLength', () => {
  it.each(LENGTH_UNITS)('reads a bare number in the unit that is named for it: %s', (unit) => {
    const style = { unit, shoeM: 0.3 };
    expect(read('4', style)).toBe(read(`4 ${bareUnit(style)}`, style));
  });

  it.each([
    ['12.4', 12.4],
    ['12,4 m', 12.4],
    [' 12.40m ', 12.4],
    ['350 cm', 3.5],
    ['3 m 50', 3.5],
    ['3 m 50 cm', 3.5],
    ['40\' 8 1/2"', 12.4079],
    ['40′ 8½″', 12.4079],
    ["40'8.5", 12.4079],
    ['40 ft 8 1/2 in', 12.4079],
    ['40 feet', 12.192],
    ['40-8.5', 12.4079],
    ['8 1/2"', 0.2159],
    ["5''", 0.127],
    ['½ in', 0.0127],
    ['13 yd 1 ft', 12.192],
    ['13 yards 1 ft 6 in', 12.3444],
    ['13.5 yd', 12.3444],
    ['41 shoes', 11.685],
    ['41½ shoes', 11.8275],
    ['1 shoe', 0.285],
  ])('reads %s', (text, metres) => {
    expect(read(text, { unit: 'metric', shoeM: 0.285 })).toBeCloseTo(metres, 9);
  });

  it('takes a bare number in the unit that the coach uses', () => {
    expect(read('10', { unit: 'imperial' })).toBeCloseTo(3.048, 9);
    expect(read('10', { unit: 'yards' })).toBeCloseTo(9.144, 9);
    expect(read('10', { unit: 'shoes', shoeM: 0.3 })).toBeCloseTo(3, 9);
    expect(read('28.5', { unit: 'metric', small: true })).toBeCloseTo(0.285, 9);
    expect(read('11 1/4', { unit: 'imperial', small: true })).toBeCloseTo(0.28575, 9);
  });

  it.each([
    ['', 'Write a length'],
    ['far', 'Write a length such as'],
    ['9'.repeat(400), 'too long'],
    ['12 furlongs', '“furlongs” is not a unit'],
    ['-3', 'cannot be negative'],
    ['3 m 2 ft', 'Units of one kind'],
    ['4\' 14"', 'more than one ft'],
    ['13 yd 1', 'Say what the 1'],
    ['4.5 ft 2 in', 'alone'],
    ['1/0 in', 'cannot be over 0'],
    ['12..4', 'Write a length such as'],
    ['12 4', 'Write a length such as'],
    ['41 shoes', 'shoe length'],
    ['9'.repeat(400) + 'x', 'not a unit'],
  ])('refuses %s with a sentence', (text, part) => {
    expect(read(text)).toContain(part);
  });
});

describe('round trip', () => {
  const styles = fc
    .tuple(
      fc.constantFrom(...LENGTH_UNITS),
      fc.boolean(),
      fc.double({ min: 0.2, max: 0.36, noNaN: true }),
    )
    .map(([unit, small, shoeM]): LengthStyle => ({ unit, small, shoeM }));

  it('writes what it can read back, within half of its last place', () => {
    fc.assert(
      fc.property(styles, evenly(0, 80), (style, metres) => {
        const back = read(formatLength(metres, style), style) as number;
        const place =
          style.unit === 'metric' || style.small
            ? 0.0064
            : style.unit === 'shoes'
              ? style.shoeM! / 4
              : 0.0064;
        expect(Math.abs(back - metres)).toBeLessThanOrEqual(place + 1e-9);
      }),
    );
  });

  it('does not drift: once written, reading and writing again changes nothing', () => {
    fc.assert(
      fc.property(styles, evenly(0, 80), (style, metres) => {
        let text = formatLength(metres, style);
        const first = text;
        for (let i = 0; i < 5; i += 1) text = formatLength(read(text, style) as number, style);
        expect(text).toBe(first);
      }),
    );
  });

  it('reads any text without failing', () => {
    fc.assert(
      fc.property(fc.string(), styles, (text, style) => {
        const result = parseLength(text, style);
        if (result.ok) expect(Number.isFinite(result.lengthM)).toBe(true);
        else expect(result.message.length).toBeGreaterThan(5);
      }),
      { numRuns: 400 },
    );
  });
});

describe('figures', () => {
  it('carries over at the edges', () => {
    expect(formatLength(11.995 * 0.3048, { unit: 'imperial' })).toBe('12′ 0″');
    expect(formatLength(0, { unit: 'yards' })).toBe('0 yd');
    expect(formatLength(-0.001, { unit: 'metric' })).toBe('0.00 m');
    expect(formatLength(-0.2, { unit: 'metric' })).toBe('−0.20 m');
    expect(lengthParts(0.1, { unit: 'imperial' })).toEqual([
      { figure: '0', unit: '′' },
      { figure: '4', unit: '″' },
    ]);
    expect(speedParts(9.144, 'imperial')).toEqual({ figure: '30.0', unit: 'ft/s' });
    expect(formatSpeed(9.144, 'yards', 2)).toBe('30.00 ft/s');
    expect(formatSpeed(9.144, 'shoes')).toBe('9.1 m/s');
  });
});
