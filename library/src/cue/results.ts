import type { RepCount, TouchRound } from '@gravek/core/session/repCounts';
import { groupBy } from '@gravek/core/session/repLog';
import type { ReadRecord, Results } from '@gravek/contract/results';

/** What is counted of reps beside their faults. */
export type ResultCount = Pick<
  RepCount,
  | 'side'
  | 'exit'
  | 'spot'
  | 'tried'
  | 'made'
  | 'held'
  | 'heldS'
  | 'bestHeldS'
  | 'rounds'
  | 'runs'
  | 'ranM'
  | 'ranS'
>;

/**
 * The times between the touches of a round: from the go to the first, where a go was called, and from each
 * to the next.
 *
 * @param touchS moments, seconds from the go or from the first touch
 * @returns seconds; empty under two moments
 * @example splitsOf([0, 1.2, 2.6]) // [1.2, 1.4]
 */
export const splitsOf = (touchS: readonly number[]): number[] =>
  touchS.flatMap((atS, i) => (i > 0 ? [atS - touchS[i - 1]!] : atS > 0 ? [atS] : []));

/** Mean time between the touches of a round, seconds; null where there is none. */
const meanSplitS = ({ touchS }: Pick<TouchRound, 'touchS'>): number | null => {
  const splits = splitsOf(touchS);
  return splits.length === 0 ? null : splits.reduce((sum, split) => sum + split, 0) / splits.length;
};

/** The first and the last round of each drill set that has two or more, by their mean times between touches. */
const firstAndLast = (rounds: readonly TouchRound[]): { firstS: number; lastS: number }[] =>
  [...groupBy(rounds, ({ drillSetId }) => drillSetId).values()].flatMap((setRounds) => {
    const means = [...setRounds]
      .sort((a, b) => a.turn - b.turn)
      .flatMap((round) => meanSplitS(round) ?? []);
    return means.length < 2 ? [] : [{ firstS: means[0]!, lastS: means.at(-1)! }];
  });

const sumOf = <T>(list: readonly T[], figureOf: (item: T) => number): number =>
  list.reduce((sum, item) => sum + figureOf(item), 0);

const leastOf = (figures: readonly (number | null)[]): number | null => {
  const figuresKnown = figures.filter((figure) => figure !== null);
  return figuresKnown.length === 0 ? null : Math.min(...figuresKnown);
};

/**
 * What came of the counts of one session, by side, exit and spot.
 *
 * @returns nothing of reps that have neither makes, seconds, touches, metres nor minutes
 * @example
 * const made = (spot, tried, made) => ({ side: 'own', exit: null, spot, tried, made, held: 0, heldS: 0, bestHeldS: 0,
 *   rounds: [], runs: 0, ranM: 0, ranS: 0 });
 * resultsOfCounts([made('left block', 6, 4), made('left block', 4, 3)]).map(({ spot, tried, made }) => ({ spot, tried, made }))
 * // [{ spot: 'left block', tried: 10, made: 7 }]
 */
export const resultsOfCounts = (counts: readonly ResultCount[]): Results[] => {
  const some = counts.filter(
    ({ tried, held, rounds, runs }) => tried + held + rounds.length + runs > 0,
  );
  return [
    ...groupBy(some, ({ side, exit, spot }) => JSON.stringify([side, exit, spot])).values(),
  ].map((sessionRows) => {
    const rounds = sessionRows.flatMap((count) => count.rounds);
    const splits = rounds.flatMap(({ touchS }) => splitsOf(touchS));
    const ends = firstAndLast(rounds);
    return {
      side: sessionRows[0]!.side,
      exit: sessionRows[0]!.exit,
      spot: sessionRows[0]!.spot,
      tried: sumOf(sessionRows, ({ tried }) => tried),
      made: sumOf(sessionRows, ({ made }) => made),
      held: sumOf(sessionRows, ({ held }) => held),
      heldS: sumOf(sessionRows, ({ heldS }) => heldS),
      bestHeldS: Math.max(...sessionRows.map(({ bestHeldS }) => bestHeldS)),
      rounds: rounds.length,
      touches: sumOf(rounds, ({ touchS }) => touchS.length),
      splits: splits.length,
      splitS: sumOf(splits, (split) => split),
      bestSplitS: leastOf(rounds.map(meanSplitS)),
      compared: ends.length,
      firstSplitS: sumOf(ends, ({ firstS }) => firstS),
      lastSplitS: sumOf(ends, ({ lastS }) => lastS),
      runs: sumOf(sessionRows, ({ runs }) => runs),
      ranM: sumOf(sessionRows, ({ ranM }) => ranM),
      ranS: sumOf(sessionRows, ({ ranS }) => ranS),
    };
  });
};

/** What parts the results that are added up: only the side, or each of what differs. */
export type ResultsBy = 'side' | 'exit' | 'spot' | 'all';

const PARTS: Record<ResultsBy, (results: Results) => Pick<Results, 'side' | 'exit' | 'spot'>> = {
  side: ({ side }) => ({ side, exit: null, spot: null }),
  exit: ({ side, exit }) => ({ side, exit, spot: null }),
  spot: ({ side, spot }) => ({ side, exit: null, spot }),
  all: ({ side, exit, spot }) => ({ side, exit, spot }),
};

/** What is counted of reads that were answered. */
export type ReadCount = Pick<
  RepCount,
  'read' | 'right' | 'taken' | 'timed' | 'lateS' | 'heard' | 'heardS'
> & { exit: string };

const meanOf = (sum: number, many: number): number | null => (many === 0 ? null : sum / many);

/**
 * What was made of each exit that reads asked for, in the order of the alphabet.
 *
 * @example
 * const read = { exit: 'fake:outside', read: 6, right: 4, taken: { 'fake:inside': 2 }, timed: 0, lateS: 0, heard: 0, heardS: 0 };
 * readsOfCounts([read, read])[0].right // 8
 */
export const readsOfCounts = (counts: readonly ReadCount[]): ReadRecord[] =>
  [...groupBy(counts, ({ exit }) => exit)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([exit, exitRows]) => {
      const timed = sumOf(exitRows, (count) => count.timed);
      const heard = sumOf(exitRows, (count) => count.heard);
      const ways = groupBy(
        exitRows.flatMap(({ taken }) => taken),
        (way) => way.exit,
      );
      return {
        exit,
        reps: sumOf(exitRows, ({ read }) => read),
        right: sumOf(exitRows, ({ right }) => right),
        taken: [...ways]
          .map(([way, list]) => ({ exit: way, reps: sumOf(list, ({ reps }) => reps) }))
          .sort((a, b) => (a.exit < b.exit ? -1 : 1)),
        timed,
        lateS: meanOf(
          sumOf(exitRows, ({ lateS }) => lateS),
          timed,
        ),
        heard,
        reactionS: meanOf(
          sumOf(exitRows, ({ heardS }) => heardS),
          heard,
        ),
      };
    });

/** Figures of results that are added up. */
const SUMMED = [
  ...(['tried', 'made', 'held', 'heldS', 'rounds', 'touches', 'splits', 'splitS'] as const),
  ...(['compared', 'firstSplitS', 'lastSplitS', 'runs', 'ranM', 'ranS'] as const),
] as const;

/**
 * Results of several sessions or athletes together.
 *
 * @param by what they are kept apart by
 * @example
 * const row = { side: 'own', exit: null, spot: 'wing', tried: 4, made: 3 };
 * addResults([row, row], 'spot')[0].made // 6
 */
export const addResults = (results: readonly Results[], by: ResultsBy): Results[] =>
  [...groupBy(results, (row) => JSON.stringify(PARTS[by](row))).values()].map((partRows) => ({
    ...PARTS[by](partRows[0]!),
    ...(Object.fromEntries(
      SUMMED.map((figure) => [figure, sumOf(partRows, (row) => row[figure])]),
    ) as Pick<Results, (typeof SUMMED)[number]>),
    bestHeldS: Math.max(...partRows.map(({ bestHeldS }) => bestHeldS)),
    bestSplitS: leastOf(partRows.map(({ bestSplitS }) => bestSplitS)),
  }));

/**
 * How much longer the last rounds took than the first, as a part of them: 0.1 is a tenth slower.
 *
 * @example slowsBy({ compared: 2, firstSplitS: 0.8, lastSplitS: 0.88 }) // 0.1
 */
export const slowsBy = ({ compared, firstSplitS, lastSplitS }: Results): number | null =>
  compared === 0 || firstSplitS === 0 ? null : lastSplitS / firstSplitS - 1;

/**
 * Makes at each spot, both sides together; what was tried at no spot in particular is left out.
 *
 * @example
 * const made = (spot, tried, made) => ({ side: 'own', exit: null, spot, tried, made, held: 0, heldS: 0, bestHeldS: 0,
 *   rounds: [], runs: 0, ranM: 0, ranS: 0 });
 * makesBySpot(resultsOfCounts([made('left block', 6, 4), made('right block', 4, 3)]))
 * // [{ spot: 'left block', tried: 6, made: 4 }, { spot: 'right block', tried: 4, made: 3 }]
 */
export const makesBySpot = (
  results: readonly Results[],
): Pick<Results, 'spot' | 'tried' | 'made'>[] =>
  [...groupBy(results, ({ spot }) => spot ?? '')]
    .filter(([spot]) => spot !== '')
    .map(([spot, spotRows]) => ({
      spot,
      tried: sumOf(spotRows, ({ tried }) => tried),
      made: sumOf(spotRows, ({ made }) => made),
    }));

/** Tries under which a share of makes says little. */
const TELLING_TRIES = 5;

/**
 * Where makes are fewest, by spot or exit, once each was tried a few times; null where none stands below the others.
 *
 * @example
 * const made = (spot, tried, made) => ({ side: 'own', exit: null, spot, tried, made, held: 0, heldS: 0, bestHeldS: 0,
 *   rounds: [], runs: 0, ranM: 0, ranS: 0 });
 * fewestMade(resultsOfCounts([made('left block', 20, 4), made('right block', 20, 18)]), 'spot').spot
 * // 'left block'
 */
export const fewestMade = (results: readonly Results[], by: 'exit' | 'spot'): Results | null => {
  const share = ({ made, tried }: Results): number => made / tried;
  const told = addResults(results, by)
    .filter((result) => result[by] !== null && result.tried >= TELLING_TRIES)
    .sort((a, b) => share(a) - share(b));
  const [worst, next] = told;
  return worst && next && share(worst) < share(told.at(-1)!) ? worst : null;
};
