import { sql, type Kysely } from 'kysely';

/** Tables that came with the ledger. */
export const LEDGER_TABLES = ['cue_choice', 'watched_twice'] as const;

/**
 * Counts tell early reps of a set from late ones and who logged them, with their faults in the same row;
 * coaches' own choices of a cue are kept, with who and why.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    drop table fault_count;
    -- All is counted anew.
    truncate rep_count, fault_standing;
    update session set counted = 0;
    alter table rep_count drop constraint rep_count_pkey;
    alter table rep_count drop column cues;
    -- An empty text where nobody knows who logged: a key holds no null.
    alter table rep_count
      add column late boolean not null,
      add column logged_by text not null,
      add column faults jsonb not null,
      add column cues jsonb not null,
      -- which way was taken at a read, and how late
      add column read integer not null,
      add column was_right integer not null,
      add column timed integer not null,
      add column late_s double precision not null,
      add primary key (club_id, athlete_id, movement, session_id, part, side, lead_foot, speed_pct,
        rung, exit, late, logged_by);

    alter table fault_standing
      -- the cue that was given last in the log, as it is now and as it was before the last session
      add column told jsonb,
      add column told_before jsonb,
      -- what each of the athlete's cues has done so far
      add column results jsonb not null;

    -- Reps that two people have logged, with what each saw.
    create table watched_twice (
      club_id uuid not null default gravek_club(),
      athlete_id uuid not null,
      session_id uuid not null,
      movement text not null,
      a uuid not null,
      b uuid not null,
      faults_a text[] not null,
      faults_b text[] not null,
      primary key (club_id, athlete_id, movement, a, b),
      foreign key (club_id, athlete_id) references athlete on delete cascade,
      foreign key (club_id, session_id) references session on delete cascade
    );
    create index watched_twice_session on watched_twice (club_id, session_id);

    create table cue_choice (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      athlete_id uuid not null,
      movement text not null,
      -- null: chosen by the club's school again
      fault text,
      drill text,
      reason text not null,
      account_id uuid not null,
      day date not null,
      made_at timestamptz not null default now(),
      -- when the cue before had been given last, by the clock of its phone
      told_at timestamptz,
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index cue_choice_athlete on cue_choice (club_id, athlete_id, movement, made_at);
  `.execute(db);
  for (const table of LEDGER_TABLES) {
    await sql`
      alter table ${sql.table(table)} enable row level security;
      create policy ${sql.ref(`${table}_of_club`)} on ${sql.table(table)}
        using (club_id = gravek_club()) with check (club_id = gravek_club());
      grant select, insert, update, delete on ${sql.table(table)} to gravek_app;
    `.execute(db);
  }
};
