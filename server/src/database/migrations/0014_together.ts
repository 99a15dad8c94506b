import { sql, type Kysely } from 'kysely';

/** Counts keep which faults showed in the same rep. All is counted anew. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    truncate rep_count, fault_standing;
    update session set counted = 0;
    alter table rep_count add column together jsonb not null;
    create index rep_count_movement on rep_count (club_id, movement, session_id);
  `.execute(db);
};
