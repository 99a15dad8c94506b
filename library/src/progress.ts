import { ladderStep } from '@gravek/core/ladder';
import { groupBy } from '@gravek/core/repLog';
import type { DrillReps, ProgressStand } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { drillOf } from './byCode';

const SESSIONS = 2;

const sumOf = (rows: readonly DrillReps[], figure: 'reps' | 'clean'): number =>
  rows.reduce((sum, row) => sum + row[figure], 0);

/**
 * Where everybody stands in the drills of a movement's progression: at the one that was run last, and on to the
 * next when it passes as a rung of a ladder does, on the sides on which the drill is done.
 *
 * @param rows of the drills, earliest session first; drills that are not in the progression do not count
 * @returns one for each who has run any of them
 * @example progressOf(wallSwitches, rows)[0] // { athleteId, drill: 'one-freeze', step: 'up', reps: 24, clean: 21 }
 */
export const progressOf = (movement: Movement, rows: readonly DrillReps[]): ProgressStand[] => {
  const order = (movement.progression ?? []).map(({ drill }) => drill);
  const counted = rows.filter(({ drill }) => order.includes(drill));
  return [...groupBy(counted, ({ athleteId }) => athleteId)].map(([athleteId, own]) => {
    const lastDay = own.at(-1)!.sessionId;
    // Of several on one day the farthest counts.
    const drill = own
      .filter(({ sessionId }) => sessionId === lastDay)
      .map((row) => row.drill)
      .sort((a, b) => order.indexOf(b) - order.indexOf(a))[0]!;
    const ofDrill = own.filter((row) => row.drill === drill);
    const { step } = ladderStep(
      ofDrill.map((row) => ({ ...row, rung: drill })),
      drillOf(movement, drill)?.setUp?.sides ?? ['own'],
    )!;
    const sessions = [...groupBy(ofDrill, ({ sessionId }) => sessionId).values()].slice(-SESSIONS);
    const at = order.indexOf(drill);
    const isEnd = (step === 'up' && at === order.length - 1) || (step === 'down' && at === 0);
    return {
      ...{ athleteId, drill, step: isEnd ? 'stay' : step },
      ...{ reps: sumOf(sessions.flat(), 'reps'), clean: sumOf(sessions.flat(), 'clean') },
    };
  });
};
