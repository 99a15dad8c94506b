import { describe, expect, it } from 'vitest';
import {
  athleteFaults,
  barredBy,
  bySession,
  cueFor,
  faultHistory,
  holding,
  likelyFaults,
  movementOf,
  passedOver,
  standingsOf,
  whyBarred,
  type SessionFaults,
} from '../src';

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
  const session = (dayN: number, faults: Record<string, number>, reps = 10): SessionFaults => ({
    date: `2031-03-${String(dayN).padStart(2, '0')}`,
    reps,
    faults: Object.entries(faults).map(([fault, shown]) => ({ fault, reps: shown })),
    cues: ['reaches'],
  });

  it('is told fault by fault, most frequent first, with the one cue', () => {
    const faults = standingsOf([
      session(1, { reaches: 6, 'slows-in': 2 }),
      session(4, { reaches: 7 }),
    ]);
    expect(faults.map((one) => [one.code, one.seen])).toEqual([
      ['reaches', 13],
      ['slows-in', 2],
    ]);
    const counted = {
      athleteId: 'ana',
      movement: runUp.code,
      reps: 20,
      sessions: 2,
      lastDay: '2031-03-04',
      faults: [...faults, { ...faults[0]!, code: 'taken-out-of-the-movement' }],
    };
    const own = athleteFaults(runUp, counted, 'root-cause');
    expect(own.cue!.fault).toBe('reaches');
    expect(own.cue!.reason).toContain('shows in');
    // A fault that the movement does not name any more is not shown.
    expect(own.faults).toHaveLength(2);
    expect(athleteFaults(runUp, { ...counted, faults: [] }, 'root-cause').cue).toBeNull();
  });

  it('is the same state and rate whether points are wanted or not', () => {
    const sessions = Array.from({ length: 12 }, (_, i) =>
      session(i + 1, { reaches: (i * 7) % 9, hurries: i % 3 }),
    );
    const whole = faultHistory(sessions, { from: 0, to: 11 });
    const page = faultHistory(sessions, { from: 4, to: 8 });
    for (const { code, points } of whole) {
      const standing = standingsOf(sessions).find((one) => one.code === code)!;
      expect(points.at(-1)!.rate).toBeCloseTo(standing.rate, 12);
      expect(points.at(-1)!.high).toBeCloseTo(standing.high, 12);
      expect(page.find((one) => one.code === code)!.points).toEqual(points.slice(4, 9));
    }
  });

  it('adds up the conditions of a session', () => {
    const rows = [
      { sessionId: 's1', ...session(1, { reaches: 2 }, 6) },
      { sessionId: 's2', ...session(2, { hurries: 1 }, 4) },
      { sessionId: 's1', ...session(1, { reaches: 1, hurries: 3 }, 5) },
    ];
    expect(bySession(rows)).toMatchObject([
      {
        reps: 11,
        faults: [
          { fault: 'reaches', reps: 3 },
          { fault: 'hurries', reps: 3 },
        ],
        cues: ['reaches'],
      },
      { reps: 4 },
    ]);
  });

  it('offers the cued fault first, then what showed before, then the graver one', () => {
    const [first, second, third] = runUp.faults.map((fault) => fault.code);
    const order = likelyFaults(runUp, { fault: third!, likely: [second!, third!] });
    expect(order.slice(0, 2).map((fault) => fault.code)).toEqual([third, second]);
    expect(order).toHaveLength(runUp.faults.length);
    expect(order.map((fault) => fault.code)).toContain(first);
  });
});

describe('restrictions', () => {
  const held = { kind: 'no-jumping' as const, from: '2031-03-01', until: '2031-03-10' };

  it('pass an athlete over in what they bar, and in nothing else', () => {
    const sore = { id: 'a', name: 'Ada', archived: false, restrictions: [held] };
    const people = [sore, { ...sore, id: 'b', name: 'Bo', archived: true, restrictions: [] }];
    const ids = ['a', 'b', 'gone'];
    const over = (code: string) => [
      ...passedOver(ids, people, movementOf(code), '2031-03-05').keys(),
    ];
    expect(over('straight-run-up')).toEqual(ids);
    expect(over('goal-arc')).toEqual(['b', 'gone']);
  });

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
