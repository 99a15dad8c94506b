import type { Deed } from '@gravek/contract/deeds';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { Db, Trx } from '../database/connect';

/**
 * Writes down in the club's log what somebody does, in the transaction in which it is done.
 *
 * @param about whom or what it was done to; no athlete is named, since a name must be able to go
 */
export const writeDown = async (
  trx: Trx,
  accountId: string,
  what: Deed,
  about = '',
): Promise<void> => {
  const row = await trx
    .selectFrom('account')
    .select('person')
    .where('id', '=', accountId)
    .executeTakeFirst();
  await trx
    .insertInto('deed')
    .values({ id: uuid(), account_id: accountId, person: row?.person ?? '', what, about })
    .execute();
};

/** Deeds of more than a year ago go. */
export const forgetDeeds = (db: Db): Promise<unknown> =>
  sql`select gravek_forget_deeds()`.execute(db);
