import type { Device } from '@gravek/contract/account';
import Bowser from 'bowser';
import type { Request, RequestHandler } from 'express';
import { sql } from 'kysely';
import type { Db, Trx, Who } from '../database/connect';
import { hashOf } from './token';

declare module 'express-session' {
  interface SessionData {
    clubId: string;
    accountId: string;
    /** when this sign-in ends, however much it is used; this and all below in ms since 1970 */
    until: number;
    since: number;
    /** when it was last used, to within ten minutes */
    seen: number;
    /** until when what needs the password again may be done */
    confirmed: number;
    /** such as "Chrome on Android" */
    device: string;
  }
}

/** A sign-in lasts as long as this, then the password is asked for again. */
export const SIGNED_IN_MS = 14 * 24 * 3600_000;
/** One that nobody uses ends sooner: the longest that a coach is away between two weeks. */
export const IDLE_MS = 6 * 24 * 3600_000;
/** So long after the password was given it is not asked for again. */
const CONFIRMED_MS = 10 * 60_000;
const SEEN_EVERY_MS = 10 * 60_000;

export const isSignedIn = ({ session }: Request): boolean =>
  Boolean(session.clubId && session.accountId) &&
  Number(session.until) > Date.now() &&
  Number(session.seen) + IDLE_MS > Date.now();

/** Whether the password was given just now. */
export const isConfirmed = ({ session }: Request): boolean =>
  Number(session.confirmed) > Date.now();

const deviceOf = (req: Request): string => {
  const { browser, os, platform } = Bowser.parse(req.get('user-agent') || 'unknown');
  const browserName = [browser.name, os.name].filter(Boolean).join(' on ').slice(0, 80);
  return browserName || (platform.type === 'mobile' ? 'A phone' : 'A computer');
};

/**
 * Enters a club under a new session id, so that one planted before is worth nothing.
 *
 * @param how `begun` for a new sign-in, `same` to go on with the one there is; `demo` needs no password again
 */
export const enter = (
  req: Request,
  who: Who,
  how: 'begun' | 'same' | 'demo' = 'begun',
): Promise<void> =>
  new Promise((resolve, reject) => {
    const now = Date.now();
    const { until, since, confirmed } = req.session;
    req.session.regenerate((failed) => {
      if (failed) {
        reject(failed as Error);
        return;
      }
      const end = now + SIGNED_IN_MS;
      Object.assign(req.session, {
        ...who,
        seen: now,
        device: deviceOf(req),
        ...(how === 'same'
          ? { until, since, confirmed }
          : { until: end, since: now, confirmed: how === 'demo' ? end : now + CONFIRMED_MS }),
      });
      req.session.save((error) => (error ? reject(error as Error) : resolve()));
    });
  });

/** Changes what is kept of a sign-in that is there; never makes one that has ended again. */
const setOf = async (db: Db, req: Request, key: 'seen' | 'confirmed', value: number) => {
  await sql`update http_session set sess = jsonb_set(sess::jsonb, ${`{${key}}`}::text[], to_jsonb(${value}::bigint))::json
    where sid = ${hashOf(req.sessionID)}`.execute(db);
};

/** The password was given again. */
export const confirm = (db: Db, req: Request): Promise<void> =>
  setOf(db, req, 'confirmed', Date.now() + CONFIRMED_MS);

/** Takes note, now and then, that a sign-in is used. */
export const noteUse =
  (db: Db): RequestHandler =>
  (req, _res, next) => {
    if (isSignedIn(req) && Date.now() - Number(req.session.seen) > SEEN_EVERY_MS) {
      setOf(db, req, 'seen', Date.now()).catch(() => undefined);
    }
    next();
  };

/** Whether a sign-in is there still and has not ended. */
export const isKept = async (trx: Trx, hash: string): Promise<boolean> => {
  const { rows } = await sql<{ kept: boolean }>`select exists (select from http_session
    where sid = ${hash} and expire > now() and (sess ->> 'until')::numeric > ${Date.now()}) as kept`.execute(
    trx,
  );
  return rows[0]!.kept;
};

/** Which sign-ins of an account are ended. */
type Which = { but: Request } | { id: string } | 'all';

/**
 * Ends sign-ins of an account.
 *
 * @returns clubs that were open there, to be told when it is done: pages that listen look whether they still may
 */
export const endSignIns = async (
  trx: Db | Trx,
  accountId: string,
  which: Which,
): Promise<string[]> => {
  const those =
    which === 'all'
      ? sql``
      : 'id' in which
        ? sql`and sid = ${which.id}`
        : sql`and sid <> ${hashOf(which.but.sessionID)}`;
  const { rows } = await sql<{ club: string | null }>`
    delete from http_session where sess ->> 'accountId' = ${accountId} ${those}
    returning sess ->> 'clubId' as club`.execute(trx);
  return [...new Set(rows.flatMap(({ club }) => club ?? []))];
};

/** Where an account is signed in, the device that asks first. */
export const devicesOf = async (db: Db, req: Request): Promise<Device[]> => {
  const { rows } = await sql<{ sid: string; device: string; since: string; seen: string }>`
    select sid, sess ->> 'device' as device, sess ->> 'since' as since, sess ->> 'seen' as seen
    from http_session where sess ->> 'accountId' = ${req.session.accountId} and expire > now()`.execute(
    db,
  );
  const here = hashOf(req.sessionID);
  return rows
    .map(({ sid, device, since, seen }) => ({
      id: sid,
      device: device ?? 'A device',
      since: new Date(Number(since)).toISOString(),
      seen: new Date(Number(seen)).toISOString(),
      here: sid === here,
    }))
    .filter(({ seen }) => Date.parse(seen) + IDLE_MS > Date.now())
    .sort((a, b) => Number(b.here) - Number(a.here) || (a.seen < b.seen ? 1 : -1));
};
