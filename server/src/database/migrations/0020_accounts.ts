import { sql, type Kysely } from 'kysely';

/** Tables of a club that say who may come in, and what was done by whom. */
export const ACCOUNT_TABLES = ['invitation', 'deed'] as const;

/**
 * An account is its owner's: a membership begins with an invitation, a sign-in is known by a hash, a link
 * to a new password opens no club but the one that gave it, and what is done to a club is written down
 * where the application can add and read, and nothing else.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create table invitation (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      email text not null,
      person text not null,
      role text not null check (role in ('owner', 'coach', 'assistant')),
      formerly uuid,
      token_hash text unique,
      until timestamptz,
      made_by uuid,
      created_at timestamptz not null default now(),
      primary key (club_id, id),
      unique (club_id, email)
    );
    alter table invitation enable row level security;
    create policy invitation_of_club on invitation
      using (club_id = gravek_club()) with check (club_id = gravek_club());

    -- By whom something was logged before the account that is a member now was made.
    alter table membership add column formerly uuid;
    create function gravek_person(asked uuid) returns text language sql stable as $$
      select coalesce(
        (select a.person from membership m join account a on a.id = m.account_id
          where m.club_id = gravek_club() and asked in (m.account_id, m.formerly) limit 1),
        (select person from invitation where club_id = gravek_club() and formerly = asked limit 1))
    $$;

    -- An invitation by its link. It ends with the part that its maker had in the club.
    create function gravek_invitation(hash text)
      returns table (club uuid, id uuid, club_name text, email text, person text, role text, until timestamptz)
      language sql stable security definer set search_path = public, pg_temp as $$
      select i.club_id, i.id, c.name, i.email, i.person, i.role, i.until
      from invitation i join club c on c.id = i.club_id
      where i.token_hash = hash and i.until > now()
        and (i.made_by is null or exists (
          select from membership m
          where m.club_id = i.club_id and m.account_id = i.made_by and m.role = 'owner'))
    $$;

    -- The club whose owner made the link; none when whoever runs the server has.
    alter table password_link add column opens_club uuid references club on delete cascade;
    -- Who made those of before is not known.
    delete from password_link;

    -- Devices on which somebody has signed in: attempts from elsewhere do not hold them up.
    create table known_device (
      account_id uuid not null references account on delete cascade,
      token_hash text not null,
      seen_at timestamptz not null default now(),
      primary key (account_id, token_hash)
    );

    create table deed (
      club_id uuid not null default gravek_club() references club on delete cascade,
      id uuid not null,
      at timestamptz not null default now(),
      account_id uuid,
      person text not null,
      what text not null,
      about text not null default '',
      primary key (club_id, id)
    );
    create index deed_at on deed (club_id, at desc, id desc);
    alter table deed enable row level security;
    create policy deed_of_club on deed
      using (club_id = gravek_club()) with check (club_id = gravek_club());
    create function gravek_forget_deeds() returns void language sql security definer
      set search_path = public, pg_temp as $$ delete from deed where at < now() - interval '1 year' $$;

    alter table account
      add column totp_secret text,
      add column totp_step bigint not null default 0,
      add column recovery text[] not null default '{}';
    alter table club add column owners_two_steps boolean not null default false;
    alter table athlete add column born_on date;

    -- What is kept of a sign-in is too little to make its cookie.
    update http_session set
      sid = rtrim(translate(encode(sha256(convert_to(sid, 'UTF8')), 'base64'), '+/', '-_'), '=');
    update http_session set sess = (sess::jsonb || jsonb_build_object(
      'since', floor(extract(epoch from now()) * 1000), 'seen', floor(extract(epoch from now()) * 1000)))::json;
    create index http_session_account on http_session ((sess ->> 'accountId'));

    grant select, insert, update, delete on invitation, known_device to gravek_app;
    grant select, insert on deed to gravek_app;
    grant execute on function gravek_person(uuid), gravek_invitation(text), gravek_forget_deeds() to gravek_app;
  `.execute(db);
};
