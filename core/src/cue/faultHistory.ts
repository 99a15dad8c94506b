import { betaBelow } from '../chance/beta';
import { dayNumber } from '../days';
import { type BetaPrior, NO_PRIOR } from './clubPrior';
import { chanceBelow, checkPrior, type RepCounts, seen } from './cueEffect';
import { checkCount, HALF_LIFE_DAYS, PRIOR, type SessionCount } from './faultRate';
import { bandShape } from './rateBand';

/** One session in the history of one fault; `cued` when the athlete's one cue was for this fault. */
export type HistorySession = SessionCount & { cued?: boolean };

/** Of two spans of sessions what each showed, and the chance that the rate is lower in the later one. */
export type SpanEffect = { before: RepCounts; since: RepCounts; probability: number };
/** Below this rate a fault no longer deserves a cue. */
export const LIVE_RATE = 0.15;
const UPPER = 0.95;
const LEAST_SPAN = 2;
const SPAN_UNCUED = 4;
const SPAN_BEFORE = 6;
/** The first sessions of an epoch belong to what a cue is held against, whatever was the cue in them. */
export const BASELINE = 2;
/** So many sessions after these a fault reads as back, unless more can be said. */
export const BACK_FOR = 4;
/** The epoch before counts for so many reps at most. */
const CARRIED_REPS = 6;

/**
 * Normal approximation of `chanceBelow`, in standard deviations. Only whether a chance is over `SURE`
 * matters of sessions long past; far from there the exact one need not be worked out.
 */
const roughly = (x: BetaPrior, y: BetaPrior): number => {
  const part = ({ alpha, beta }: BetaPrior): [number, number] => {
    const n = alpha + beta;
    return [alpha / n, (alpha * beta) / (n * n * (n + 1))];
  };
  const [mx, vx] = part(x);
  const [my, vy] = part(y);
  return (mx - my) / Math.sqrt(vx + vy);
};
/** `SURE` is 1.96 deviations; outside these it is never in doubt (a test tries all small counts). */
const SURELY_NOT = 1.3;
const SURELY = 3.6;

type Counted = RepCounts & { day: number; cued: boolean; date: string };

/**
 * How one fault of an athlete has gone, up to a session. A history is never changed: `nextSession` gives the
 * one after it.
 */
export type FaultHistory = {
  readonly prior: BetaPrior;
  readonly halfLifeDays: number;
  /** all sessions so far that had reps */
  readonly sessions: readonly Counted[];
  /** what a half-life leaves of each session by the day of the next */
  readonly fades: readonly number[];
  /** sessions in a row, up to the last, in which it was the cue */
  readonly cuedRun: number;
  readonly epochs: readonly { from: string; clearedOn: string | null }[];
  readonly epoch: Epoch;
};

/** A stretch of sessions, from the first or from a relapse on. */
type Epoch = {
  /** place of its first session */
  start: number;
  /** what the epoch before showed ahead of its cue */
  carried: RepCounts;
  /** place of the session since which the rate holds */
  change: number;
  /** sessions since then, faded as they are on the day of the last */
  faded: RepCounts;
  /** the span that is judged; null where there is nothing to hold it against */
  span: { from: number; before: BetaPrior; since: BetaPrior } | null;
  /** whether the span was surely lower after the last session, and after each of the last two */
  isSure: boolean;
  isSureTwice: boolean;
  /** the session since which the upper bound is low */
  lowFrom: Counted | null;
  isCleared: boolean;
  /** it counted as cleared after some session of the epoch */
  wasCleared: boolean;
};

const NOTHING: RepCounts = { reps: 0, faults: 0 };

const newEpoch = (start: number, carried: RepCounts): Epoch => ({
  start,
  carried,
  change: start,
  faded: NOTHING,
  span: null,
  isSure: false,
  isSureTwice: false,
  lowFrom: null,
  isCleared: false,
  wasCleared: false,
});

/** What sessions from one place up to another, that one left out, show together. */
export const total = (sessions: readonly Counted[], from: number, to: number): RepCounts => {
  let reps = 0;
  let faults = 0;
  for (let i = Math.max(0, from); i < to; i += 1) {
    reps += sessions[i]!.reps;
    faults += sessions[i]!.faults;
  }
  return { reps, faults };
};

const add = (a: RepCounts, b: RepCounts): RepCounts => ({
  reps: a.reps + b.reps,
  faults: a.faults + b.faults,
});

/** The band of the sessions from one to another, as it stands on the day of the later one. */
export const bandOf = (
  { sessions, fades }: Pick<FaultHistory, 'sessions' | 'fades'>,
  from: number,
  to: number,
) => {
  const weights = new Array<number>(to - from + 1);
  let weight = 1;
  for (let i = to; i >= from; i -= 1) {
    if (i < to) weight *= fades[i]!;
    weights[i - from] = weight;
  }
  return bandShape(sessions.slice(from, to + 1), weights);
};

/** Where the span that is judged after a session begins; null where nothing can be held against it yet. */
const spanFrom = (start: number, i: number, cuedRun: number): number | null => {
  const sessionsNeeded = i + 1 - (cuedRun > 0 ? Math.max(LEAST_SPAN, cuedRun) : SPAN_UNCUED);
  if (start === 0) return sessionsNeeded > 0 ? sessionsNeeded : null;
  const from = cuedRun > 0 ? Math.max(sessionsNeeded, start + BASELINE) : sessionsNeeded;
  return from >= start + BASELINE && i + 1 - from >= LEAST_SPAN ? from : null;
};

/** What is held against the span: the epoch ahead of it, and what the epoch before showed ahead of its cue. */
export const beforeSpan = (sessions: readonly Counted[], epoch: Epoch, from: number): RepCounts =>
  add(total(sessions, Math.max(epoch.start, from - SPAN_BEFORE), from), epoch.carried);

/** An epoch with one more of the history's sessions, the one at place i. */
const withSession = (
  history: Pick<FaultHistory, 'sessions' | 'fades' | 'prior'>,
  epoch: Epoch,
  i: number,
  cuedRun: number,
): Epoch => {
  const { sessions, fades, prior } = history;
  const session = sessions[i]!;
  const from = spanFrom(epoch.start, i, cuedRun);
  const span =
    from === null
      ? null
      : {
          from,
          before: seen(prior, beforeSpan(sessions, epoch, from)),
          since: seen(prior, total(sessions, from, i + 1)),
        };
  const far = span === null ? 0 : roughly(span.before, span.since);
  const isSure =
    span !== null &&
    (far >= SURELY || (far > SURELY_NOT && chanceBelow(span.before, span.since) >= SURE));
  const isSureTwice = isSure && epoch.isSure;
  const change = isSureTwice ? from! : epoch.change;
  let faded = isSureTwice ? NOTHING : epoch.faded;
  for (let k = isSureTwice ? change : i; k <= i; k += 1) {
    const fade = k > change ? fades[k - 1]! : 1;
    faded = add(
      { reps: fade * faded.reps, faults: fade * faded.faults },
      { reps: sessions[k]!.reps, faults: sessions[k]!.faults },
    );
  }
  // The upper bound lies under the least live rate: never where the mean itself does not.
  let isLow = faded.faults < LIVE_RATE * faded.reps;
  if (isLow) {
    const { alpha, beta } = bandOf(history, change, i);
    isLow = betaBelow(LIVE_RATE, alpha, beta) > UPPER;
  }
  const lowFrom = isLow ? (epoch.lowFrom ?? session) : null;
  const isCleared = lowFrom !== null && session.day - lowFrom.day >= STAYS_AWAY_DAYS;
  return {
    ...epoch,
    ...{ change, faded, span, isSure, isSureTwice, lowFrom, isCleared },
    wasCleared: epoch.wasCleared || isCleared,
  };
};

/** What an epoch showed ahead of its cue, for the next one to be held against. */
const carriedFrom = (sessions: readonly Counted[], start: number, end: number): RepCounts => {
  const firstCued = sessions.slice(start, end).findIndex(({ cued }) => cued);
  const [from, to] =
    firstCued < 0
      ? [start, Math.min(end, start + SPAN_BEFORE)]
      : [Math.max(start, start + firstCued - SPAN_BEFORE), start + firstCued];
  const { reps, faults } = total(sessions, from, to);
  return reps > CARRIED_REPS
    ? { reps: CARRIED_REPS, faults: (faults * CARRIED_REPS) / reps }
    : { reps, faults };
};

/** Whether a fault that was cleared shows again: the 5 % point of the last two sessions is over the least live rate. */
const isBackIn = (sessions: readonly Counted[]): boolean => {
  const two = seen(
    { alpha: PRIOR, beta: PRIOR },
    total(sessions, sessions.length - 2, sessions.length),
  );
  return betaBelow(LIVE_RATE, two.alpha, two.beta) < 1 - UPPER;
};

/**
 * The history of a fault before its first session.
 *
 * @param prior as of `clubPrior`
 * @param halfLifeDays 28 when absent
 * @example noHistory({ alpha: 2, beta: 8 }).prior // { alpha: 2, beta: 8 }
 */
export const noHistory = (
  prior: BetaPrior = NO_PRIOR,
  halfLifeDays = HALF_LIFE_DAYS,
): FaultHistory => {
  checkPrior(prior);
  return {
    ...{ prior, halfLifeDays, sessions: [], fades: [], cuedRun: 0, epochs: [] },
    epoch: newEpoch(0, NOTHING),
  };
};

/**
 * The history of a fault with one session more.
 *
 * Invariants: a session without reps changes nothing; what was cleared and shows again begins a new epoch, at
 * the first of its last two sessions that is live by itself; only sessions of the epoch are judged from then on.
 *
 * @throws {RangeError} when the session is before the one before it, and naming a field that is out of range
 * @example
 * const history = nextSession(noHistory(), { date: '2031-03-01', reps: 12, faults: 6 });
 * storyOf(history).state // 'steady'
 */
export const nextSession = (history: FaultHistory, session: HistorySession): FaultHistory => {
  checkCount('', session);
  const { date, reps, faults, cued = false } = session;
  const day = dayNumber('date', date);
  const before = history.sessions.at(-1);
  if (before && day < before.day) {
    throw new RangeError('date must not be before the one before it');
  }
  if (reps === 0) return history;
  const sessions = [...history.sessions, { day, date, reps, faults, cued }];
  const fades = before
    ? [...history.fades, 0.5 ** ((day - before.day) / history.halfLifeDays)]
    : history.fades;
  const grown = { ...history, sessions, fades };
  const i = sessions.length - 1;
  const cuedRun = cued ? history.cuedRun + 1 : 0;
  if (history.epoch.wasCleared && isBackIn(sessions)) {
    const isLive = sessions[i - 1]!.faults >= LIVE_RATE * sessions[i - 1]!.reps;
    const start = isLive && i - 1 > history.epoch.start ? i - 1 : i;
    let epoch = newEpoch(start, carriedFrom(sessions, history.epoch.start, start));
    for (let k = start; k <= i; k += 1) {
      epoch = withSession(grown, epoch, k, k === i ? cuedRun : history.cuedRun);
    }
    const epochs = [...history.epochs, { from: sessions[start]!.date, clearedOn: null }];
    return { ...grown, cuedRun, epochs, epoch };
  }
  const epoch = withSession(grown, history.epoch, i, cuedRun);
  const epochs = i === 0 ? [{ from: date, clearedOn: null }] : [...history.epochs];
  const current = epochs.at(-1)!;
  if (epoch.isCleared && current.clearedOn === null) {
    epochs[epochs.length - 1] = { ...current, clearedOn: date };
  }
  return { ...grown, cuedRun, epochs, epoch };
};
/** A change is sure from here, twice running; cues begin when a fault looks its worst. */
export const SURE = 0.975;
/** So long a fault stays away before it counts as cleared. */
export const STAYS_AWAY_DAYS = 7;
