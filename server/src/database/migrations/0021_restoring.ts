import { sql, type Kysely } from 'kysely';

/** Tables of a club about an archive that is read into it. */
export const RESTORING_TABLES = ['restoring'] as const;

/** How far an archive is that is read into a club, for whichever process is asked. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table restoring (
      club_id uuid primary key default gravek_club() references club on delete cascade,
      id uuid not null,
      state text not null check (state in ('waits', 'checks', 'stores', 'counts', 'done', 'refused')),
      done bigint not null default 0,
      total bigint not null default 0,
      said text,
      -- Whoever reads it gives word every few seconds.
      seen_at timestamptz not null default now()
    );
    alter table restoring enable row level security;
    create policy restoring_of_club on restoring
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on restoring to gravek_app;
  `.execute(db);
};
