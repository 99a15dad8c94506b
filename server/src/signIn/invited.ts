import { invitationAsk, invitationTaken, type InvitationSeen } from '@gravek/contract/account';
import type { Role } from '@gravek/contract/club';
import { Router } from 'express';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { Tell } from '../changes/tell';
import { inClub, type Db, type Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { refused } from '../http/problem';
import { whoIs } from '../http/route';
import { accountById } from './account';
import { asked, smallBody } from './asked';
import type { Limits } from './attempts';
import { hashOf } from '../http/token';
import { holdAccount } from './link';
import { hashPassword, refuseCommon } from './password';
import { enter, isSignedIn } from '../http/session';

type Found = {
  club: string;
  id: string;
  club_name: string;
  email: string;
  person: string;
  role: Role;
  until: Date;
};

const SPENT = refused(
  404,
  'This invitation has been accepted, was taken back or is too old. If you accepted it, sign in; else ask for a new link.',
);

const found = async (db: Db, token: string): Promise<Found> => {
  const { rows } = await sql<Found>`select * from gravek_invitation(${hashOf(token)})`.execute(db);
  if (!rows[0]) throw SPENT;
  return rows[0];
};

/** Makes somebody a member: of two who take up one invitation at once only one does. */
const join = async (trx: Trx, { id, role }: Found, token: string, accountId: string) => {
  const taken = await trx
    .deleteFrom('invitation')
    .where('id', '=', id)
    .where('token_hash', '=', hashOf(token))
    .returning('formerly')
    .executeTakeFirst();
  if (!taken) throw SPENT;
  await trx
    .insertInto('membership')
    .values({ id, account_id: accountId, role, formerly: taken.formerly })
    .onConflict((conflict) => conflict.doNothing())
    .execute();
  // What another club's owner has made would open this club too.
  await trx.deleteFrom('password_link').where('account_id', '=', accountId).execute();
  await writeDown(trx, accountId, 'joined', role);
};

/** An invitation looked at and taken up by whoever has its link. */
export const invitedRouter = (db: Db, tell: Tell, { oneByOne }: Limits): Router => {
  const router = Router();

  router.post('/invitation', smallBody, oneByOne, async (req, res) => {
    const { club_name, role, person, email, until } = await found(
      db,
      asked(invitationAsk, req).token,
    );
    const account = isSignedIn(req) ? await accountById(db, req.session.accountId!) : undefined;
    const seen: InvitationSeen = {
      club: club_name,
      role,
      person,
      email,
      until: until.toISOString(),
      signedInAs: account?.email ?? null,
    };
    res.json(seen);
  });

  // Somebody without an account chooses name and password.
  router.post('/invitation/new', smallBody, oneByOne, async (req, res) => {
    const { token, person, password } = asked(invitationTaken, req);
    const invitation = await found(db, token);
    const { email, club } = invitation;
    await refuseCommon('password', password, [person, email, invitation.club_name]);
    const password_hash = await hashPassword(password);
    const who = { clubId: club, accountId: uuid() };
    await inClub(db, who, async (trx) => {
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('account')
        .values({ id: who.accountId, email, person, password_hash })
        .onConflict((conflict) => conflict.column('email').doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) {
        throw refused(409, 'There is an account with this address already. Sign in with it here.');
      }
      await join(trx, invitation, token, who.accountId);
    });
    tell(club, 'club');
    await enter(req, who);
    res.status(204).end();
  });

  // Somebody with an account accepts while signed in with it.
  router.post('/invitation/accept', smallBody, oneByOne, async (req, res) => {
    // Another club is open than the one that is joined.
    const { accountId } = whoIs(req);
    const invitation = await found(db, asked(invitationAsk, req).token);
    const { token } = asked(invitationAsk, req);
    const account = await accountById(db, accountId);
    if (account?.email !== invitation.email) {
      throw refused(403, `This invitation is for ${invitation.email}. Sign in with that address.`);
    }
    const who = { clubId: invitation.club, accountId };
    await inClub(db, who, async (trx) => {
      await holdAccount(trx, accountId);
      await join(trx, invitation, token, accountId);
    });
    tell(invitation.club, 'club');
    await enter(req, who, 'same');
    res.status(204).end();
  });
  return router;
};
