import { sql, type Kysely } from 'kysely';

export const GROUND_TABLES = ['ground'] as const;

/** Where the club trains, and on which of its grounds a session is. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table ground (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      document jsonb not null,
      version integer not null default 1,
      archived_at timestamptz,
      primary key (club_id, id)
    );
    alter table ground enable row level security;
    create policy ground_of_club on ground
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on ground to gravek_app;

    alter table session add column ground_id uuid;
    alter table session add foreign key (club_id, ground_id) references ground;
  `.execute(db);
};
