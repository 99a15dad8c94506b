import { Kysely, Migrator, PostgresDialect, sql, type Migration } from 'kysely';
import pg from 'pg';
import { countNew } from '../reps/countNew';
import { StartFault } from '../startFault';
import type { Db } from '../database/connect';
import * as foundation from '../database/migrations/0001_foundation';
import * as movements from '../database/migrations/0002_movements';
import * as readings from '../database/migrations/0003_readings';
import * as log from '../database/migrations/0004_log';
import * as door from '../database/migrations/0005_door';
import * as pace from '../database/migrations/0006_pace';
import * as grounds from '../database/migrations/0007_grounds';
import * as field from '../database/migrations/0008_field';
import * as sets from '../database/migrations/0009_sets';
import * as counted from '../database/migrations/0010_counted';
import * as builder from '../database/migrations/0011_builder';
import * as atOnce from '../database/migrations/0012_at_once';
import * as ledger from '../database/migrations/0013_ledger';
import * as together from '../database/migrations/0014_together';
import * as rungs from '../database/migrations/0015_rungs';
import * as restored from '../database/migrations/0016_restored';
import * as watching from '../database/migrations/0017_watching';
import * as beside from '../database/migrations/0018_beside';
import * as counting from '../database/migrations/0019_counting';
import * as accounts from '../database/migrations/0020_accounts';
import * as restoring from '../database/migrations/0021_restoring';
import * as exposure from '../database/migrations/0022_exposure';
import * as results from '../database/migrations/0023_results';
import * as whatCounts from '../database/migrations/0024_what_counts';
import * as inFront from '../database/migrations/0025_in_front';
import * as ways from '../database/migrations/0026_ways';
import * as drillChoice from '../database/migrations/0027_drill_choice';
import * as speaking from '../database/migrations/0028_speaking';
import * as entering from '../database/migrations/0029_entering';
import * as comments from '../database/migrations/0030_comments';
import * as circuit from '../database/migrations/0031_circuit';
import * as ownCounts from '../database/migrations/0032_own_counts';

/** In order; a name never changes once it has been released. */
const MIGRATIONS: Record<string, Migration> = {
  '0001_foundation': foundation,
  '0002_movements': movements,
  '0003_readings': readings,
  '0004_log': log,
  '0005_door': door,
  '0006_pace': pace,
  '0007_grounds': grounds,
  '0008_field': field,
  '0009_sets': sets,
  '0010_counted': counted,
  '0011_builder': builder,
  '0012_at_once': atOnce,
  '0013_ledger': ledger,
  '0014_together': together,
  '0015_rungs': rungs,
  '0016_restored': restored,
  '0017_watching': watching,
  '0018_beside': beside,
  '0019_counting': counting,
  '0020_accounts': accounts,
  '0021_restoring': restoring,
  '0022_exposure': exposure,
  '0023_results': results,
  '0024_what_counts': whatCounts,
  '0025_in_front': inFront,
  '0026_ways': ways,
  '0027_drill_choice': drillChoice,
  '0028_speaking': speaking,
  '0029_entering': entering,
  '0030_comments': comments,
  '0031_circuit': circuit,
  '0032_own_counts': ownCounts,
};

/** What the tables of this version end with; names grow with each step. */
export const LAST_STEP = Object.keys(MIGRATIONS).sort().at(-1)!;

/** Counts what has not been counted as this version does, club by club. */
const countClubs = async (db: Kysely<unknown>): Promise<void> => {
  const clubs = await sql<{ id: string }>`select id from club`.execute(db);
  for (const { id } of clubs.rows) {
    await (db as Db).transaction().execute(async (trx) => {
      await sql`select set_config('gravek.club', ${id}, true)`.execute(trx);
      await countNew(trx);
    });
  }
};

/**
 * Brings the database up to this version.
 *
 * @param ownerUrl a role that may create tables; the application's own role may not
 * @returns how many steps were taken
 * @throws {StartFault} when the database was made by a newer version, or cannot be migrated
 */
export const migrate = async (ownerUrl: string): Promise<number> => {
  const db = new Kysely<unknown>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: ownerUrl, max: 1 }) }),
  });
  try {
    await sql`
      do $$ begin
        if not exists (select from pg_roles where rolname = 'gravek_app') then
          create role gravek_app nologin;
        end if;
      end $$`.execute(db);
    const migrator = new Migrator({
      db,
      provider: { getMigrations: () => Promise.resolve(MIGRATIONS) },
    });
    const lastStep = await sql<{ name: string | null }>`
      select to_regclass('public.kysely_migration')::text as name`.execute(db);
    if (lastStep.rows[0]?.name) {
      const done = await sql<{ name: string }>`select name from kysely_migration`.execute(db);
      const newer = done.rows.filter(({ name }) => !(name in MIGRATIONS));
      if (newer.length > 0) {
        throw new StartFault(
          `This database was made by a newer Gravek (it holds step ${newer[0]!.name}). Update Gravek, then start again; nothing was changed.`,
        );
      }
    }
    const { error, results } = await migrator.migrateToLatest();
    if (error) {
      const cause = error instanceof Error ? error.message : String(error);
      throw new StartFault(`The database could not be brought up to date: ${cause}`);
    }
    if (results && results.length > 0) await countClubs(db);
    return results?.length ?? 0;
  } finally {
    await db.destroy();
  }
};
