import { sql, type Kysely } from 'kysely';

export const CALENDAR_TABLES = ['calendar_address'] as const;

/**
 * What the builder goes by: a club's limits of load by age, sessions kept to begin others from, counts of
 * clean reps, and the addresses at which calendars follow a club's sessions.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table club add column limits jsonb not null default '[]';
    alter table session add column template boolean not null default false;

    alter table rep_count add column clean integer not null default 0;
    -- All is counted anew.
    update session set counted = 0;

    create table calendar_address (
      club_id uuid not null default gravek_club() references club on delete cascade,
      account_id uuid not null references account on delete cascade,
      token_hash text not null unique,
      made_at timestamptz not null default now(),
      primary key (club_id, account_id)
    );
    alter table calendar_address enable row level security;
    create policy calendar_address_of_club on calendar_address
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on calendar_address to gravek_app;

    -- Whoever follows an address is not signed in; it says itself whose it is, while they are a member.
    create function gravek_calendar(asked text) returns table (club uuid, account uuid)
      language sql stable security definer set search_path = public, pg_temp as
      $$ select a.club_id, a.account_id from calendar_address a
           join membership m on m.club_id = a.club_id and m.account_id = a.account_id
           where a.token_hash = asked $$;
    grant execute on function gravek_calendar(text) to gravek_app;
  `.execute(db);
};
