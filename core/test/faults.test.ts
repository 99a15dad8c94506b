import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  aimMargin,
  attemptsForMakes,
  chooseCue,
  faultRate,
  faultTrend,
  probImproved,
  setDuration,
  type HistorySession,
  type LiveFault,
} from '../src';

const day = (n: number): string => new Date(Date.UTC(2031, 2, 3 + n)).toISOString().slice(0, 10);
const history = (...rows: [dayN: number, reps: number, faults: number, cued?: boolean][]) =>
  rows.map(([n, reps, faults, cued = false]): HistorySession => ({
    date: day(n),
    reps,
    faults,
    cued,
  }));

const counts = fc
  .tuple(fc.integer({ min: 0, max: 60 }), fc.double({ min: 0, max: 1, noNaN: true }))
  .map(([reps, part]) => ({ reps, faults: Math.round(reps * part) }));

describe('faultRate', () => {
  it('orders its bounds, and more faults never lower them', () => {
    fc.assert(
      fc.property(fc.array(counts, { minLength: 1, maxLength: 8 }), (list) => {
        const sessions = list.map((count, i) => ({ date: day(i * 3), ...count }));
        const onDate = day(list.length * 3);
        const { low, rate, high } = faultRate({ sessions, onDate });
        expect(0 <= low && low < rate && rate < high && high <= 1).toBe(true);
        const worse = sessions.map((s) => ({ ...s, faults: Math.min(s.reps, s.faults + 1) }));
        expect(faultRate({ sessions: worse, onDate }).high).toBeGreaterThanOrEqual(high - 1e-12);
      }),
    );
  });

  it('has 5 % of the posterior below the lower bound', () => {
    // Beta(½ + 1, ½ + 2) is well known: F(x) checked by plain numerical integration.
    const { low, alpha, beta } = faultRate({
      sessions: [{ date: day(0), reps: 3, faults: 1 }],
      onDate: day(0),
    });
    let below = 0;
    let all = 0;
    const n = 400_000;
    for (let i = 0; i < n; i += 1) {
      const x = (i + 0.5) / n;
      const p = x ** (alpha - 1) * (1 - x) ** (beta - 1);
      all += p;
      if (x < low) below += p;
    }
    expect(below / all).toBeCloseTo(0.05, 5);
  });

  it.each([
    [{ date: '2031-02-30', reps: 3, faults: 1 }, 'sessions[0].date'],
    [{ date: day(0), reps: 3, faults: 4 }, 'sessions[0].faults'],
    [{ date: day(0), reps: -3, faults: 0 }, 'sessions[0].reps'],
  ])('refuses %o', (session, field) => {
    expect(() => faultRate({ sessions: [session], onDate: day(1) })).toThrow(field);
  });
});

describe('probImproved', () => {
  it('is a half against itself and turns round when the two change places', () => {
    fc.assert(
      fc.property(counts, counts, (before, now) => {
        const { probability } = probImproved({ before, now });
        const { probability: reverse } = probImproved({ before: now, now: before });
        expect(probability + reverse).toBeCloseTo(1, 5);
        expect(probImproved({ before, now: before }).probability).toBeCloseTo(0.5, 5);
      }),
    );
  });
});

describe('faultTrend', () => {
  const stateOf = (...rows: Parameters<typeof history>): string =>
    faultTrend(history(...rows)).state;

  it('calls nothing before ten reps', () => {
    expect(stateOf([0, 4, 4], [3, 5, 5])).toBe('new');
    expect(faultTrend([]).state).toBe('new');
  });

  it('is clearing when better at two sessions running', () => {
    const rows: Parameters<typeof history> = [
      [0, 20, 15],
      [3, 20, 14],
      [6, 20, 15],
      [9, 20, 6],
      [12, 20, 5],
    ];
    expect(stateOf(...rows)).toBe('clearing');
    expect(stateOf(...rows.slice(0, 4))).toBe('steady');
  });

  it('is cleared only when it stays away for seven days, and back when it returns', () => {
    const away: Parameters<typeof history> = [
      [0, 30, 0],
      [3, 30, 1],
    ];
    expect(stateOf(...away)).toBe('steady');
    const cleared: Parameters<typeof history> = [...away, [10, 30, 0]];
    expect(stateOf(...cleared)).toBe('cleared');
    expect(stateOf(...cleared, [13, 20, 14], [16, 20, 15])).toBe('back');
  });

  it('is stuck after three sessions of the same cue without a gain', () => {
    const rows = (cued: boolean): Parameters<typeof history> => [
      [0, 15, 8],
      [3, 15, 8],
      [6, 15, 9, cued],
      [9, 15, 8, cued],
      [12, 15, 9, cued],
    ];
    expect(stateOf(...rows(true))).toBe('stuck');
    expect(stateOf(...rows(false))).toBe('steady');
  });

  it('stands after each session where faultRate puts it', () => {
    const rows = history([0, 20, 9], [3, 12, 4], [11, 30, 2], [11, 6, 5]);
    faultTrend(rows).points.forEach((point, i) => {
      const { rate, low, high } = faultRate({ sessions: rows.slice(0, i + 1), onDate: point.date });
      expect(point.rate).toBeCloseTo(rate, 12);
      expect(point.low).toBeCloseTo(low, 12);
      expect(point.high).toBeCloseTo(high, 12);
    });
  });

  it('passes over sessions without reps and refuses dates out of order', () => {
    expect(faultTrend(history([0, 10, 5], [2, 0, 0])).points).toHaveLength(1);
    expect(() => faultTrend(history([4, 10, 5], [2, 10, 5]))).toThrow('sessions[1].date');
  });
});

describe('chooseCue', () => {
  const faults = fc.uniqueArray(
    fc.record({
      code: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      phase: fc.integer({ min: 0, max: 4 }),
      severity: fc.integer({ min: 1, max: 3 }),
      rate: fc.double({ min: 0, max: 1, noNaN: true }),
      leadsTo: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 3 }),
      safety: fc.boolean(),
    }),
    { selector: (fault) => fault.code },
  );

  it('names a live fault, or none when none is live; safety first; ends on circles too', () => {
    fc.assert(
      fc.property(
        faults,
        fc.constantFrom('root-cause', 'first-phase', 'most-frequent'),
        (list: LiveFault[], school) => {
          const { code, why } = chooseCue({ school: school as 'root-cause', faults: list });
          const live = list.filter((fault) => fault.rate >= 0.15);
          if (live.length === 0) {
            expect([code, why]).toEqual([null, 'none']);
            return;
          }
          const chosen = live.find((fault) => fault.code === code);
          expect(chosen).toBeDefined();
          if (live.some((fault) => fault.safety)) expect(chosen!.safety).toBe(true);
        },
      ),
    );
  });

  it('refuses a rate that is none', () => {
    const fault = { code: 'a', phase: 0, severity: 1, rate: 3, leadsTo: [], safety: false };
    expect(() => chooseCue({ faults: [fault] })).toThrow('faults[0].rate');
  });
});

describe('sets and margins', () => {
  it('never waits less than the queue or the rest', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 0, max: 200 }),
        (group, rest) => {
          const plan = setDuration({
            sets: 2,
            reps: 4,
            repS: 5,
            restS: rest,
            setRestS: 60,
            groupSize: group,
            changeoverS: 3,
          });
          expect(plan.cycleS).toBeGreaterThanOrEqual(group * 8);
          expect(plan.cycleS).toBeGreaterThanOrEqual(5 + rest);
          expect(plan.idleFraction).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });

  it('needs no fewer attempts for more makes or more confidence', () => {
    const at = (makes: number, confidence: number) =>
      attemptsForMakes({ makes, makeRate: 0.4, confidence }).atConfidence;
    for (let makes = 1; makes < 12; makes += 1) {
      expect(at(makes + 1, 0.8)).toBeGreaterThan(at(makes, 0.8));
      expect(at(makes, 0.95)).toBeGreaterThanOrEqual(at(makes, 0.8));
    }
    expect(() => attemptsForMakes({ makes: 5, makeRate: 0, confidence: 0.8 })).toThrow('makeRate');
  });

  it('aims where no other margin pays more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 8, noNaN: true }),
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        (jumpM, sdM) => {
          const { marginM, expectedM } = aimMargin({ jumpM, sdM });
          const counted = (margin: number): number => {
            let sum = 0;
            const n = 4000;
            for (let i = 0; i < n; i += 1) {
              const z = -8 + ((i + 0.5) * 16) / n;
              const lands = z * sdM - margin;
              if (lands <= 0) sum += (jumpM + lands) * Math.exp((-z * z) / 2) * (16 / n);
            }
            return sum / Math.sqrt(2 * Math.PI);
          };
          expect(counted(marginM)).toBeCloseTo(expectedM, 1);
          for (const away of [-0.3, 0.3]) {
            expect(counted(marginM + away * sdM)).toBeLessThanOrEqual(expectedM + 0.003 * jumpM);
          }
        },
      ),
      { numRuns: 30 },
    );
  });
});
