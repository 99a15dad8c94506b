import { sql, type Kysely } from 'kysely';

/** Tables that came with films and devices. */
export const WATCHING_TABLES = ['review'] as const;

/** Films held against plans, and what a film or device has measured of a rep. */
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
  `.execute(db);
};
