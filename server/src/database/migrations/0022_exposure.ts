import { withFaultPhases } from '@gravek/library/movement/olderMovement';
import { sql, type Kysely } from 'kysely';

/**
 * A rep says what it could show and whether somebody watched it, and counts rest on that. All logs are
 * counted anew; what rows of before could show is worked out then, from their drill set.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table rep
      add column was_right boolean,
      add column watched boolean not null default true,
      add column could text[];

    truncate rep_count, fault_standing, watched_twice;
    alter table rep_count drop constraint rep_count_pkey;
    alter table rep_count
      add column watched boolean not null,
      add column could text[] not null,
      -- a hash of it: a key must be short
      add column could_key text not null,
      add column taken jsonb not null,
      add column held integer not null,
      add column held_s double precision not null,
      add column best_held_s double precision not null;
    alter table rep_count add primary key (club_id, athlete_id, movement, session_id, part, side,
      lead_foot, speed_pct, rung, exit, late, logged_by, watched, could_key);
    alter table fault_standing add column exposed jsonb not null;
    alter table watched_twice add column could text[] not null;
    update session set counted = 0 where log_end > 0;
  `.execute(db);
  const { rows } = await sql<{ club_id: string; id: string; based_on: string; document: unknown }>`
    select club_id, id, based_on_code as based_on, document from movement`.execute(db);
  for (const { club_id, id, based_on, document } of rows) {
    await sql`
      update movement set document = ${JSON.stringify(withFaultPhases(document, based_on))}::jsonb
      where club_id = ${club_id} and id = ${id}`.execute(db);
  }
};
