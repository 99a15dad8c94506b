import {
  type BodyLoad,
  type Condition,
  type CountedRow,
  groupBy,
  standing,
  type Taught,
  wasRun,
} from './repLog';
import { loggedTwice } from './loggedTwice';

/** Faults that showed in the same rep, and in how many reps just these did. */
export type FaultsTogether = { faults: string[]; reps: number };

/** A rep of touches: which rep of its drill set it was, and the moment of each touch. */
export type TouchRound = { drillSetId: string; turn: number; touchS: number[] };

/** What one session showed of one athlete under one condition. */
export type RepCount = Condition &
  Taught & {
    /** where on the ground, by the coach's name for it; null where no spot was named */
    spot: string | null;
    athleteId: string;
    sessionId: string;
    /** whether they were in the later half of the athlete's reps of a set */
    late: boolean;
    loggedBy: string | null;
    /** whether they were watched; only these rates rest on */
    watched: boolean;
    /** codes of the faults that each of them could show, in the order of the alphabet */
    could: string[];
    /** clean or fault reps that stand */
    reps: number;
    /** how many of them were clean */
    clean: number;
    /** how many of them showed each fault, by its code */
    faults: { fault: string; reps: number }[];
    /** in how many which faults showed at once, reps without any left out */
    together: FaultsTogether[];
    /** faults that were the cue, with the moment at which each was last given, ISO 8601 */
    cues: { fault: string; last: string }[];
    /** reps at which it was said whether they were made, and how many were */
    tried: number;
    made: number;
    /** reps that were held, the seconds of all of them, and the longest */
    held: number;
    heldS: number;
    bestHeldS: number;
    /** reps at a read of which it was said which way was taken, and how many answered what was asked */
    read: number;
    right: number;
    /** which ways were taken of those, and in how many */
    taken: { exit: string; reps: number }[];
    /** reps in which touches were counted, in the order of turns */
    rounds: TouchRound[];
    /** reps of which metres or minutes count, and all of those */
    runs: number;
    ranM: number;
    ranS: number;
    /** reps that were timed at a read by a coach's tap, and the seconds of all of them */
    timed: number;
    lateS: number;
    /** reps in which the first step after a call was heard, felt or filmed, and the seconds of all of them */
    heard: number;
    heardS: number;
    load: BodyLoad;
  };

/**
 * What several reps put on a body together; those of which nothing is known count for nothing.
 *
 * @example addLoads([{ contacts: 12, jumps: 1, throws: 0, sprintM: 20 }, null]).contacts // 12
 */
export const addLoads = (loads: readonly (BodyLoad | null)[]): BodyLoad => {
  const sum = { contacts: 0, jumps: 0, throws: 0, sprintM: 0 };
  for (const load of loads) {
    sum.contacts += load?.contacts ?? 0;
    sum.jumps += load?.jumps ?? 0;
    sum.throws += load?.throws ?? 0;
    sum.sprintM += load?.sprintM ?? 0;
  }
  return sum;
};

/**
 * Counts a log per athlete, session, movement, fault and condition.
 *
 * @param log whole turns: a turn of which rows are missing could be counted wrongly
 */
export const countReps = (log: readonly CountedRow[]): RepCount[] => {
  const run = standing(log).filter(wasRun);
  const late = lateOf(run);
  const cells = groupBy(run, (row) =>
    JSON.stringify([
      row.athleteId,
      row.sessionId,
      row.movement,
      row.part,
      row.side,
      row.leadFoot,
      row.speedPct,
      row.rung,
      row.exit,
      row.ways,
      row.spot,
      late.has(row),
      row.loggedBy,
      row.watched,
      couldOf(row),
    ]),
  );
  return [...cells.values()].map((rows) => {
    const { athleteId, sessionId, movement, part, side, leadFoot, speedPct, rung, exit, loggedBy } =
      rows[0]!;
    const faults = groupBy(
      rows.flatMap((row) => [...new Set(row.faults)]),
      (fault) => fault,
    );
    const cues = groupBy(
      rows.flatMap(({ cue, at }) => (cue === null ? [] : [{ cue, at }])),
      ({ cue }) => cue,
    );
    return {
      athleteId,
      sessionId,
      movement,
      part,
      side,
      leadFoot,
      speedPct,
      rung,
      exit,
      ways: rows[0]!.ways,
      spot: rows[0]!.spot,
      late: late.has(rows[0]!),
      loggedBy,
      watched: rows[0]!.watched,
      could: couldOf(rows[0]!),
      reps: rows.length,
      clean: rows.filter((row) => row.outcome === 'clean').length,
      faults: [...faults].map(([fault, shown]) => ({ fault, reps: shown.length })).sort(byFault),
      together: togetherIn(rows),
      cues: [...cues]
        .map(([fault, cueReps]) => ({
          fault,
          last: cueReps
            .map(({ at }) => at)
            .sort()
            .at(-1)!,
        }))
        .sort(byFault),
      tried: rows.filter((row) => row.made !== null).length,
      made: rows.filter((row) => row.made === true).length,
      held: rows.filter((row) => row.heldS !== null).length,
      heldS: sumOf(rows, ({ heldS }) => heldS),
      bestHeldS: rows.reduce((best, row) => Math.max(best, row.heldS ?? 0), 0),
      read: rows.filter((row) => row.right !== null).length,
      right: rows.filter((row) => row.right === true).length,
      taken: [...groupBy(rows, (row) => (row.right === null ? '' : (row.taken ?? '')))]
        .filter(([exit]) => exit !== '')
        .map(([exit, taking]) => ({ exit, reps: taking.length }))
        .sort((a, b) => (a.exit < b.exit ? -1 : 1)),
      rounds: rows
        .flatMap(({ drillSetId, turn, touchS }) =>
          touchS && touchS.length > 0 ? [{ drillSetId, turn, touchS: [...touchS] }] : [],
        )
        .sort(byRound),
      runs: rows.filter(({ ranM, ranS }) => ranM !== null || ranS !== null).length,
      ranM: sumOf(rows, ({ ranM }) => ranM),
      ranS: sumOf(rows, ({ ranS }) => ranS),
      timed: rows.filter(isTimed).length,
      lateS: sumOf(rows.filter(isTimed), ({ lateS }) => lateS),
      heard: rows.filter(isHeard).length,
      heardS: sumOf(rows.filter(isHeard), ({ lateS }) => lateS),
      load: addLoads(rows.map((row) => row.load)),
    };
  });
};

/** A rep that two people logged, each by themselves, with the faults that each saw. */
export type WatchedTwice = {
  athleteId: string;
  sessionId: string;
  movement: string;
  a: string;
  b: string;
  faultsA: string[];
  faultsB: string[];
  /** codes of the faults that both could see */
  could: string[];
};

/** Reps of a log that two people have logged; what two phones of one person sent is none. */
export const watchedTwice = (log: readonly CountedRow[]): WatchedTwice[] =>
  loggedTwice(log).flatMap(({ stands, other }) =>
    stands.loggedBy === null ||
    other.loggedBy === null ||
    stands.loggedBy === other.loggedBy ||
    !stands.watched ||
    !other.watched
      ? []
      : [
          {
            athleteId: stands.athleteId,
            sessionId: stands.sessionId,
            movement: stands.movement,
            a: stands.id,
            b: other.id,
            faultsA: [...stands.faults],
            faultsB: [...other.faults],
            could: couldOf(stands).filter((fault) => couldOf(other).includes(fault)),
          },
        ],
  );

/** What a rep could show; what it showed, it could. */
const couldOf = ({ could, faults }: CountedRow): string[] =>
  [...new Set([...could, ...faults])].sort();

/** A tap that comes later than this says nothing of how soon an athlete has moved, seconds. */
export const LATEST_TAP_S = 3;
const isInTime = ({ lateS }: CountedRow): boolean => lateS !== null && lateS <= LATEST_TAP_S;
const isTap = ({ lateBy }: CountedRow): boolean => lateBy === null || lateBy === 'tap';
const isTimed = (row: CountedRow): boolean => isInTime(row) && isTap(row);
const isHeard = (row: CountedRow): boolean => isInTime(row) && !isTap(row);

const sumOf = (rows: readonly CountedRow[], figureOf: (row: CountedRow) => number | null): number =>
  rows.reduce((sum, row) => sum + (figureOf(row) ?? 0), 0);

const byRound = (a: TouchRound, b: TouchRound): number =>
  a.drillSetId === b.drillSetId ? a.turn - b.turn : a.drillSetId < b.drillSetId ? -1 : 1;

/** Which faults the reps showed at once, those that showed none left out. */
const togetherIn = (rows: readonly CountedRow[]): FaultsTogether[] =>
  [...groupBy(rows, (row) => JSON.stringify([...new Set(row.faults)].sort()))]
    .map(([faults, togetherReps]) => ({
      faults: JSON.parse(faults) as string[],
      reps: togetherReps.length,
    }))
    .filter(({ faults }) => faults.length > 0)
    .sort((a, b) => (a.faults.join() < b.faults.join() ? -1 : 1));

/** In the order of turns; where that leaves it open it is the same whatever order the rows came in. */
const byTurn = (a: CountedRow, b: CountedRow): number => a.turn - b.turn || (a.id < b.id ? -1 : 1);

/** Of the reps that an athlete ran in one set those of the later half; the one in the middle is early. */
const lateOf = (run: readonly CountedRow[]): ReadonlySet<CountedRow> =>
  new Set(
    [...groupBy(run, (row) => `${row.drillSetId}/${row.athleteId}/${row.set}`).values()].flatMap(
      (turnRows) => turnRows.sort(byTurn).slice(Math.ceil(turnRows.length / 2)),
    ),
  );

const byFault = (a: { fault: string }, b: { fault: string }): number =>
  a.fault < b.fault ? -1 : a.fault > b.fault ? 1 : 0;
