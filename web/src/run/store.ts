import type { Rep, RunBundle } from '@gravek/contract';
import Dexie, { type EntityTable } from 'dexie';

/** A rep on its way to the server. */
export type QueuedRep = Rep & {
  clubId: string;
  /** why the server would not take it; it then waits for the coach */
  refused?: string;
};

type KeptBundle = { sessionId: string; bundle: RunBundle };

const store = new Dexie('gravek') as Dexie & {
  queue: EntityTable<QueuedRep, 'id'>;
  bundles: EntityTable<KeptBundle, 'sessionId'>;
};

store.version(1).stores({ queue: 'id, clubId, sessionId', bundles: 'sessionId' });

export const queue = store.queue;

/** Keeps a session as last seen, for a field without network. */
export const keepBundle = async (bundle: RunBundle): Promise<void> => {
  await store.bundles.put({ sessionId: bundle.session.id, bundle });
};

export const keptBundle = async (sessionId: string): Promise<RunBundle | undefined> =>
  (await store.bundles.get(sessionId))?.bundle;

/** Forgets what was kept of the club; reps that are not sent yet stay. */
export const forgetBundles = (): Promise<void> => store.bundles.clear();
