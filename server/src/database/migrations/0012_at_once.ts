import { sql, type Kysely } from 'kysely';

/**
 * A tap is stored in few statements: one enters the club and says what the member may, one holds what the
 * rows of the log name, one numbers and keeps them.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    -- From here to its end the transaction sees one club; the role of the account there, or null.
    create function gravek_enter(club uuid, account uuid) returns text language plpgsql as $$
      begin
        perform set_config('gravek.club', club::text, true),
          set_config('gravek.account', account::text, true),
          -- Less than a page waits, so that the coach is told why.
          set_config('statement_timeout', '12s', true), set_config('lock_timeout', '5s', true);
        return (select role from membership where club_id = club and account_id = account);
      end $$;

    -- What reps name, as far as it is there; sessions are held, and athletes stay, to the end of the
    -- transaction. Looked up only once they are held: the same rep may have come in meanwhile.
    create function gravek_named(asked_sessions uuid[], asked_people uuid[], asked_sets uuid[],
        asked_reps uuid[], out sessions text[], out people text[], out sets jsonb, out reps text[])
      language plpgsql as $$
      begin
        perform from session where club_id = gravek_club() and id = any(asked_sessions)
          order by id for no key update;
        sessions := array(select id::text from session
          where club_id = gravek_club() and id = any(asked_sessions));
        people := array(select id::text from athlete
          where club_id = gravek_club() and id = any(asked_people) order by id for key share);
        select coalesce(jsonb_object_agg(id, session_id), '{}') into sets from drill_set
          where club_id = gravek_club() and id = any(asked_sets);
        reps := array(select id::text from rep
          where club_id = gravek_club() and id = any(asked_reps));
      end $$;

    -- Rows of the log, each with its faults, get the next numbers of arrival of their sessions, which
    -- the caller holds. A row that breaks a rule of its table gets none and does not hold up the others.
    create function gravek_store_reps(given jsonb) returns table (rep_id uuid, number integer)
      language plpgsql as $$
      declare
        entries jsonb;
        entry jsonb;
      begin
        with more as (
          update session s set log_end = s.log_end + m.many
          from (select (g ->> 'session_id')::uuid as id, count(*)::int as many
            from jsonb_array_elements(given) g group by 1) m
          where s.club_id = gravek_club() and s.id = m.id
          returning s.id, s.log_end - m.many as before)
        select jsonb_agg(placed.row) into entries from (
          select g || jsonb_build_object('club_id', gravek_club(), 'created_at', now(), 'arrival',
            more.before + row_number() over (partition by more.id order by place)) as row
          from jsonb_array_elements(given) with ordinality listed (g, place)
          join more on more.id = (g ->> 'session_id')::uuid
          order by place) placed;
        begin
          perform gravek_keep_reps(entries);
          return query select (e ->> 'id')::uuid, (e ->> 'arrival')::int
            from jsonb_array_elements(entries) e;
          return;
        exception when data_exception or integrity_constraint_violation then
          -- Rows that fail as a whole are tried one by one.
        end;
        for entry in select * from jsonb_array_elements(entries) loop
          rep_id := entry ->> 'id';
          begin
            perform gravek_keep_reps(jsonb_build_array(entry));
            number := entry ->> 'arrival';
          exception when data_exception or integrity_constraint_violation then
            number := null;
          end;
          return next;
        end loop;
      end $$;

    create function gravek_keep_reps(entries jsonb) returns void language sql as $$
      insert into rep select * from jsonb_populate_recordset(null::rep, entries);
      insert into rep_fault (rep_id, fault)
        select (e ->> 'id')::uuid, fault
        from jsonb_array_elements(entries) e, jsonb_array_elements_text(e -> 'faults') fault;
    $$;
    grant execute on function gravek_enter(uuid, uuid),
      gravek_named(uuid[], uuid[], uuid[], uuid[]), gravek_store_reps(jsonb),
      gravek_keep_reps(jsonb) to gravek_app;
  `.execute(db);
};
