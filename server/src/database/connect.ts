import { Kysely, PostgresDialect, sql, type Transaction } from 'kysely';
import pg from 'pg';
import { StartFault } from '../startFault';
import type { DB as Tables } from './tables';

// Days stay text: a day has no time zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

export type { Tables };
export type Db = Kysely<Tables>;
export type Trx = Transaction<Tables>;

/** Connections for what is asked and answered, for files that are sent piece by piece, for an archive read in. */
const MOST = { requests: 10, downloads: 6, archive: 1 };

export const connect = (
  url: string,
  what: keyof typeof MOST = 'requests',
): { db: Db; pool: pg.Pool } => {
  const pool = new pg.Pool({
    connectionString: url,
    max: MOST[what],
    connectionTimeoutMillis: 5_000,
    application_name: 'gravek',
  });
  // A connection that breaks while idle must not end the process; the next query reports it.
  pool.on('error', () => undefined);
  // Nor may one that breaks between two queries of a transaction, such as when a pooler lets go of it.
  pool.on('connect', (client) => client.on('error', () => undefined));
  return { db: new Kysely<Tables>({ dialect: new PostgresDialect({ pool }) }), pool };
};

/**
 * Refuses to serve with a role that row-level security would not hold back.
 *
 * @throws {StartFault} with what to do
 */
export const checkRole = async (db: Db): Promise<void> => {
  const { rows } = await sql<{ name: string; unbound: boolean; owns: boolean; ready: boolean }>`
    select current_user as name,
      (select rolsuper or rolbypassrls from pg_roles where rolname = current_user) as unbound,
      exists (select from pg_tables where schemaname = 'public' and tablename = 'athlete'
        and pg_has_role(current_user, tableowner, 'member')) as owns,
      to_regclass('public.athlete') is not null as ready`.execute(db);
  const role = rows[0]!;
  if (!role.ready) {
    throw new StartFault(
      'The database holds no Gravek tables yet. Set DATABASE_OWNER_URL to a role that may create them and start again.',
    );
  }
  if (role.unbound || role.owns) {
    throw new StartFault(
      `DATABASE_URL connects as ${role.name}, which row-level security does not hold back. Use a role of its own: create role gravek_web login password '…' in role gravek_app;`,
    );
  }
};

export type Who = { clubId: string; accountId: string };

/** Less than a page waits, so that the coach is told why. */
const patience = sql`set_config('statement_timeout', '12s', true), set_config('lock_timeout', '5s', true)`;

/** For work at the terminal, which may take as long as it takes. */
export const withoutHurry = async (trx: Trx): Promise<void> => {
  await sql`select set_config('statement_timeout', '0', true), set_config('lock_timeout', '0', true)`.execute(
    trx,
  );
};

/** The club of a transaction, as it is entered. */
export type Entered = {
  /** what the account may there; null where it is no member */
  role: string | null;
  timeZone: string;
  /** rows of the log that the counts do not hold yet: what counts say is true up to these */
  uncounted: number;
};

/** From here on only this club's rows exist in the transaction. */
export const enterClub = async (trx: Trx, { clubId, accountId }: Who): Promise<Entered> => {
  const { rows } = await sql<Entered>`
    select role, time_zone as "timeZone", uncounted
    from gravek_enter_club(${clubId}, ${accountId})`.execute(trx);
  return rows[0]!;
};

/** Runs a piece of work as one transaction in which only one club's rows exist. */
export const inClub = <T>(
  db: Db,
  who: Who,
  work: (trx: Trx, club: Entered) => Promise<T>,
): Promise<T> => db.transaction().execute(async (trx) => work(trx, await enterClub(trx, who)));

/**
 * As `inClub`, for what only reads: all of it sees the club at one moment.
 *
 * Invariant: it writes nothing and locks nothing, so that a standby can serve it; PostgreSQL refuses the
 * statement that would.
 */
export const inClubReading = <T>(
  db: Db,
  who: Who,
  work: (trx: Trx, club: Entered) => Promise<T>,
): Promise<T> =>
  db
    .transaction()
    .setIsolationLevel('repeatable read')
    .setAccessMode('read only')
    .execute(async (trx) => work(trx, await enterClub(trx, who)));

/** As `inClub`, for somebody who is not in a club yet: sees the own account and memberships only. */
export const atDoor = <T>(
  db: Db,
  seen: { email?: string; accountId?: string },
  work: (trx: Trx) => Promise<T>,
): Promise<T> =>
  db.transaction().execute(async (trx) => {
    await sql`select set_config('gravek.email', ${seen.email ?? ''}, true),
      set_config('gravek.account', ${seen.accountId ?? ''}, true), ${patience}`.execute(trx);
    return work(trx);
  });

export const isEmpty = async (db: Db | Trx): Promise<boolean> => {
  const { rows } = await sql<{ empty: boolean }>`select gravek_is_empty() as empty`.execute(db);
  return rows[0]!.empty;
};
