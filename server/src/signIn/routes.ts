import {
  check,
  clubSwitch,
  DEMO_EMAIL,
  firstClub,
  passwordByLink,
  passwordChange,
  signIn,
  type Door,
} from '@gravek/contract';
import express, { Router, type Request } from 'express';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { AnyObjectSchema, InferType } from 'yup';
import { atDoor, inClub, isEmpty, type Db, type Trx, type Who } from '../database/connect';
import { badInput, refused } from '../http/problem';
import { isSignedIn, memberAs, whoIs } from '../http/route';
import { accountByEmail } from './account';
import { limitAttempts } from './attempts';
import { hashOf } from './link';
import { hashPassword, passwordFits, refuseCommon } from './password';

declare module 'express-session' {
  interface SessionData {
    clubId: string;
    accountId: string;
    /** when this sign-in ends, however much it is used; ms since 1970 */
    until: number;
  }
}

/** A sign-in lasts as long as this, then the password is asked for again. */
export const SIGNED_IN_MS = 14 * 24 * 3600_000;

/** A new session id for every sign-in, so that one planted before is worth nothing. */
const enter = (req: Request, who: Who, until = Date.now() + SIGNED_IN_MS): Promise<void> =>
  new Promise((resolve, reject) => {
    req.session.regenerate((failed) => {
      if (failed) {
        reject(failed as Error);
        return;
      }
      Object.assign(req.session, { ...who, until });
      req.session.save((error) => (error ? reject(error as Error) : resolve()));
    });
  });

/** Ends every sign-in of an account, but the one that is named. */
const endSignIns = async (trx: Trx, accountId: string, but = ''): Promise<void> => {
  await sql`delete from http_session
    where sess ->> 'accountId' = ${accountId} and sid <> ${but}`.execute(trx);
};

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

const read = <S extends AnyObjectSchema>(schema: S, req: Request): InferType<S> => {
  const checked = check(schema, req.body);
  if (!checked.ok) throw badInput(checked.fields);
  return checked.value;
};

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;
/** Any of these means that the request was passed on, so it may come from anywhere. */
const PASSED_ON = ['forwarded', 'via', 'x-real-ip', 'x-forwarded-for', 'x-forwarded-host'];

/** Whether somebody sits at this very machine. */
const isAtThisMachine = (req: Request): boolean =>
  LOOPBACK.test(req.socket.localAddress ?? '') &&
  LOOPBACK.test(req.socket.remoteAddress ?? '') &&
  PASSED_ON.every((header) => req.headers[header] === undefined);

/** What can be asked without being a member: signing in and out, and what belongs to an account. */
export const doorRouter = (db: Db, demo: boolean): Router => {
  const router = Router();
  /** Nobody who is not known gets more than this read. */
  const body = express.json({ limit: '10kb' });
  const { byAddress, byEmail, byAccount } = limitAttempts(db);

  router.get('/door', async (req, res) => {
    const door: Door = {
      demo: demo && isAtThisMachine(req),
      empty: await isEmpty(db),
      signedIn: isSignedIn(req),
    };
    res.json(door);
  });

  router.post('/sign-in', body, byAddress, byEmail, async (req, res) => {
    const { email, password } = read(signIn, req);
    const account = await accountByEmail(db, email);
    if (!(await passwordFits(account?.password_hash, password)) || !account) {
      throw refused(401, 'That e-mail address and password do not go together.');
    }
    await enter(req, { accountId: account.id, clubId: await clubOf(db, account.id) });
    res.status(204).end();
  });

  router.post('/demo-entry', async (req, res) => {
    if (!demo || !isAtThisMachine(req)) throw refused(404, 'There is no demo here.');
    const account = await accountByEmail(db, DEMO_EMAIL);
    if (!account) throw refused(404, 'The demo club is not loaded.');
    await enter(req, { accountId: account.id, clubId: await clubOf(db, account.id) });
    res.status(204).end();
  });

  router.post('/first-club', body, byAddress, async (req, res) => {
    const { club, person, email, password } = read(firstClub, req);
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
    });
    await enter(req, who);
    res.status(204).end();
  });

  router.post('/sign-out', (req, res, next) => {
    req.session.destroy((error) => {
      if (error) {
        next(error);
        return;
      }
      res.clearCookie('gravek').status(204).end();
    });
  });

  // Who is signed in may guess as seldom as anybody: a phone left lying is somebody's way in.
  router.put('/password', body, byAddress, byAccount, async (req, res) => {
    const { accountId } = whoIs(req);
    const { current, next } = read(passwordChange, req);
    await atDoor(db, { accountId }, async (trx) => {
      const account = await trx
        .selectFrom('account')
        .select(['password_hash', 'person', 'email'])
        .where('id', '=', accountId)
        .executeTakeFirst();
      if (!account || !(await passwordFits(account.password_hash, current))) {
        throw badInput({ current: 'That is not the password that you have now.' });
      }
      await refuseCommon('next', next, [account.person, account.email]);
      await trx
        .updateTable('account')
        .set({ password_hash: await hashPassword(next) })
        .where('id', '=', accountId)
        .execute();
      await trx.deleteFrom('password_link').where('account_id', '=', accountId).execute();
      await endSignIns(trx, accountId, req.sessionID);
    });
    res.status(204).end();
  });

  router.post('/new-password', body, byAddress, async (req, res) => {
    const { token, password } = read(passwordByLink, req);
    const spent = refused(404, 'This link has been used or is too old. Ask for a new one.');
    const link = await db
      .selectFrom('password_link')
      .select(['account_id', 'until'])
      .where('token_hash', '=', hashOf(token))
      .executeTakeFirst();
    if (!link || link.until < new Date()) throw spent;
    await atDoor(db, { accountId: link.account_id }, async (trx) => {
      const account = await trx
        .selectFrom('account')
        .select(['person', 'email'])
        .where('id', '=', link.account_id)
        .executeTakeFirst();
      if (!account) throw spent;
      await refuseCommon('password', password, [account.person, account.email]);
      const password_hash = await hashPassword(password);
      // Whoever takes the link away may use it: of two at once only one does.
      const { numDeletedRows } = await trx
        .deleteFrom('password_link')
        .where('token_hash', '=', hashOf(token))
        .executeTakeFirst();
      if (numDeletedRows === 0n) throw spent;
      await trx
        .updateTable('account')
        .set({ password_hash })
        .where('id', '=', link.account_id)
        .execute();
      await trx.deleteFrom('password_link').where('account_id', '=', link.account_id).execute();
      await endSignIns(trx, link.account_id);
    });
    res.status(204).end();
  });

  router.post('/switch', body, async (req, res) => {
    const { accountId } = whoIs(req);
    const { clubId } = read(clubSwitch, req);
    const who = { accountId, clubId };
    await inClub(db, who, async (_trx, role) => memberAs(who, role));
    await enter(req, who, req.session.until);
    res.status(204).end();
  });

  return router;
};
