import { sql, type Kysely } from 'kysely';

/** Tables that belong to a club, in an order in which each one's parents come first. */
export const FOUNDATION_TABLES = [
  'membership',
  'athlete',
  'restriction',
  'measurement',
  'approach',
  'athlete_approach',
  'session',
  'drill_set',
  'drill_set_athlete',
  'rep',
  'rep_fault',
] as const;

/**
 * Everything starts here. The application connects as gravek_app, which owns nothing and cannot
 * bypass row-level security; a transaction names its club by `set_config('gravek.club', …, true)`,
 * and one that forgets sees no row and can write none.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create function gravek_club() returns uuid language sql stable as
      $$ select nullif(current_setting('gravek.club', true), '')::uuid $$;
    create function gravek_account() returns uuid language sql stable as
      $$ select nullif(current_setting('gravek.account', true), '')::uuid $$;

    create table account (
      id uuid primary key,
      email text not null unique,
      person text not null,
      password_hash text not null,
      created_at timestamptz not null default now()
    );

    create table club (
      id uuid primary key,
      name text not null,
      unit text not null,
      cue_school text not null,
      time_zone text not null,
      version integer not null default 1,
      created_at timestamptz not null default now()
    );

    create table membership (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      account_id uuid not null references account,
      role text not null check (role in ('owner', 'coach', 'assistant')),
      created_at timestamptz not null default now(),
      primary key (club_id, id),
      unique (club_id, account_id)
    );
    create index membership_account on membership (account_id);

    create table athlete (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      name text not null,
      squad text not null,
      hand text not null check (hand in ('left', 'right')),
      takeoff_foot text not null check (takeoff_foot in ('left', 'right')),
      shoe_m double precision,
      height_m double precision,
      birth_year integer,
      positions text[] not null default '{}',
      version integer not null default 1,
      archived_at timestamptz,
      created_at timestamptz not null default now(),
      primary key (club_id, id)
    );
    create index athlete_name on athlete (club_id, name, id);

    create table restriction (
      club_id uuid not null default gravek_club(),
      id uuid not null,
      athlete_id uuid not null,
      kind text not null,
      from_day date not null,
      until_day date not null,
      note text not null default '',
      removed_at timestamptz,
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index restriction_athlete on restriction (club_id, athlete_id);

    create table measurement (
      club_id uuid not null default gravek_club(),
      id uuid not null,
      athlete_id uuid not null,
      kind text not null check (kind in ('trial')),
      taken_on date not null,
      source text not null check (source in ('self', 'other', 'device')),
      note text not null default '',
      payload jsonb not null,
      removed_at timestamptz,
      created_at timestamptz not null default now(),
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index measurement_athlete on measurement (club_id, athlete_id, taken_on);

    create table approach (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      name text not null,
      movement text not null,
      choices jsonb not null,
      version integer not null default 1,
      archived_at timestamptz,
      saved_at timestamptz not null default now(),
      primary key (club_id, id)
    );

    create table athlete_approach (
      club_id uuid not null default gravek_club(),
      approach_id uuid not null,
      athlete_id uuid not null,
      position integer not null,
      model jsonb not null,
      model_source text not null check (model_source in ('measured', 'estimate')),
      result jsonb not null,
      solver_version integer not null,
      solved_at timestamptz not null default now(),
      primary key (club_id, approach_id, athlete_id),
      foreign key (club_id, approach_id) references approach on delete cascade,
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index athlete_approach_athlete on athlete_approach (club_id, athlete_id);

    create table session (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      day date not null,
      title text not null,
      place text not null default '',
      version integer not null default 1,
      archived_at timestamptz,
      created_at timestamptz not null default now(),
      primary key (club_id, id)
    );
    create index session_day on session (club_id, day);

    create table drill_set (
      club_id uuid not null default gravek_club(),
      id uuid not null,
      session_id uuid not null,
      position integer not null,
      approach_id uuid not null,
      sets integer not null,
      reps integer not null,
      sides text[] not null,
      rest_s integer not null,
      set_rest_s integer not null,
      primary key (club_id, id),
      foreign key (club_id, session_id) references session on delete cascade,
      foreign key (club_id, approach_id) references approach
    );
    create index drill_set_session on drill_set (club_id, session_id);
    create index drill_set_approach on drill_set (club_id, approach_id);

    create table drill_set_athlete (
      club_id uuid not null default gravek_club(),
      drill_set_id uuid not null,
      athlete_id uuid not null,
      position integer not null,
      primary key (club_id, drill_set_id, athlete_id),
      foreign key (club_id, drill_set_id) references drill_set on delete cascade,
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index drill_set_athlete_athlete on drill_set_athlete (club_id, athlete_id);

    create table rep (
      club_id uuid not null default gravek_club(),
      id uuid not null,
      session_id uuid not null,
      drill_set_id uuid not null,
      athlete_id uuid not null,
      set_no integer not null,
      side text not null check (side in ('own', 'other')),
      rep_no integer not null,
      outcome text not null check (outcome in ('clean', 'fault', 'again', 'skip', 'void')),
      voids uuid,
      cue text,
      at timestamptz not null,
      logged_by uuid,
      created_at timestamptz not null default now(),
      primary key (club_id, id),
      check ((outcome = 'void') = (voids is not null)),
      foreign key (club_id, session_id) references session,
      foreign key (club_id, drill_set_id) references drill_set,
      foreign key (club_id, athlete_id) references athlete on delete cascade,
      foreign key (club_id, voids) references rep on delete cascade
    );
    create index rep_session on rep (club_id, session_id);
    create index rep_athlete on rep (club_id, athlete_id);
    create index rep_drill_set on rep (club_id, drill_set_id);
    create index rep_voids on rep (club_id, voids) where voids is not null;

    create table rep_fault (
      club_id uuid not null default gravek_club(),
      rep_id uuid not null,
      fault text not null,
      primary key (club_id, rep_id, fault),
      foreign key (club_id, rep_id) references rep on delete cascade
    );

    create table http_session (
      sid varchar primary key,
      sess json not null,
      expire timestamp(6) not null
    );
    create index http_session_expire on http_session (expire);
  `.execute(db);

  for (const table of FOUNDATION_TABLES) {
    const own =
      table === 'membership'
        ? sql`club_id = gravek_club() or account_id = gravek_account()`
        : sql`club_id = gravek_club()`;
    await sql`
      alter table ${sql.table(table)} enable row level security;
      create policy ${sql.ref(`${table}_of_club`)} on ${sql.table(table)}
        using (${own}) with check (club_id = gravek_club());
    `.execute(db);
  }

  await sql`
    alter table club enable row level security;
    create policy club_own on club
      using (
        id = gravek_club()
        or exists (select from membership m where m.club_id = club.id and m.account_id = gravek_account())
      )
      with check (id = gravek_club());

    -- An account is seen by itself, by the clubs it belongs to, and at the door by its address.
    alter table account enable row level security;
    create policy account_seen on account
      using (
        id = gravek_account()
        or email = nullif(current_setting('gravek.email', true), '')
        or exists (select from membership m where m.account_id = account.id and m.club_id = gravek_club())
      )
      with check (true);

    -- Whether the database holds any club at all: the door of an empty one offers to make the first.
    create function gravek_is_empty() returns boolean language sql stable security definer
      set search_path = public, pg_temp as $$ select not exists (select from club) $$;

    grant usage on schema public to gravek_app;
    grant select, insert, update, delete on all tables in schema public to gravek_app;
    revoke insert, update, delete on kysely_migration, kysely_migration_lock from gravek_app;
    grant execute on all functions in schema public to gravek_app;
  `.execute(db);
};
