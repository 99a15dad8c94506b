import { betaBelow } from './beta';
import { NO_PRIOR, type BetaPrior } from './clubPrior';
import { chanceBelow, checkPrior, seen, type RepCounts } from './cueEffect';
import { dayNumber } from './days';
import { checkCount, HALF_LIFE_DAYS, posterior, PRIOR, type SessionCount } from './faultRate';
import { bandShape } from './rateBand';

export type FaultState = 'new' | 'clearing' | 'cleared' | 'stuck' | 'back' | 'steady';

/** One session in the history of one fault; `cued` when the athlete's one cue was for this fault. */
export type HistorySession = SessionCount & { cued?: boolean };

/** Of two spans of sessions what each showed, and the chance that the rate is lower in the later one. */
export type SpanEffect = { before: RepCounts; since: RepCounts; probability: number };

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
};

const JUDGE_FROM_REPS = 10;
/** A change is sure from here, twice running; cues begin when a fault looks its worst. */
export const SURE = 0.975;
const STUCK_BELOW = 0.75;
export const STUCK_SESSIONS = 4;
/** Below this rate a fault no longer deserves a cue. */
export const LIVE_RATE = 0.15;
/** So long a fault stays away before it counts as cleared. */
export const STAYS_AWAY_DAYS = 7;
const UPPER = 0.95;
const LEAST_SPAN = 2;
const SPAN_UNCUED = 4;
const SPAN_BEFORE = 6;

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
 * Follows one fault of one athlete through the sessions and says how it stands. The first that holds:
 * *new* under ten reps; *back* was cleared and the 5 % point of the last two sessions together is over
 * 0.15; *cleared* the upper bound is under 0.15 and still so seven or more days later; *clearing* the
 * effect is 0.975 or more after each of the last two sessions; *stuck* the cue for four sessions or more
 * with an effect under 0.75; else *steady*. The effect is of the sessions since the cue began (two at
 * least), or of the last four for a fault that is not the cue, against up to six before them.
 *
 * @param input sessions in date order, those without reps are passed over; prior as of `clubPrior`
 * @throws {RangeError} when dates are out of order, and naming a field that is out of range
 * @example
 *   cueState({ sessions: [{ date: '2031-03-01', reps: 12, faults: 6 }] }).state // 'steady'
 */
export const cueState = (input: {
  sessions: readonly HistorySession[];
  prior?: BetaPrior | undefined;
  halfLifeDays?: number | undefined;
}): FaultStory => {
  const prior = input.prior ?? NO_PRIOR;
  checkPrior(prior);
  const halfLifeDays = input.halfLifeDays ?? HALF_LIFE_DAYS;
  const list: Counted[] = [];
  input.sessions.forEach((session, i) => {
    checkCount(`sessions[${i}].`, session);
    const { date, reps, faults, cued = false } = session;
    const day = dayNumber(`sessions[${i}].date`, date);
    if (day < (list.at(-1)?.day ?? -Infinity)) {
      throw new RangeError(`sessions[${i}].date must not be before the one before it`);
    }
    if (reps > 0) list.push({ day, date, reps, faults, cued });
  });
  const total = (from: number, to: number): RepCounts => {
    let reps = 0;
    let faults = 0;
    for (let i = Math.max(0, from); i < to; i += 1) {
      reps += list[i]!.reps;
      faults += list[i]!.faults;
    }
    return { reps, faults };
  };
  /** what a half-life leaves of each session by the day of the next one */
  const fades = list.map(({ day }, i) =>
    i + 1 < list.length ? 0.5 ** ((list[i + 1]!.day - day) / halfLifeDays) : 1,
  );
  /** the band of the sessions from one to another, as it stood on the day of the later one */
  const bandOf = (from: number, to: number) => {
    const weights = new Array<number>(to - from + 1);
    let weight = 1;
    for (let i = to; i >= from; i -= 1) {
      if (i < to) weight *= fades[i]!;
      weights[i - from] = weight;
    }
    return bandShape(list.slice(from, to + 1), weights);
  };
  let cuedRun = 0;
  let change = 0;
  /** of the sessions since the change, faded as they are on the day */
  let faded = { reps: 0, faults: 0 };
  let reps = 0;
  const fadedFrom = (from: number, to: number): RepCounts => {
    let sum = { reps: 0, faults: 0 };
    for (let i = from; i <= to; i += 1) {
      const fade = i > from ? fades[i - 1]! : 1;
      sum = { reps: fade * sum.reps + list[i]!.reps, faults: fade * sum.faults + list[i]!.faults };
    }
    return sum;
  };
  /** The upper bound lies under the least live rate: never where the mean itself does not. */
  const isLow = (from: number, to: number): boolean => {
    if (faded.faults >= LIVE_RATE * faded.reps) return false;
    const { alpha, beta } = bandOf(from, to);
    return betaBelow(LIVE_RATE, alpha, beta) > UPPER;
  };
  let sureBefore = false;
  let sureTwice = false;
  let lowFrom: Counted | null = null;
  let cleared = false;
  let wasCleared = false;
  let last: { from: number; before: BetaPrior; since: BetaPrior } | null = null;
  list.forEach((session, i) => {
    reps += session.reps;
    cuedRun = session.cued ? cuedRun + 1 : 0;
    const from = i + 1 - (cuedRun > 0 ? Math.max(LEAST_SPAN, cuedRun) : SPAN_UNCUED);
    last =
      from > 0
        ? {
            from,
            before: seen(prior, total(from - SPAN_BEFORE, from)),
            since: seen(prior, total(from, i + 1)),
          }
        : null;
    const far = last === null ? 0 : roughly(last.before, last.since);
    const sure =
      last !== null &&
      (far >= SURELY || (far > SURELY_NOT && chanceBelow(last.before, last.since) >= SURE));
    sureTwice = sure && sureBefore;
    sureBefore = sure;
    if (sureTwice) change = from;
    wasCleared ||= cleared;
    const fade = i > 0 ? fades[i - 1]! : 1;
    faded = sureTwice
      ? fadedFrom(change, i)
      : {
          reps: fade * faded.reps + session.reps,
          faults: fade * faded.faults + session.faults,
        };
    if (isLow(change, i)) lowFrom ??= session;
    else lowFrom = null;
    cleared = lowFrom !== null && session.day - lowFrom.day >= STAYS_AWAY_DAYS;
  });
  // The closure hides from the compiler that these were set.
  const lowSince = (lowFrom as Counted | null)?.date ?? null;
  const ended = last as { from: number; before: BetaPrior; since: BetaPrior } | null;
  const span: SpanEffect | null = ended && {
    before: total(ended.from - SPAN_BEFORE, ended.from),
    since: total(ended.from, list.length),
    probability: chanceBelow(ended.before, ended.since),
  };
  const effect = span?.probability ?? null;
  const { alpha, beta } = bandOf(change, list.length - 1);
  const { rate, low, high } = posterior(alpha, beta);
  const isBack = (): boolean => {
    const two = seen({ alpha: PRIOR, beta: PRIOR }, total(list.length - 2, list.length));
    return betaBelow(LIVE_RATE, two.alpha, two.beta) < 1 - UPPER;
  };
  let state: FaultState = 'steady';
  if (reps < JUDGE_FROM_REPS) state = 'new';
  else if (wasCleared && isBack()) state = 'back';
  else if (cleared) state = 'cleared';
  else if (sureTwice) state = 'clearing';
  else if (cuedRun >= STUCK_SESSIONS && effect !== null && effect < STUCK_BELOW) state = 'stuck';
  const rateSince = list[change]?.date ?? null;
  return { state, effect, span, rate, low, high, cuedRun, rateSince, lowSince };
};
