import { sql, type Kysely } from 'kysely';

/** Tables that came with coaches' own choices of a rung. */
export const RUNG_TABLES = ['rung_choice'] as const;

/** Coaches' own choices of a rung are kept, with who and why. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table rung_choice (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      athlete_id uuid not null,
      movement text not null,
      -- null: by the rule again
      rung text,
      reason text not null,
      account_id uuid not null,
      day date not null,
      made_at timestamptz not null default now(),
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade
    );
    create index rung_choice_athlete on rung_choice (club_id, athlete_id, movement, made_at);
    alter table rung_choice enable row level security;
    create policy rung_choice_of_club on rung_choice
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on rung_choice to gravek_app;
  `.execute(db);
};
