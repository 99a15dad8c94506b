import type { InferType } from 'yup';
import type { measuredRun, repInput } from './repSchema';
import type { sessionInput } from './sessionSchema';

export type SessionInput = InferType<typeof sessionInput>;

export type Session = SessionInput & {
  version: number;
  archived: boolean;
  /** reps logged so far, clean or fault */
  logged: number;
};

export type MeasuredRun = InferType<typeof measuredRun>;

export type Rep = InferType<typeof repInput>;

/** A rep that its device has not numbered yet. */
export type NewRep = Omit<Rep, 'device' | 'deviceNo'>;

/** A rep of an athlete that was measured. */
export type MeasuredRep = Pick<Rep, 'id' | 'sessionId' | 'movement' | 'side' | 'set' | 'rep'> & {
  date: string;
  measured: MeasuredRun;
};

/** What was measured of an athlete's reps, the newest first; of steady runs more of them. */
export type MeasuredReps = {
  items: MeasuredRep[];
  /** what was made up left out */
  steady: {
    takenOn: string;
    targetSpm: number | null;
    minutesSpm: number[];
    minutesMps: (number | null)[];
  }[];
};

/** What a rep says of which nothing was asked beyond its plan, and nothing measured. */
export const PLAIN_REP = {
  variant: '',
  rung: null,
  exit: null,
  ways: null,
  taken: null,
  right: null,
  lateS: null,
  lateBy: null,
  made: null,
  heldS: null,
  touchS: null,
  ranM: null,
  ranS: null,
  load: null,
  measured: null,
  note: '',
  watched: true,
  could: null,
} as const satisfies Partial<Rep>;

/** A rep as the server holds it. */
export type StoredRep = Rep & {
  /** when it was taken, counted in its session from 1 */
  arrival: number;
};

/** What became of each rep of a batch: stored (now or before), or refused with the reason. */
export type RepReceipt = {
  stored: { id: string; arrival: number }[];
  refused: { id: string; title: string }[];
};

/** A page of a session's log: what arrived after a number, and whether there is more. */
export type LogPage = { items: StoredRep[]; more: boolean };
