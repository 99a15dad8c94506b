import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { refreshStandings } from '../faults/refresh';
import { recount } from './recount';

const SESSIONS = 20;
const ATHLETES = 50;
/** Rows of logs that are held at once, unless one athlete has more in a session. */
const ROWS = 10_000;

type Behind = { id: string; counted: number; log_end: number };

/** Sessions that are counted together: not too many, nor too much in them. */
const together = (behind: readonly Behind[], most: number): Behind[][] => {
  const groups: Behind[][] = [];
  let rows = Infinity;
  for (const session of behind) {
    if (rows + session.log_end > most || groups.at(-1)!.length === SESSIONS) {
      groups.push([]);
      rows = 0;
    }
    groups.at(-1)!.push(session);
    rows += session.log_end;
  }
  return groups;
};

/**
 * Counts what has arrived in the logs of the transaction's club since they were counted last, and works
 * out how the faults of those athletes stand. Holds the sessions that are behind, so that nobody logs in
 * them or counts them meanwhile.
 *
 * @param most rows that are held at once
 * @returns whether anything was to be counted
 */
export const countNew = async (trx: Trx, most = ROWS): Promise<boolean> => {
  const behind = await trx
    .selectFrom('session')
    .select(['id', 'counted', 'log_end'])
    .where(sql<boolean>`club_id = gravek_club()`)
    .whereRef('counted', '<', 'log_end')
    .orderBy('id')
    .forNoKeyUpdate()
    .execute();
  const touched = new Map<string, Set<string>>();
  for (const part of together(behind, most)) {
    const sessionIds = part.map((row) => row.id);
    const { rows } = await sql<{ athleteId: string; movement: string }>`
      select distinct r.athlete_id as "athleteId", r.movement
      from unnest(${sessionIds}::uuid[], ${part.map((row) => row.counted)}::int[]) b (id, counted)
      join rep r on r.club_id = gravek_club() and r.session_id = b.id and r.arrival > b.counted`.execute(
      trx,
    );
    const athleteIds = [...new Set(rows.map((row) => row.athleteId))];
    const logged = part.reduce((sum, session) => sum + session.log_end, 0);
    const atOnce = Math.max(1, Math.floor(athleteIds.length * Math.min(1, most / logged)));
    for (let i = 0; i < athleteIds.length; i += atOnce) {
      await recount(trx, { sessionIds, athleteIds: athleteIds.slice(i, i + atOnce) });
    }
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
