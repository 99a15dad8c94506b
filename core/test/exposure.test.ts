import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { couldShow, exposure } from '../src/cue/exposure';
import { standing, type CountedRow } from '../src/session/repLog';
import { toldDifferently } from '../src/session/loggedTwice';
import { watchNext } from '../src/cue/watchNext';

const PHASES = ['set', 'back', 'left', 'right'];
const EXITS = ['back:left', 'back:right', 'set:go'];
const faults = fc.uniqueArray(
  fc.record({
    code: fc.constantFrom('heels', 'level', 'wrong', 'constructor', '__proto__'),
    phases: fc.uniqueArray(fc.constantFrom(...PHASES), { maxLength: 3 }),
    read: fc.boolean(),
  }),
  { selector: ({ code }) => code, maxLength: 5 },
);
const view = fc.record({
  phases: fc.uniqueArray(fc.constantFrom(...PHASES)),
  asked: fc.option(fc.constantFrom(...EXITS)),
  without: fc.uniqueArray(fc.constantFrom('heels', 'wrong'), { maxLength: 1 }),
});

describe('what a rep could show', () => {
  it('never grows when less of the movement is run, nor when a school calls a fault none', () => {
    fc.assert(
      fc.property(faults, view, (list, rep) => {
        const could = couldShow(list, rep);
        for (const gone of rep.phases) {
          const less = rep.phases.filter((phase) => phase !== gone);
          for (const code of couldShow(list, { ...rep, phases: less })) {
            expect(could).toContain(code);
          }
        }
        const all = couldShow(list, { ...rep, without: [] });
        expect(could).toEqual(all.filter((code) => !(rep.without as string[]).includes(code)));
      }),
    );
  });

  it('is counted once a watched rep, and nothing is counted that nobody watched', () => {
    const reps = fc.array(
      fc.tuple(view, fc.boolean(), fc.uniqueArray(fc.constantFrom('heels', 'level', 'wrong'))),
    );
    fc.assert(
      fc.property(faults, reps, (list, drawn) => {
        const rows = drawn.map(([rep, watched, shown]) => ({ ...rep, watched, faults: shown }));
        const counts = exposure({ faults: list, reps: rows });
        for (const { code } of list) {
          const by = Object.getOwnPropertyDescriptor(counts, code)!.value as {
            reps: number;
            faults: number;
          };
          const exposed = rows.filter((row) => row.watched && couldShow(list, row).includes(code));
          expect(by.reps).toBe(exposed.length);
          expect(by.faults).toBeLessThanOrEqual(by.reps);
        }
        const unwatched = rows.map((row) => ({ ...row, watched: false }));
        for (const count of Object.values(exposure({ faults: list, reps: unwatched }))) {
          expect(count).toEqual({ reps: 0, faults: 0 });
        }
      }),
    );
  });
});

describe('whom to watch next', () => {
  it('are neighbours, and over some calls nobody is left out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 24 }), fc.integer({ min: 1, max: 6 }), (n, atOnce) => {
        const row = Array.from({ length: n }, (_, i) => `athlete ${i}`);
        const watched: Record<string, number> = {};
        const calls = 3 * Math.ceil(n / atOnce) * atOnce;
        for (let call = 0; call < calls; call += 1) {
          const { ids } = watchNext({ row, watched, atOnce });
          expect(ids).toHaveLength(Math.min(n, atOnce));
          const from = row.indexOf(ids[0]!);
          expect(ids).toEqual(row.slice(from, from + ids.length));
          for (const id of ids) watched[id] = (watched[id] ?? 0) + 1;
        }
        const times = row.map((id) => watched[id] ?? 0);
        expect(Math.min(...times)).toBeGreaterThan(0);
      }),
    );
  });

  it('says what it cannot do', () => {
    expect(() => watchNext({ row: ['a'], watched: {}, atOnce: 0 })).toThrow('atOnce');
    expect(watchNext({ row: ['__proto__', 'b'], watched: {}, atOnce: 1 }).ids).toEqual([
      '__proto__',
    ]);
  });
});

describe('two who watch the same row', () => {
  const row = (id: string, change: Partial<CountedRow>): CountedRow => ({
    ...{ id, sessionId: 's', drillSetId: 'd', athleteId: 'ana', movement: 'm', part: null },
    ...{ set: 1, side: 'own', variant: '', rep: 1, turn: 1, leadFoot: null, speedPct: null },
    ...{
      rung: null,
      exit: null,
      ways: null,
      taken: null,
      right: null,
      heldS: null,
      lateS: null,
      lateBy: null,
      spot: null,
      touchS: null,
      ranM: null,
      ranS: null,
      made: null,
      voids: null,
    },
    ...{ outcome: 'clean', faults: [], could: ['heels'], watched: true, cue: null, load: null },
    ...{ device: id, deviceNo: 1, arrival: null, at: '2031-05-14T10:00:00.000Z', loggedBy: id },
    ...change,
  });

  it('has the one who watched stand, whoever was first', () => {
    const first = row('a', { arrival: 1, watched: false });
    const second = row('b', { arrival: 2, outcome: 'fault', faults: ['heels'] });
    expect(standing([first, second]).map(({ id }) => id)).toEqual(['b']);
    expect(toldDifferently([first, second])).toEqual([]);
  });

  it('asks about what they tell differently, and about nothing else', () => {
    const clean = row('a', { arrival: 1 });
    const same = row('b', { arrival: 2 });
    const other = row('c', { arrival: 3, outcome: 'fault', faults: ['heels'] });
    expect(toldDifferently([clean, same])).toEqual([]);
    expect(toldDifferently([clean, same, other]).map((two) => two.other.id)).toEqual(['c']);
    expect(
      toldDifferently([
        row('a', { arrival: 1, made: true }),
        row('b', { arrival: 2, made: false }),
      ]),
    ).toHaveLength(1);
  });
});
