import { sql, type Kysely } from 'kysely';

/** A coach may say at which drill of a progression somebody is; it is kept beside the choices of rungs. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`alter table rung_choice add column drill text`.execute(db);
};
