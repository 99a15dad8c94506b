import { sql, type Kysely } from 'kysely';

/** Tables that came with films and devices. */
export const WATCHING_TABLES = ['review', 'own_link'] as const;

/**
 * Films held against plans, what a film or device has measured of a rep, and links by which athletes see
 * themselves.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table review (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      athlete_id uuid not null,
      approach_id uuid,
      taken_on date not null,
      -- all that was marked
      document jsonb not null,
      version integer not null default 1,
      archived_at timestamptz,
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade,
      foreign key (club_id, approach_id) references approach
    );
    create index review_newest on review (club_id, taken_on desc, id desc);
    create index review_athlete on review (club_id, athlete_id);
    alter table review enable row level security;
    create policy review_of_club on review
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on review to gravek_app;

    alter table rep add column measured jsonb;

    create table own_link (
      club_id uuid not null default gravek_club() references club on delete cascade,
      athlete_id uuid not null,
      token_hash text not null unique,
      -- who gave it: it holds as long as they are in the club
      account_id uuid not null references account on delete cascade,
      guardian boolean not null,
      until timestamptz not null,
      primary key (club_id, athlete_id),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    alter table own_link enable row level security;
    create policy own_link_of_club on own_link
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on own_link to gravek_app;

    -- Whoever follows a link is not signed in; it says itself whose page it is, until it ends.
    create function gravek_own_link(asked text)
      returns table (club uuid, account uuid, athlete uuid, until timestamptz, guardian boolean)
      language sql stable security definer set search_path = public, pg_temp as
      $$ select l.club_id, l.account_id, l.athlete_id, l.until, l.guardian from own_link l
           where l.token_hash = asked and l.until > now() $$;
    grant execute on function gravek_own_link(text) to gravek_app;
  `.execute(db);
};
