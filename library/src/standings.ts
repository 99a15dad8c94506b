import { faultTrend, groupBy, type CueSchool, type SessionCount } from '@gravek/core';
import type {
  AthleteFaults,
  FaultHistory,
  FaultStanding,
  Movement,
  RunCue,
} from '@gravek/contract';
import { cueFor } from './cue';

/** What one session showed of an athlete in a movement, over all conditions. */
export type SessionFaults = {
  date: string;
  /** clean or fault reps that stand */
  reps: number;
  faults: readonly { fault: string; reps: number }[];
  /** faults that were the cue */
  cues: readonly string[];
};

const codesOf = (sessions: readonly SessionFaults[]): string[] => [
  ...new Set(sessions.flatMap((session) => session.faults.map(({ fault }) => fault))),
];

const historyOf = (
  sessions: readonly SessionFaults[],
  code: string,
): (SessionCount & { cued: boolean })[] =>
  sessions.map(({ date, reps, faults, cues }) => ({
    date,
    reps,
    faults: faults.find((one) => one.fault === code)?.reps ?? 0,
    cued: cues.includes(code),
  }));

/**
 * How every fault that an athlete has shown in a movement stands after the last session.
 *
 * @param sessions of one athlete and movement, earliest first
 * @returns most frequent first
 */
export const standingsOf = (sessions: readonly SessionFaults[]): FaultStanding[] =>
  codesOf(sessions)
    .map((code): FaultStanding => {
      const history = historyOf(sessions, code);
      const { now, state, improved } = faultTrend(history, { pointsFrom: history.length });
      return {
        code,
        seen: history.reduce((sum, one) => sum + one.faults, 0),
        rate: now.rate,
        low: now.low,
        high: now.high,
        state,
        improved,
      };
    })
    .sort((a, b) => b.rate - a.rate || (a.code < b.code ? -1 : 1));

/** Only the faults that the movement, as it is now, names; a club may have taken one out. */
const known = (movement: Movement, faults: readonly FaultStanding[]): FaultStanding[] =>
  faults.filter(({ code }) => movement.faults.some((fault) => fault.code === code));

/**
 * How an athlete stands in a movement, with the one cue by the club's school.
 *
 * @param movement in the words that hold for the athlete
 */
export const athleteFaults = (
  movement: Movement,
  counted: Omit<AthleteFaults, 'cue'>,
  school: CueSchool,
): AthleteFaults => {
  const faults = known(movement, counted.faults);
  const cue = cueFor(movement, school, faults);
  return { ...counted, faults, cue: cue && { fault: cue.fault.code, reason: cue.reason } };
};

/**
 * How the faults of an athlete went, a page of sessions at a time.
 *
 * @param sessions of one athlete and movement, earliest first
 * @param page first and last of the sessions that are wanted, from 0
 */
export const faultHistory = (
  sessions: readonly SessionFaults[],
  page: { from: number; to: number },
): FaultHistory['faults'] =>
  codesOf(sessions).map((code) => ({
    code,
    points: faultTrend(historyOf(sessions, code), { pointsFrom: page.from, pointsTo: page.to })
      .points,
  }));

/**
 * Faults to offer for a rep, the likeliest first: the cued one, then by how often it shows, then by how
 * grave it is.
 * @param phases codes of the phases that are gone through: only their faults can show; all where none is known
 * @example likelyFaults(movement, { fault: 'reaches', likely: ['slows-in'] })[0]!.code // 'reaches'
 */
export const likelyFaults = (
  movement: Movement,
  { fault: cued, likely }: Pick<RunCue, 'fault' | 'likely'> = { fault: null, likely: [] },
  phases: readonly string[] = [],
): Movement['faults'] => {
  const there = movement.faults.filter((fault) => phases.includes(fault.phase));
  const place = (code: string): number =>
    code === cued ? -1 : likely.includes(code) ? likely.indexOf(code) : likely.length;
  return [...(there.length > 0 ? there : movement.faults)].sort(
    (a, b) => place(a.code) - place(b.code) || b.severity - a.severity,
  );
};

/** Sessions of an athlete and movement made one by one out of rows of several conditions. */
export const bySession = <R extends SessionFaults & { sessionId: string }>(
  rows: readonly R[],
): SessionFaults[] =>
  [...groupBy(rows, (row) => row.sessionId).values()].map((own) => ({
    date: own[0]!.date,
    reps: own.reduce((sum, row) => sum + row.reps, 0),
    faults: [
      ...groupBy(
        own.flatMap((row) => row.faults),
        ({ fault }) => fault,
      ),
    ].map(([fault, shown]) => ({ fault, reps: shown.reduce((sum, one) => sum + one.reps, 0) })),
    cues: [...new Set(own.flatMap((row) => row.cues))],
  }));
