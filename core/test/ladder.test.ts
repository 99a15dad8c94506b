import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayIn, hourIn, momentIn } from '../src/days';
import { ladderStep, type RungReps } from '../src/cue/ladder';

const session = (
  sessionId: string,
  rung: string,
  own: [reps: number, clean: number],
  other: [reps: number, clean: number],
): RungReps[] =>
  (
    [
      ['own', own],
      ['other', other],
    ] as const
  ).flatMap(([side, [reps, clean]]) => (reps > 0 ? [{ sessionId, rung, side, reps, clean }] : []));

describe('a rung of a ladder', () => {
  it.each([
    ['passes after two good sessions on both sides', [6, 5], [6, 5], [5, 4], [5, 5], 'up'],
    ['stays with one side too weak', [6, 5], [6, 4], [6, 6], [6, 6], 'stay'],
    ['stays with too few reps', [4, 4], [4, 4], [6, 6], [6, 6], 'stay'],
    ['stays with one side never run', [12, 12], [0, 0], [12, 12], [0, 0], 'stay'],
    ['is too high under half clean', [6, 6], [6, 6], [6, 2], [6, 3], 'down'],
    ['is not too high at half clean', [6, 6], [6, 6], [6, 3], [6, 3], 'stay'],
  ] as const)('%s', (_what, a, b, c, d, step) => {
    const rows = [...session('1', 'half', [...a], [...b]), ...session('2', 'half', [...c], [...d])];
    expect(ladderStep(rows)).toEqual({ rung: 'half', step });
  });

  it('is the one run last, whatever went well on another', () => {
    const good = [
      session('1', 'walk', [6, 6], [6, 6]),
      session('2', 'walk', [6, 6], [6, 6]),
    ].flat();
    expect(ladderStep(good)).toEqual({ rung: 'walk', step: 'up' });
    expect(ladderStep([...good, ...session('3', 'half', [3, 3], [3, 3])])).toEqual({
      rung: 'half',
      step: 'stay',
    });
    expect(ladderStep([])).toBeNull();
  });

  it('never falls because a rep was clean instead of not', () => {
    const order = { down: 0, stay: 1, up: 2 };
    const reps = fc.integer({ min: 1, max: 12 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ session: fc.integer({ min: 1, max: 3 }), own: fc.boolean(), reps }), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.infiniteStream(fc.nat(12)),
        fc.nat(7),
        (parts, cleans, which) => {
          const rows = parts
            .sort((a, b) => a.session - b.session)
            .map((part) => ({
              ...{ sessionId: String(part.session), rung: 'half', reps: part.reps },
              side: part.own ? ('own' as const) : ('other' as const),
              clean: Math.min(part.reps, cleans.next().value),
            }));
          const at = which % rows.length;
          const better = rows.map((row, i) =>
            i === at ? { ...row, clean: Math.min(row.reps, row.clean + 1) } : row,
          );
          expect(order[ladderStep(better)!.step]).toBeGreaterThanOrEqual(
            order[ladderStep(rows)!.step],
          );
        },
      ),
    );
  });
});

describe('a moment by the clock of a zone', () => {
  it('shows the day and the hour that were asked, all the year round', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'UTC',
          'Europe/Lisbon',
          'Asia/Kathmandu',
          'America/St_Johns',
          'Pacific/Apia',
        ),
        fc.date({
          min: new Date('2030-01-01T00:00:00Z'),
          max: new Date('2032-12-31T00:00:00Z'),
          noInvalidDate: true,
        }),
        fc.integer({ min: 4, max: 23 }),
        (zone, date, hour) => {
          const day = date.toISOString().slice(0, 10);
          const at = momentIn(zone, day, `${String(hour).padStart(2, '0')}:30`);
          expect([dayIn(zone, at), hourIn(zone, at)]).toEqual([day, hour]);
        },
      ),
    );
    expect(momentIn('Europe/Lisbon', '2031-07-01', '18:00').toISOString()).toBe(
      '2031-07-01T17:00:00.000Z',
    );
    // Put forward at one: half past one is not shown, and is half past two.
    expect(hourIn('Europe/Lisbon', momentIn('Europe/Lisbon', '2031-03-30', '01:30'))).toBe(2);
  });
});
