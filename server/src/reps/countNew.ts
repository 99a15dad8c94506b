import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { refreshStandings } from '../faults/queries';
import { recount } from './queries';

const SESSIONS = 20;
const ATHLETES = 50;

/**
 * Counts what has arrived in the logs of the transaction's club since they were counted last, and works
 * out how the faults of those athletes stand. Holds the sessions that are behind, so that nobody logs in
 * them or counts them meanwhile.
 *
 * @returns whether anything was to be counted
 */
export const countNew = async (trx: Trx): Promise<boolean> => {
  const behind = await trx
    .selectFrom('session')
    .select(['id', 'counted'])
    .where(sql<boolean>`club_id = gravek_club()`)
    .whereRef('counted', '<', 'log_end')
    .orderBy('id')
    .forNoKeyUpdate()
    .execute();
  const touched = new Map<string, Set<string>>();
  for (let i = 0; i < behind.length; i += SESSIONS) {
    const part = behind.slice(i, i + SESSIONS);
    const sessionIds = part.map((row) => row.id);
    const { rows } = await sql<{ athleteId: string; movement: string }>`
      select distinct r.athlete_id as "athleteId", r.movement
      from unnest(${sessionIds}::uuid[], ${part.map((row) => row.counted)}::int[]) b (id, counted)
      join rep r on r.club_id = gravek_club() and r.session_id = b.id and r.arrival > b.counted`.execute(
      trx,
    );
    await recount(trx, { sessionIds, athleteIds: [...new Set(rows.map((row) => row.athleteId))] });
    await trx
      .updateTable('session')
      .set((eb) => ({ counted: eb.ref('log_end') }))
      .where('id', 'in', sessionIds)
      .execute();
    for (const { athleteId, movement } of rows) {
      touched.set(athleteId, (touched.get(athleteId) ?? new Set()).add(movement));
    }
  }
  const people = [...touched];
  for (let i = 0; i < people.length; i += ATHLETES) {
    const part = people.slice(i, i + ATHLETES);
    await refreshStandings(trx, {
      athleteIds: part.map(([id]) => id),
      movements: [...new Set(part.flatMap(([, movements]) => [...movements]))],
    });
  }
  return behind.length > 0;
};

/**
 * Rows of the log that the counts of the transaction's club do not hold yet: what counts say is true up
 * to these.
 */
export const uncounted = async (trx: Trx): Promise<number> => {
  const { rows } = await trx
    .selectFrom('session')
    .select(sql<number>`coalesce(sum(log_end - counted), 0)::int`.as('rows'))
    .where(sql<boolean>`club_id = gravek_club()`)
    .whereRef('counted', '<', 'log_end')
    .executeTakeFirstOrThrow();
  return rows;
};
