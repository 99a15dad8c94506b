import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  isAnswer,
  lastOf,
  OUTCOMES,
  turnKey,
  type Outcome,
  type TurnKey,
} from '../src/session/repLog';
import {
  retriesMissed,
  runState,
  together,
  turnOrder,
  STANDS,
  type LoggedRep,
  type Missed,
  type RunSet,
} from '../src/session/runOrder';
import { seriesNext } from '../src/session/seriesNext';
import { AS_PLANNED } from '../src/session/variants';

const axes = AS_PLANNED.vary;
const set: RunSet = {
  ...AS_PLANNED,
  vary: { ...axes, sides: ['own', 'other'] },
  drillSetId: 's1',
  athleteIds: ['ana', 'bo', 'cy'],
  sets: 2,
  reps: 2,
  makes: null,
  stand: 'turns',
  restS: 60,
  setRestS: 180,
};

let made = 0;
const row = (
  { drillSetId, athleteId, set: of, side, variant, rep }: TurnKey,
  outcome: Outcome,
  atMs: number,
  voids: string | null = null,
  hit: boolean | null = null,
): LoggedRep => ({
  drillSetId,
  athleteId,
  set: of,
  side,
  variant,
  rep,
  made: hit,
  watched: true,
  id: `r${String((made += 1)).padStart(4, '0')}`,
  outcome,
  voids,
  device: 'phone',
  deviceNo: made,
  arrival: made,
  atMs,
});

describe('turnOrder', () => {
  it('gives everybody a turn before anybody has two, one side after the other', () => {
    const turns = turnOrder(set);
    expect(turns).toHaveLength(2 * 2 * 2 * 3);
    expect(turns.slice(0, 4).map((t) => t.athleteId)).toEqual(['ana', 'bo', 'cy', 'ana']);
    expect(turns.map((t) => t.side).slice(0, 7)).toEqual([
      ...Array<string>(6).fill('own'),
      'other',
    ]);
    expect(turns.filter((t) => t.athleteId === 'bo').map((t) => t.turn)).toEqual([
      1, 2, 3, 4, 5, 6, 7, 8,
    ]);
  });
});

describe('what was missed last time', () => {
  const spots = ['wing', 'top', 'corner'];
  const makes = { ...set, vary: { ...axes, spots }, sets: 1, makes: 2 };
  const spotsOf = (missed: Missed, of: RunSet = makes) => {
    const turns = turnOrder(of, missed);
    return (id: string) => turns.filter((t) => t.athleteId === id).map((t) => t.variant.slice(5));
  };

  it('comes first, each athlete’s own, and nothing is lost by it', () => {
    const of = spotsOf(
      new Map([
        ['ana', ['own spot=corner', 'own spot=top']],
        ['bo', ['own spot=gone']],
      ]),
    );
    expect(of('ana')).toEqual(['top', 'top', 'corner', 'corner', 'wing', 'wing']);
    expect(of('bo')).toEqual(['wing', 'wing', 'top', 'top', 'corner', 'corner']);
    expect(of('cy')).toEqual(of('bo'));
    fc.assert(
      fc.property(fc.subarray(spots), fc.constantFrom(...STANDS), (owed, stand) => {
        const keys = owed.map((spot) => `own spot=${spot}`);
        const keysOf = (turns: readonly TurnKey[]) => turns.map(turnKey).sort();
        expect(keysOf(turnOrder({ ...makes, stand }, new Map([['ana', keys]])))).toEqual(
          keysOf(turnOrder({ ...makes, stand })),
        );
      }),
    );
  });

  it('changes nothing where attempts count, the coach has mixed it, or slow ones come first', () => {
    const missed: Missed = new Map([['ana', ['own spot=corner']]]);
    for (const change of [
      { makes: null },
      { order: 'mixed' as const },
      { vary: { ...axes, spots, paces: [0.5, 1] } },
    ]) {
      const other = { ...makes, ...change };
      expect(turnOrder(other, missed)).toEqual(turnOrder(other));
    }
  });
});

describe('runState', () => {
  it('walks through all turns, whatever the answers', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom<Outcome>(...OUTCOMES), {
          maxLength: 120,
        }),
        (answers) => {
          const log: LoggedRep[] = [];
          let before = 0;
          answers.forEach((answer, i) => {
            const { up, done, total, next } = runState(set, log);
            const last = lastOf(log, 'phone');
            expect(done).toBe(before);
            expect(total).toBe(24);
            if (answer === 'void') {
              if (!last) return;
              log.push(row(last, 'void', i, last.id));
              if (isAnswer(last)) before -= 1;
              return;
            }
            if (!up) return;
            expect(next).not.toContain(up.athleteId);
            log.push(row(up, answer, i));
            if (isAnswer({ outcome: answer })) before += 1;
          });
          const shuffled = [...log].reverse();
          expect(runState(set, shuffled)).toEqual(runState(set, log));
        },
      ),
    );
  });

  it('has the same athlete again when the finish mark was missed', () => {
    const up = runState(set, []).up!;
    expect(runState(set, [row(up, 'again', 0)]).up).toEqual(up);
  });

  it('counts rest from the own last rep and from the set before', () => {
    const log: LoggedRep[] = [];
    let now = 0;
    for (;;) {
      const { up } = runState(set, log);
      if (!up || up.set === 2) break;
      log.push(row(up, 'clean', (now += 10_000)));
    }
    expect(runState(set, log).readyAtMs).toBe(now + 180_000);
    expect(runState(set, log.slice(0, 3)).readyAtMs).toBe(10_000 + 60_000);
    expect(runState(set, []).readyAtMs).toBeNull();
  });

  it('passes over an athlete who left, keeping what was done', () => {
    const first = runState(set, []).up!;
    const log = [row(first, 'clean', 0)];
    const state = runState(set, log, new Set(['ana', 'bo']));
    expect(state.up!.athleteId).toBe('cy');
    expect(state.done).toBe(1);
    expect(state.total).toBe(9);
  });

  it('has up who is brought forward, while there is a turn to do, and loses nobody', () => {
    const forward = (log: LoggedRep[], who: string) =>
      runState(set, log, new Set(), new Map(), who);
    expect(forward([], 'cy').up).toMatchObject({ athleteId: 'cy', set: 1, rep: 1 });
    expect(forward([], 'cy').next).toEqual(['ana', 'bo']);
    const log = [row(forward([], 'cy').up!, 'clean', 0)];
    expect(runState(set, log).up!.athleteId).toBe('ana');
    expect(runState(set, log).next).toEqual(['bo', 'cy']);
    const own = turnOrder(set).filter((turn) => turn.athleteId === 'cy');
    const done = own.map((turn, i) => row(turn, 'clean', i));
    expect(forward(done, 'cy').up!.athleteId).toBe('ana');
    expect(forward(done, 'cy').open).toHaveLength(16);
  });

  it('is not answered by a row with which somebody leaves, nor tired by it', () => {
    const first = runState(set, []).up!;
    for (const outcome of ['out', 'pain'] as const) {
      const state = runState(set, [row(first, outcome, 5)]);
      expect(state).toMatchObject({ up: first, done: 0, readyAtMs: null });
    }
  });

  it('is done when everybody is', () => {
    const log = turnOrder(set).map((turn, i) => row(turn, i % 5 ? 'clean' : 'skip', i));
    expect(runState(set, log)).toMatchObject({ up: null, next: [], done: 24, readyAtMs: null });
  });
});

it('gives fewer reps to who may do fewer, and counts the set by it', () => {
  const pair: RunSet = { ...set, vary: axes, athleteIds: ['a', 'b'], reps: 4 };
  const most = new Map([['b', 2]]);
  const log: LoggedRep[] = [];
  const seen: string[] = [];
  for (;;) {
    const { up, total } = runState(pair, log, new Set(), most);
    expect(total).toBe(12);
    if (!up) break;
    seen.push(`${up.athleteId}${up.set}.${up.rep}`);
    log.push(row(up, 'clean', log.length));
  }
  expect(seen.filter((turn) => turn.startsWith('b'))).toEqual(['b1.1', 'b1.2', 'b2.1', 'b2.2']);
});

describe('makes', () => {
  const makes: RunSet = {
    ...set,
    vary: { ...axes, moves: ['cross', 'spin'], endings: ['near', 'far'], sides: ['own', 'other'] },
    athleteIds: ['ana', 'bo'],
    sets: 1,
    reps: 7,
    makes: 4,
  };

  it('goes on after so many makes, or after the last try, for each by themselves', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 112, maxLength: 112 }), (luck) => {
        const log: LoggedRep[] = [];
        for (;;) {
          const { up } = runState(makes, log);
          if (!up) break;
          log.push(row(up, 'clean', log.length, null, luck[log.length]!));
        }
        const bouts = new Map<string, boolean[]>();
        for (const { athleteId, side, variant, made } of log) {
          const key = `${athleteId} ${side} ${variant}`;
          bouts.set(key, [...(bouts.get(key) ?? []), made!]);
        }
        expect(bouts.size).toBe(2 * 2 * 2 * 2);
        for (const tries of bouts.values()) {
          const hits = tries.filter(Boolean).length;
          expect(hits === 4 || (hits < 4 && tries.length === 7)).toBe(true);
          if (hits === 4) expect(tries.at(-1)).toBe(true);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('goes through what was missed once more, as a list that is worked off, and counts only what is to come', () => {
    const spots = ['wing', 'top', 'corner'];
    const series: RunSet = {
      ...{ ...makes, vary: { ...axes, spots }, athleteIds: ['ana'], makes: 2, reps: 3 },
      retryMissed: true,
    };
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 18, maxLength: 18 }), (luck) => {
        const log: LoggedRep[] = [];
        for (;;) {
          const { up, total } = runState(series, log);
          const list = seriesNext({
            ...{ items: spots, makes: 2, tries: 3, again: true },
            log: log.map((logged) => logged.made === true),
          });
          expect(up && up.variant.slice(5)).toBe(list.next);
          if (!up) break;
          expect(up.rep > 3 ? up.rep - 3 : up.rep).toBe(list.attempt);
          expect(total).toBeLessThanOrEqual(18);
          log.push(row(up, 'clean', log.length, null, luck[log.length]!));
        }
        expect(log.length).toBeGreaterThanOrEqual(6);
      }),
    );
    expect(runState(series, [])).toMatchObject({ total: 9 });
    const missedWing = [1, 2, 3].map((rep) =>
      row({ ...runState(series, []).up!, rep }, 'clean', rep, null, false),
    );
    expect(runState(series, missedWing)).toMatchObject({ total: 12 });
    expect(retriesMissed({ ...series, stand: 'stations' })).toBe(false);
    const tired = new Map([['ana', 2]]);
    const open = runState(series, missedWing.slice(0, 2), new Set(), tired).open;
    expect(open.map(({ variant }) => variant.slice(5))).toEqual(['top', 'top', 'corner', 'corner']);
  });

  it('takes a make up again when it is taken back', () => {
    const log: LoggedRep[] = [];
    for (let i = 0; i < 8; i += 1) log.push(row(runState(makes, log).up!, 'clean', i, null, true));
    expect(runState(makes, log).up!.variant).toBe('move=cross end=near');
    expect(runState(makes, log).up!.side).toBe('other');
    const last = lastOf(log, 'phone')!;
    log.push(row(last, 'void', 9, last.id));
    expect(runState(makes, log).up).toMatchObject({ athleteId: 'bo', side: 'own', rep: 4 });
  });
});

describe('how people stand', () => {
  it('has as many go together as can, of the same call', () => {
    const state = runState({ ...set, stand: 'row' }, []);
    expect(together(state, 3).map((turn) => turn.athleteId)).toEqual(['ana', 'bo', 'cy']);
    expect(together(state, 2)).toHaveLength(2);
    const log = [row(state.up!, 'clean', 0)];
    expect(together(runState(set, log), 9).map((turn) => turn.athleteId)).toEqual(['bo', 'cy']);
    expect(together({ up: null, open: [] }, 3)).toEqual([]);
  });

  it('sends every group to every station', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 14 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 3 }),
        (people, stations, reps) => {
          const round = turnOrder({
            ...set,
            sets: 1,
            reps,
            stand: 'stations',
            athleteIds: Array.from({ length: people }, (_, i) => `p${i}`),
            vary: { ...axes, moves: Array.from({ length: stations }, (_, i) => `m${i}`) },
          });
          expect(new Set(round.map((turn) => turn.key)).size).toBe(people * stations * reps);
          expect(round).toHaveLength(people * stations * reps);
          const first = round.filter((turn) => turn.turn === 1);
          expect(new Set(first.map((turn) => turn.variant)).size).toBe(Math.min(people, stations));
        },
      ),
    );
  });
});
