import type { Foot } from '../feet';
import type { Span } from './body';
import type { Place } from './walker';

export const OTHERS = [
  'opponent',
  'teammate',
  'ball',
  'bar',
  'line',
  'goal',
  'net',
  'wall',
  'base',
] as const;

/** Whoever or whatever the sequence is about, set out from its start or its end. */
export type OtherThing = {
  kind: (typeof OTHERS)[number];
  name: string;
  /** the start, the end, or a phase by its code: where the body is at its first contact */
  from: string;
  /** place in that frame; negative lies behind */
  ahead: Span;
  aside: Span;
  to: Foot;
  /** length of a bar, line, net, wall or goal, metres; 0 for a point */
  wideM: number;
  /** how far a line is turned from lying across the way, to its side */
  angleDeg?: number | undefined;
  moves: {
    ahead: Span;
    aside: Span;
    to: Foot;
    speedMps: number;
    afterS: number;
  } | null;
  /** it comes from there at that speed, and is in its place at the moment of `from`; for a phase only */
  comes?: { ahead: Span; aside: Span; to: Foot; speedMps: number } | null | undefined;
  /** where it is at which moment from the start on, seen from where the athlete faces first; `to` says to which side */
  way?: readonly { timeS: number; ahead: Span; aside: Span }[] | undefined;
  /** only on a way that goes through this phase; always where none is named */
  only?: string | undefined;
  /** what stands there in the mirror: third base for first base */
  twin?: string | undefined;
  /** it stands where the usual way, that of the first exits, has its phase: it does not move with the exit taken */
  usual?: boolean | undefined;
};

/** Somebody or something beside the athlete: one place, a line between two, or places over time. */
export type OtherPath = {
  /** edge: where something ends, or a line that is there already */
  kind: OtherThing['kind'] | 'edge';
  name: string;
  /** what it is in the mirror, where that is something else */
  twin?: string | undefined;
  /** a thing that lies across, such as a bar, has its two ends here and does not move */
  line: boolean;
  points: (Place & { timeS: number })[];
};
