import type { SessionResults } from '@gravek/contract/results';
import { groupBy } from '@gravek/core/session/repLog';
import { isChain } from '@gravek/library/movement/chains';
import { resultsOfCounts } from '@gravek/library/cue/results';
import type { Trx } from '../database/connect';
import { resultsIn, type CountRow } from './counts';

/** What came of an athlete's reps in a movement, session by session. */
export const sessionResults = (rows: readonly CountRow[]): SessionResults[] =>
  [...groupBy(resultsIn(rows), ({ sessionId }) => sessionId).values()].flatMap((session) =>
    resultsOfCounts(session).map((results) => ({
      ...results,
      date: session[0]!.date,
      touchedAt: session
        .filter(
          ({ side, exit, spot }) =>
            side === results.side && exit === results.exit && spot === results.spot,
        )
        .flatMap(({ rounds }) => rounds)
        .sort((a, b) => a.turn - b.turn)
        .map(({ touchS }) => touchS),
    })),
  );

/** What an athlete has made in every chain: of moves, and endings, that can so be held against each other. */
export const makesInChains = async (
  trx: Trx,
  athleteId: string,
): Promise<{ movement: string; tried: number; made: number }[]> => {
  const rows = await trx
    .selectFrom('fault_standing')
    .select(['movement', 'totals'])
    .where('athlete_id', '=', athleteId)
    .orderBy('movement')
    .execute();
  return rows.flatMap(({ movement, totals }) => {
    const tried = totals.reduce((sum, total) => sum + total.tried, 0);
    const made = totals.reduce((sum, total) => sum + total.made, 0);
    return isChain(movement) && tried > 0 ? [{ movement, tried, made }] : [];
  });
};
