import { sql, type Kysely } from 'kysely';

/** A tap only writes the log; up to where a session's counts know it is kept beside its end. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table session add column counted integer not null default 0`.execute(db);
};
