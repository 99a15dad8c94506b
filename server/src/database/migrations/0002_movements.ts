import { sql, type Kysely } from 'kysely';

/** The club's own movements and rule sets. */
export const MOVEMENT_TABLES = ['movement', 'rule_set'] as const;

/** Movements and rule sets of the club beside the built-in ones, and the athlete's leg length. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table athlete add column leg_m double precision;

    create table movement (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      based_on_code text,
      based_on_revision integer,
      document jsonb not null,
      version integer not null default 1,
      archived_at timestamptz,
      saved_at timestamptz not null default now(),
      primary key (club_id, id),
      check ((based_on_code is null) = (based_on_revision is null))
    );

    create table rule_set (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      name text not null,
      note text not null default '',
      rules jsonb not null,
      version integer not null default 1,
      archived_at timestamptz,
      primary key (club_id, id)
    );
  `.execute(db);
  for (const table of MOVEMENT_TABLES) {
    await sql`
      alter table ${sql.table(table)} enable row level security;
      create policy ${sql.ref(`${table}_of_club`)} on ${sql.table(table)}
        using (club_id = gravek_club()) with check (club_id = gravek_club());
      grant select, insert, update, delete on ${sql.table(table)} to gravek_app;
    `.execute(db);
  }
};
