import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { athleteInput, check, clubSettings, restrictionInput, straightChoices } from '../src';

describe('check', () => {
  it('reports every fault at its path, and drops what it does not know', () => {
    const wrong = check(athleteInput, { name: ' ', heightM: 'tall', extra: 1 });
    expect(wrong.ok).toBe(false);
    if (!wrong.ok) {
      expect(wrong.fields).toMatchObject({
        name: 'Give the athlete’s name.',
        heightM: 'The height must be a number.',
        takeoffFoot: 'Choose the take-off foot.',
      });
    }
    const right = check(clubSettings, {
      name: ' Tarn ',
      unit: 'yards',
      cueSchool: 'root-cause',
      timeZone: 'Europe/Oslo',
      extra: 1,
    });
    expect(right).toEqual({
      ok: true,
      value: {
        name: 'Tarn',
        unit: 'yards',
        cueSchool: 'root-cause',
        limits: [],
        timeZone: 'Europe/Oslo',
      },
    });
  });

  it('survives anything', () => {
    fc.assert(
      fc.property(fc.anything(), (value) => {
        expect(check(straightChoices, value).ok).toBe(false);
        expect(check(athleteInput, value).ok).toBe(false);
      }),
    );
  });

  it('knows days that do not exist, and an end before its start', () => {
    const base = {
      id: '0190a000-0000-7000-8000-000000000000',
      athleteId: '0190a000-0000-7000-8000-000000000001',
      kind: 'reduced',
      note: '',
    };
    const bad = check(restrictionInput, { ...base, from: '2031-02-30', until: '2031-03-01' });
    expect(bad.ok ? null : bad.fields.from).toContain('no such day');
    const turned = check(restrictionInput, { ...base, from: '2031-03-02', until: '2031-03-01' });
    expect(turned.ok ? null : turned.fields).toEqual({
      until: 'The last day is before the first.',
    });
  });
});
