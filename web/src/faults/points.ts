import { rateBand } from '@gravek/core';
import type { Ledger, LedgerRow } from '@gravek/contract';
import type { RatePoint } from '../drawing/RateChart';

/** Points of a curve: more than can be told apart. */
const POINTS = 60;

/** The rate of a fault as it stood after each of the last sessions. */
export const pointsOf = (ledger: Ledger, row: LedgerRow): RatePoint[] => {
  const sessions = ledger.log.map(({ date, reps }, i) => ({ date, reps, faults: row.shown[i]! }));
  const first = Math.max(0, sessions.length - POINTS);
  return sessions.slice(first).map((session, i) => ({
    ...session,
    ...rateBand({ sessions: sessions.slice(0, first + i + 1), onDate: session.date }),
  }));
};
