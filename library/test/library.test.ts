import type { FaultCount } from '@gravek/contract';
import { describe, expect, it } from 'vitest';
import { athleteFaults, barredBy, cueFor, holding, movementOf, whyBarred } from '../src';

const runUp = movementOf('straight-run-up');

describe('the one cue', () => {
  const seen = [
    { code: 'start-varies', rate: 0.4 },
    { code: 'chops-to-fit', rate: 0.3 },
    { code: 'slows-in', rate: 0.3 },
  ];

  it('says what the chosen fault brings about', () => {
    const cue = cueFor(runUp, 'root-cause', seen)!;
    expect(cue.fault.code).toBe('start-varies');
    expect(cue.reason).toBe(
      'Start varies shows in 40 % of reps and brings about: chops to fit and slows before the mark.',
    );
  });

  it('puts a fault that can hurt first, by every school', () => {
    for (const school of ['root-cause', 'first-phase', 'most-frequent'] as const) {
      const cue = cueFor(runUp, school, [...seen, { code: 'locked-leg', rate: 0.2 }])!;
      expect(cue.fault.code).toBe('locked-leg');
      expect(cue.reason).toContain('can hurt');
    }
  });

  it('is none when nothing shows often', () => {
    expect(cueFor(runUp, 'root-cause', [{ code: 'reaches', rate: 0.1 }])).toBeNull();
    expect(cueFor(runUp, 'root-cause', [])).toBeNull();
  });
});

describe('how athletes stand', () => {
  const count = (athleteId: string, dayN: number, faults: Record<string, number>): FaultCount => ({
    athleteId,
    sessionId: `s${dayN}`,
    movement: 'straight-run-up',
    date: `2031-03-${String(dayN).padStart(2, '0')}`,
    reps: 10,
    faults,
    cues: ['reaches'],
  });

  it('follows each athlete apart, most frequent fault first', () => {
    const list = athleteFaults(
      runUp,
      [
        count('ana', 1, { reaches: 6, 'slows-in': 2 }),
        count('bo', 1, {}),
        count('ana', 4, { reaches: 7 }),
        { ...count('ana', 5, { reaches: 10 }), movement: 'another' },
      ],
      'root-cause',
    );
    expect(list.map((one) => [one.athleteId, one.reps, one.sessions])).toEqual([
      ['ana', 20, 2],
      ['bo', 10, 1],
    ]);
    expect(list[0]!.faults.map((one) => [one.code, one.seen])).toEqual([
      ['reaches', 13],
      ['slows-in', 2],
    ]);
    expect(list[0]!.cue!.fault.code).toBe('reaches');
    expect(list[1]!.cue).toBeNull();
  });
});

describe('restrictions', () => {
  const held = { kind: 'no-jumping' as const, from: '2031-03-01', until: '2031-03-10' };

  it('bar what they name, on their days only', () => {
    expect(barredBy(runUp, [held], '2031-03-10')).toBe(held);
    expect(barredBy(runUp, [held], '2031-03-11')).toBeNull();
    expect(barredBy(runUp, [{ ...held, kind: 'no-contact' }], '2031-03-05')).toBeNull();
    expect(barredBy(runUp, [{ ...held, kind: 'reduced' }], '2031-03-05')).toBeNull();
    const gaps = movementOf('gaps');
    const reduced = { ...held, kind: 'reduced' as const };
    expect(barredBy(gaps, [reduced], '2031-03-05')).toBe(reduced);
    expect(whyBarred('Ada', reduced)).toBe(
      'Ada is on reduced volume, and this works by many contacts; until 2031-03-10.',
    );
    expect(holding([held], '2031-02-28')).toEqual([]);
  });
});
