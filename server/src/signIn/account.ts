import { atDoor, type Db } from '../database/connect';

/** The account of somebody who is not in a club yet, as far as signing in needs it. */
export const accountByEmail = (db: Db, email: string) =>
  atDoor(db, { email }, (trx) =>
    trx
      .selectFrom('account')
      .select(['id', 'password_hash', 'totp_secret'])
      .where('email', '=', email)
      .executeTakeFirst(),
  );

/** The account of somebody who is signed in; undefined when it has ended. */
export const accountById = (db: Db, accountId: string) =>
  atDoor(db, { accountId }, (trx) =>
    trx
      .selectFrom('account')
      .select(['email', 'person', 'password_hash', 'totp_secret', 'recovery'])
      .where('id', '=', accountId)
      .executeTakeFirst(),
  );
