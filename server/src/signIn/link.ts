import { createHash, randomBytes } from 'node:crypto';
import type { PasswordLink } from '@gravek/contract';
import type { Trx } from '../database/connect';

const HOLDS_MS = 24 * 3600_000;

/** What is kept of a link: enough to know it again, too little to make it. */
export const hashOf = (token: string): string =>
  createHash('sha256').update(token).digest('base64url');

/** Makes the one link by which an account gets a new password; those made before hold no more. */
export const makeLink = async (trx: Trx, accountId: string): Promise<PasswordLink> => {
  const token = randomBytes(32).toString('base64url');
  const until = new Date(Date.now() + HOLDS_MS);
  await trx.deleteFrom('password_link').where('account_id', '=', accountId).execute();
  await trx
    .insertInto('password_link')
    .values({ token_hash: hashOf(token), account_id: accountId, until })
    .execute();
  return { token, until: until.toISOString() };
};
