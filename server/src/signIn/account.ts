import { atDoor, type Db } from '../database/connect';

/** The account of somebody who is not in a club yet, as far as signing in needs it. */
export const accountByEmail = (db: Db, email: string) =>
  atDoor(db, { email }, (trx) =>
    trx
      .selectFrom('account')
      .select(['id', 'password_hash'])
      .where('email', '=', email)
      .executeTakeFirst(),
  );
