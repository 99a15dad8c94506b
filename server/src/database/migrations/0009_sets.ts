import { sql, type Kysely } from 'kysely';

/**
 * A drill set says what varies in it, what counts, how people stand and how they are called; a rep says
 * which variant it was, what came of it and what it put on the body.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table drill_set add column document jsonb;
    update drill_set set document = jsonb_build_object(
      'work', jsonb_build_object('kind', 'plan', 'approachId', approach_id),
      'vary', jsonb_build_object(
        'moves', '[]'::jsonb, 'endings', '[]'::jsonb, 'exits', '[]'::jsonb,
        'sides', to_jsonb(sides), 'leadFeet', '[]'::jsonb,
        'paces', jsonb_build_array(pace), 'rungs', '[]'::jsonb),
      'struck', '[]'::jsonb, 'order', 'blocked', 'slowFirst', true, 'seed', 1,
      'sets', sets, 'reps', reps, 'target', 'attempts', 'amount', 1,
      'stand', 'turns', 'helpers', '[]'::jsonb, 'lanes', null, 'apartPaces', null,
      'beside', false, 'redo', false, 'freeze', false, 'call', null,
      'restS', rest_s, 'setRestS', set_rest_s);
    alter table drill_set
      alter column document set not null,
      alter column approach_id drop not null,
      drop column sets, drop column reps, drop column sides, drop column pace,
      drop column rest_s, drop column set_rest_s;

    alter table rep drop constraint rep_outcome_check;
    alter table rep add constraint rep_outcome_check check
      (outcome in ('clean', 'fault', 'again', 'skip', 'done', 'void', 'in', 'out', 'pain'));
    alter table rep
      add column variant text not null default '',
      add column rung text,
      add column exit text,
      add column taken text,
      add column late_s double precision,
      add column made boolean,
      add column held_s double precision,
      add column load jsonb,
      add column note text not null default '';

    -- An empty text where nothing was asked: a key holds no null.
    alter table rep_count
      add column rung text not null default '',
      add column exit text not null default '',
      add column tried integer not null default 0,
      add column made integer not null default 0,
      add column contacts integer not null default 0,
      add column jumps integer not null default 0,
      add column throws integer not null default 0,
      add column sprint_m double precision not null default 0;
    alter table fault_count
      add column rung text not null default '',
      add column exit text not null default '';
    alter table fault_count drop constraint fault_count_pkey;
    alter table rep_count drop constraint rep_count_pkey cascade;
    alter table rep_count add primary key
      (club_id, athlete_id, movement, session_id, part, side, lead_foot, speed_pct, rung, exit);
    alter table fault_count
      add primary key (club_id, athlete_id, movement, session_id, part, side, lead_foot,
        speed_pct, rung, exit, fault),
      add foreign key (club_id, athlete_id, movement, session_id, part, side, lead_foot,
        speed_pct, rung, exit) references rep_count on delete cascade;
  `.execute(db);
};
