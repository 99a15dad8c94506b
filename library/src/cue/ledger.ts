import { contrasts } from '@gravek/core/cue/contrasts';
import type { RepCounts } from '@gravek/core/cue/cueEffect';
import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import { kappa } from '@gravek/core/cue/kappa';
import { groupBy } from '@gravek/core/session/repLog';
import type {
  Agreement,
  Condition,
  Contrast,
  ContrastAxis,
  CueSpan,
  LedgerRow,
} from '@gravek/contract/faults';
import type { ReadRecord } from '@gravek/contract/results';
import type { Movement } from '@gravek/contract/movement';
import { RUNGS } from '@gravek/contract/rungs';
import { answersRead } from '../field/shows';
import { type SessionFaults, shownIn } from './sessionFaults';

/** Counts of a session under one condition. */
export type ConditionRow = SessionFaults & { sessionId: string } & Condition;

/** From here on a run is as good as at full speed. */
const FULL_PCT = 90;

/** Of which two conditions the counts are held against each other; null where a row is of neither. */
const SIDES_OF: Record<ContrastAxis, (row: Condition) => 'a' | 'b' | null> = {
  side: ({ side }) => (side === 'own' ? 'a' : 'b'),
  leadFoot: ({ leadFoot }) => (leadFoot === null ? null : leadFoot === 'left' ? 'a' : 'b'),
  speed: ({ speedPct }) => (speedPct === null ? null : speedPct < FULL_PCT ? 'a' : 'b'),
  rung: ({ rung }) => (rung === null ? null : rung === RUNGS[0] ? 'a' : 'b'),
  tired: ({ late }) => (late ? 'b' : 'a'),
};

/**
 * Where the faults of an athlete show only, or more, under one condition: only what stands out when all
 * that was looked at is allowed for.
 *
 * @param codes faults to look at; those that never showed need not be
 */
export const contrastsOf = (
  rows: readonly ConditionRow[],
  codes: readonly string[],
): Contrast[] => {
  const looks = (Object.keys(SIDES_OF) as ContrastAxis[]).flatMap((axis) => {
    const parts = groupBy(rows, (row) => SIDES_OF[axis](row) ?? '');
    return codes.map((fault) => ({
      id: JSON.stringify([axis, fault]),
      axis,
      fault,
      a: shownIn(parts.get('a') ?? [], fault),
      b: shownIn(parts.get('b') ?? [], fault),
    }));
  });
  const seen = contrasts({ looks }).looks;
  return looks.flatMap(({ axis, fault, a, b }, i) =>
    seen[i]!.flagged ? [{ axis, fault, a, b, probability: seen[i]!.probability! }] : [],
  );
};

/**
 * Whether a row is of the conditions that are asked for; what is not asked for is of any.
 *
 * @example
 * const row = { part: null, side: 'own', leadFoot: 'left', speedPct: 100, rung: null, exit: null, late: false, loggedBy: null };
 * isOf(row, { side: 'own', speedPct: 50 }) // false
 */
export const isOf = (row: Condition, wanted: Partial<Condition>): boolean =>
  Object.entries(wanted).every(([axis, value]) => row[axis as keyof Condition] === value);

/**
 * Runs of sessions in which a fault was the cue, earliest first; they may overlap where one was changed.
 *
 * @example
 * const day = (date, reps, seen) => ({ date, sessionId: date, reps, exposed: [{ fault: 'chops', reps }],
 *   faults: [{ fault: 'chops', reps: seen }], together: [], cues: [] });
 * const told = (date) => ({ ...day(date, 10, 4), cues: [{ fault: 'chops', last: `${date}T10:00:00Z` }] });
 * cueSpans([told('2031-03-01'), told('2031-03-08')]) // [{ fault: 'chops', from: 0, to: 1 }]
 */
export const cueSpans = (sessions: readonly SessionFaults[]): CueSpan[] => {
  const spans: CueSpan[] = [];
  const open = new Map<string, CueSpan>();
  sessions.forEach(({ cues }, i) => {
    for (const [fault, span] of open) {
      if (cues.every((cue) => cue.fault !== fault)) open.delete(fault);
      else span.to = i;
    }
    for (const { fault } of cues) {
      if (open.has(fault)) continue;
      const span = { fault, from: i, to: i };
      open.set(fault, span);
      spans.push(span);
    }
  });
  return spans;
};

const MOST_BEFORE = 6;
const LEAST_SESSIONS = 2;

/**
 * What the cues of an athlete have done so far: of each span of two sessions or more with sessions before
 * it, reps and faults before and since.
 */
export const cueResults = (
  sessions: readonly SessionFaults[],
): { fault: string; before: RepCounts; since: RepCounts }[] =>
  cueSpans(sessions).flatMap(({ fault, from, to }) =>
    from === 0 || to - from + 1 < LEAST_SESSIONS
      ? []
      : [
          {
            fault,
            before: shownIn(sessions.slice(Math.max(0, from - MOST_BEFORE), from), fault),
            since: shownIn(sessions.slice(from, to + 1), fault),
          },
        ],
  );

/** Which way is misread most: what was asked, and as what it was taken oftenest. */
export type Misread = {
  asked: string;
  taken: string;
  /** reps in which that was asked, and how many of them were answered wrongly in any way */
  reps: number;
  wrong: number;
};

/** Under so many wrong answers none stands out. */
const LEAST_WRONG = 3;

/**
 * The exit that is answered wrongly in the largest share of its reps.
 *
 * @returns null where none was answered wrongly three times
 * @example
 * const reads = [{ exit: 'read:left', reps: 20, right: 12, taken: [{ exit: 'read:right', reps: 8 }] }];
 * misreadMost(stutterReadGo, reads).wrong // 8
 */
export const misreadMost = (movement: Movement, reads: readonly ReadRecord[]): Misread | null => {
  const wrongShare = ({ reps, right }: ReadRecord): number => (reps - right) / reps;
  const [worst] = reads
    .filter(({ reps, right }) => reps - right >= LEAST_WRONG)
    .sort((a, b) => wrongShare(b) - wrongShare(a));
  const [instead] = (worst?.taken ?? [])
    .filter(({ exit }) => !answersRead(movement, worst!.exit, exit))
    .sort((a, b) => b.reps - a.reps);
  return worst && instead
    ? {
        asked: worst.exit,
        taken: instead.exit,
        reps: worst.reps,
        wrong: worst.reps - worst.right,
      }
    : null;
};

/** A mean of means, each with the reps behind it; null where there are none. */
const meanOfMeans = (means: readonly { reps: number; meanS: number | null }[]): number | null => {
  const reps = means.reduce((sum, mean) => sum + mean.reps, 0);
  return reps === 0
    ? null
    : means.reduce((sum, mean) => sum + mean.reps * (mean.meanS ?? 0), 0) / reps;
};

/**
 * What several athletes made of the same reads, together.
 *
 * @example
 * const read = { exit: 'fake:outside', read: 6, right: 4, taken: { 'fake:inside': 2 }, timed: 0, lateS: 0, heard: 0, heardS: 0 };
 * addReads([...readsOfCounts([read]), ...readsOfCounts([read])])[0].right // 8
 */
export const addReads = (reads: readonly ReadRecord[]): ReadRecord[] =>
  [...groupBy(reads, ({ exit }) => exit)].map(([exit, records]) => ({
    exit,
    reps: records.reduce((sum, { reps }) => sum + reps, 0),
    right: records.reduce((sum, { right }) => sum + right, 0),
    taken: [
      ...groupBy(
        records.flatMap(({ taken }) => taken),
        (way) => way.exit,
      ),
    ].map(([way, list]) => ({ exit: way, reps: list.reduce((sum, { reps }) => sum + reps, 0) })),
    timed: records.reduce((sum, { timed }) => sum + timed, 0),
    lateS: meanOfMeans(records.map(({ timed, lateS }) => ({ reps: timed, meanS: lateS }))),
    heard: records.reduce((sum, { heard }) => sum + heard, 0),
    reactionS: meanOfMeans(
      records.map(({ heard, reactionS }) => ({ reps: heard, meanS: reactionS })),
    ),
  }));

/**
 * Rows of the ledger worth showing first: live now, or with a story to tell.
 *
 * @example isTelling({ rate: 0.02, state: 'new', seen: 0 }) // false
 */
export const isTelling = ({
  rate,
  state,
  seen,
}: Pick<LedgerRow, 'rate' | 'state' | 'seen'>): boolean =>
  rate >= LIVE_RATE ||
  state === 'clearing' ||
  state === 'back' ||
  state === 'stuck' ||
  (state === 'cleared' && seen >= 8);

/**
 * How far two watchers agree, fault by fault, on the reps that both logged and that could show it; faults that neither saw left out.
 *
 * @example
 * const rep = { faultsA: ['chops'], faultsB: ['chops'], could: ['chops', 'looks'] };
 * agreementOf([rep, rep, { ...rep, faultsB: [] }])[0]
 * // { fault: 'chops', reps: 3, agreement: 0.667, kappa: 0 }
 */
export const agreementOf = (
  reps: readonly {
    faultsA: readonly string[];
    faultsB: readonly string[];
    could: readonly string[];
  }[],
): Agreement[] =>
  [...new Set(reps.flatMap(({ faultsA, faultsB }) => [...faultsA, ...faultsB]))].flatMap(
    (fault) => {
      const count = { both: 0, onlyA: 0, onlyB: 0, neither: 0 };
      const both = reps.filter(({ could }) => could.includes(fault));
      for (const { faultsA, faultsB } of both) {
        const a = faultsA.includes(fault);
        const b = faultsB.includes(fault);
        count[a && b ? 'both' : a ? 'onlyA' : b ? 'onlyB' : 'neither'] += 1;
      }
      if (both.length === 0) return [];
      const { agreement, kappa: beyond } = kappa(count);
      return [{ fault, reps: both.length, agreement, kappa: beyond }];
    },
  );
