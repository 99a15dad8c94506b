import {
  deviceEnd,
  passwordAgain,
  passwordByLink,
  passwordChange,
  secondStepOn,
  type RecoveryCodes,
  type SecondStep,
} from '@gravek/contract/account';
import { Router, type Request } from 'express';
import { sql } from 'kysely';
import type { Tell } from '../changes/tell';
import { atDoor, inClub, type Db, type Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { badInput, refused } from '../http/problem';
import { mustBeConfirmed, whoIs } from '../http/route';
import { accountById } from './account';
import { asked, smallBody } from './asked';
import type { Limits } from './attempts';
import { hashOf } from '../http/token';
import { hashPassword, passwordFits, refuseCommon } from './password';
import { newSecret, recoveryCodes, stepOf } from './secondStep';
import { confirm, devicesOf, endSignIns, isConfirmed } from '../http/session';

/** @throws {ProblemError} 422 when the password is not that of the account */
const mustFit = async (db: Db, req: Request, field: string, password: string) => {
  const account = await accountById(db, whoIs(req).accountId);
  if (!account || !(await passwordFits(account.password_hash, password))) {
    throw badInput({ [field]: 'That is not the password that you have now.' });
  }
  return account;
};

/** Keeps a new password; links made before and other sign-ins end with the old one. */
const keepPassword = async (
  trx: Trx,
  accountId: string,
  password_hash: string,
  here: Request | null,
): Promise<string[]> => {
  await trx.updateTable('account').set({ password_hash }).where('id', '=', accountId).execute();
  await trx.deleteFrom('password_link').where('account_id', '=', accountId).execute();
  return endSignIns(trx, accountId, here ? { but: here } : 'all');
};

/** What belongs to an account, whichever club is open: its password, devices and second step. */
export const accountRouter = (db: Db, tell: Tell, { oneByOne, bySignIn }: Limits): Router => {
  const router = Router();
  const tellOf = (clubs: readonly string[]): void => {
    for (const club of clubs) tell(club, 'sign-ins');
  };

  // Who is signed in may guess as seldom as anybody: a phone left lying is somebody's way in.
  router.put('/password', smallBody, bySignIn, oneByOne, async (req, res) => {
    const who = whoIs(req);
    const { current, next } = asked(passwordChange, req);
    const { person, email } = await mustFit(db, req, 'current', current);
    await refuseCommon('next', next, [person, email]);
    const password_hash = await hashPassword(next);
    const ended = await inClub(db, who, async (trx) => {
      await writeDown(trx, who.accountId, 'changed their password');
      return keepPassword(trx, who.accountId, password_hash, req);
    });
    tellOf(ended);
    res.status(204).end();
  });

  router.post('/new-password', smallBody, oneByOne, async (req, res) => {
    const { token, password } = asked(passwordByLink, req);
    const spent = refused(404, 'This link has been used or is too old. Ask for a new one.');
    const link = await db
      .selectFrom('password_link')
      .select(['account_id', 'opens_club', 'until'])
      .where('token_hash', '=', hashOf(token))
      .executeTakeFirst();
    if (!link || link.until < new Date()) throw spent;
    const accountId = link.account_id;
    const ended = await atDoor(db, { accountId }, async (trx) => {
      const account = await trx
        .selectFrom('account')
        .select(['person', 'email'])
        .where('id', '=', accountId)
        .forUpdate()
        .executeTakeFirst();
      if (!account) throw spent;
      const clubs = await trx
        .selectFrom('membership')
        .select('club_id')
        .where('account_id', '=', accountId)
        .execute();
      // A club's link opens that club and no other.
      if (link.opens_club !== null && clubs.some((club) => club.club_id !== link.opens_club))
        throw spent;
      await refuseCommon('password', password, [account.person, account.email]);
      const password_hash = await hashPassword(password);
      // Whoever takes the link away may use it: of two at once only one does.
      const { numDeletedRows } = await trx
        .deleteFrom('password_link')
        .where('token_hash', '=', hashOf(token))
        .executeTakeFirst();
      if (numDeletedRows === 0n) throw spent;
      const open = await keepPassword(trx, accountId, password_hash, null);
      for (const { club_id } of clubs) {
        await sql`select set_config('gravek.club', ${club_id}, true)`.execute(trx);
        await writeDown(trx, accountId, 'used a password link');
      }
      return open;
    });
    tellOf(ended);
    res.status(204).end();
  });

  // Whether the password was given just now, for what the page does not ask by a route of the club.
  router.get('/confirmed', (req, res) => {
    whoIs(req);
    mustBeConfirmed(isConfirmed(req));
    res.status(204).end();
  });

  router.post('/confirmed', smallBody, bySignIn, oneByOne, async (req, res) => {
    const { password } = asked(passwordAgain, req);
    await mustFit(db, req, 'password', password);
    await confirm(db, req);
    res.status(204).end();
  });

  router.get('/devices', async (req, res) => {
    whoIs(req);
    res.json(await devicesOf(db, req));
  });

  router.post('/devices/end', smallBody, async (req, res) => {
    const { accountId } = whoIs(req);
    const { id } = asked(deviceEnd, req);
    tellOf(await endSignIns(db, accountId, id === null ? { but: req } : { id }));
    res.json(await devicesOf(db, req));
  });

  router.get('/second-step', async (req, res) => {
    const account = await accountById(db, whoIs(req).accountId);
    if (!account) throw refused(401, 'Sign in to go on.');
    const on = account.totp_secret !== null;
    const step: SecondStep = on
      ? { on, codesLeft: account.recovery.length }
      : { on, ...newSecret(account.email) };
    res.json(step);
  });

  // The secret is shown to nobody but the page that made it; it is kept when a code of it came back.
  router.put('/second-step', smallBody, bySignIn, oneByOne, async (req, res) => {
    const who = whoIs(req);
    mustBeConfirmed(isConfirmed(req));
    const { secret, code } = asked(secondStepOn, req);
    const step = stepOf(secret, code);
    if (step === null) throw badInput({ code: 'That is not the code that belongs to it now.' });
    const { codes, hashes } = recoveryCodes();
    const ended = await inClub(db, who, async (trx) => {
      await trx
        .updateTable('account')
        .set({ totp_secret: secret, totp_step: step, recovery: hashes })
        .where('id', '=', who.accountId)
        .execute();
      await writeDown(trx, who.accountId, 'turned the second step on');
      return endSignIns(trx, who.accountId, { but: req });
    });
    tellOf(ended);
    const answer: RecoveryCodes = { codes };
    res.json(answer);
  });

  router.delete('/second-step', async (req, res) => {
    const who = whoIs(req);
    mustBeConfirmed(isConfirmed(req));
    await inClub(db, who, async (trx) => {
      await trx
        .updateTable('account')
        .set({ totp_secret: null, recovery: [] })
        .where('id', '=', who.accountId)
        .execute();
      await writeDown(trx, who.accountId, 'turned the second step off');
    });
    res.status(204).end();
  });
  return router;
};
