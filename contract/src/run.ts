import type { Body } from '@gravek/core/layout/body';
import type { BodyLoad } from '@gravek/core/session/repLog';
import type { Choices } from './approach';
import type { Athlete } from './athlete';
import type { RungChoice } from './coachChoices';
import type { Movement } from './movement';
import type { Outline } from './plan';
import type { Session } from './session';

/** What the field screen knows of an athlete. */
export type RunAthlete = Pick<
  Athlete,
  'id' | 'name' | 'hand' | 'takeoffFoot' | 'shoeM' | 'archived' | 'restrictions'
> & {
  /** measures, by which a variant is solved; null on a phone that kept the session from before */
  body: Body | null;
};

/** What the field screen knows of the work of a drill set: what a rep of it is called, how each runs it. */
export type RunPlan = {
  drillSetId: string;
  name: string;
  /** code of the movement; null for a warm-up */
  movement: string | null;
  /** as it is planned, set out on the ground of the session; null for a warm-up */
  choices: Choices | null;
  /** said where it is run */
  cautions: string[];
  /** as it was solved with the plan; what is run otherwise is solved on the phone */
  outlines: { athleteId: string; own: Outline | null; other: Outline | null }[];
};

/** The one cue of an athlete in a movement, from what was counted before this session. */
export type RunCue = {
  athleteId: string;
  movement: string;
  /** reps that it rests on */
  reps: number;
  /** fault to cue; null when none shows often enough */
  fault: string | null;
  /** faults seen before, the likeliest first */
  likely: string[];
};

/**
 * All of a session that does not change by reps, so that the field screen can go on without the
 * network; the log comes apart from it.
 */
export type RunBundle = {
  /** changes when anything below does */
  stamp: string;
  session: Omit<Session, 'logged'>;
  /** lanes of its ground; 1 where nothing is known */
  lanes: number;
  plans: RunPlan[];
  athletes: RunAthlete[];
  /** the others of the club, one of whom may come late */
  latecomers: { id: string; name: string }[];
  /** the club's own movements that are run here, beside the built-in ones */
  movements: Movement[];
  cues: RunCue[];
  /** combinations that still lacked makes when they were done last before this session, as `struckKey` has them */
  missed: { drillSetId: string; athleteId: string; variants: string[] }[];
};

/** A bundle, or word that the one with the stamp that was named is still right. */
export type RunAnswer = RunBundle | { unchanged: true };

/** What the weeks before a session put on athletes, and how often each made what. */
export type LoadHistory = {
  /** the week of the day itself is 0, the one before it 1, up to 4; by session in week 0 */
  weeks: { athleteId: string; weeksAgo: number; sessionId: string | null; load: BodyLoad }[];
  makes: { athleteId: string; movement: string; tried: number; made: number }[];
};

/** What a session could do for the athletes of the club, from what was counted so far. */
export type Needs = {
  /** the one cue of everybody in every movement that they have one in */
  cues: { athleteId: string; movement: string; fault: string; reason: string }[];
  /** reps on a ladder of the last months, session by session, earliest first */
  rungs: {
    athleteId: string;
    movement: string;
    sessionId: string;
    rung: string;
    date: string;
    side: 'own' | 'other';
    reps: number;
    clean: number;
  }[];
  /** what coaches have chosen last of a ladder */
  rungChoices: RungChoice[];
  /** faults that show so seldom that they count as cleared when they still do a week later */
  away: { athleteId: string; movement: string; fault: string; since: string }[];
};
