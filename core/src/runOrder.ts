import { whole } from './check';
import {
  isAnswer,
  standing,
  turnKey,
  wasRun,
  type LogRow,
  type Side,
  type TurnKey,
} from './repLog';

export type RunSet = {
  drillSetId: string;
  athleteIds: readonly string[];
  sets: number;
  reps: number;
  sides: readonly Side[];
  restS: number;
  setRestS: number;
};

export type Turn = TurnKey & {
  /** the athlete's how-manieth turn of the drill set, from 1 */
  turn: number;
};

export type LoggedRep = LogRow & {
  /** when it was logged by the device's clock, milliseconds since 1970; only rest goes by it */
  atMs: number;
};

export type RunState = {
  /** null when the drill set is done */
  up: Turn | null;
  /** all that is left to do, in order */
  open: Turn[];
  /** who comes after, nearest first, one entry an athlete */
  next: string[];
  /** when the one who is up has rested, milliseconds since 1970; null when there is nothing to rest from */
  readyAtMs: number | null;
  done: number;
  total: number;
};

/**
 * Every turn of a drill set in order: in each set, side after side, everybody does rep 1 in turn,
 * then rep 2, and so on.
 *
 * @throws {RangeError} when sets or reps are not within 1–100
 */
export const turnOrder = (set: RunSet): Turn[] => {
  whole('sets', set.sets, { min: 1, max: 100 });
  whole('reps', set.reps, { min: 1, max: 100 });
  const turns: Turn[] = [];
  let turn = 0;
  for (let s = 1; s <= set.sets; s += 1) {
    for (const side of set.sides) {
      for (let rep = 1; rep <= set.reps; rep += 1) {
        turn += 1;
        for (const athleteId of set.athleteIds) {
          turns.push({ drillSetId: set.drillSetId, athleteId, set: s, side, rep, turn });
        }
      }
    }
  }
  return turns;
};

/**
 * Where a drill set stands, worked out from its log alone, so that a reload, a second phone or a late
 * row can never put it in a state of its own.
 *
 * @param log rows of this drill set, in any order
 * @param away athletes who have left the set; their open turns are passed over
 * @param most reps a side and set for athletes who may do fewer than the others
 * @param first who is brought forward: up before all others, as long as there is a turn to do
 * @example
 *   const { up, next } = runState(set, log, new Set(['somebody who has left']));
 *   // up: whose turn it is; null when the drill set is done
 */
export const runState = (
  set: RunSet,
  log: readonly LoggedRep[],
  away: ReadonlySet<string> = new Set(),
  most: ReadonlyMap<string, number> = new Map(),
  first: string | null = null,
): RunState => {
  const rows = standing(log.filter((row) => row.drillSetId === set.drillSetId));
  const answered = new Set(rows.filter(isAnswer).map(turnKey));
  const turns = turnOrder(set).filter(
    (turn) =>
      answered.has(turnKey(turn)) ||
      (!away.has(turn.athleteId) && turn.rep <= (most.get(turn.athleteId) ?? Infinity)),
  );
  const open = turns.filter((turn) => !answered.has(turnKey(turn)));
  const up = open.find((turn) => turn.athleteId === first) ?? open[0] ?? null;
  const next: string[] = [];
  for (const turn of open) {
    if (!next.includes(turn.athleteId) && turn.athleteId !== up?.athleteId) {
      next.push(turn.athleteId);
    }
  }
  return {
    up,
    open,
    next,
    readyAtMs: up && readyAt(set, rows, up),
    done: turns.length - open.length,
    total: turns.length,
  };
};

/** Rest after the athlete's own last rep, and after the set before. A skipped turn tires nobody. */
const readyAt = (set: RunSet, rows: readonly LoggedRep[], up: Turn): number | null => {
  const ran = rows.filter((row) => wasRun(row) || row.outcome === 'again');
  const times = ran.flatMap((row) => [
    ...(row.athleteId === up.athleteId ? [row.atMs + set.restS * 1000] : []),
    ...(row.set < up.set ? [row.atMs + set.setRestS * 1000] : []),
  ]);
  return times.length > 0 ? Math.max(...times) : null;
};
