import { sql, type Kysely } from 'kysely';

/** A drill set may run the way in slower than its approach says. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table drill_set add column pace double precision not null default 1
      check (pace in (1, 0.75, 0.5, 0.25))
  `.execute(db);
};
