import { isDeepStrictEqual } from 'node:util';
import {
  check,
  repInput,
  WARM_UP,
  type Rep,
  type RepReceipt,
  type StoredRep,
} from '@gravek/contract';
import { sql } from 'kysely';
import pg from 'pg';
import { restrictionColumns } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';
import { inChunks, repColumns, repsBy } from './queries';

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
const named = async (trx: Trx, reps: readonly Rep[]): Promise<Named> => {
  const ids = (of: (rep: Rep) => string) => sql`${[...new Set(reps.map(of))]}::uuid[]`;
  const stored = reps.flatMap((rep) => (rep.voids ? [rep.id, rep.voids] : [rep.id]));
  const { rows } = await sql<Named>`
    select
      array(select id::text from session
        where club_id = gravek_club() and id = any(${ids((rep) => rep.sessionId)})
        order by id for no key update) as sessions,
      array(select id::text from athlete
        where club_id = gravek_club() and id = any(${ids((rep) => rep.athleteId)})
        order by id for key share) as people,
      coalesce((select jsonb_object_agg(id, session_id) from drill_set
        where club_id = gravek_club() and id = any(${ids((rep) => rep.drillSetId)})), '{}') as sets,
      array(select id::text from rep
        where club_id = gravek_club() and id = any(${stored}::uuid[])) as reps`.execute(trx);
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

type Numbered = Entry & { arrival: number };

const insert = async (trx: Trx, rows: readonly Numbered[]) => {
  const columns = rows.map(({ rep, arrival, accountId }) => repColumns(rep, arrival, accountId));
  await inChunks(columns, (part) => trx.insertInto('rep').values(part).execute());
  const faults = rows
    .filter(({ rep }) => rep.outcome === 'fault')
    .flatMap(({ rep }) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
  await inChunks(faults, (part) => trx.insertInto('rep_fault').values(part).execute());
};

/**
 * What a row that the database would not take is called to the coach. Anything that is not about the
 * row itself (no connection, a deadlock) goes on to whoever called: the whole batch is tried again.
 */
const whyNotTaken = (error: unknown): string => {
  // 22: data that cannot be; 23: a rule that is broken.
  if (error instanceof pg.DatabaseError && /^2[23]/.test(error.code ?? '')) {
    return 'This rep cannot be kept as it is.';
  }
  throw error;
};

/** Runs statements so that their failure leaves the transaction usable. */
const tried = async (trx: Trx, work: () => Promise<void>): Promise<string | null> => {
  await sql`savepoint row`.execute(trx);
  try {
    await work();
    return null;
  } catch (error) {
    const why = whyNotTaken(error);
    await sql`rollback to savepoint row`.execute(trx);
    return why;
  }
};

/** What a phone sends at once, and whose it is. */
export type Batch = { rows: readonly unknown[]; accountId: string };

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
  const there = await named(trx, reps);
  const sessions = new Set(there.sessions);
  const people = new Set(there.people);
  const known = new Map((await repsBy(trx, there.reps)).map((rep) => [rep.id, rep]));
  const movementBy = await movementsBy(
    trx,
    reps.map((rep) => rep.movement),
  );
  const fresh = new Map<string, Entry>();
  const repBy = (id: string): Rep | undefined => known.get(id) ?? fresh.get(id)?.rep;
  const whyNot = (rep: Rep): string | null => {
    if (!sessions.has(rep.sessionId) || there.sets[rep.drillSetId] !== rep.sessionId)
      return 'Its drill set is not there any more.';
    if (!people.has(rep.athleteId)) return 'Its athlete is not there any more.';
    if (rep.movement !== WARM_UP && !movementBy(rep.movement))
      return 'Its movement is not there any more.';
    if (rep.voids === null) return null;
    const meant = repBy(rep.voids);
    if (!meant) return 'The rep that it takes back is not there.';
    return meant.sessionId === rep.sessionId &&
      meant.drillSetId === rep.drillSetId &&
      meant.athleteId === rep.athleteId &&
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
  const asked: Entry[] = [];
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
      asked.push(entry);
    }
  }
  const stored = new Map([...known].map(([id, rep]) => [id, rep.arrival]));
  const notTaken = new Map<string, string>();
  const taken: Rep[] = [];
  if (fresh.size > 0) {
    const numbered = await numberOf(trx, [...fresh.values()]);
    const failed = await tried(trx, () => insert(trx, numbered));
    for (const one of numbered) {
      // Rows that fail as a whole are tried one by one.
      const why = failed === null ? null : await tried(trx, () => insert(trx, [one]));
      if (why) notTaken.set(one.rep.id, why);
      else {
        stored.set(one.rep.id, one.arrival);
        taken.push(one.rep);
      }
    }
  }
  for (const { rep, batch } of asked) {
    const { stored: list } = receipts[batch]!;
    const why = notTaken.get(rep.id);
    if (why !== undefined) refuse(batch, rep.id, why);
    else if (!list.some(({ id }) => id === rep.id)) {
      list.push({ id: rep.id, arrival: stored.get(rep.id)! });
    }
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

/** The next numbers of arrival, session by session. */
const numberOf = async (trx: Trx, entries: readonly Entry[]): Promise<Numbered[]> => {
  const many = new Map<string, number>();
  for (const { rep } of entries) many.set(rep.sessionId, (many.get(rep.sessionId) ?? 0) + 1);
  const { rows } = await sql<{ id: string; before: number }>`
    update session s set log_end = s.log_end + m.many
    from unnest(${[...many.keys()]}::uuid[], ${[...many.values()]}::int[]) m (id, many)
    where s.club_id = gravek_club() and s.id = m.id
    returning s.id, s.log_end - m.many as before`.execute(trx);
  const next = new Map(rows.map((row) => [row.id, row.before]));
  return entries.map((entry) => {
    const arrival = next.get(entry.rep.sessionId)! + 1;
    next.set(entry.rep.sessionId, arrival);
    return { ...entry, arrival };
  });
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
