import { firstClub, signIn } from '@gravek/contract/account';
import { clubSwitch, type Door } from '@gravek/contract/club';
import { DEMO_EMAIL } from '@gravek/contract/clubFile';
import { Router, type Request } from 'express';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { Tell } from '../changes/tell';
import { atDoor, inClub, isEmpty, type Db } from '../database/connect';
import { writeDown } from '../deeds/write';
import { ProblemError, refused } from '../http/problem';
import { memberAs, whoIs } from '../http/route';
import { accountByEmail } from './account';
import { accountRouter } from './accountRoutes';
import { asked, smallBody } from './asked';
import type { Limits } from './attempts';
import { invitedRouter } from './invited';
import { keepDevice } from './knownDevice';
import { hashPassword, passwordFits, refuseCommon } from './password';
import { takeCode } from './secondStep';
import { enter, isSignedIn } from '../http/session';

/** The club that an account enters: the one it joined first. */
const clubOf = async (db: Db, accountId: string): Promise<string> => {
  const clubs = await atDoor(db, { accountId }, (trx) =>
    trx
      .selectFrom('membership')
      .select('club_id')
      .where('account_id', '=', accountId)
      .orderBy('created_at')
      .executeTakeFirst(),
  );
  if (!clubs) throw refused(403, 'This account belongs to no club any more.');
  return clubs.club_id;
};

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;
/** Any of these means that the request was passed on, so it may come from anywhere. */
const PASSED_ON = ['forwarded', 'via', 'x-real-ip', 'x-forwarded-for', 'x-forwarded-host'];

/** Whether somebody sits at this very machine. */
const isAtThisMachine = (req: Request): boolean =>
  LOOPBACK.test(req.socket.localAddress ?? '') &&
  LOOPBACK.test(req.socket.remoteAddress ?? '') &&
  PASSED_ON.every((header) => req.headers[header] === undefined);

/** Whether the code from the phone, or a recovery code, holds; each is taken once. */
const codeHolds = (db: Db, accountId: string, code: string): Promise<boolean> =>
  atDoor(db, { accountId }, async (trx) => {
    const { totp_secret, ...row } = await trx
      .selectFrom('account')
      .select(['id', 'totp_secret', 'totp_step', 'recovery'])
      .where('id', '=', accountId)
      .forUpdate()
      .executeTakeFirstOrThrow();
    return totp_secret === null || takeCode(trx, { ...row, totp_secret }, code);
  });

/** What can be asked without being a member: signing in and out, and what belongs to an account. */
export const doorRouter = (db: Db, tell: Tell, limits: Limits, demo: boolean): Router => {
  const router = Router();

  router.get('/door', async (req, res) => {
    const door: Door = {
      demo: demo && isAtThisMachine(req),
      empty: await isEmpty(db),
      signedIn: isSignedIn(req),
    };
    res.json(door);
  });

  router.post('/sign-in', smallBody, limits.byPair, limits.oneByOne, async (req, res) => {
    const { email, password, code } = asked(signIn, req);
    const account = await accountByEmail(db, email);
    if (!(await passwordFits(account?.password_hash, password)) || !account) {
      throw refused(401, 'That e-mail address and password do not go together.');
    }
    if (account.totp_secret !== null && !(code && (await codeHolds(db, account.id, code)))) {
      throw new ProblemError({
        status: 401,
        title: code
          ? 'That code does not hold. Wait for the next one, or take a recovery code.'
          : 'Give the code that your phone shows now, or a recovery code.',
        secondStep: true,
      });
    }
    const who = { accountId: account.id, clubId: await clubOf(db, account.id) };
    await inClub(db, who, (trx) => writeDown(trx, who.accountId, 'signed in'));
    await keepDevice(db, req, res, account.id);
    await enter(req, who);
    res.status(204).end();
  });

  router.post('/demo-entry', async (req, res) => {
    if (!demo || !isAtThisMachine(req)) throw refused(404, 'There is no demo here.');
    const account = await accountByEmail(db, DEMO_EMAIL);
    if (!account) throw refused(404, 'The demo club is not loaded.');
    const who = { accountId: account.id, clubId: await clubOf(db, account.id) };
    await inClub(db, who, (trx) => writeDown(trx, who.accountId, 'signed in'));
    await enter(req, who, 'demo');
    res.status(204).end();
  });

  router.post('/first-club', smallBody, limits.oneByOne, async (req, res) => {
    const { club, person, email, password } = asked(firstClub, req);
    const taken = refused(409, 'There is a club here already. Sign in instead.');
    if (!(await isEmpty(db))) throw taken;
    await refuseCommon('password', password, [person, email, club.name]);
    const who = { clubId: uuid(), accountId: uuid() };
    const password_hash = await hashPassword(password);
    await inClub(db, who, async (trx) => {
      // Of several at once the first makes it, and the others find it made.
      await sql`select pg_advisory_xact_lock(hashtext('gravek first club'))`.execute(trx);
      if (!(await isEmpty(trx))) throw taken;
      await trx
        .insertInto('account')
        .values({ id: who.accountId, email, person, password_hash })
        .execute();
      await trx
        .insertInto('club')
        .values({
          id: who.clubId,
          name: club.name,
          unit: club.unit,
          cue_school: club.cueSchool,
          time_zone: club.timeZone,
        })
        .execute();
      await trx
        .insertInto('membership')
        .values({ id: uuid(), account_id: who.accountId, role: 'owner' })
        .execute();
      await writeDown(trx, who.accountId, 'made the club');
    });
    await enter(req, who);
    res.status(204).end();
  });

  router.post('/sign-out', (req, res, next) => {
    const { clubId } = req.session;
    req.session.destroy((error) => {
      if (error) {
        next(error);
        return;
      }
      if (clubId) tell(clubId, 'sign-ins');
      res.clearCookie('gravek').status(204).end();
    });
  });

  router.post('/switch', smallBody, async (req, res) => {
    const { accountId } = whoIs(req);
    const { clubId } = asked(clubSwitch, req);
    const who = { accountId, clubId };
    await inClub(db, who, async (trx, { role }) => {
      memberAs(who, role);
      await writeDown(trx, accountId, 'signed in');
    });
    await enter(req, who, 'same');
    res.status(204).end();
  });

  router.use(accountRouter(db, tell, limits));
  router.use(invitedRouter(db, tell, limits));
  return router;
};
