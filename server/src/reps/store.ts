import { isDeepStrictEqual } from 'node:util';
import { turnKey } from '@gravek/core/session/repLog';
import { WARM_UP } from '@gravek/contract/drillSet';
import { check } from '@gravek/contract/problem';
import { repInput } from '@gravek/contract/repSchema';
import type { Rep, RepReceipt, StoredRep } from '@gravek/contract/session';
import { sql } from 'kysely';
import pg from 'pg';
import { restrictionColumns } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';
import { repColumns, repsBy } from './queries';

const LOCK_NOT_AVAILABLE = '55P03';
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** What reps name, as far as it is there. */
type Named = {
  sessions: string[];
  /** session of a drill set, by id */
  sets: Record<string, string>;
  people: string[];
  /** those of the reps, and of what they take back, that are stored */
  reps: string[];
};

/** Looks up what reps name; its sessions are held, and its athletes stay, until the reps are stored. */
const namedIn = async (trx: Trx, reps: readonly Rep[]): Promise<Named> => {
  const ids = (of: (rep: Rep) => string[]) => sql`${[...new Set(reps.flatMap(of))]}::uuid[]`;
  const { rows } = await sql<Named>`select * from gravek_named(
    ${ids((rep) => [rep.sessionId])}, ${ids((rep) => [rep.athleteId])},
    ${ids((rep) => [rep.drillSetId])},
    ${ids((rep) => (rep.voids ? [rep.id, rep.voids] : [rep.id]))})`.execute(trx);
  return rows[0]!;
};

/** A rep of a batch, by the place of its batch among those that are stored together. */
type Entry = { rep: Rep; batch: number; accountId: string };

const sameRep = ({ arrival: _, ...stored }: StoredRep, rep: Rep): boolean =>
  isDeepStrictEqual(
    { ...stored, faults: [...stored.faults].sort(), at: Date.parse(stored.at) },
    {
      ...rep,
      faults: rep.outcome === 'fault' ? [...rep.faults].sort() : [],
      at: Date.parse(rep.at),
    },
  );

/**
 * Numbers rows and keeps them.
 *
 * @returns numbers of arrival by id; null where the database would not take the row
 */
const keep = async (
  trx: Trx,
  entries: readonly Entry[],
): Promise<ReadonlyMap<string, number | null>> => {
  const reps = entries.map(({ rep, accountId }) => ({
    ...repColumns(rep, accountId),
    faults: rep.outcome === 'fault' ? rep.faults : [],
  }));
  const { rows } = await sql<{ rep_id: string; number: number | null }>`
    select rep_id, number from gravek_store_reps(${JSON.stringify(reps)})`.execute(trx);
  return new Map(rows.map((row) => [row.rep_id, row.number]));
};

/** What a phone sends at once, and whose it is. */
export type Batch = { rows: readonly unknown[]; accountId: string };

/** Sessions that somebody else holds are waited for so long, by those alone who wait for them. */
const PATIENCE_MS = 600;

/** @returns whether a session is held now; false when others kept it for longer than is waited */
const heldInTime = async (trx: Trx, id: string, waitMs: number): Promise<boolean> => {
  const { rows } = await sql<{ before: string }>`
    select current_setting('lock_timeout') as before`.execute(trx);
  const limit = (to: string) => sql`select set_config('lock_timeout', ${to}, true)`.execute(trx);
  await sql`savepoint held`.execute(trx);
  try {
    await limit(`${waitMs}ms`);
    await sql`select from session where id = ${id} for no key update`.execute(trx);
  } catch (error) {
    if (!(error instanceof pg.DatabaseError && error.code === LOCK_NOT_AVAILABLE)) throw error;
    await sql`rollback to savepoint held`.execute(trx);
    return false;
  }
  await limit(rows[0]!.before);
  return true;
};

/**
 * Which of some batches name a session that somebody else holds just now; the sessions of the others are
 * held.
 *
 * @param patient whether it may be waited for a moment
 */
export const busySessions = async (
  trx: Trx,
  batches: readonly Batch[],
  patient: boolean,
): Promise<ReadonlySet<number>> => {
  const idsOf = batches.map(({ rows }) =>
    rows.flatMap((row) => {
      const { sessionId } = (row ?? {}) as { sessionId?: unknown };
      return typeof sessionId === 'string' && UUID.test(sessionId) ? [sessionId] : [];
    }),
  );
  const ids = [...new Set(idsOf.flat())].sort();
  if (ids.length === 0) return new Set();
  const busy = new Set<string>();
  if (patient) {
    // One by one in the order in which everybody holds sessions, so that none wait for each other in a ring.
    const untilMs = performance.now() + PATIENCE_MS;
    for (const id of ids) {
      const leftMs = Math.max(1, Math.round(untilMs - performance.now()));
      if (!(await heldInTime(trx, id, leftMs))) busy.add(id);
    }
  } else {
    const { rows } = await sql<{ id: string }>`
      with free as (select id from session where id = any(${ids}::uuid[]) order by id
        for no key update skip locked)
      select id from session where id = any(${ids}::uuid[]) and id not in (select id from free)`.execute(
      trx,
    );
    for (const { id } of rows) busy.add(id);
  }
  return new Set(idsOf.flatMap((batchIds, i) => (batchIds.some((id) => busy.has(id)) ? [i] : [])));
};

/**
 * Stores batches from phones' queues; they are counted when somebody asks. A rep that is already there
 * counts as stored; one that cannot be stored is refused by itself, so that it does not hold up the
 * others. Rows are given their numbers of arrival while their session is held, so that who asks for what
 * came since a number never misses one.
 *
 * @param batches rows in any order: a void may stand before the rep that it takes back
 * @returns a receipt for each batch, and whether somebody is held back by them, or no longer
 */
export const storeReps = async (
  trx: Trx,
  batches: readonly Batch[],
): Promise<{ receipts: RepReceipt[]; heldBack: boolean }> => {
  const receipts = batches.map((): RepReceipt => ({ stored: [], refused: [] }));
  const refuse = (batch: number, id: string, title: string): void =>
    void receipts[batch]!.refused.push({ id, title });
  const entries: Entry[] = [];
  batches.forEach(({ rows, accountId }, batch) => {
    for (const row of rows) {
      const checked = check(repInput, row);
      if (checked.ok) entries.push({ rep: checked.value, batch, accountId });
      else {
        const { id } = row as { id?: unknown };
        const why = Object.values(checked.fields)[0] ?? 'That could not be read.';
        refuse(batch, typeof id === 'string' ? id.slice(0, 60) : '', why);
      }
    }
  });
  if (entries.length === 0) return { receipts, heldBack: false };
  const reps = entries.map(({ rep }) => rep);
  const found = await namedIn(trx, reps);
  const sessions = new Set(found.sessions);
  const people = new Set(found.people);
  const storedReps = new Map((await repsBy(trx, found.reps)).map((rep) => [rep.id, rep]));
  const movementBy = await movementsBy(
    trx,
    reps.map((rep) => rep.movement),
  );
  const fresh = new Map<string, Entry>();
  const repBy = (id: string): Rep | undefined => storedReps.get(id) ?? fresh.get(id)?.rep;
  const whyNot = (rep: Rep): string | null => {
    if (!sessions.has(rep.sessionId) || found.sets[rep.drillSetId] !== rep.sessionId)
      return 'Its drill set is not there any more.';
    if (!people.has(rep.athleteId)) return 'Its athlete is not there any more.';
    if (rep.movement !== WARM_UP && !movementBy(rep.movement))
      return 'Its movement is not there any more.';
    if (rep.voids === null) return null;
    const meant = repBy(rep.voids);
    if (!meant) return 'The rep that it takes back is not there.';
    return meant.sessionId === rep.sessionId &&
      turnKey(meant) === turnKey(rep) &&
      meant.outcome !== 'void'
      ? null
      : 'It takes back a rep of another turn.';
  };
  // Voids after all others: what they take back may come behind them.
  const inOrder = [...entries].sort(
    (a, b) =>
      Number(a.rep.outcome === 'void') - Number(b.rep.outcome === 'void') ||
      a.batch - b.batch ||
      a.rep.deviceNo - b.rep.deviceNo,
  );
  const waiting: Entry[] = [];
  for (const entry of inOrder) {
    const { rep, batch } = entry;
    const before = repBy(rep.id);
    if (before && !sameRep({ arrival: 0, ...before }, rep)) {
      refuse(batch, rep.id, 'Another rep has been kept under this name.');
      continue;
    }
    const why = before ? null : whyNot(rep);
    if (why) refuse(batch, rep.id, why);
    else {
      if (!before) fresh.set(rep.id, entry);
      waiting.push(entry);
    }
  }
  const stored = new Map([...storedReps].map(([id, rep]) => [id, rep.arrival]));
  const taken: Rep[] = [];
  if (fresh.size > 0) {
    for (const [id, arrival] of await keep(trx, [...fresh.values()])) {
      if (arrival === null) continue;
      stored.set(id, arrival);
      taken.push(fresh.get(id)!.rep);
    }
  }
  for (const { rep, batch } of waiting) {
    const { stored: list } = receipts[batch]!;
    const arrival = stored.get(rep.id);
    if (arrival === undefined) refuse(batch, rep.id, 'This rep cannot be kept as it is.');
    else if (!list.some(({ id }) => id === rep.id)) list.push({ id: rep.id, arrival });
  }
  const takenBack = taken.flatMap(({ voids }) => {
    const meant = voids === null ? undefined : repBy(voids);
    return meant?.outcome === 'pain' ? [meant.id] : [];
  });
  const stops = taken.filter((rep) => rep.outcome === 'pain');
  const heldBack = stops.length + takenBack.length > 0;
  if (heldBack) await holdBack(trx, stops, takenBack);
  return { receipts, heldBack };
};

/**
 * Who was stopped by pain is held back until somebody clears it; a stop that was taken back holds nobody.
 * The restriction has the id of the row, so that it is one however often the row is sent.
 */
const holdBack = async (
  trx: Trx,
  stops: readonly Rep[],
  takenBack: readonly string[],
): Promise<void> => {
  for (const { id, athleteId, sessionId } of stops) {
    const session = await trx
      .selectFrom('session')
      .select(['day', 'title'])
      .where('id', '=', sessionId)
      .executeTakeFirstOrThrow();
    await trx
      .insertInto('restriction')
      .values(
        restrictionColumns({
          id,
          athleteId,
          kind: 'pain',
          from: session.day,
          until: null,
          share: 0.5,
          note: `Stopped in ${session.title}`,
        }),
      )
      .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
      .execute();
  }
  if (takenBack.length === 0) return;
  await trx
    .updateTable('restriction')
    .set({ removed_at: sql`now()` })
    .where('id', 'in', takenBack)
    .where('removed_at', 'is', null)
    .execute();
};
