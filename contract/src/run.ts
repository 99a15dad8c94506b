import type { Outline } from './approach';
import type { Athlete } from './athlete';
import type { Load, Movement } from './movement';
import type { Session } from './session';

/** What the field screen knows of an athlete. */
export type RunAthlete = Pick<
  Athlete,
  'id' | 'name' | 'hand' | 'takeoffFoot' | 'shoeM' | 'archived' | 'restrictions'
>;

/** What the field screen knows of an approach: what a rep of it is called, and how each runs it. */
export type RunPlan = {
  /** of the approach */
  id: string;
  /** part of the plan's speed for the way in, as its sets ask */
  pace: number;
  name: string;
  movement: string;
  /** code of the drill whose part is run; null for the whole */
  part: string | null;
  /** the exits that are taken, by name */
  exits: string[];
  /** asked speed, per cent of full */
  speedPct: number;
  /** school → way of teaching */
  schools: Record<string, string>;
  /** what it asks of the body as it is planned: drill, speed, rung */
  loads: Load[];
  /** said where it is run */
  cautions: string[];
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
  plans: RunPlan[];
  athletes: RunAthlete[];
  /** the club's own movements that are run here, beside the built-in ones */
  movements: Movement[];
  cues: RunCue[];
};

/** A bundle, or word that the one with the stamp that was named is still right. */
export type RunAnswer = RunBundle | { unchanged: true };
