import type { RequestHandler } from 'express';
import { sql } from 'kysely';
import type pg from 'pg';
import type { Db } from '../database/connect';
import { LAST_STEP } from './migrate';
import type { Disk } from './disk';

/** A process that cannot ask the database within this time is no use to anybody. */
const PATIENCE_MS = 3_000;
/** A standby that is further behind shows what is no longer so. */
const LAG_MAX_S = 10;
/** Requests that wait for a connection; with more, another process is the better one. */
const WAITING_MAX = 50;

type Found = { standby: boolean; lagS: number | null; tables: string | null };

const look = async (db: Db): Promise<Found> => {
  const { rows } = await sql<Found>`
    select pg_is_in_recovery() as standby,
      case
        when not pg_is_in_recovery() then null
        -- Where nothing is written, the last change is old and the standby is not behind.
        when pg_last_wal_receive_lsn() = pg_last_wal_replay_lsn()
          and exists (select from pg_stat_wal_receiver) then 0
        else extract(epoch from now() - pg_last_xact_replay_timestamp())::float8
      end as "lagS",
      (select max(name) from kysely_migration) as tables`.execute(db);
  return rows[0]!;
};

const inTime = <T>(work: Promise<T>): Promise<T> => {
  let timer: NodeJS.Timeout;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('late')), PATIENCE_MS);
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
};

/**
 * GET /readyz: whether requests should come to this process, with a sentence for each thing that is wrong. It
 * says nothing of the machine or of who uses it, so anybody may ask.
 */
export const readiness =
  ({
    db,
    pool,
    disk,
    stopping,
  }: {
    db: Db;
    pool: pg.Pool;
    disk: Disk;
    stopping: AbortSignal;
  }): RequestHandler =>
  async (_req, res) => {
    const wrong: string[] = [];
    if (stopping.aborted) wrong.push('This process is on its way down.');
    if (pool.waitingCount > WAITING_MAX) wrong.push('Too many requests wait for the database.');
    const found = await inTime(look(db)).catch(() => null);
    if (!found) wrong.push('The database does not answer.');
    else {
      // Newer tables are fine: an update brings the tables first and the processes after them.
      if ((found.tables ?? '') < LAST_STEP) wrong.push('The tables are of an older version.');
      if (found.lagS !== null && found.lagS > LAG_MAX_S) {
        wrong.push(`The standby is ${Math.round(found.lagS)} s behind.`);
      }
    }
    // Reading goes on, so requests may still come.
    const low = disk.isLow() ? ['The disk is nearly full: nothing is written.'] : [];
    res
      .status(wrong.length === 0 ? 200 : 503)
      .json({ app: 'gravek', ready: wrong.length === 0, why: [...wrong, ...low] });
  };
