import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countReps } from '../src/session/repCounts';
import {
  type CountedRow,
  inLogOrder,
  isAnswer,
  lastOf,
  type Outcome,
  OUTCOMES,
  standing,
  turnKey,
  wasRun,
} from '../src/session/repLog';
import { loggedTwice } from '../src/session/loggedTwice';
import { runState } from '../src/session/runOrder';
import { AS_PLANNED } from '../src/session/variants';
import { evenly } from './evenly';

const PHONES = ['phone-a', 'phone-b', 'phone-c'];
const FAULTS = ['reaches', 'hurries', 'constructor', '__proto__'];

/** A rep of Ana's, clean and of the first turn unless it is changed. */
const row = (id: string, change: Partial<CountedRow> = {}): CountedRow => ({
  id,
  sessionId: 's1',
  turn: 1,
  at: '2031-05-14T10:00:00.000Z',
  loggedBy: null,
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
  watched: true,
  could: FAULTS,
  drillSetId: 'd1',
  athleteId: 'ana',
  movement: 'run-up',
  part: null,
  set: 1,
  side: 'own',
  variant: '',
  rep: 1,
  leadFoot: 'left',
  speedPct: 100,
  rung: null,
  exit: null,
  outcome: 'clean',
  made: null,
  voids: null,
  faults: [],
  cue: null,
  load: null,
  device: PHONES[0]!,
  deviceNo: 1,
  arrival: null,
  ...change,
});

/** Logs as several phones make them: numbered on each phone, arriving in any order, some not yet. */
const logs = fc
  .array(
    fc.record({
      phone: fc.nat({ max: 2 }),
      rep: fc.integer({ min: 1, max: 3 }),
      athlete: fc.constantFrom('ana', 'bo'),
      outcome: fc.constantFrom<Outcome>(...OUTCOMES),
      faults: fc.uniqueArray(fc.constantFrom(...FAULTS), { maxLength: 3 }),
      voided: fc.nat(),
      order: evenly(0, 1),
      waits: fc.boolean(),
      speedPct: fc.constantFrom(60, 100),
    }),
    { maxLength: 40 },
  )
  .map((made) => {
    const numbers = [0, 0, 0];
    const arrived = made.map((one, i) => ({ i, at: one.order })).sort((a, b) => a.at - b.at);
    const log: CountedRow[] = [];
    made.forEach((one, i) => {
      const own = { athleteId: one.athlete, rep: one.rep };
      const targets = log.filter((it) => it.outcome !== 'void');
      const target = targets[one.voided % Math.max(1, targets.length)];
      if (one.outcome === 'void' && !target) return;
      log.push(
        row(`r${String(i).padStart(3, '0')}`, {
          ...(one.outcome === 'void'
            ? { athleteId: target!.athleteId, rep: target!.rep, voids: target!.id }
            : own),
          outcome: one.outcome,
          faults: one.outcome === 'fault' ? one.faults : [],
          speedPct: one.speedPct,
          device: PHONES[one.phone]!,
          deviceNo: (numbers[one.phone]! += 1),
          arrival: one.waits ? null : arrived.findIndex((it) => it.i === i) + 1,
        }),
      );
    });
    return log;
  });

const shuffledBy = <T>(list: readonly T[], seed: number): T[] =>
  list
    .map((item, i) => ({ item, key: Math.sin((i + 1) * (seed + 1)) }))
    .sort((a, b) => a.key - b.key)
    .map(({ item }) => item);

describe('the order of logging', () => {
  it('is each device’s own, whatever arrives when, and the same for any list of the same rows', () => {
    fc.assert(
      fc.property(logs, fc.nat(), (log, seed) => {
        const ordered = inLogOrder(log);
        for (const phone of PHONES) {
          const numbers = ordered
            .filter((countedRow) => countedRow.device === phone)
            .map((countedRow) => countedRow.deviceNo);
          expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
        }
        expect(inLogOrder(shuffledBy(log, seed))).toEqual(ordered);
        expect(ordered).toHaveLength(log.length);
      }),
    );
  });

  it('is that of arrival between devices, and what waits comes last', () => {
    const ordered = inLogOrder([
      row('waits', { device: 'b', deviceNo: 1, arrival: null }),
      row('second', { device: 'a', deviceNo: 1, arrival: 2 }),
      row('first', { device: 'c', deviceNo: 9, arrival: 1 }),
    ]);
    expect(ordered.map((countedRow) => countedRow.id)).toEqual(['first', 'second', 'waits']);
  });
});

describe('what stands', () => {
  it('is one answer a turn at most, none of it taken back, for any log in any order', () => {
    fc.assert(
      fc.property(logs, fc.nat(), (log, seed) => {
        const stands = standing(log);
        const taken = new Set(log.map((countedRow) => countedRow.voids));
        expect(
          stands.some((countedRow) => countedRow.outcome === 'void' || taken.has(countedRow.id)),
        ).toBe(false);
        const answers = stands.filter(isAnswer).map(turnKey);
        expect(new Set(answers).size).toBe(answers.length);
        // Every turn that was answered and not wholly taken back has its answer.
        const open = log.filter(isAnswer);
        for (const other of open.filter((it) => !taken.has(it.id))) {
          expect(answers).toContain(turnKey(other));
        }
        const ids = (rows: readonly CountedRow[]) => rows.map((row) => row.id).sort();
        expect(ids(standing(shuffledBy(log, seed)))).toEqual(ids(stands));
      }),
    );
  });

  it('tells the later half of a set from the early one, whichever side it was on, and what was read', () => {
    const set = [1, 2, 3, 4, 5].map((turn) =>
      row(`r${turn}`, {
        rep: turn,
        turn,
        deviceNo: 10 - turn,
        side: turn % 2 ? 'own' : 'other',
        exit: 'go:left',
        taken: turn === 5 ? null : turn > 3 ? 'go:right' : 'go:left',
        right: turn === 5 ? null : turn <= 3,
        lateS: turn < 3 ? 0.4 : null,
      }),
    );
    const counts = countReps(set);
    const of = (late: boolean) => counts.filter((count) => count.late === late);
    const sum = (list: typeof counts, key: 'reps' | 'read' | 'right' | 'timed'): number =>
      list.reduce((all, count) => all + count[key], 0);
    expect([sum(of(false), 'reps'), sum(of(true), 'reps')]).toEqual([3, 2]);
    expect([sum(counts, 'read'), sum(counts, 'right'), sum(counts, 'timed')]).toEqual([4, 3, 2]);
    // Whatever order they come in, also where turns leave it open.
    const even = set.map((countedRow) => ({ ...countedRow, turn: 1 }));
    const ids = (list: CountedRow[]) =>
      countReps(list)
        .map((rep) => `${rep.side} ${rep.late} ${rep.reps}`)
        .sort();
    expect(ids([...even].reverse())).toEqual(ids(even));
    // Another set begins early again.
    const next = row('n1', { set: 2, turn: 6 });
    expect(countReps([...set, next]).filter((rep) => !rep.late)).toHaveLength(3);
  });

  it('keeps touches, metres and minutes, tells spots apart, and a tap from what was heard', () => {
    const counts = countReps([
      row('b', { rep: 2, turn: 2, touchS: [0, 1.5] }),
      row('a', { touchS: [0, 1] }),
      row('run', { rep: 3, turn: 3, ranM: 400, ranS: 90.5 }),
      row('minutes', { rep: 4, turn: 4, ranS: 60 }),
      row('tap', { rep: 5, turn: 5, lateS: 0.9, lateBy: 'tap' }),
      row('heard', { rep: 6, turn: 6, lateS: 0.4, lateBy: 'sound' }),
      row('slow', { rep: 7, turn: 7, lateS: 4, lateBy: 'film' }),
      row('wing', { rep: 8, turn: 8, spot: 'wing', made: true }),
      row('top', { rep: 9, turn: 9, spot: 'top', made: false }),
    ]);
    const rounds = counts.flatMap((count) => count.rounds);
    expect(rounds.map(({ turn, touchS }) => [turn, touchS])).toEqual([
      [1, [0, 1]],
      [2, [0, 1.5]],
    ]);
    const sum = (key: 'runs' | 'ranM' | 'ranS' | 'timed' | 'heard' | 'lateS' | 'heardS') =>
      counts.reduce((all, count) => all + count[key], 0);
    expect([sum('runs'), sum('ranM'), sum('ranS')]).toEqual([2, 400, 150.5]);
    expect([sum('timed'), sum('lateS'), sum('heard'), sum('heardS')]).toEqual([1, 0.9, 1, 0.4]);
    const at = (spot: string | null) => counts.filter((count) => count.spot === spot);
    expect([at('wing'), at('top')]).toMatchObject([
      [{ tried: 1, made: 1 }],
      [{ tried: 1, made: 0 }],
    ]);
    expect(at(null).every(({ tried }) => tried === 0)).toBe(true);
  });

  it('counts two phones on one turn once: the first that arrived', () => {
    const early = row('early', { device: 'a', deviceNo: 7, arrival: 1 });
    const late = row('late', {
      device: 'b',
      deviceNo: 1,
      arrival: 2,
      outcome: 'fault',
      faults: ['reaches'],
    });
    expect(standing([late, early]).map((countedRow) => countedRow.id)).toEqual(['early']);
    expect(countReps([late, early])).toMatchObject([{ reps: 1, faults: [] }]);
    const back = row('back', {
      device: 'a',
      deviceNo: 8,
      arrival: 3,
      outcome: 'void',
      voids: 'early',
    });
    expect(standing([late, early, back]).map((countedRow) => countedRow.id)).toEqual(['late']);
    const passed = row('passed', { device: 'c', deviceNo: 1, arrival: 0, outcome: 'skip' });
    expect(standing([passed, late]).map((countedRow) => countedRow.id)).toEqual(['late']);
  });

  it('is not upset by a void that came before its rep', () => {
    const back = row('back', { deviceNo: 2, arrival: 1, outcome: 'void', voids: 'slip' });
    expect(standing([back])).toEqual([]);
    expect(standing([back, row('slip', { deviceNo: 1, arrival: 2 })])).toEqual([]);
  });
});

describe('undo', () => {
  it('takes back this phone’s own last row, though another’s clock is ahead', () => {
    const ahead = { at: '2031-05-14T10:02:00Z' };
    const theirs = { ...row('theirs', { device: 'b', rep: 1, arrival: 2 }), ...ahead };
    const mine = row('mine', { device: 'a', deviceNo: 4, rep: 2, arrival: 3 });
    const log = [theirs, mine];
    expect(lastOf(log, 'a')!.id).toBe('mine');
    expect(lastOf(log, 'b')!.id).toBe('theirs');
    // A phone that has logged nothing takes back the last that arrived.
    expect(lastOf(log, 'c')!.id).toBe('mine');
    const back = row('back', { device: 'a', deviceNo: 5, rep: 2, outcome: 'void', voids: 'mine' });
    expect(lastOf([...log, back], 'a')!.id).toBe('theirs');
    expect(lastOf([], 'a')).toBeNull();
  });

  it('walks all the way back through any log', () => {
    fc.assert(
      fc.property(logs, (log) => {
        const now = log.map((countedRow) => ({ ...countedRow, atMs: 0 }));
        for (let i = 0; i < 200; i += 1) {
          const last = lastOf(now, PHONES[0]!);
          if (!last) break;
          now.push({
            ...last,
            id: `undo${i}`,
            outcome: 'void',
            voids: last.id,
            deviceNo: 1000 + i,
          });
        }
        expect(standing(now)).toEqual([]);
        const set = {
          ...AS_PLANNED,
          drillSetId: 'd1',
          athleteIds: ['ana', 'bo'],
          sets: 1,
          reps: 3,
          makes: null,
          stand: 'turns' as const,
          restS: 0,
          setRestS: 0,
        };
        expect(runState(set, now).done).toBe(0);
      }),
    );
  });
});

describe('turns that were logged twice', () => {
  it('are told with the row that stands, until one of the two is taken back', () => {
    fc.assert(
      fc.property(logs, (log) => {
        const stands = new Set(standing(log).map((countedRow) => countedRow.id));
        const twice = loggedTwice(log);
        for (const pair of twice) {
          expect(turnKey(pair.other)).toBe(turnKey(pair.stands));
          expect(stands.has(pair.stands.id)).toBe(true);
          expect(stands.has(pair.other.id)).toBe(false);
        }
        const undo = twice.map(({ other }, i) =>
          row(`undo${i}`, { ...other, id: `undo${i}`, outcome: 'void', voids: other.id }),
        );
        expect(loggedTwice([...log, ...undo])).toEqual([]);
      }),
    );
  });
});

describe('counts', () => {
  it('add up to the reps that stand, condition by condition, for any log', () => {
    fc.assert(
      fc.property(logs, (log) => {
        const stands = standing(log).filter(wasRun);
        const counts = countReps(log);
        expect(counts.reduce((sum, count) => sum + count.reps, 0)).toBe(stands.length);
        for (const fault of FAULTS) {
          const seen = stands.filter((countedRow) => countedRow.faults.includes(fault)).length;
          const counted = counts.flatMap((count) =>
            count.faults.filter((it) => it.fault === fault),
          );
          expect(counted.reduce((sum, one) => sum + one.reps, 0)).toBe(seen);
        }
        for (const speedPct of [60, 100]) {
          const own = counts.filter((count) => count.speedPct === speedPct);
          expect(own.reduce((sum, count) => sum + count.reps, 0)).toBe(
            stands.filter((countedRow) => countedRow.speedPct === speedPct).length,
          );
        }
      }),
    );
  });
});
