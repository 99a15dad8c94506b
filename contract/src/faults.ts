import type { LinkEvidence } from '@gravek/core/cue/causeLinks';
import type { BetaPrior } from '@gravek/core/cue/clubPrior';
import type { WayLook } from '@gravek/core/cue/compareWays';
import type { RepCounts } from '@gravek/core/cue/cueEffect';
import type { FaultState } from '@gravek/core/cue/cueState';
import type { Foot } from '@gravek/core/feet';
import type { Side } from '@gravek/core/session/repLog';
import type { RungChoice } from './coachChoices';
import type { Rung } from './rungs';
import type { ReadRecord, Results, SessionResults } from './results';

/** How one fault of an athlete stands. */
export type FaultStanding = {
  code: string;
  /** reps that could show it and were watched, over all sessions */
  reps: number;
  /** how many of them showed it */
  seen: number;
  /** share of reps since the last sure change, recent sessions counting more, with its 5 and 95 % points */
  rate: number;
  low: number;
  high: number;
  state: FaultState;
  /** chance that the rate is lower in the span than before it; null with nothing before */
  effect: number | null;
  /** what the effect rests on: the sessions since the cue began, or the last four, and those before */
  span: { before: RepCounts; since: RepCounts } | null;
  /** sessions in a row, up to the last, in which it was the cue */
  cuedRun: number;
  /** day since which the rate holds */
  rateSince: string | null;
  /** day since which it shows so seldom that it will count as cleared; null where it does not */
  lowSince: string | null;
  /** since when each stretch between relapses lasts, and from when it counted as cleared in it, if it did */
  epochs: { from: string; clearedOn: string | null }[];
  /** share of the reps with it in which no live fault of an earlier phase shows */
  alone: number;
  /** what the club knew of the fault */
  prior: BetaPrior;
};

/** The cue that was given last, by the log. */
export type CueTold = {
  fault: string;
  /** day of the first of the sessions in a row in which it was given */
  since: string;
  sessions: number;
  /** moment at which it was given last, ISO 8601 */
  at: string;
};

/** Where somebody stands on the ladder of a movement. */
export type LadderStand = {
  athleteId: string;
  movement: string;
  rung: Rung;
  step: 'up' | 'down' | 'stay';
  /** the rung to go to; the same one where they stay or there is no other */
  next: Rung;
  /** reps on it in the last two sessions that it was run in, and how many were clean */
  reps: number;
  clean: number;
  /** the coach's own choice that it rests on; null where it is by the rule alone */
  choice: RungChoice | null;
};

/** The one cue in force, and why it and no other. */
export type CueGiven = {
  fault: string;
  reason: string;
  /** day of the first session in which it was given; null from the next session on */
  since: string | null;
  /** sessions in which it was given */
  sessions: number;
  /** the coach who chose it, when and why; null when the club's school did */
  by: { person: string; day: string; reason: string } | null;
  /** the drill that was chosen with it; null for the fault's own */
  drill: string | null;
};

/** How one athlete stands in one movement. */
export type AthleteFaults = {
  athleteId: string;
  movement: string;
  reps: number;
  sessions: number;
  /** day of the last session with reps */
  lastDay: string;
  /** the movement's faults that were ever seen or cued, most frequent first */
  faults: FaultStanding[];
  cue: CueGiven | null;
};

/** The one cue of an athlete in a movement, as Today tells it. */
export type CueLine = {
  athleteId: string;
  movement: string;
  /** reps that it rests on */
  reps: number;
  cue: CueGiven | null;
  /** how the cued fault stands; null without a cue */
  state: FaultState | null;
};

/** A fault in a line of the squad: as of `FaultStanding`, without what it rests on. */
export type SquadFault = Pick<
  FaultStanding,
  'code' | 'seen' | 'rate' | 'low' | 'high' | 'state' | 'effect'
>;

/** The squad in one movement. */
export type SquadFaults = {
  /** movements in which reps were logged, the most run first */
  movements: string[];
  /** the one that `items` are of; null when nothing was ever logged */
  movement: string | null;
  items: (Omit<AthleteFaults, 'faults'> & {
    /** reps of the last four weeks */
    lately: number;
    /** only those that are live or have a story to tell */
    faults: SquadFault[];
    reads: ReadRecord[];
    results: Results[];
  })[];
};

/** What was asked of reps, and how and by whom they were logged. */
export type Condition = {
  part: string | null;
  side: Side;
  leadFoot: Foot | null;
  speedPct: number | null;
  rung: string | null;
  exit: string | null;
  /** in the later half of a set */
  late: boolean;
  loggedBy: string | null;
};
export const CONDITION_AXES = [
  'part',
  'side',
  'leadFoot',
  'speedPct',
  'rung',
  'exit',
  'late',
  'loggedBy',
] as const satisfies (keyof Condition)[];
export type ConditionAxis = (typeof CONDITION_AXES)[number];

export type ContrastAxis = 'side' | 'leadFoot' | 'speed' | 'rung' | 'tired';

/** Where a fault shows more: own side or other, left foot or right, slow or full, first rung or later, early or late. */
export type Contrast = {
  axis: ContrastAxis;
  fault: string;
  a: RepCounts;
  b: RepCounts;
  /** that the rate is lower in b */
  probability: number;
};

/** A cue through sessions in a row, by their places in the ledger. */
export type CueSpan = { fault: string; from: number; to: number };

export type LedgerRow = FaultStanding & {
  /** of each session of the ledger, reps that could show it, and how many showed it */
  exposed: number[];
  shown: number[];
};

/** What the same cue has done for athletes of the club. */
export type CueRecord = {
  fault: string;
  athletes: number;
  /** for how many the rate is lower since, for sure */
  better: number;
  before: RepCounts;
  since: RepCounts;
};

/** How far two who logged the same reps agree on a fault. */
export type Agreement = { fault: string; reps: number; agreement: number; kappa: number | null };

/** All that is known of the faults of an athlete in a movement. */
export type Ledger = Omit<AthleteFaults, 'faults'> & {
  /** those under the conditions that were asked for, earliest first */
  log: { id: string; date: string; reps: number }[];
  rows: LedgerRow[];
  spans: CueSpan[];
  /** values that occur, by axis, with the reps behind each */
  axes: { axis: ConditionAxis; value: string; name: string | null; reps: number }[];
  contrasts: Contrast[];
  others: CueRecord[];
  /** per fault, over reps that two people logged */
  agreement: Agreement[];
  reads: ReadRecord[];
  /** session by session, earliest first; those without makes or seconds left out */
  results: SessionResults[];
  /** makes in every chain that was tried, where this is a chain: by move and ending */
  chains: { movement: string; tried: number; made: number }[];
  /** faults that the movement does not have any more, with the reps that showed each */
  gone: { code: string; reps: number }[];
  /** where the athlete stands on the movement's ladder; null where they were on none */
  ladder: LadderStand | null;
};

/** Where somebody stands in the drills of a movement's progression. */
export type ProgressStand = {
  athleteId: string;
  /** code of the drill that was run last of them */
  drill: string;
  /** `up`: on to the next; `down`: back to the one before */
  step: 'up' | 'down' | 'stay';
  /** reps of it in the last two sessions that it was run in, and how many were clean */
  reps: number;
  clean: number;
  /** whose word it is, where it is not what the reps say */
  by: string | null;
};

/** Reps of a drill by one athlete on one side in a session. */
export type DrillReps = {
  athleteId: string;
  drill: string;
  sessionId: string;
  date: string;
  side: Side;
  reps: number;
  clean: number;
};

/** What a club's reps say of a movement's chain of causes. */
export type CauseCheck = {
  /** reps that it rests on */
  reps: number;
  links: LinkEvidence[];
};

/** What a club's reps say of the ways in which a movement is taught. */
export type WayCheck = {
  /** reps that say how they were taught */
  reps: number;
  /** every two ways of a school */
  pairs: {
    school: string;
    a: string;
    b: string;
    /** `better`: the way that does better, with all looks allowed for; null where none can be told */
    looks: (WayLook & { better: 'a' | 'b' | null })[];
  }[];
};
