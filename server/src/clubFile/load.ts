import { randomBytes } from 'node:crypto';
import type { ClubItem } from '@gravek/contract/clubFile';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { INVITED_MS } from '../club/invitations';
import { members } from '../club/members';
import { inClub, withoutHurry, type Db, type Trx, type Who } from '../database/connect';
import { freshLink } from '../http/token';
import { hashPassword } from '../signIn/password';
import { StartFault } from '../startFault';
import { each, put, type Loading, type Piece } from './intoTables';
import { loadAll } from './lists';
import { refusal } from './refusal';
import { spooled, type Spool } from './spool';

/** What the tables have against the file as a whole. */
const asStartFault = (error: unknown): unknown => {
  if (!(error instanceof pg.DatabaseError) || !/^2[23]/.test(error.code ?? '')) return error;
  if (error.constraint === 'club_pkey') return refusal({ clubId: 'This club is here already.' });
  return refusal({ [error.table ?? '']: 'Something in it cannot be kept.' });
};

const settingsColumns = ({ name, unit, cueSchool, timeZone, limits }: Spool['head']['club']) => ({
  name,
  unit,
  cue_school: cueSchool,
  time_zone: timeZone,
  limits: JSON.stringify(limits),
});

type Person = ClubItem<'people'>;

/** People of a file become members when they accept; until then what they logged stays under the file's ids. */
const invite = (trx: Trx, { items, at }: Piece<'people'>, madeBy: string | null): Promise<void> =>
  put(
    trx,
    'invitation',
    items.map(({ id, email, person, role, account }) => ({
      ...{ id, email, person, role },
      formerly: account ?? null,
      made_by: madeBy,
    })),
    at,
    'This id or e-mail address',
  );

/** Accounts of the demo, which somebody at this machine opens with a press. */
const enlist = async (
  trx: Trx,
  people: readonly Person[],
  accountIds: Map<string, string>,
): Promise<void> => {
  for (const { id, email, person, role, account, password } of people) {
    const accountId = uuid();
    const password_hash = await hashPassword(password ?? randomBytes(32).toString('base64'));
    await trx
      .insertInto('account')
      .values({ id: accountId, email, person, password_hash })
      .execute();
    await trx.insertInto('membership').values({ id, account_id: accountId, role }).execute();
    if (account) accountIds.set(account, accountId);
  }
};

/**
 * Makes a club of a file as one transaction: all of it or nothing.
 *
 * @param known is given who the accounts of the file are here
 */
const makeClub = async (
  db: Db,
  source: AsyncIterable<Uint8Array>,
  welcome: (trx: Trx, piece: Piece<'people'>, accountIds: Map<string, string>) => Promise<void>,
): Promise<void> => {
  const spool = await spooled(source);
  const { clubId, club } = spool.head;
  const accountIds = new Map<string, string>();
  try {
    await inClub(db, { clubId, accountId: uuid() }, async (trx) => {
      await withoutHurry(trx);
      await trx
        .insertInto('club')
        .values({ id: clubId, ...settingsColumns(club) })
        .execute();
      const accountBy = (id: string) => accountIds.get(id) ?? id;
      const loading: Loading = { trx, spool, accountBy, told: () => undefined };
      await each(loading, 'people', (piece) => welcome(trx, piece, accountIds));
      await loadAll(loading);
    });
  } catch (error) {
    throw asStartFault(error);
  } finally {
    await spool.close();
  }
};

/** Loads the demo club, whose people have accounts at once. */
export const loadDemo = (db: Db, source: AsyncIterable<Uint8Array>): Promise<void> =>
  makeClub(db, source, (trx, { items }, accountIds) => enlist(trx, items, accountIds));

/**
 * Makes a club of a file. Nobody gets an account by it: its people are invited.
 *
 * @param source bytes of the file's JSON, as docs/file-format.md describes it
 * @returns a link for each of its owners, to be passed on
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 */
export const loadClubFile = async (
  db: Db,
  source: AsyncIterable<Uint8Array>,
): Promise<{ person: string; token: string; until: Date }[]> => {
  const told: { person: string; token: string; until: Date }[] = [];
  await makeClub(db, source, async (trx, piece) => {
    await invite(trx, piece, null);
    for (const { id, person, role } of piece.items) {
      if (role !== 'owner') continue;
      const { token, ...kept } = freshLink(INVITED_MS);
      await trx.updateTable('invitation').set(kept).where('id', '=', id).execute();
      told.push({ person, token, until: kept.until });
    }
  });
  return told;
};

/** What a club holds besides its members and settings. */
const HOLDS = ['athlete', 'approach', 'session', 'movement', 'rule_set', 'ground'] as const;

/**
 * Puts a club file into a club that holds nothing yet, in the transaction of one of its owners: all of it
 * or nothing. Who of its people is no member here is invited. The same file sent again is done.
 *
 * @param told is told how many more items are in the tables, and null when they are counted
 * @returns whether it was there already
 * @throws {StartFault} when the club holds something, or the file cannot be kept
 */
export const restoreInto = async (
  trx: Trx,
  { clubId, accountId }: Who,
  spool: Spool,
  told: Loading['told'],
): Promise<boolean> => {
  await withoutHurry(trx);
  const { restored } = await trx
    .selectFrom('club')
    .select('restored')
    .where('id', '=', clubId)
    .forNoKeyUpdate()
    .executeTakeFirstOrThrow();
  if (restored === spool.mark) return true;
  for (const table of HOLDS) {
    const stored = await trx
      .selectFrom(table)
      .select('id')
      .where('club_id', '=', clubId)
      .limit(1)
      .executeTakeFirst();
    if (stored) {
      throw new StartFault(
        'This club holds something already, so nothing was changed. An archive goes into a club without athletes, plans, sessions, grounds or movements of its own.',
      );
    }
  }
  await trx
    .updateTable('club')
    .set((eb) => ({
      ...settingsColumns(spool.head.club),
      restored: spool.mark,
      version: eb('version', '+', 1),
    }))
    .where('id', '=', clubId)
    .execute();
  const here = new Map((await members(trx, accountId)).map((member) => [member.email, member.id]));
  const accounts = await trx.selectFrom('account').select(['id', 'email']).execute();
  const accountOf = new Map(accounts.map(({ id, email }) => [email, id]));
  const accountIds = new Map<string, string>();
  const loading: Loading = { trx, spool, accountBy: (id) => accountIds.get(id) ?? id, told };
  try {
    await trx.deleteFrom('invitation').execute();
    await each(loading, 'people', ({ items, at }) => {
      const fresh: { person: Person; path: string }[] = [];
      items.forEach((person, i) => {
        if (!here.has(person.email)) fresh.push({ person, path: at(i) });
        else if (person.account) accountIds.set(person.account, accountOf.get(person.email)!);
      });
      return fresh.length === 0
        ? Promise.resolve()
        : invite(
            trx,
            { items: fresh.map(({ person }) => person), at: (i) => fresh[i]!.path },
            accountId,
          );
    });
    await loadAll(loading);
  } catch (error) {
    throw asStartFault(error);
  }
  return false;
};
