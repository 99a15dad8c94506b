import { sql, type Kysely } from 'kysely';

/**
 * Touches, metres and minutes count, makes are told by spot, and a first step may be heard. What a squad sees
 * of reads and results is kept with its standings, so that it does not grow with the season. All logs are
 * counted anew.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table rep
      add column late_by text,
      add column touch_s double precision[],
      add column ran_m double precision,
      add column ran_s double precision;
    update review set document = document || '{"callS": null}';
    update drill_set set document = jsonb_set(document, '{vary,spots}', '[]')
      where document -> 'vary' is not null and document -> 'vary' -> 'spots' is null;

    drop index rep_count_results;
    truncate rep_count, fault_standing, watched_twice;
    alter table rep_count drop constraint rep_count_pkey;
    alter table rep_count
      add column spot text not null,
      add column rounds jsonb not null,
      add column runs integer not null,
      add column ran_m double precision not null,
      add column ran_s double precision not null,
      add column heard integer not null,
      add column heard_s double precision not null,
      add column has_results boolean not null
        generated always as (tried > 0 or held > 0 or runs > 0 or rounds <> '[]') stored;
    alter table rep_count add primary key (club_id, athlete_id, movement, session_id, part, side,
      lead_foot, speed_pct, rung, exit, spot, late, logged_by, watched, could_key);
    create index rep_count_results on rep_count (club_id, movement, athlete_id) where has_results;
    alter table fault_standing
      add column reads jsonb not null,
      add column totals jsonb not null;
    update session set counted = 0 where log_end > 0;
  `.execute(db);
};
