import { sql, type Kysely } from 'kysely';

/**
 * A drill set may change its way of teaching from rep to rep, and a rep says by which ways it was taught.
 * Rows of before do not say, so no count changes.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table rep add column ways text[];
    update drill_set set document = jsonb_set(document, '{vary,ways}', '[]')
      where document -> 'vary' is not null and document -> 'vary' -> 'ways' is null;
    alter table rep_count add column ways text not null default '';
    alter table rep_count alter column ways drop default;
    alter table rep_count drop constraint rep_count_pkey;
    alter table rep_count add primary key (club_id, athlete_id, movement, session_id, part, side,
      lead_foot, speed_pct, rung, exit, ways, spot, late, logged_by, watched, could_key);
  `.execute(db);
};
