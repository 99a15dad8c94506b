import { check, DEMO_EMAIL, firstClub, signIn, type Door } from '@gravek/contract';
import { Router, type Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { v7 as uuid } from 'uuid';
import { atDoor, inClub, isEmpty, type Db, type Who } from '../database/connect';
import { badInput, refused, send } from '../http/problem';
import { hashPassword, passwordFits } from './password';

declare module 'express-session' {
  interface SessionData {
    clubId: string;
    accountId: string;
  }
}

/** A new session id for every sign-in, so that one planted before is worth nothing. */
const enter = (req: Request, who: Who): Promise<void> =>
  new Promise((resolve, reject) => {
    req.session.regenerate((failed) => {
      if (failed) {
        reject(failed as Error);
        return;
      }
      Object.assign(req.session, who);
      req.session.save((error) => (error ? reject(error as Error) : resolve()));
    });
  });

const accountByEmail = (db: Db, email: string) =>
  atDoor(db, { email }, (trx) =>
    trx
      .selectFrom('account')
      .select(['id', 'password_hash'])
      .where('email', '=', email)
      .executeTakeFirst(),
  );

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

/** What can be asked without being signed in. */
export const doorRouter = (db: Db, demo: boolean): Router => {
  const router = Router();
  const limit = rateLimit({
    windowMs: 10 * 60_000,
    limit: 20,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_req, res) =>
      send(res, refused(429, 'Too many attempts to sign in. Wait ten minutes, then try again.')),
  });

  router.get('/door', async (_req, res) => {
    const door: Door = { demo, empty: await isEmpty(db) };
    res.json(door);
  });

  router.post('/sign-in', limit, async (req, res) => {
    const checked = check(signIn, req.body);
    if (!checked.ok) throw badInput(checked.fields);
    const { email, password } = checked.value;
    const account = await accountByEmail(db, email);
    if (!(await passwordFits(account?.password_hash, password)) || !account) {
      throw refused(401, 'That e-mail address and password do not go together.');
    }
    await enter(req, { accountId: account.id, clubId: await clubOf(db, account.id) });
    res.status(204).end();
  });

  router.post('/demo-entry', async (req, res) => {
    if (!demo) throw refused(404, 'There is no demo here.');
    const account = await accountByEmail(db, DEMO_EMAIL);
    if (!account) throw refused(404, 'The demo club is not loaded.');
    await enter(req, { accountId: account.id, clubId: await clubOf(db, account.id) });
    res.status(204).end();
  });

  router.post('/first-club', limit, async (req, res) => {
    const checked = check(firstClub, req.body);
    if (!checked.ok) throw badInput(checked.fields);
    if (!(await isEmpty(db))) throw refused(409, 'There is a club here already. Sign in instead.');
    const { club, person, email, password } = checked.value;
    const who = { clubId: uuid(), accountId: uuid() };
    const password_hash = await hashPassword(password);
    await inClub(db, who, async (trx) => {
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

  return router;
};
