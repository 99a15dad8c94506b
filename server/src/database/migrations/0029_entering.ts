import { sql, type Kysely } from 'kysely';

/**
 * Whoever enters a club is told at once what every answer needs: the role, the club's time zone, and how many
 * rows of the log the counts do not hold yet. `gravek_enter` stays for servers of before that still run.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create function gravek_enter_club(club uuid, account uuid,
        out role text, out time_zone text, out uncounted int) language plpgsql as $$
      begin
        role := gravek_enter(club, account);
        time_zone := (select c.time_zone from club c where c.id = gravek_club());
        uncounted := (select coalesce(sum(s.log_end - s.counted), 0) from session s
          where s.club_id = gravek_club() and s.counted < s.log_end);
      end $$;
    grant execute on function gravek_enter_club(uuid, uuid) to gravek_app;
  `.execute(db);
};
