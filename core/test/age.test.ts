import { describe, expect, it } from 'vitest';
import { isMinor } from '../src/age';

const minorOn = (bornYear: number | null, onDate: string, bornOn: string | null = null) =>
  isMinor({ bornYear, bornOn, onDate }).minor;

describe('a minor', () => {
  it('is everybody whose year of birth leaves doubt, up to the last day of the year', () => {
    expect(minorOn(2013, '2031-12-30')).toBe(true);
    expect(minorOn(2013, '2031-12-31')).toBe(false);
  });

  it('born on a leap day comes of age on the first of March', () => {
    expect(minorOn(2012, '2030-02-28', '2012-02-29')).toBe(true);
    expect(minorOn(2012, '2030-03-01', '2012-02-29')).toBe(false);
  });

  it('goes by the day of birth where day and year differ', () => {
    expect(minorOn(1990, '2031-01-01', '2015-01-01')).toBe(true);
  });

  it('needs days that are days', () => {
    expect(() => minorOn(2013, '2031-02-30')).toThrow('onDate');
    expect(() => minorOn(2013, '2031-02-20', '2013-13-01')).toThrow('bornOn');
  });
});
