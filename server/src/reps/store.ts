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
import type { Trx, Who } from '../database/connect';
import { hold } from '../database/hold';
import { refreshStandings } from '../faults/queries';
import { tell } from '../http/route';
import { movementsBy } from '../movements/queries';
import { recount, repColumns, repsBy } from './queries';

const setsOf = async (trx: Trx, ids: readonly string[]): Promise<Map<string, string>> => {
  const rows = await trx
    .selectFrom('drill_set')
    .select(['id', 'session_id'])
    .where('id', 'in', [...new Set(ids)])
    .execute();
  return new Map(rows.map((row) => [row.id, row.session_id]));
};

/** Rows of a batch that can be read, by themselves; the others are refused. */
const readable = (rows: readonly unknown[], refuse: (id: string, title: string) => void): Rep[] => {
  const reps: Rep[] = [];
  for (const row of rows) {
    const checked = check(repInput, row);
    if (checked.ok) reps.push(checked.value);
    else {
      const { id } = row as { id?: unknown };
      refuse(
        typeof id === 'string' ? id.slice(0, 60) : '',
        Object.values(checked.fields)[0] ?? 'That could not be read.',
      );
    }
  }
  return reps;
};

const sameRep = ({ arrival: _, ...stored }: StoredRep, rep: Rep): boolean =>
  isDeepStrictEqual(
    { ...stored, faults: [...stored.faults].sort(), at: Date.parse(stored.at) },
    {
      ...rep,
      faults: rep.outcome === 'fault' ? [...rep.faults].sort() : [],
      at: Date.parse(rep.at),
    },
  );

const insert = async (trx: Trx, rows: readonly { rep: Rep; arrival: number }[], by: string) => {
  await trx
    .insertInto('rep')
    .values(rows.map(({ rep, arrival }) => repColumns(rep, arrival, by)))
    .execute();
  const faults = rows
    .filter(({ rep }) => rep.outcome === 'fault')
    .flatMap(({ rep }) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
  if (faults.length > 0) await trx.insertInto('rep_fault').values(faults).execute();
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

/** Runs a statement so that its failure leaves the transaction usable. */
const tried = async (trx: Trx, work: () => Promise<void>): Promise<string | null> => {
  await sql`savepoint row`.execute(trx);
  try {
    await work();
    await sql`release savepoint row`.execute(trx);
    return null;
  } catch (error) {
    const why = whyNotTaken(error);
    await sql`rollback to savepoint row`.execute(trx);
    return why;
  }
};

/**
 * Stores a batch from a phone's queue and counts it. A rep that is already there counts as stored; one
 * that cannot be stored is refused by itself, so that it does not hold up the others. Rows are given
 * their numbers of arrival while their session is held, so that who asks for what came since a number
 * never misses one.
 *
 * @param rows as they came, in any order: a void may stand before the rep that it takes back
 */
export const storeReps = async (
  trx: Trx,
  rows: readonly unknown[],
  who: Who,
): Promise<RepReceipt> => {
  const { accountId } = who;
  const receipt: RepReceipt = { stored: [], refused: [] };
  const refuse = (id: string, title: string): void => void receipt.refused.push({ id, title });
  const reps = readable(rows, refuse);
  const sessions = await hold(
    trx,
    'session',
    reps.map((rep) => rep.sessionId),
  );
  const people = await hold(
    trx,
    'athlete',
    reps.map((rep) => rep.athleteId),
  );
  if (reps.length === 0) return receipt;
  const sessionOf = await setsOf(
    trx,
    reps.map((rep) => rep.drillSetId),
  );
  const known = new Map(
    (
      await repsBy(
        trx,
        reps.flatMap((rep) => (rep.voids ? [rep.id, rep.voids] : [rep.id])),
      )
    ).map((rep) => [rep.id, rep]),
  );
  const movementBy = await movementsBy(
    trx,
    reps.map((rep) => rep.movement),
  );
  const fresh = new Map<string, Rep>();
  const whyNot = (rep: Rep): string | null => {
    if (!sessions.has(rep.sessionId) || sessionOf.get(rep.drillSetId) !== rep.sessionId)
      return 'Its drill set is not there any more.';
    if (!people.has(rep.athleteId)) return 'Its athlete is not there any more.';
    if (rep.movement !== WARM_UP && !movementBy(rep.movement))
      return 'Its movement is not there any more.';
    if (rep.voids === null) return null;
    const meant = known.get(rep.voids) ?? fresh.get(rep.voids);
    if (!meant) return 'The rep that it takes back is not there.';
    return meant.sessionId === rep.sessionId &&
      meant.drillSetId === rep.drillSetId &&
      meant.athleteId === rep.athleteId &&
      meant.outcome !== 'void'
      ? null
      : 'It takes back a rep of another turn.';
  };
  // Voids after all others: what they take back may come behind them.
  const inOrder = [...reps].sort(
    (a, b) =>
      Number(a.outcome === 'void') - Number(b.outcome === 'void') || a.deviceNo - b.deviceNo,
  );
  for (const rep of inOrder) {
    const before = known.get(rep.id) ?? fresh.get(rep.id);
    if (before && !sameRep({ arrival: 0, ...before }, rep)) {
      refuse(rep.id, 'Another rep has been kept under this name.');
    } else if (known.has(rep.id)) {
      receipt.stored.push({ id: rep.id, arrival: known.get(rep.id)!.arrival });
    } else if (!before) {
      const why = whyNot(rep);
      if (why) refuse(rep.id, why);
      else fresh.set(rep.id, rep);
    }
  }
  if (fresh.size === 0) return receipt;
  const numbered = await numberOf(trx, [...fresh.values()]);
  const failed = await tried(trx, () => insert(trx, numbered, accountId));
  const taken: Rep[] = [];
  for (const one of numbered) {
    // A batch that fails as a whole is tried row by row.
    const why = failed === null ? null : await tried(trx, () => insert(trx, [one], accountId));
    if (why) refuse(one.rep.id, why);
    else {
      taken.push(one.rep);
      receipt.stored.push({ id: one.rep.id, arrival: one.arrival });
    }
  }
  await countTaken(trx, taken);
  const takenBack = taken.flatMap(({ voids }) => {
    const meant = voids === null ? undefined : (known.get(voids) ?? fresh.get(voids));
    return meant?.outcome === 'pain' ? [meant.id] : [];
  });
  const stops = taken.filter((rep) => rep.outcome === 'pain');
  if (stops.length + takenBack.length > 0) {
    await holdBack(trx, stops, takenBack);
    await tell(trx, who, 'athletes');
  }
  return receipt;
};

/** The next numbers of arrival, session by session. */
const numberOf = async (
  trx: Trx,
  reps: readonly Rep[],
): Promise<{ rep: Rep; arrival: number }[]> => {
  const next = new Map<string, number>();
  for (const sessionId of new Set(reps.map((rep) => rep.sessionId))) {
    const many = reps.filter((rep) => rep.sessionId === sessionId).length;
    const { log_end } = await trx
      .updateTable('session')
      .set((eb) => ({ log_end: eb('log_end', '+', many) }))
      .where('id', '=', sessionId)
      .returning('log_end')
      .executeTakeFirstOrThrow();
    next.set(sessionId, log_end - many);
  }
  return reps.map((rep) => {
    const arrival = next.get(rep.sessionId)! + 1;
    next.set(rep.sessionId, arrival);
    return { rep, arrival };
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

/** Counts and standings of whoever the rows are about. */
const countTaken = async (trx: Trx, taken: readonly Rep[]): Promise<void> => {
  for (const sessionId of new Set(taken.map((rep) => rep.sessionId))) {
    const inSession = taken.filter((rep) => rep.sessionId === sessionId);
    await recount(trx, {
      sessionIds: [sessionId],
      athleteIds: [...new Set(inSession.map((rep) => rep.athleteId))],
    });
  }
  await refreshStandings(trx, {
    athleteIds: [...new Set(taken.map((rep) => rep.athleteId))],
    movements: [...new Set(taken.map((rep) => rep.movement))].filter((one) => one !== WARM_UP),
  });
};
