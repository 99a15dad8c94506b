import { betaBelow } from './beta';
import { dayNumber } from './days';
import {
  checkCount,
  HALF_LIFE_DAYS,
  posterior,
  PRIOR,
  probImproved,
  type FaultRate,
  type SessionCount,
} from './faultRate';

export type FaultState = 'new' | 'clearing' | 'cleared' | 'stuck' | 'back' | 'steady';

/** One session in the history of one fault; `cued` when the athlete's one cue was for this fault. */
export type HistorySession = SessionCount & { cued?: boolean };

/** The rate as it stood after a session. */
export type TrendPoint = SessionCount & FaultRate;

export type FaultTrend = {
  /** of the sessions with reps, those asked for */
  points: TrendPoint[];
  state: FaultState;
  now: FaultRate;
  /** probability that the last two sessions are better than those before; null before there are any */
  improved: number | null;
  /** sessions in a row, up to the last, in which this fault was the cue */
  cuedRun: number;
};

const JUDGE_FROM_REPS = 10;
const CLEARING_AT = 0.95;
const STUCK_BELOW = 0.6;
const STUCK_SESSIONS = 3;
/** Below this rate a fault no longer deserves a cue. */
export const LIVE_RATE = 0.15;
const STAYS_AWAY_DAYS = 7;
const UPPER = 0.95;

export type TrendOptions = {
  halfLifeDays?: number | undefined;
  /** first and last of the sessions with reps, from 0, of which a point is wanted; all when absent */
  pointsFrom?: number | undefined;
  pointsTo?: number | undefined;
};

const total = (sessions: readonly SessionCount[]): { reps: number; faults: number } => ({
  reps: sessions.reduce((sum, s) => sum + s.reps, 0),
  faults: sessions.reduce((sum, s) => sum + s.faults, 0),
});

/** P(better now): the last two sessions against up to six before them; null with nothing before. */
const improvedAt = (upTo: readonly SessionCount[]): number | null => {
  const before = upTo.slice(-8, -2);
  if (before.length === 0) return null;
  return probImproved({ before: total(before), now: total(upTo.slice(-2)) }).probability;
};

/**
 * Follows one fault of one athlete through the sessions and says how it stands: *new* (under 10
 * reps), *back* (was cleared, lower bound over 0.15 again), *cleared* (upper bound under 0.15, and
 * still so seven or more days later), *clearing* (P(better) ≥ 0.95 at two sessions running), *stuck*
 * (the cue for three sessions or more with P(better) < 0.6), else *steady*; the first that holds.
 *
 * @param sessions in date order; sessions without reps are passed over
 * @param options half-life in days, 28 when absent; of which sessions a point is wanted, since its band
 *   takes far longer than all else
 * @throws {RangeError} when dates are out of order, and as `faultRate`
 * @example
 *   const { state, now } = faultTrend([{ date: '2031-03-01', reps: 12, faults: 6, cued: true }]);
 *   // state 'steady', now.rate 0.5 with its band from now.low to now.high
 */
export const faultTrend = (
  sessions: readonly HistorySession[],
  { halfLifeDays = HALF_LIFE_DAYS, pointsFrom = 0, pointsTo = Infinity }: TrendOptions = {},
): FaultTrend => {
  const counted = sessions.filter((session) => session.reps > 0);
  const points: TrendPoint[] = [];
  let reps = 0;
  let cuedRun = 0;
  let lowSince: number | null = null;
  let cleared = false;
  let wasCleared = false;
  let lastDay = -Infinity;
  let alpha = PRIOR;
  let beta = PRIOR;
  counted.forEach((session, i) => {
    const { date, faults } = session;
    const day = dayNumber(`sessions[${i}].date`, date);
    if (day < lastDay) {
      throw new RangeError(`sessions[${i}].date must not be before the one before it`);
    }
    checkCount(`sessions[${i}].`, session);
    // What was known before fades by the days between: the same weights as `faultRate` gives.
    const fade = lastDay === -Infinity ? 1 : 0.5 ** ((day - lastDay) / halfLifeDays);
    alpha = PRIOR + fade * (alpha - PRIOR) + faults;
    beta = PRIOR + fade * (beta - PRIOR) + session.reps - faults;
    lastDay = day;
    reps += session.reps;
    cuedRun = session.cued ? cuedRun + 1 : 0;
    if (i >= pointsFrom && i <= pointsTo) {
      points.push({ date, reps: session.reps, faults, ...posterior(alpha, beta) });
    }
    wasCleared ||= cleared;
    // The upper bound lies under the least live rate.
    if (betaBelow(LIVE_RATE, alpha, beta) > UPPER) lowSince ??= day;
    else lowSince = null;
    cleared = lowSince !== null && day - lowSince >= STAYS_AWAY_DAYS;
  });
  const now = posterior(alpha, beta);
  const improved = improvedAt(counted);
  const improvedBefore = improvedAt(counted.slice(0, -1));

  let state: FaultState = 'steady';
  if (reps < JUDGE_FROM_REPS) state = 'new';
  else if (wasCleared && now.low > LIVE_RATE) state = 'back';
  else if (cleared) state = 'cleared';
  else if (Math.min(improved ?? 0, improvedBefore ?? 0) >= CLEARING_AT) state = 'clearing';
  else if (cuedRun >= STUCK_SESSIONS && improved !== null && improved < STUCK_BELOW)
    state = 'stuck';
  return { points, state, now, improved, cuedRun };
};
