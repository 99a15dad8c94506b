import type { Foot } from '@gravek/core/feet';
import type { Side } from '@gravek/core/session/repLog';
import type { RunSet, Stand } from '@gravek/core/session/runOrder';

export const SIDES = ['own', 'other'] as const satisfies readonly Side[];

/** Parts of a plan's speed that a set may be run at. */
export const PACES = [1, 0.75, 0.5, 0.25] as const;

/** What counts: reps, makes, touches of a rep, seconds held or stayed in front in it, metres or minutes of it. */
export const TARGET_KINDS = [
  'attempts',
  'makes',
  'touches',
  'seconds',
  'metres',
  'minutes',
] as const;
export type TargetKind = (typeof TARGET_KINDS)[number];

/** What the others do while somebody performs. */
export const HELPERS = ['feeder', 'collector', 'watcher', 'partner', 'opponent'] as const;
export type Helper = (typeof HELPERS)[number];

/** The plan, the movement or the warm-up that a drill set is of. */
export type Work =
  | { kind: 'plan'; approachId: string }
  | { kind: 'movement'; movement: string; drill: string | null }
  | { kind: 'warm-up'; name: string };

/** How the row or the one who is up is called. */
export type Call =
  | { kind: 'tempo'; cadenceSpm: number }
  | { kind: 'rhythm' }
  | { kind: 'steps'; steps: number; leastS: number; mostS: number }
  | { kind: 'reads' }
  | { kind: 'start'; leastS: number; mostS: number };

export type DrillSet = {
  id: string;
  work: Work;
  athleteIds: string[];
  vary: {
    moves: string[];
    endings: string[];
    exits: string[];
    ways: string[];
    spots: string[];
    sides: Side[];
    leadFeet: Foot[];
    paces: number[];
    rungs: string[];
  };
  struck: string[];
  order: 'blocked' | 'mixed';
  slowFirst: boolean;
  seed: number;
  sets: number;
  reps: number;
  target: TargetKind;
  amount: number;
  stand: Stand;
  helpers: Helper[];
  lanes: number | null;
  apartPaces: number | null;
  beside: boolean;
  redo: boolean;
  /** where makes count, at the end of a round once more through what lacks them; not on sets of before */
  retryMissed?: boolean | undefined;
  freeze: boolean;
  /** how many of a row are watched at a call; null, and on sets of before, as the coach does elsewhere */
  watch?: number | null | undefined;
  call: Call | null;
  restS: number;
  setRestS: number;
  /** one of the stations that groups go round; not on sets of before */
  station?: boolean | undefined;
  /** who runs the station */
  coach?: string | undefined;
};

/** A drill set as the run order knows it. */
export const runSetOf = (set: DrillSet): RunSet => ({
  ...set,
  drillSetId: set.id,
  makes: set.target === 'makes' ? set.amount : null,
});

/** What rows of a warm-up name in place of a movement; nothing in them is counted. */
export const WARM_UP = 'warm-up';

/** What measures a run: a film, devices, a thumb or an ear for each contact. */
export const MEASURED_BY = ['film', 'pod', 'phone', 'taps', 'sound', 'gates'] as const;
export type MeasuredBy = (typeof MEASURED_BY)[number];

/** What times how soon an athlete moves after a call: the coach's tap, or what hears or sees the first foot land. */
export const TIMED_BY = ['tap', 'film', 'pod', 'phone', 'taps', 'sound'] as const;
export type TimedBy = (typeof TIMED_BY)[number];

/** No coach watches more of a row at a call. */
export const MOST_WATCHED = 6;

/** so few that a refusal of each is still a small answer */
export const REP_BATCH = 100;
