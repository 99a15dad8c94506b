import { randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { sql } from 'kysely';
import { atDoor, type Db } from '../database/connect';
import { hashOf } from '../http/token';

declare module 'express-serve-static-core' {
  interface Request {
    /** the device that asks, as far as the account that it asks for has signed in on it */
    knownDevice?: string | undefined;
  }
}

const COOKIE = 'gravek-device';
const KEPT_MS = 365 * 24 * 3600_000;
const MOST_OF_ACCOUNT = 20;

const tokenOf = (req: Request): string | undefined =>
  /(?:^|;\s*)gravek-device=([\w-]{43})(?:;|$)/.exec(req.headers.cookie ?? '')?.[1];

/** The device that asks, when the account with an address has signed in on it before. */
export const knownDeviceOf = async (
  db: Db,
  req: Request,
  email: string,
): Promise<string | undefined> => {
  const token = tokenOf(req);
  if (token === undefined) return undefined;
  const hash = hashOf(token);
  const found = await atDoor(db, { email }, (trx) =>
    trx
      .selectFrom('known_device')
      .innerJoin('account', 'account.id', 'known_device.account_id')
      .select('token_hash')
      .where('email', '=', email)
      .where('token_hash', '=', hash)
      .executeTakeFirst(),
  );
  return found?.token_hash;
};

/** Takes note that an account has signed in on the device that asks. */
export const keepDevice = async (
  db: Db,
  req: Request,
  res: Response,
  accountId: string,
): Promise<void> => {
  const token = tokenOf(req) ?? randomBytes(32).toString('base64url');
  res.cookie(COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: req.secure,
    maxAge: KEPT_MS,
  });
  await sql`insert into known_device (account_id, token_hash) values (${accountId}, ${hashOf(token)})
    on conflict (account_id, token_hash) do update set seen_at = now()`.execute(db);
  await sql`delete from known_device where account_id = ${accountId} and token_hash not in (
    select token_hash from known_device where account_id = ${accountId}
    order by seen_at desc limit ${MOST_OF_ACCOUNT})`.execute(db);
};
