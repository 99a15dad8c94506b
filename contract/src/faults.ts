import type { FaultState, TrendPoint } from '@gravek/core';

/** How one fault of an athlete stands. */
export type FaultStanding = {
  code: string;
  /** reps that showed it, over all sessions */
  seen: number;
  /** share of reps, recent sessions counting more, with its 5 and 95 % points */
  rate: number;
  low: number;
  high: number;
  state: FaultState;
  /** probability that the last two sessions are better than those before; null before there are any */
  improved: number | null;
};

/** The one cue, and why it and no other. */
export type CueGiven = { fault: string; reason: string };

/** How one athlete stands in one movement. */
export type AthleteFaults = {
  athleteId: string;
  movement: string;
  reps: number;
  sessions: number;
  /** day of the last session with reps */
  lastDay: string;
  /** the movement's faults that were ever seen, most frequent first */
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

/** The squad in one movement. */
export type SquadFaults = {
  /** movements in which reps were logged, the most run first */
  movements: string[];
  /** the one that `items` are of; null when nothing was ever logged */
  movement: string | null;
  items: AthleteFaults[];
};

/** A page of how the faults of an athlete went in a movement, newest page first. */
export type FaultHistory = {
  /** fault → the rate after each session of the page, earliest first */
  faults: { code: string; points: TrendPoint[] }[];
  /** names the page before; null when there is none */
  earlier: string | null;
};
