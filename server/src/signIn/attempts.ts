import { createHash } from 'node:crypto';
import { sql } from 'kysely';
import {
  ipKeyGenerator,
  rateLimit,
  type RateLimitRequestHandler,
  type Store,
} from 'express-rate-limit';
import type { Request } from 'express';
import type { Db } from '../database/connect';
import { refused, send } from '../http/problem';

const WINDOW_MS = 10 * 60_000;
/** Wrong attempts in ten minutes; many people may share one address. */
const PER_ACCOUNT = 12;
const PER_ADDRESS = 60;

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

/** The address that is asked for; not kept as written, since it may be nobody's or anybody's. */
const emailOf = (req: Request): string => {
  const { email } = (req.body ?? {}) as { email?: unknown };
  const asked = typeof email === 'string' ? email.trim().toLowerCase().slice(0, 200) : '';
  return createHash('sha256').update(asked).digest('base64url');
};

/** Wrong attempts that count no more are forgotten. */
export const forgetAttempts = (db: Db): Promise<unknown> =>
  db.deleteFrom('attempt').where('until', '<', new Date()).execute();

/**
 * Ends guessing: from an address, of the account with an e-mail address (the body must have been read),
 * and of the account that is signed in.
 */
export const limitAttempts = (
  db: Db,
): Record<'byAddress' | 'byEmail' | 'byAccount', RateLimitRequestHandler> => {
  const limit = (prefix: string, most: number, keyOf: (req: Request) => string) =>
    rateLimit({
      windowMs: WINDOW_MS,
      limit: most,
      store: storeOf(db, prefix),
      keyGenerator: keyOf,
      skipSuccessfulRequests: true,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      // Whose word is taken about the address is the configuration's to say.
      validate: { xForwardedForHeader: false },
      handler: (_req, res) =>
        send(res, refused(429, 'Too many attempts to sign in. Wait ten minutes, then try again.')),
    });
  return {
    byAddress: limit('address', PER_ADDRESS, (req) => ipKeyGenerator(req.ip ?? '')),
    byEmail: limit('email', PER_ACCOUNT, emailOf),
    byAccount: limit('account', PER_ACCOUNT, (req) => req.session.accountId ?? ''),
  };
};
