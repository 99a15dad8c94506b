import { whole } from './check';

/** On which foot the movement is done: as the athlete does it, or seen in a mirror. */
export type Side = 'own' | 'other';

export type RunSet = {
  drillSetId: string;
  athleteIds: readonly string[];
  sets: number;
  reps: number;
  sides: readonly Side[];
  restS: number;
  setRestS: number;
};

export type Turn = {
  drillSetId: string;
  athleteId: string;
  /** from 1 */
  set: number;
  side: Side;
  /** from 1 */
  rep: number;
};

export const OUTCOMES = ['clean', 'fault', 'again', 'skip', 'void'] as const;
/**
 * `again`: the finish mark was missed, the rep is done once more; `skip`: the athlete passed this
 * turn; `void`: takes an earlier row back.
 */
export type Outcome = (typeof OUTCOMES)[number];

export type LoggedRep = Turn & {
  id: string;
  outcome: Outcome;
  /** id of the row that a void takes back */
  voids?: string | null | undefined;
  /** when it was logged, milliseconds since 1970 */
  atMs: number;
};

export type RunState = {
  /** null when the drill set is done */
  up: Turn | null;
  /** who comes after, nearest first, one entry an athlete */
  next: string[];
  /** when the one who is up has rested, milliseconds since 1970; null when there is nothing to rest from */
  readyAtMs: number | null;
  /** the row that undo would take back */
  last: LoggedRep | null;
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
  for (let s = 1; s <= set.sets; s += 1) {
    for (const side of set.sides) {
      for (let rep = 1; rep <= set.reps; rep += 1) {
        for (const athleteId of set.athleteIds) {
          turns.push({ drillSetId: set.drillSetId, athleteId, set: s, side, rep });
        }
      }
    }
  }
  return turns;
};

const key = (turn: Turn): string => `${turn.athleteId}/${turn.set}/${turn.side}/${turn.rep}`;

/** The rows of a log that still stand: voids and what they take back are left out. */
export const standing = <
  R extends { id: string; outcome: Outcome; voids?: string | null | undefined },
>(
  log: readonly R[],
): R[] => {
  const voided = new Set(log.filter((row) => row.outcome === 'void').map((row) => row.voids));
  return log.filter((row) => row.outcome !== 'void' && !voided.has(row.id));
};

/**
 * Where a drill set stands, worked out from its log alone, so that a reload, a second phone or a late
 * row can never put it in a state of its own.
 *
 * @param log rows of this drill set, in any order
 * @param away athletes who have left the set; their open turns are passed over
 */
export const runState = (
  set: RunSet,
  log: readonly LoggedRep[],
  away: ReadonlySet<string> = new Set(),
): RunState => {
  const rows = standing(log)
    .filter((row) => row.drillSetId === set.drillSetId)
    .sort((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
  const answered = new Set(rows.filter((row) => row.outcome !== 'again').map(key));
  const turns = turnOrder(set).filter(
    (turn) => answered.has(key(turn)) || !away.has(turn.athleteId),
  );
  const open = turns.filter((turn) => !answered.has(key(turn)));
  const up = open[0] ?? null;
  const next: string[] = [];
  for (const turn of open.slice(1)) {
    if (!next.includes(turn.athleteId) && turn.athleteId !== up?.athleteId) {
      next.push(turn.athleteId);
    }
  }
  return {
    up,
    next,
    readyAtMs: up && readyAt(set, rows, up),
    last: rows.at(-1) ?? null,
    done: turns.length - open.length,
    total: turns.length,
  };
};

/** Rest after the athlete's own last rep, and after the set before. A skipped turn tires nobody. */
const readyAt = (set: RunSet, rows: readonly LoggedRep[], up: Turn): number | null => {
  const ran = rows.filter((row) => row.outcome !== 'skip');
  const own = ran.filter((row) => row.athleteId === up.athleteId).at(-1);
  const before = ran.filter((row) => row.set < up.set).at(-1);
  const times = [
    ...(own ? [own.atMs + set.restS * 1000] : []),
    ...(before ? [before.atMs + set.setRestS * 1000] : []),
  ];
  return times.length > 0 ? Math.max(...times) : null;
};
