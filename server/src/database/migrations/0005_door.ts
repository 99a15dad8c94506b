import { sql, type Kysely } from 'kysely';

/**
 * What the door keeps: attempts to sign in, counted for all processes, and one-time links to a new
 * password. One account may belong to several clubs; when it belongs to none any more it ends.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table attempt (
      key text primary key,
      hits integer not null,
      until timestamptz not null
    );

    create table password_link (
      token_hash text primary key,
      account_id uuid not null references account on delete cascade,
      until timestamptz not null
    );
    create index password_link_account on password_link (account_id);

    create function gravek_is_elsewhere(asked uuid) returns boolean language sql stable security definer
      set search_path = public, pg_temp as
      $$ select exists (select from membership where account_id = asked and club_id <> gravek_club()) $$;

    create function gravek_end_account(asked uuid) returns void language sql security definer
      set search_path = public, pg_temp as
      $$ delete from account where id = asked
           and not exists (select from membership where account_id = asked) $$;

    grant select, insert, update, delete on attempt, password_link to gravek_app;
    grant execute on function gravek_is_elsewhere(uuid), gravek_end_account(uuid) to gravek_app;
  `.execute(db);
};
