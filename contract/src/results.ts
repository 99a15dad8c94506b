import type { Side } from '@gravek/core/session/repLog';

/** What was made of one option of a read. */
export type ReadRecord = {
  /** the exit that was asked, as `phase:option` */
  exit: string;
  /** reps of which it was said which way was taken, and how many answered what was asked */
  reps: number;
  right: number;
  /** which ways were taken, and in how many reps */
  taken: { exit: string; reps: number }[];
  /** reps that a coach's tap has timed, and their mean seconds from the call to it */
  timed: number;
  lateS: number | null;
  /** reps in which the first step was heard, felt or filmed, and their mean seconds from the call to it: the reaction */
  heard: number;
  reactionS: number | null;
};

/** What came of reps of one side, of one exit and at one spot. */
export type Results = {
  side: Side;
  /** the exit that was asked, as `phase:option`; null where none was */
  exit: string | null;
  /** by the coach's name for it; null where no spot was named */
  spot: string | null;
  /** reps that counted as a make or a miss */
  tried: number;
  made: number;
  /** reps that were held, the seconds of all of them and the longest */
  held: number;
  heldS: number;
  bestHeldS: number;
  /** reps of touches, the touches of all of them, the times between touches that were taken and their seconds */
  rounds: number;
  touches: number;
  splits: number;
  splitS: number;
  /** the least mean time between touches of a rep, seconds; null without one */
  bestSplitS: number | null;
  /** drill sets with two rounds or more, and the mean times between touches of their first and last rounds, summed */
  compared: number;
  firstSplitS: number;
  lastSplitS: number;
  /** reps of which metres or minutes count, and all of those */
  runs: number;
  ranM: number;
  ranS: number;
};

/** Results of a session, with the moments of the touches of each round, seconds. */
export type SessionResults = Results & { date: string; touchedAt: number[][] };
