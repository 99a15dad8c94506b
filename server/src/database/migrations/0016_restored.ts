import { sql, type Kysely } from 'kysely';

/** Which archive a club was restored from, so that the same one sent again is known. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table club add column restored text`.execute(db);
};
