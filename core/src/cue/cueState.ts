import type { BetaPrior } from './clubPrior';
import { chanceBelow } from './cueEffect';
import {
  BACK_FOR,
  bandOf,
  BASELINE,
  beforeSpan,
  type FaultHistory,
  type HistorySession,
  nextSession,
  noHistory,
  type SpanEffect,
  total,
} from './faultHistory';
import { posterior } from './faultRate';

export type FaultState = 'new' | 'clearing' | 'cleared' | 'stuck' | 'back' | 'steady';

export type FaultStory = {
  state: FaultState;
  /** chance that the rate is lower in the span than before it; null with nothing before */
  effect: number | null;
  /** what the effect rests on; null with nothing before */
  span: SpanEffect | null;
  /** the rate now, with its 5 and 95 % points */
  rate: number;
  low: number;
  high: number;
  /** sessions in a row, up to the last, in which this fault was the cue */
  cuedRun: number;
  /** day since which the rate holds: of the last change that was sure, else the first session; null without reps */
  rateSince: string | null;
  /** day since which the upper bound lies under the least live rate; null where it does not */
  lowSince: string | null;
  /** how often it was cleared and came back */
  relapses: number;
  /** since when each stretch between relapses lasts, and from when it counted as cleared in it, if it did */
  epochs: { from: string; clearedOn: string | null }[];
};

const JUDGE_FROM_REPS = 10;
const STUCK_BELOW = 0.75;
export const STUCK_SESSIONS = 4;

/**
 * What the history of a fault comes to after its last session.
 *
 * @example
 * const sessions = ['2026-03-01', '2026-03-04'].map((date) => ({ date, reps: 20, faults: 12, cued: false }));
 * storyOf(sessions.reduce(nextSession, noHistory({ alpha: 1, beta: 1 }))).state // 'steady'
 */
export const storyOf = (history: FaultHistory): FaultStory => {
  const { sessions, cuedRun, epoch, epochs } = history;
  const ended = epoch.span;
  const span: SpanEffect | null = ended && {
    before: beforeSpan(sessions, epoch, ended.from),
    since: total(sessions, ended.from, sessions.length),
    probability: chanceBelow(ended.before, ended.since),
  };
  const effect = span?.probability ?? null;
  const { alpha, beta } = bandOf(history, epoch.change, sessions.length - 1);
  const { rate, low, high } = posterior(alpha, beta);
  const isRelapsed = epoch.start > 0;
  const judged = isRelapsed ? sessions.length - epoch.start - BASELINE : sessions.length;
  let state: FaultState = 'steady';
  if (total(sessions, 0, sessions.length).reps < JUDGE_FROM_REPS) state = 'new';
  else if (epoch.isCleared) state = 'cleared';
  else if (epoch.isSureTwice) state = 'clearing';
  else if (Math.min(cuedRun, judged) >= STUCK_SESSIONS && effect !== null && effect < STUCK_BELOW) {
    state = 'stuck';
  } else if (isRelapsed && judged < BACK_FOR) state = 'back';
  return {
    ...{ state, effect, span, rate, low, high, cuedRun },
    rateSince: sessions[epoch.change]?.date ?? null,
    lowSince: epoch.lowFrom?.date ?? null,
    relapses: Math.max(0, epochs.length - 1),
    epochs: [...epochs],
  };
};

/**
 * Follows one fault of one athlete through the sessions and says how it stands. The first that holds:
 * *new* under ten reps; *cleared* the upper bound is under 0.15 and still so seven or more days later;
 * *clearing* the effect is 0.975 or more after each of the last two sessions; *stuck* the cue for four
 * sessions or more with an effect under 0.75; *back* for some sessions after a relapse; else *steady*. The
 * effect is of the sessions since the cue began (two at least), or of the last four for a fault that is not
 * the cue, against up to six before them.
 *
 * @param input sessions in date order, those without reps are passed over; prior as of `clubPrior`
 * @throws {RangeError} when dates are out of order, and naming a field that is out of range
 * @example
 * cueState({ sessions: [{ date: '2031-03-01', reps: 12, faults: 6 }] }).state // 'steady'
 * Source: domain definitions, sections 4 and 5.
 */
export const cueState = (input: {
  sessions: readonly HistorySession[];
  prior?: BetaPrior | undefined;
  halfLifeDays?: number | undefined;
}): FaultStory =>
  storyOf(
    input.sessions.reduce(
      (history, session, i) => {
        try {
          return nextSession(history, session);
        } catch (error) {
          if (!(error instanceof RangeError)) throw error;
          throw new RangeError(`sessions[${i}].${error.message}`, { cause: error });
        }
      },
      noHistory(input.prior, input.halfLifeDays),
    ),
  );
