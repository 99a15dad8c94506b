import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  isAnswer,
  lastOf,
  OUTCOMES,
  runState,
  turnOrder,
  type LoggedRep,
  type Outcome,
  type RunSet,
  type Turn,
} from '../src';

const set: RunSet = {
  drillSetId: 's1',
  athleteIds: ['ana', 'bo', 'cy'],
  sets: 2,
  reps: 2,
  sides: ['own', 'other'],
  restS: 60,
  setRestS: 180,
};

let made = 0;
const row = (
  { drillSetId, athleteId, set: of, side, rep }: Omit<Turn, 'turn'>,
  outcome: Outcome,
  atMs: number,
  voids: string | null = null,
): LoggedRep => ({
  drillSetId,
  athleteId,
  set: of,
  side,
  rep,
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
  const set = {
    drillSetId: 's',
    athleteIds: ['a', 'b'],
    sets: 2,
    reps: 4,
    sides: ['own' as const],
    restS: 0,
    setRestS: 0,
  };
  const most = new Map([['b', 2]]);
  const log: LoggedRep[] = [];
  const seen: string[] = [];
  for (;;) {
    const { up, total } = runState(set, log, new Set(), most);
    expect(total).toBe(12);
    if (!up) break;
    seen.push(`${up.athleteId}${up.set}.${up.rep}`);
    log.push({
      ...up,
      id: `${log.length}`,
      outcome: 'clean',
      voids: null,
      device: 'd',
      deviceNo: log.length + 1,
      arrival: null,
      atMs: log.length,
    });
  }
  expect(seen.filter((turn) => turn.startsWith('b'))).toEqual(['b1.1', 'b1.2', 'b2.1', 'b2.2']);
});
