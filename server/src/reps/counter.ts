import { sql } from 'kysely';
import type { Logger } from 'pino';
import type { Changes } from '../changes/listen';
import type { Tell } from '../changes/tell';
import type { Db } from '../database/connect';
import { countNew } from './countNew';

/** After a club was counted, what comes within this time is counted together. */
const GATHER_MS = 250;
/** Clubs are looked for that are behind though no word of it was heard. */
const LOOK_MS = 5_000;

type Parts = {
  db: Db;
  changes: Changes;
  tell: Tell;
  log: Logger;
};

/** Counts what has arrived in a club's logs, as one transaction. */
export const countClub = (db: Db, clubId: string): Promise<boolean> =>
  db.transaction().execute(async (trx) => {
    await sql`select gravek_enter_as_server(${clubId})`.execute(trx);
    return countNew(trx);
  });

const clubsBehind = async (db: Db): Promise<string[]> => {
  const { rows } = await sql<{ club: string }>`select gravek_behind() as club`.execute(db);
  return rows.map(({ club }) => club);
};

/**
 * Counts reps soon after they have come, of all clubs, in whichever process leads: a word that reps have
 * come wakes it. Word is given once they are counted, so that pages ask anew.
 *
 * Invariant: counts are brought up to date here and in writes, never by a read.
 *
 * @returns how many clubs wait to be counted, and how to stop; what is under way is ended first
 */
export const keepCounting = ({ db, changes, tell, log }: Parts) => {
  const due = new Set<string>();
  let working: Promise<void> | undefined;
  let stopped = false;

  const work = async (): Promise<void> => {
    while (due.size > 0 && !stopped && changes.leads()) {
      const clubs = [...due];
      due.clear();
      for (const clubId of clubs) {
        try {
          if (await countClub(db, clubId)) tell(clubId, 'counts');
        } catch (error) {
          // It is found again as one that is behind.
          log.warn({ err: error as unknown }, 'a club could not be counted');
        }
      }
      await new Promise((resolve) => setTimeout(resolve, GATHER_MS));
    }
  };
  const want = (clubIds: readonly string[]): void => {
    for (const clubId of clubIds) due.add(clubId);
    if (due.size > 0) {
      working ??= work().finally(() => {
        working = undefined;
      });
    }
  };
  const look = async (): Promise<void> => {
    if (!changes.leads()) return;
    try {
      want(await clubsBehind(db));
    } catch {
      // The database is away; the next look may find it.
    }
  };
  const unhear = changes.onAny(({ club, topic }) => {
    if (topic === 'reps' && changes.leads()) want([club]);
  });
  const unlead = changes.onLead(() => void look());
  const timer = setInterval(() => void look(), LOOK_MS);
  return {
    waiting: () => due.size,
    stop: async () => {
      stopped = true;
      clearInterval(timer);
      unhear();
      unlead();
      await working;
    },
  };
};
