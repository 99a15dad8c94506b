import { sql } from 'kysely';
import type { Db } from '../database/connect';

/** What may have changed for others who look at the club; each names a list of the app. */
export type Topic =
  | 'club'
  /** somebody was signed out somewhere; told to nobody, but looked at by pages that listen */
  | 'sign-ins'
  | 'athletes'
  | 'movements'
  | 'grounds'
  | 'approaches'
  | 'sessions'
  | 'reps'
  | 'counts'
  | 'films'
  | 'clock';

/** Gives word to other screens of a club. */
export type Tell = (clubId: string, topic: Topic) => void;

/** The first word is given at once; what changes within this time after it is one word more. */
const TOGETHER_MS = 150;

/**
 * Word to all processes, and so to other screens, that something of a topic has changed. It is given
 * once the change is there to be read; many changes of one topic are few words. A word that cannot be
 * given is tried again until it can.
 */
export const teller = (db: Db, stopping: AbortSignal): Tell => {
  const soon = new Map<string, { again: boolean }>();
  const give = async (word: string): Promise<void> => {
    const waits = { again: false };
    soon.set(word, waits);
    try {
      await sql`select pg_notify('gravek', ${word})`.execute(db);
    } catch {
      waits.again = true;
    }
    setTimeout(() => {
      soon.delete(word);
      if (waits.again && !stopping.aborted) void give(word);
    }, TOGETHER_MS).unref();
  };
  return (clubId, topic) => {
    const word = JSON.stringify({ club: clubId, topic });
    const waits = soon.get(word);
    if (waits) waits.again = true;
    else void give(word);
  };
};
