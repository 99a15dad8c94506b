import { type BetaPrior, clubPrior } from '@gravek/core/cue/clubPrior';
import type { RepCounts } from '@gravek/core/cue/cueEffect';
import type { HistorySession } from '@gravek/core/cue/faultHistory';
import type { FaultsTogether } from '@gravek/core/session/repCounts';
import { groupBy } from '@gravek/core/session/repLog';

/** What one session showed of an athlete in a movement, over all conditions. */
export type SessionFaults = {
  date: string;
  /** reps that stand and were watched */
  reps: number;
  /** how many of them could show each fault; what is not named could not be seen */
  exposed: readonly { fault: string; reps: number }[];
  faults: readonly { fault: string; reps: number }[];
  /** in how many which of them showed at once */
  together: readonly FaultsTogether[];
  /** faults that were the cue, with the moment at which each was last given */
  cues: readonly { fault: string; last: string }[];
};

export const codesOf = (sessions: readonly SessionFaults[]): string[] => [
  ...new Set(
    sessions.flatMap(({ faults, cues }) => [...faults, ...cues].map(({ fault }) => fault)),
  ),
];

/**
 * One fault through the sessions of an athlete and movement, earliest first: only reps that could show it,
 * none where no rep could.
 *
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * const sessions = [day('2031-03-01', 10, 6), day('2031-03-08', 12, 5)];
 * historyOf(sessions, 'chops')
 * // [{ date: '2031-03-01', reps: 10, faults: 6, cued: false }, { date: '2031-03-08', reps: 12, faults: 5, cued: false }]
 */
export const historyOf = (sessions: readonly SessionFaults[], code: string): HistorySession[] =>
  sessions.map(({ date, exposed, faults, cues }) => ({
    date,
    reps: exposed.find((shown) => shown.fault === code)?.reps ?? 0,
    faults: faults.find((fault) => fault.fault === code)?.reps ?? 0,
    cued: cues.some((cue) => cue.fault === code),
  }));

/** What the club knows of each fault of a movement, by its code. */
export type Priors = ReadonlyMap<string, BetaPrior>;

/** Of an athlete in a movement how many reps could show each fault, and how many showed it, by its code. */
export type Shown = {
  exposed: Readonly<Record<string, number>>;
  seen: Readonly<Record<string, number>>;
};

const countOf = (counts: Readonly<Record<string, number>>, code: string): number =>
  Object.hasOwn(counts, code) ? counts[code]! : 0;

/**
 * What a club knows of the faults of a movement, from what each of its athletes has shown.
 *
 * @example
 * priorsOf([{ exposed: { chops: 40 }, seen: { chops: 10 } }]).get('chops') // { alpha: 0.5, beta: 0.5 }
 */
export const priorsOf = (shown: readonly Shown[]): Priors => {
  const codes = new Set(shown.flatMap(({ seen }) => Object.keys(seen)));
  return new Map(
    [...codes].map((code) => [
      code,
      clubPrior({
        athletes: shown.map(({ exposed, seen }) => ({
          reps: countOf(exposed, code),
          faults: countOf(seen, code),
        })),
      }),
    ]),
  );
};

/**
 * Sessions of an athlete and movement made one by one out of rows of several conditions.
 *
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * bySession([day('2031-03-01', 10, 6), day('2031-03-01', 4, 2)]).map(({ reps }) => reps) // [14]
 */
export const bySession = <R extends SessionFaults & { sessionId: string }>(
  rows: readonly R[],
): (SessionFaults & { sessionId: string })[] =>
  [...groupBy(rows, (row) => row.sessionId).values()].map((sessionRows) => ({
    sessionId: sessionRows[0]!.sessionId,
    date: sessionRows[0]!.date,
    reps: sessionRows.reduce((sum, row) => sum + row.reps, 0),
    exposed: add(sessionRows.flatMap((row) => row.exposed)),
    faults: add(sessionRows.flatMap((row) => row.faults)),
    together: sessionRows.flatMap((row) => row.together),
    cues: [
      ...groupBy(
        sessionRows.flatMap((row) => row.cues),
        ({ fault }) => fault,
      ),
    ].map(([fault, cueReps]) => ({
      fault,
      last: cueReps
        .map(({ last }) => last)
        .sort()
        .at(-1)!,
    })),
  }));

/**
 * What several counts show together of a fault, out of the reps that could show it.
 *
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * const sessions = [day('2031-03-01', 10, 6), day('2031-03-08', 12, 5)];
 * shownIn(sessions, 'chops') // { reps: 22, faults: 11 }
 */
export const shownIn = (
  rows: readonly Pick<SessionFaults, 'exposed' | 'faults'>[],
  code: string,
): RepCounts => {
  const sum = (lists: readonly (readonly { fault: string; reps: number }[])[]): number =>
    lists.flat().reduce((total, { fault, reps }) => total + (fault === code ? reps : 0), 0);
  return {
    reps: sum(rows.map(({ exposed }) => exposed)),
    faults: sum(rows.map(({ faults }) => faults)),
  };
};

/**
 * Counts of a fault by its code, out of a list of them.
 *
 * @example byFaultCode([{ fault: 'chops', reps: 6 }, { fault: 'chops', reps: 5 }]) // { chops: 11 }
 */
export const byFaultCode = (
  list: readonly { fault: string; reps: number }[],
): Record<string, number> => Object.fromEntries(add(list).map(({ fault, reps }) => [fault, reps]));

export const add = (
  lists: readonly { fault: string; reps: number }[],
): { fault: string; reps: number }[] =>
  [...groupBy(lists, ({ fault }) => fault)].map(([fault, shown]) => ({
    fault,
    reps: shown.reduce((sum, session) => sum + session.reps, 0),
  }));
