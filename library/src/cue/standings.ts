import type { CueSchool } from '@gravek/core/cue/chooseCue';
import { NO_PRIOR } from '@gravek/core/cue/clubPrior';
import { cueState } from '@gravek/core/cue/cueState';
import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import type { CueChoice } from '@gravek/contract/coachChoices';
import type { AthleteFaults, CueGiven, CueTold, FaultStanding } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { faultOf, firstPhaseOf } from '../movement/byCode';
import { cueFor } from './cue';
import { codesOf, historyOf, type Priors, type SessionFaults } from './sessionFaults';

/** Figures as they are kept and sent: finer than anything that is shown. */
const fine = (value: number): number => Number(value.toFixed(5));

/**
 * Of the reps that showed a fault the share in which no live fault of an earlier phase showed; 1 where there
 * is none, and of a fault that never showed.
 */
const aloneShare = (
  sessions: readonly SessionFaults[],
  code: string,
  liveEarlier: ReadonlySet<string>,
): number => {
  if (liveEarlier.size === 0) return 1;
  let reps = 0;
  let alone = 0;
  for (const set of sessions.flatMap(({ together }) => together)) {
    if (!set.faults.includes(code)) continue;
    reps += set.reps;
    if (!set.faults.some((other) => liveEarlier.has(other))) alone += set.reps;
  }
  return reps === 0 ? 1 : alone / reps;
};

const standingOf = (
  sessions: readonly SessionFaults[],
  priors: Priors,
  code: string,
): Omit<FaultStanding, 'alone'> => {
  const history = historyOf(sessions, code);
  const prior = priors.get(code) ?? NO_PRIOR;
  const { rate, low, high, state, effect, span, rateSince, lowSince, cuedRun, epochs } = cueState({
    sessions: history,
    prior,
  });
  return {
    code,
    reps: history.reduce((sum, session) => sum + session.reps, 0),
    seen: history.reduce((sum, session) => sum + session.faults, 0),
    rate: fine(rate),
    low: fine(low),
    high: fine(high),
    state,
    effect: effect === null ? null : fine(effect),
    span: span && { before: span.before, since: span.since },
    cuedRun,
    rateSince,
    lowSince,
    epochs,
    prior: { alpha: fine(prior.alpha), beta: fine(prior.beta) },
  };
};

/**
 * How every fault that an athlete has shown, or was cued for, in a movement stands after the last session.
 *
 * @param sessions of one athlete and movement, earliest first
 * @param priors as of `priorsOf`
 * @param movement by which is told what comes earlier in a rep; where it is not known nothing does
 * @returns most frequent first
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * const sessions = [day('2031-03-01', 10, 6), day('2031-03-08', 12, 5)];
 * standingsOf(sessions).map(({ code, seen }) => ({ code, seen })) // [{ code: 'chops', seen: 11 }]
 */
export const standingsOf = (
  sessions: readonly SessionFaults[],
  priors: Priors = new Map(),
  movement?: Pick<Movement, 'phases' | 'faults'>,
): FaultStanding[] => {
  const standings = codesOf(sessions).map((code) => standingOf(sessions, priors, code));
  const places = new Map(
    (movement?.faults ?? []).map((fault) => [fault.code, firstPhaseOf(movement!, fault)]),
  );
  const live = standings.filter(({ code, rate }) => rate >= LIVE_RATE && places.has(code));
  return standings
    .map((standing) => {
      const place = places.get(standing.code) ?? 0;
      const earlier = live.filter(({ code }) => places.get(code)! < place);
      const alone = aloneShare(sessions, standing.code, new Set(earlier.map(({ code }) => code)));
      return { ...standing, alone: fine(alone) };
    })
    .sort((a, b) => b.rate - a.rate || (a.code < b.code ? -1 : 1));
};

/**
 * The cue that was given last in the last session, and since which session it has been given without a
 * break; null where that session was run without one.
 *
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * toldOf([{ ...day('2031-03-01', 10, 4), cues: [{ fault: 'chops', last: '2031-03-01T10:00:00Z' }] }])?.fault
 * // 'chops'
 */
export const toldOf = (sessions: readonly SessionFaults[]): CueTold | null => {
  const [now] = [...(sessions.at(-1)?.cues ?? [])].sort((a, b) => (a.last < b.last ? 1 : -1));
  if (!now) return null;
  const before = sessions.findLastIndex(({ cues }) =>
    cues.every(({ fault }) => fault !== now.fault),
  );
  const run = sessions.slice(before + 1);
  return { fault: now.fault, since: run[0]!.date, sessions: run.length, at: now.last };
};

/** Only the faults that the movement, as it is now, names; a club may have taken one out. */
const faultsKnown = (movement: Movement, faults: readonly FaultStanding[]): FaultStanding[] =>
  faults.filter(({ code }) => faultOf(movement, code));

/**
 * The cue in force of an athlete in a movement. One that was given stays until its fault has cleared or
 * somebody changes it; what a coach has chosen since goes before it. Else the club's school chooses, and
 * a fault that can hurt takes the place of one that cannot.
 *
 * @param movement in the words that hold for the athlete
 * @returns null when no fault shows often enough to deserve one
 */
export const cueInForce = (
  movement: Movement,
  school: CueSchool,
  {
    faults,
    told,
    choice,
  }: { faults: readonly FaultStanding[]; told: CueTold | null; choice: CueChoice | null },
): CueGiven | null => {
  const movementFaults = faultsKnown(movement, faults);
  const stands = (code: string): boolean =>
    faultOf(movement, code) !== undefined &&
    movementFaults.find((fault) => fault.code === code)?.state !== 'cleared';
  // An earlier choice is why a cue was given; one that came later changes it, whatever the figures say.
  // Phones' clocks may go ahead: what had been given when it was made is no answer to it.
  const isLater =
    choice !== null && (told === null || told.at === choice.toldAt || choice.at > told.at);
  const chosen =
    choice?.fault && (isLater ? faultOf(movement, choice.fault) : stands(choice.fault))
      ? choice
      : null;
  // Handed back, what was given before goes on.
  const isOver = isLater && choice.fault !== null;
  const toldCue = told !== null && !isOver && stands(told.fault) ? told : null;
  const because = chosen && (isLater || chosen.fault === toldCue?.fault) ? chosen : null;
  const by = because && { person: because.person, day: because.day, reason: because.reason };
  const drill = because?.drill ?? null;
  if (because && isLater) {
    const goesOn = told?.fault === because.fault ? told : null;
    return {
      fault: because.fault!,
      reason: `Chosen by ${because.person}: ${because.reason}`,
      since: goesOn?.since ?? null,
      sessions: goesOn?.sessions ?? 0,
      by,
      drill,
    };
  }
  const anew = cueFor(movement, school, movementFaults);
  const hurts = anew?.fault.safety === true && toldCue && !faultOf(movement, toldCue.fault)!.safety;
  if (toldCue && !(hurts && by === null)) {
    const { fault, since, sessions } = toldCue;
    const standing = movementFaults.find((state) => state.code === fault);
    const reason =
      by !== null
        ? `Chosen by ${by.person}: ${by.reason}`
        : anew?.fault.code === fault
          ? anew.reason
          : standing && standing.rate < LIVE_RATE && standing.state === 'stuck'
            ? `${faultOf(movement, fault)!.name} shows in ${Math.round(standing.rate * 100)} % of reps, and not surely in fewer than before; the cue stays until it is seldom for a week.`
            : standing && standing.rate < LIVE_RATE
              ? `${faultOf(movement, fault)!.name} shows seldom now; the cue stays until it has stayed away for a week.`
              : 'It was given last and has not cleared; one cue at a time, until it has.';
    return { fault, reason, since, sessions, by, drill };
  }
  return (
    anew && {
      fault: anew.fault.code,
      reason: anew.reason,
      since: null,
      sessions: 0,
      by: null,
      drill: null,
    }
  );
};

/**
 * How an athlete stands in a movement, with the one cue in force.
 *
 * @param movement in the words that hold for the athlete
 */
export const athleteFaults = (
  movement: Movement,
  counted: Omit<AthleteFaults, 'cue'> & { told: CueTold | null; choice: CueChoice | null },
  school: CueSchool,
): AthleteFaults => {
  const { told, choice, ...standing } = counted;
  const faults = faultsKnown(movement, standing.faults);
  return { ...standing, faults, cue: cueInForce(movement, school, { faults, told, choice }) };
};
