import type { DrillReps } from '@gravek/contract/faults';
import { describe, expect, it } from 'vitest';
import { MOVEMENTS, movementOf } from '../src/movement/movements';
import { progressOf } from '../src/movement/progress';

const walls = movementOf('wall-switches');
const order = walls.progression!.map(({ drill }) => drill);

const ran = (
  sessionId: string,
  drill: string,
  clean: number,
  change: Partial<DrillReps> = {},
): DrillReps[] =>
  (['own', 'other'] as const).map((side) => ({
    ...{ athleteId: 'ana', drill, sessionId, date: sessionId, side, reps: 10, clean },
    ...change,
  }));

const standsOf = (rows: readonly DrillReps[]) => progressOf(walls, rows, []);

describe('where somebody stands in a progression', () => {
  it('is at the drill run last, and on when it passed in two sessions running', () => {
    const [first, second] = order as [string, string];
    expect(standsOf(ran('d1', first, 9))).toMatchObject([{ drill: first, step: 'stay' }]);
    const twice = [...ran('d1', first, 9), ...ran('d2', first, 8)];
    expect(standsOf(twice)).toMatchObject([{ drill: first, step: 'up', reps: 40, clean: 34 }]);
    // A coach who has gone on by hand has decided it.
    const byHand = [...ran('d1', first, 2), ...ran('d2', second, 9)];
    expect(standsOf(byHand)).toMatchObject([{ drill: second, step: 'stay' }]);
    expect(standsOf([...byHand, ...ran('d3', second, 3)])).toMatchObject([
      { drill: second, step: 'down' },
    ]);
  });

  it('of two drills on one day it is the farther one; one that is in no progression does not count', () => {
    const [first, second] = order as [string, string];
    const both = [...ran('d1', second, 9), ...ran('d1', first, 9)];
    expect(standsOf(both)).toMatchObject([{ drill: second }]);
    expect(standsOf([...both, ...ran('d2', 'not-of-it', 9)])).toMatchObject([{ drill: second }]);
    expect(progressOf({ ...walls, progression: [] }, both, [])).toEqual([]);
  });

  it('after the last drill there is nothing to go on to, before the first nothing to go back to', () => {
    const last = order.at(-1)!;
    const done = [...ran('d1', last, 10), ...ran('d2', last, 10)];
    expect(standsOf(done)).toMatchObject([{ drill: last, step: 'stay' }]);
    expect(standsOf(ran('d1', order[0]!, 1))).toMatchObject([{ step: 'stay' }]);
  });

  it('a drill that is done on one side passes on that side', () => {
    for (const movement of MOVEMENTS) {
      const [first, next] = movement.progression ?? [];
      const drill = movement.drills.find(({ code }) => code === first?.drill);
      if (!drill || !next) continue;
      const sides = drill.setUp?.sides ?? ['own'];
      const rows = ['d1', 'd2'].flatMap((day) =>
        ran(day, drill.code, 10).filter(({ side }) => sides.includes(side)),
      );
      expect(progressOf(movement, rows, []), movement.code).toMatchObject([{ step: 'up' }]);
    }
  });

  it('is where a coach has said, until something is run after that', () => {
    const [first, second, third] = order as [string, string, string];
    const word = { athleteId: 'ana', drill: third, day: 'd1', person: 'Coach' };
    expect(progressOf(walls, [], [word])).toEqual([
      { athleteId: 'ana', drill: third, step: 'stay', reps: 0, clean: 0, by: 'Coach' },
    ]);
    const run = ran('d1', first, 9);
    expect(progressOf(walls, run, [word])).toMatchObject([{ drill: third, by: 'Coach' }]);
    // What is run later counts again; so do reps of the drill that was named.
    const later = [...run, ...ran('d2', second, 9)];
    expect(progressOf(walls, later, [word])).toMatchObject([{ drill: second, by: null }]);
    const there = [...run, ...ran('d1', third, 9)];
    expect(progressOf(walls, there, [word])).toMatchObject([{ drill: third, by: null, reps: 20 }]);
    // A drill that has left the progression says nothing.
    expect(progressOf(walls, [], [{ ...word, drill: 'gone' }])).toEqual([]);
  });
});
