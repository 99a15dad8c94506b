import type { FaultState } from '@gravek/core/cue/cueState';
import type { RestrictionKind } from './athlete';
import type { OutdatedPlan } from './plan';

/** A session of today in a few lines. */
export type TodaySession = {
  id: string;
  title: string;
  /** yyyy-mm-dd; the day before today for one that goes on past midnight */
  date: string;
  where: string;
  seconds: number;
  reps: number;
  logged: number;
  sets: { id: string; name: string; line: string; approachId: string | null; athletes: number }[];
};

/** The one cue of an athlete in a movement, in the words that hold for them. */
export type TodayCue = {
  athleteId: string;
  name: string;
  movement: string;
  /** the movement's name; null where the athlete has no other line */
  movementName: string | null;
  state: FaultState | null;
  /** what is said; null without a cue */
  cue: string | null;
  reason: string;
  /** sessions in which it was given so far */
  sessions: number;
  reps: number;
};

export type TodayDue = {
  kind: 'away' | 'rung' | 'check';
  athletes: { athleteId: string; name: string; words: string }[];
};

export type TodayRestriction = {
  id: string;
  athleteId: string;
  name: string;
  kind: RestrictionKind;
  until: string | null;
  note: string;
};

/** How far a club has come on the way to its first logged rep. */
export type FirstSteps = {
  athletes: boolean;
  measured: boolean;
  planned: boolean;
  session: boolean;
  logged: boolean;
  /** whom to measure, and which session to run; null where there is none */
  athleteId: string | null;
  sessionId: string | null;
};

/** What a coach needs to know of a day, worked out at the server. */
export type Today = {
  sessions: TodaySession[];
  cues: TodayCue[];
  due: TodayDue[];
  restricted: TodayRestriction[];
  outdated: OutdatedPlan[];
  firstSteps: FirstSteps;
};
