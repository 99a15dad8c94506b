import { sql, type Kysely } from 'kysely';

/** Reads count nothing any more: whoever counts finds the clubs that are behind, few rows of an index. */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create index session_behind on session (club_id) where counted < log_end;

    -- Which clubs have reps that are not counted; nothing else of them.
    create function gravek_behind() returns setof uuid language sql stable security definer
      set search_path = public, pg_temp as $$
        select distinct club_id from session where counted < log_end $$;

    -- For work that the server does for a club by itself, without a member.
    create function gravek_enter_as_server(club uuid) returns void language plpgsql as $$
      begin
        perform set_config('gravek.club', club::text, true),
          set_config('statement_timeout', '60s', true), set_config('lock_timeout', '5s', true);
      end $$;

    grant execute on function gravek_behind(), gravek_enter_as_server(uuid) to gravek_app;
  `.execute(db);
};
