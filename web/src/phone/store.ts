import type { RunBundle } from '@gravek/contract/run';
import type { LogPage, NewRep, Rep, RepReceipt, StoredRep } from '@gravek/contract/session';
import Dexie, { type EntityTable, type Transaction } from 'dexie';
import { v7 as uuid } from 'uuid';

/** A rep on its way to the server. */
export type QueuedRep = Rep & {
  clubId: string;
  /** who tapped it; absent on what an older version queued */
  accountId?: string;
  person?: string;
  /** why the server would not take it; it then waits for the coach and counts for nothing */
  refused?: string;
};

type KeptBundle = {
  sessionId: string;
  bundle: RunBundle;
  openedMs: number;
  /** when it was asked for; absent on what an older version kept */
  askedMs?: number;
};

/** How far the log of a session is known: the number of the last row that arrived there. */
type LogEnd = { sessionId: string; after: number };

/** Somebody in a club, as this device needs to know them. */
export type Tapper = { clubId: string; accountId: string; person: string };

/** Whether a rep that waits is somebody's to send. */
export const isOf = (rep: QueuedRep, { clubId, accountId }: Tapper): boolean =>
  rep.clubId === clubId && (rep.accountId === undefined || rep.accountId === accountId);

/** What this device calls itself in the log, and the number it gave last. */
type Device = { key: 'own'; id: string; last: number };

/** A film that was opened on this device; it never leaves it. */
type KeptFilm = { reviewId: string; film: Blob; keptMs: number };

type Store = Dexie & {
  films: EntityTable<KeptFilm, 'reviewId'>;
  queue: EntityTable<QueuedRep, 'id'>;
  log: EntityTable<StoredRep, 'id'>;
  ends: EntityTable<LogEnd, 'sessionId'>;
  bundles: EntityTable<KeptBundle, 'sessionId'>;
  device: EntityTable<Device, 'key'>;
};

/** What a session kept by version 1 held of what a rep now says by itself. */
type BundleBefore = {
  session: { drillSets: { id: string; approachId: string; reps: number; sides: string[] }[] };
  approaches: {
    id: string;
    movement: string;
    choices: { drill?: string | null; speedFraction: number };
  }[];
};

/** What waits from version 1 does not say what it was of; the session that was kept with it does. */
const fillIn = async (trx: Transaction): Promise<void> => {
  const bundles = await trx.table<{ sessionId: string; bundle: BundleBefore }>('bundles').toArray();
  const waiting = await trx.table<QueuedRep>('queue').toArray();
  const device: Device = { key: 'own', id: uuid(), last: 0 };
  for (const rep of waiting.sort((a, b) => (a.at < b.at ? -1 : 1))) {
    const bundle = bundles.find((bundle) => bundle.sessionId === rep.sessionId)?.bundle;
    const set = bundle?.session.drillSets.find((set) => set.id === rep.drillSetId);
    const plan = bundle?.approaches.find((approach) => approach.id === set?.approachId);
    device.last += 1;
    await trx.table<QueuedRep>('queue').put({
      ...rep,
      device: device.id,
      deviceNo: device.last,
      movement: plan?.movement ?? 'straight-run-up',
      part: plan?.choices.drill ?? null,
      speedPct: plan ? Math.round(plan.choices.speedFraction * 100) : null,
      leadFoot: null,
      turn: set
        ? set.reps * set.sides.length * (rep.set - 1) +
          set.reps * Math.max(0, set.sides.indexOf(rep.side)) +
          rep.rep
        : rep.rep,
    });
  }
  await trx.table('device').put(device);
  await trx.table('bundles').clear();
};

/** The phone's own database; another name is for tests. */
export const openStore = (name: string): Store => {
  const opened = new Dexie(name) as Store;
  opened.version(1).stores({ queue: 'id, clubId, sessionId', bundles: 'sessionId' });
  opened
    .version(2)
    .stores({ log: 'id, sessionId', ends: 'sessionId', device: 'key' })
    .upgrade(fillIn);
  // It knows the whole library, which no other page needs for the queue.
  opened.version(6).upgrade(async (trx) => {
    const { fillBundles } = await Dexie.waitFor(import('./olderBundles'));
    await fillBundles(trx);
  });
  opened.version(7).stores({ films: 'reviewId' });
  opened.version(8).upgrade(async (trx) => {
    const { fillFaults } = await Dexie.waitFor(import('./olderBundles'));
    await fillFaults(trx);
  });
  opened.version(10).upgrade(async (trx) => {
    const { fillAxes } = await Dexie.waitFor(import('./olderBundles'));
    await fillAxes(trx);
  });
  return opened;
};

export const store = openStore('gravek');

export const queue = store.queue;

/** What this device calls itself. */
export const deviceId = async (): Promise<string> =>
  store.transaction('rw', store.device, async () => {
    const keptDevice = await store.device.get('own');
    if (keptDevice) return keptDevice.id;
    const made: Device = { key: 'own', id: uuid(), last: 0 };
    await store.device.put(made);
    return made.id;
  });

/**
 * Puts reps on the phone with the device's next numbers, whichever tab they come from: all or none.
 *
 * Invariant: a tap has one number. What is queued or stored already stays as it is.
 */
export const enqueue = async (who: Tapper, reps: readonly NewRep[]): Promise<void> => {
  await deviceId();
  await store.transaction('rw', store.device, store.queue, store.log, async () => {
    const ids = reps.map((rep) => rep.id);
    const queued = await store.queue.bulkGet(ids);
    const logged = await store.log.bulkGet(ids);
    const fresh = reps.filter((_, i) => !queued[i] && !logged[i]);
    const device = (await store.device.get('own'))!;
    await store.device.put({ ...device, last: device.last + fresh.length });
    await store.queue.bulkPut(
      fresh.map((rep, i) => ({
        ...rep,
        device: device.id,
        deviceNo: device.last + i + 1,
        ...who,
      })),
    );
  });
};

const asStored = (
  { clubId: _club, accountId: _account, person: _person, refused: _refused, ...rep }: QueuedRep,
  arrival: number,
): StoredRep => ({ ...rep, arrival });

/** Takes what the server has answered: stored rows go from the queue into the phone's own log at once. */
export const takeReceipt = (receipt: RepReceipt): Promise<void> =>
  store.transaction('rw', store.queue, store.log, async () => {
    for (const { id, arrival } of receipt.stored) {
      const rep = await store.queue.get(id);
      if (rep) await store.log.put(asStored(rep, arrival));
      await store.queue.delete(id);
    }
    for (const { id, title } of receipt.refused) await store.queue.update(id, { refused: title });
  });

/** Where the phone's log of a session ends; 0 when nothing is known of it. */
export const logEnd = async (sessionId: string): Promise<number> =>
  (await store.ends.get(sessionId))?.after ?? 0;

/** Keeps a page of a session's log. */
export const keepLog = (sessionId: string, { items }: LogPage): Promise<void> =>
  store.transaction('rw', store.log, store.ends, async () => {
    if (items.length === 0) return;
    await store.log.bulkPut(items);
    await store.ends.put({ sessionId, after: items.at(-1)!.arrival });
  });

/** The phone's own log of a session, what waits to be sent left out. */
export const logOf = (sessionId: string): Promise<StoredRep[]> =>
  store.log.where('sessionId').equals(sessionId).toArray();

/** What waits to be sent of a session, what was refused included. */
export const waitingOf = (sessionId: string): Promise<QueuedRep[]> =>
  queue.where('sessionId').equals(sessionId).toArray();

/** No answer comes later than this; what seems to is a clock that was set back. */
const LATE_ANSWER_MS = 60_000;

/** Sessions kept for a field without network; the ones opened longest ago make room. */
const KEPT = 12;

/** Forgets a session, but nothing that waits to be sent. */
export const dropSession = (sessionId: string): Promise<void> =>
  store.transaction('rw', store.bundles, store.log, store.ends, async () => {
    await store.bundles.delete(sessionId);
    await store.log.where('sessionId').equals(sessionId).delete();
    await store.ends.delete(sessionId);
  });

/**
 * Keeps a session as last seen. Rows of athletes who are not in it any more go too: they were deleted.
 *
 * Invariants: an answer that was asked for earlier never takes the place of a later one; where rows went, the
 * log is fetched anew from its beginning, so that none of somebody who is in it after all stays away.
 *
 * @param opened whether the coach has it on the screen
 * @param askedMs when it was asked for
 */
export const keepBundle = async (
  bundle: RunBundle,
  opened: boolean,
  askedMs = Date.now(),
): Promise<void> => {
  const sessionId = bundle.session.id;
  const people = new Set(bundle.athletes.map((athlete) => athlete.id));
  await store.transaction('rw', store.bundles, store.log, store.ends, async () => {
    const before = await store.bundles.get(sessionId);
    const laterMs = (before?.askedMs ?? 0) - askedMs;
    if (laterMs > 0 && laterMs < LATE_ANSWER_MS) return;
    await store.bundles.put({
      askedMs,
      sessionId,
      bundle,
      openedMs: opened ? Date.now() : (before?.openedMs ?? 0),
    });
    const gone = await store.log
      .where('sessionId')
      .equals(sessionId)
      .filter((rep) => !people.has(rep.athleteId))
      .delete();
    if (gone > 0) await store.ends.delete(sessionId);
  });
  const kept = await store.bundles.toArray();
  const old = kept.sort((a, b) => b.openedMs - a.openedMs).slice(KEPT);
  for (const other of old) await dropSession(other.sessionId);
};

export const keptBundle = async (sessionId: string): Promise<RunBundle | undefined> =>
  (await store.bundles.get(sessionId))?.bundle;

/** Sessions that are kept, the newest day first. */
export const keptList = async (): Promise<{ id: string; title: string; date: string }[]> =>
  (await store.bundles.toArray())
    .map(({ bundle: { session } }) => ({
      id: session.id,
      title: session.title,
      date: session.date,
    }))
    .sort((a, b) => (a.date < b.date ? 1 : -1));

export const keptSessions = async (): Promise<string[]> =>
  (await store.bundles.toCollection().primaryKeys()) as string[];

/** Forgets what was kept of the club; reps that are not sent yet stay. */
export const forgetSessions = (): Promise<void> =>
  store.transaction('rw', [store.bundles, store.log, store.ends, store.films], async () => {
    await Promise.all([
      store.bundles.clear(),
      store.log.clear(),
      store.ends.clear(),
      store.films.clear(),
    ]);
  });
