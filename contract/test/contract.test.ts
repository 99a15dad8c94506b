import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { straightChoices } from '../src/approach';
import { athleteInput, restrictionInput } from '../src/athlete';
import { clubSettings } from '../src/club';
import { check } from '../src/problem';
import { repInput } from '../src/repSchema';
import { drillSetInput } from '../src/sessionSchema';

describe('what counts in a set, and in a rep', () => {
  const id = '018f2f63-0000-7000-8000-000000000001';
  const set = (change: object = {}) => ({
    ...{ id, work: { kind: 'movement', movement: 'gaps', drill: null }, athleteIds: [] },
    ...{ sets: 1, reps: 4, restS: 0, setRestS: 0 },
    ...change,
  });
  const vary = {
    ...{ moves: [], endings: [], exits: [], sides: ['own'], leadFeet: [], paces: [1], rungs: [] },
  };
  const spotsOf = (spots?: unknown) => {
    const checked = check(drillSetInput, set({ vary: { ...vary, ...(spots ? { spots } : {}) } }));
    return checked.ok ? checked.value.vary.spots : Object.values(checked.fields);
  };

  it('has no spots where an older page or file names none, and takes no name that a key cannot hold', () => {
    expect(spotsOf()).toEqual([]);
    expect(spotsOf(['left wing', 'Straße 7'])).toEqual(['left wing', 'Straße 7']);
    for (const bad of ['left_wing', 'a=b', ' wing', '<b>', 'x'.repeat(31), ''])
      expect(spotsOf([bad])).toHaveLength(1);
    expect(spotsOf(['a', 'a'])).toEqual(['Spots must not repeat.']);
  });

  it('is as many touches as a set may ask, never back in time', () => {
    const rep = (touchS: unknown) =>
      check(repInput, {
        ...{ id, sessionId: id, drillSetId: id, athleteId: id, movement: 'gaps', set: 1 },
        ...{ side: 'own', rep: 1, turn: 1, outcome: 'clean', faults: [], device: id, deviceNo: 1 },
        ...{ at: '2031-05-14T10:00:00.000Z', note: '', voids: null, leadFoot: null, touchS },
        speedPct: null,
      });
    const many = Array.from({ length: 1_000 }, (_, i) => i);
    expect(rep(many)).toMatchObject({ ok: true });
    expect(rep([...many, 1_000]).ok).toBe(false);
    expect(rep([0, 2, 1]).ok).toBe(false);
    const plain = rep(undefined);
    expect(plain.ok && [plain.value.touchS, plain.value.lateBy, plain.value.ranS]).toEqual([
      ...[null, null, null],
    ]);
  });
});

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
