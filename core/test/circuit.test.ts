import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  circuit,
  circuitS,
  clockCalls,
  clockStand,
  stationOf,
  type ClockAct,
} from '../src/session/circuit';

const PLAN = { stations: 3, minutes: 8, changeS: 60 };
const START: ClockAct = { id: 'start', kind: 'start', atMs: 0 };
const act = (kind: ClockAct['kind'], atS: number, of: string | null = null): ClockAct => ({
  id: `${kind} ${atS}`,
  kind,
  atMs: 1000 * atS,
  of,
});
const at = (atS: number, ...acts: ClockAct[]) => clockStand(PLAN, [START, ...acts], 1000 * atS);

describe('a clock for groups', () => {
  it('stops while it is held, and goes on where it stood', () => {
    expect(at(200, act('hold', 100))).toMatchObject({ round: 1, leftS: 380, held: true });
    expect(at(300, act('hold', 100), act('resume', 250))).toMatchObject({
      leftS: 330,
      held: false,
    });
  });

  it('gives the round that runs a minute more, and only that', () => {
    expect(at(500, act('more', 470))).toMatchObject({ round: 1, changing: false, leftS: 40 });
    expect(at(660, act('more', 470))).toMatchObject({ round: 2, leftS: 420 });
  });

  it('changes at once when it is told to, also when it is held', () => {
    expect(at(110, act('change', 100))).toMatchObject({ round: 1, changing: true, leftS: 50 });
    // Once more ends the change.
    expect(at(110, act('change', 100), act('change', 105))).toMatchObject({
      ...{ round: 2, changing: false, leftS: 475 },
    });
    expect(at(110, act('hold', 50), act('change', 100))).toMatchObject({
      changing: true,
      held: false,
    });
  });

  it('changes once where two press at the same time, or just when the round ends by itself', () => {
    const first = act('change', 100, 'round 1');
    const second = { ...act('change', 101, 'round 1'), id: 'other phone' };
    expect(at(110, first, second)).toEqual(at(110, first));
    expect(at(490, act('change', 481, 'round 1'))).toEqual(at(490));
  });

  it('takes back what was pressed by mistake', () => {
    expect(at(110, act('change', 100), act('undo', 105, 'change 100'))).toEqual(at(110));
    // Before it was taken back it stood.
    expect(at(103, act('change', 100), act('undo', 105, 'change 100'))).toEqual(
      at(103, act('change', 100)),
    );
  });

  it('ends, and can be begun anew', () => {
    expect(at(110, act('end', 100))).toMatchObject({ round: 0, running: false, leftS: 0 });
    expect(at(210, act('end', 100), act('start', 200))).toMatchObject({ round: 1, leftS: 470 });
    expect(at(5000)).toMatchObject({ round: 3, over: true, leftS: 0 });
    // What is pressed after the end changes nothing.
    expect(at(5000, act('more', 4000), act('change', 4100))).toEqual(at(5000));
  });

  it('counts down to a start that lies ahead', () => {
    expect(clockStand(PLAN, [act('start', 100)], 90_000)).toMatchObject({ round: 0, leftS: 10 });
    expect(clockStand(PLAN, [], 90_000)).toMatchObject({ round: 0, leftS: 0, running: false });
  });

  it('calls the last minute, the change, ready and go, each in its time', () => {
    expect(clockCalls(PLAN, at(410))).toEqual([
      { inS: 10, word: 'last-minute' },
      { inS: 70, word: 'change' },
    ]);
    expect(clockCalls(PLAN, at(450))).toEqual([{ inS: 30, word: 'change' }]);
    expect(clockCalls(PLAN, at(500))).toEqual([
      { inS: 35, word: 'ready' },
      { inS: 40, word: 'go' },
    ]);
    expect(clockCalls(PLAN, at(1550))).toEqual([{ inS: 10, word: 'stop' }]);
    expect(clockCalls(PLAN, at(200, act('hold', 100)))).toEqual([]);
    const withoutChange = { ...PLAN, changeS: 0 };
    expect(clockCalls(withoutChange, clockStand(withoutChange, [START], 470_000))).toEqual([
      { inS: 10, word: 'change' },
      { inS: 11, word: 'go' },
    ]);
  });

  it('sends every group to every station once, never two to the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }).chain((stations) =>
          fc.record({
            stations: fc.constant(stations),
            groups: fc.integer({ min: 1, max: stations }),
          }),
        ),
        ({ stations, groups }) => {
          const rounds = Array.from({ length: stations }, (_, i) => i + 1);
          for (let group = 0; group < groups; group += 1) {
            const seen = new Set(rounds.map((round) => stationOf(group, round, stations)));
            expect(seen.size).toBe(stations);
          }
          for (const round of rounds) {
            const taken = Array.from({ length: groups }, (_, i) => stationOf(i, round, stations));
            expect(new Set(taken).size).toBe(groups);
          }
        },
      ),
    );
  });

  it('is the same in whatever order its acts arrive, and never has more left than there is', () => {
    const kinds = fc.constantFrom<ClockAct['kind']>('hold', 'resume', 'more', 'change', 'end');
    fc.assert(
      fc.property(
        fc.array(fc.tuple(kinds, fc.integer({ min: 1, max: 2000 })), { maxLength: 12 }),
        fc.integer({ min: 0, max: 3000 }),
        (some, atS) => {
          const acts = some.map(([kind, s], i): ClockAct => ({ ...act(kind, s), id: `${i}` }));
          const stand = at(atS, ...acts);
          expect(at(atS, ...acts.toReversed())).toEqual(stand);
          const more = some.filter(([kind]) => kind === 'more').length;
          expect(stand.leftS).toBeGreaterThanOrEqual(0);
          expect(stand.leftS).toBeLessThanOrEqual(60 * (PLAN.minutes + more));
        },
      ),
    );
  });

  it('refuses more groups than stations, and no time at all', () => {
    const ask = { groups: ['a', 'b'], stations: ['x'], minutes: 5, changeS: 0, startS: 0, atS: 0 };
    expect(() => circuit(ask)).toThrow('groups');
    expect(() => circuitS({ ...PLAN, minutes: 0 })).toThrow('minutes');
    expect(circuitS(PLAN)).toBe(3 * 480 + 2 * 60);
  });
});
