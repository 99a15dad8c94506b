import { cueState } from '@gravek/core/cue/cueState';
import { rateBand } from '@gravek/core/cue/rateBand';
import type { Ledger, LedgerRow } from '@gravek/contract/faults';
import type { RatePoint } from '../../drawing/RateChart';

/** Points of a curve: more than can be told apart. */
const POINTS = 60;

/**
 * The rate of a fault as it stood after each of the last sessions, by the rule by which it is told now.
 *
 * @param partly the ledger is of some of the reps, in which no change is looked for
 */
export const pointsOf = (
  { log, spans }: Pick<Ledger, 'log' | 'spans'>,
  row: LedgerRow,
  partly = false,
): RatePoint[] => {
  const faultSpans = spans.filter(({ fault }) => fault === row.code);
  // Only sessions with reps that could show it.
  const sessions = log
    .map(({ date }, i) => ({
      ...{ date, reps: row.exposed[i]!, faults: row.shown[i]! },
      cued: faultSpans.some(({ from, to }) => from <= i && i <= to),
    }))
    .filter(({ reps }) => reps > 0);
  const first = Math.max(0, sessions.length - POINTS);
  return sessions.slice(first).map((session, i) => {
    const until = sessions.slice(0, first + i + 1);
    const { rate, low, high } = partly
      ? rateBand({ sessions: until, onDate: session.date })
      : cueState({ sessions: until, prior: row.prior });
    return { ...session, rate, low, high };
  });
};
