import { groupBy, type Side } from '../session/repLog';

/** Reps of a rung in a session on one side. */
export type RungReps<R extends string = string> = {
  sessionId: string;
  rung: R;
  side: Side;
  reps: number;
  clean: number;
};

export type LadderStep = 'up' | 'down' | 'stay';

const PASSES_FROM = 0.8;
const DOWN_BELOW = 0.5;
const LEAST_REPS = 10;
const SESSIONS = 2;

/**
 * Whether somebody goes on to the next rung of a ladder. A rung passes at four fifths clean or more over
 * ten reps or more, on both sides, in two sessions running; under half clean it is a rung too high.
 *
 * @param rows of one athlete in one movement, earliest session first
 * @param sides on which it must pass; both where nothing is said
 * @returns the rung run last and what becomes of it; null where none was run
 * @example
 * const row = { sessionId: 's1', rung: 'air', side: 'own', reps: 12, clean: 11 };
 * ladderStep([row, { ...row, sessionId: 's2' }, { ...row, side: 'other' }, { ...row, sessionId: 's2', side: 'other' }])
 * // { rung: 'air', step: 'up' }
 */
export const ladderStep = <R extends string>(
  rows: readonly RungReps<R>[],
  sides: readonly Side[] = ['own', 'other'],
): { rung: R; step: LadderStep } | null => {
  const last = rows.at(-1);
  if (!last) return null;
  const { rung } = last;
  const sessions = [
    ...groupBy(
      rows.filter((row) => row.rung === rung),
      (row) => row.sessionId,
    ).values(),
  ].slice(-SESSIONS);
  const shareOf = (some: readonly RungReps<R>[]): { reps: number; clean: number } => {
    const reps = some.reduce((sum, row) => sum + row.reps, 0);
    return { reps, clean: reps === 0 ? 0 : some.reduce((sum, row) => sum + row.clean, 0) / reps };
  };
  const newest = shareOf(sessions.at(-1)!);
  if (newest.reps >= LEAST_REPS && newest.clean < DOWN_BELOW) return { rung, step: 'down' };
  const passes = (some: readonly RungReps<R>[]): boolean =>
    shareOf(some).reps >= LEAST_REPS &&
    sides.every((side) => {
      const sideShare = shareOf(some.filter((row) => row.side === side));
      return sideShare.reps > 0 && sideShare.clean >= PASSES_FROM;
    });
  const up = sessions.length === SESSIONS && sessions.every(passes);
  return { rung, step: up ? 'up' : 'stay' };
};
