import type { SilentCue } from '@gravek/core/session/silentCues';

/** Something that a partner shows in place of a call. */
export type Shown = {
  /** of the read's option */
  option: string;
  weight: number;
  /** to the partner, who faces the athlete: left and right are the partner's */
  shows: string;
  /** what it is to somebody who does the movement the other way round; the same where nothing is said */
  mirrored?: string;
};

export type SilentRead = { movement: string; phase: string; name: string; shown: Shown[] };

/** A round that a code stands for. */
export type SilentRound = { read: SilentRead; cues: SilentCue[] };

/**
 * The exit that what a partner shows asks of somebody, as `phase:option`.
 *
 * @param isMirrored who does the movement the other way round than it is written
 * @example silentExit(silentRound('0100').read, 0, true) // 'give:left'
 */
export const silentExit = (read: SilentRead, option: number, isMirrored: boolean): string => {
  const cue = read.shown[option]!;
  return `${read.phase}:${(isMirrored && cue.mirrored) || cue.option}`;
};
