import { sql, type Kysely } from 'kysely';

/** Groups that go round the stations of a session, and what was done to their clock. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    alter table session add column circuit jsonb, add column clock jsonb not null default '[]';
    comment on column session.circuit is 'groups that go round its stations; null where nobody does';
    comment on column session.clock is 'what was done to the clock of its groups, as it arrived';
  `.execute(db);
};
