import { ladderStep } from '@gravek/core/cue/ladder';
import { groupBy } from '@gravek/core/session/repLog';
import type { DrillChoice } from '@gravek/contract/coachChoices';
import type { DrillReps, ProgressStand } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { drillOf } from './byCode';

const SESSIONS = 2;

const sumOf = (rows: readonly DrillReps[], figure: 'reps' | 'clean'): number =>
  rows.reduce((sum, row) => sum + row[figure], 0);

/** Where somebody stands by what they have run; earliest session first. */
const standByReps = (
  movement: Movement,
  order: readonly string[],
  athleteId: string,
  rows: readonly DrillReps[],
): ProgressStand => {
  const lastDay = rows.at(-1)!.sessionId;
  // Of several on one day the farthest counts.
  const drill = rows
    .filter(({ sessionId }) => sessionId === lastDay)
    .map((row) => row.drill)
    .sort((a, b) => order.indexOf(b) - order.indexOf(a))[0]!;
  const ofDrill = rows.filter((row) => row.drill === drill);
  const { step } = ladderStep(
    ofDrill.map((row) => ({ ...row, rung: drill })),
    drillOf(movement, drill)?.setUp?.sides ?? ['own'],
  )!;
  const sessions = [...groupBy(ofDrill, ({ sessionId }) => sessionId).values()].slice(-SESSIONS);
  const at = order.indexOf(drill);
  const isEnd = (step === 'up' && at === order.length - 1) || (step === 'down' && at === 0);
  return {
    ...{ athleteId, drill, step: isEnd ? 'stay' : step, by: null },
    ...{ reps: sumOf(sessions.flat(), 'reps'), clean: sumOf(sessions.flat(), 'clean') },
  };
};

/**
 * Where everybody stands in the drills of a movement's progression: at the one that was run last, and on to the
 * next when it passes as a rung of a ladder does, on the sides on which the drill is done. A coach's word stands
 * until another drill than the one it named, or that drill itself, is run after it.
 *
 * @param rows of the drills, earliest session first; drills that are not in the progression do not count
 * @param choices the last word of a coach on each
 * @returns one for each who has run any of them, or of whom a coach has said it
 * @example
 * const drill = wallSwitches.progression[0].drill;
 * const run = { athleteId: 'ana', drill, side: 'own', reps: 12, clean: 11 };
 * const rows = ['mon', 'wed'].map((sessionId) => ({ ...run, sessionId }));
 * progressOf(wallSwitches, rows, [])[0].reps // 24
 */
export const progressOf = (
  movement: Movement,
  rows: readonly DrillReps[],
  choices: readonly DrillChoice[],
): ProgressStand[] => {
  const order = (movement.progression ?? []).map(({ drill }) => drill);
  const counted = groupBy(
    rows.filter(({ drill }) => order.includes(drill)),
    ({ athleteId }) => athleteId,
  );
  const said = new Map(
    choices
      .filter(({ drill }) => order.includes(drill))
      .map((choice) => [choice.athleteId, choice]),
  );
  return [...new Set([...counted.keys(), ...said.keys()])].map((athleteId) => {
    const run = counted.get(athleteId) ?? [];
    const word = said.get(athleteId);
    const last = run.at(-1);
    const stand = last ? standByReps(movement, order, athleteId, run) : null;
    if (!word || (stand && (last!.date > word.day || stand.drill === word.drill))) return stand!;
    const ofDrill = run.filter(({ drill }) => drill === word.drill);
    return {
      ...{ athleteId, drill: word.drill, step: 'stay', by: word.person },
      ...{ reps: sumOf(ofDrill, 'reps'), clean: sumOf(ofDrill, 'clean') },
    };
  });
};
