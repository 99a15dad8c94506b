import { sql, type Kysely } from 'kysely';

/**
 * What was measured is found by its kind, the newest first: a list of athletes reads only what plans are solved
 * from, however many years are kept.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table measurement add column what text not null
      generated always as (coalesce(payload ->> 'kind', kind)) stored
  `.execute(db);
  await sql`
    create index measurement_speaking on measurement (club_id, athlete_id, what, taken_on desc)
      where removed_at is null
  `.execute(db);
};
