import { sql, type Kysely } from 'kysely';

export const OWN_COUNT_TABLES = ['own_count'] as const;

/** What athletes count of themselves, alone: kept apart from what a coach has seen. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table own_count (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      athlete_id uuid not null,
      session_id uuid not null,
      drill_set_id uuid not null,
      -- what it was, also when its session is changed afterwards
      name text not null,
      side text not null,
      variant text not null,
      made boolean,
      held_s double precision,
      -- the count that is taken back
      voids uuid,
      at timestamptz not null,
      primary key (club_id, id),
      foreign key (club_id, athlete_id) references athlete on delete cascade,
      foreign key (club_id, session_id) references session on delete cascade
    );
    create index own_count_athlete on own_count (club_id, athlete_id, at);
    create index own_count_session on own_count (club_id, session_id);
    alter table own_count enable row level security;
    create policy own_count_of_club on own_count
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    grant select, insert, update, delete on own_count to gravek_app;
    comment on table own_count is 'what athletes count of themselves, alone; enters no rate';
    comment on column own_count.made is 'whether it was made; null of a count that takes another back';
    comment on column own_count.held_s is 'seconds held, where those count';
    comment on column own_count.voids is 'the count that is taken back';
    comment on column own_count.at is 'when, by the clock of the athlete''s phone';
  `.execute(db);
};
