import type { OnceLink } from '@gravek/contract/account';
import type { Trx } from '../database/connect';
import { freshLink } from '../http/token';

/** Holds an account until the transaction ends, so that nobody joins a club while its links are looked at. */
export const holdAccount = (trx: Trx, accountId: string) =>
  trx.selectFrom('account').select('id').where('id', '=', accountId).forUpdate().execute();

/**
 * Makes the one link by which an account gets a new password; those made before hold no more.
 *
 * @param clubId the club whose owner makes it, the only one that it may open; null for whoever runs the server
 */
export const makePasswordLink = async (
  trx: Trx,
  accountId: string,
  clubId: string | null,
): Promise<OnceLink> => {
  const { token, token_hash, until } = freshLink();
  await trx.deleteFrom('password_link').where('account_id', '=', accountId).execute();
  await trx
    .insertInto('password_link')
    .values({ token_hash, account_id: accountId, opens_club: clubId, until })
    .execute();
  return { token, until: until.toISOString() };
};
