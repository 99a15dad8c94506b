import { createHash } from 'node:crypto';
import { sql } from 'kysely';
import { ipKeyGenerator, rateLimit, type Store } from 'express-rate-limit';
import type { Request, RequestHandler } from 'express';
import type { Db } from '../database/connect';
import { refused, send } from '../http/problem';
import { knownDeviceOf } from './knownDevice';

const WINDOW_MS = 10 * 60_000;
/** Wrong attempts in ten minutes, from one address for one account. */
const PER_PAIR = 12;
/** From a device that has signed in to the account before: more, since it holds up nobody but itself. */
const PER_DEVICE = 30;
/** Of a sign-in that asks for its password again. */
const PER_SIGN_IN = 12;
/** Looks at an athlete's own page by one link. */
const PER_LINK = 60;
/** Batches of tries that come by one link. */
const PER_COUNTS = 300;

/** Counts in the database, so that all processes count as one. */
const storeOf = (db: Db, prefix: string): Store => {
  const key = (of: string): string => `${prefix} ${of}`;
  return {
    prefix,
    localKeys: false,
    increment: async (of) => {
      const { rows } = await sql<{ hits: number; until: Date }>`
        insert into attempt (key, hits, until)
        values (${key(of)}, 1, now() + ${WINDOW_MS} * interval '1 millisecond')
        on conflict (key) do update set
          hits = case when attempt.until < now() then 1 else attempt.hits + 1 end,
          until = case when attempt.until < now() then excluded.until else attempt.until end
        returning hits, until`.execute(db);
      return { totalHits: rows[0]!.hits, resetTime: rows[0]!.until };
    },
    decrement: async (of) => {
      await sql`update attempt set hits = hits - 1 where key = ${key(of)} and hits > 0`.execute(db);
    },
    resetKey: async (of) => {
      await db.deleteFrom('attempt').where('key', '=', key(of)).execute();
    },
  };
};

const digest = (text: string): string => createHash('sha256').update(text).digest('base64url');

/** The address that is asked for; not kept as written, since it may be nobody's or anybody's. */
const emailOf = (req: Request): string => {
  const { email } = (req.body ?? {}) as { email?: unknown };
  return typeof email === 'string' ? email.trim().toLowerCase().slice(0, 200) : '';
};

const addressOf = (req: Request): string => ipKeyGenerator(req.ip ?? '');

const linkOf = (req: Request): string => {
  const { token } = (req.body ?? {}) as { token?: unknown };
  return digest(typeof token === 'string' ? token.slice(0, 100) : '');
};

/** Wrong attempts that count no more are forgotten. */
export const forgetAttempts = (db: Db): Promise<unknown> =>
  db.deleteFrom('attempt').where('until', '<', new Date()).execute();

/** Requests of one address that wait for those before them. */
const MOST_IN_LINE = 40;

/**
 * Has what is asked of one address done one by one, so that nobody keeps the processor from all others.
 * There is no count after which everybody behind an address is shut out: a school or a club has one.
 */
const oneByOne = (): RequestHandler => {
  const lines = new Map<string, { last: Promise<void>; length: number }>();
  return (req, res, next) => {
    const address = addressOf(req);
    const line = lines.get(address) ?? { last: Promise.resolve(), length: 0 };
    if (line.length >= MOST_IN_LINE) {
      send(
        res,
        refused(503, 'Too much is asked from where you are just now. Try again in a moment.'),
      );
      return;
    }
    line.length += 1;
    const before = line.last;
    line.last = new Promise((done) => {
      res.once('close', () => {
        line.length -= 1;
        if (line.length === 0) lines.delete(address);
        done();
      });
    });
    lines.set(address, line);
    void before.then(() => {
      if (!res.closed) next();
    });
  };
};

export type Limits = Record<
  'oneByOne' | 'byPair' | 'bySignIn' | 'byLink' | 'byCounts',
  RequestHandler
>;

/**
 * Ends guessing without shutting out whoever knows the password: counted is what is asked from one address
 * for one account (the body must have been read), and of a device that has signed in to it before only
 * what that device asks.
 */
export const limitAttempts = (db: Db): Limits => {
  const limit = (
    prefix: string,
    most: number | ((req: Request) => number),
    keyOf: (req: Request) => string,
    told: string,
    skipSuccessfulRequests = true,
  ) =>
    rateLimit({
      windowMs: WINDOW_MS,
      limit: most,
      store: storeOf(db, prefix),
      keyGenerator: keyOf,
      skipSuccessfulRequests,
      // What was not looked at, since too much was asked just then, was no attempt.
      requestWasSuccessful: (_req, { statusCode }) => statusCode < 400 || statusCode === 503,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      // Whose word is taken about the address is the configuration's to say.
      validate: { xForwardedForHeader: false },
      handler: (_req, res) => send(res, refused(429, told)),
    });
  const pair = limit(
    'from',
    (req) => (req.knownDevice ? PER_DEVICE : PER_PAIR),
    (req) => digest(`${emailOf(req)} ${req.knownDevice ?? addressOf(req)}`),
    'Too many wrong passwords from here for this address. Wait ten minutes, or sign in on a device that has signed in before.',
  );
  return {
    oneByOne: oneByOne(),
    byPair: (req, res, next) => {
      void knownDeviceOf(db, req, emailOf(req)).then((device) => {
        req.knownDevice = device;
        return pair(req, res, next);
      }, next);
    },
    bySignIn: limit(
      'sign-in',
      PER_SIGN_IN,
      (req) => digest(req.sessionID),
      'Too many wrong passwords. Wait ten minutes, then try again.',
    ),
    byLink: limit(
      'link',
      PER_LINK,
      linkOf,
      'This page has been asked for too often. Wait ten minutes, then open it again.',
      false,
    ),
    byCounts: limit(
      'counts',
      PER_COUNTS,
      linkOf,
      'More was sent than anybody can count. It waits here, and goes in ten minutes.',
      false,
    ),
  };
};
