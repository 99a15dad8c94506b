import type { Request, RequestHandler } from 'express';
import type { Gauge } from 'prom-client';
import { inClubReading, type Db } from '../database/connect';
import { refused } from './problem';
import { memberAs, whoIs } from './route';
import { hashOf } from './token';
import { isKept } from './session';
import type { Changes } from '../changes/listen';

const KEEP_ALIVE_MS = 25_000;
/** Pages that one account may have listening to this process. */
const MOST_OF_ACCOUNT = 10;
/** What a page has not taken; a page that listens takes some bytes at once. */
const MOST_WAITING_BYTES = 16_000;

/**
 * GET /api/changes: one line for each change in the club, as server-sent events, and `alive` now and
 * then, so that a page notices when nothing comes any more. Whoever is signed out or no member any longer
 * stops hearing, and so does a page that does not take what is told.
 *
 * @param streams counts pages that listen
 * @param aliveMs how often word is given, and membership looked at
 */
export const changeStream = (
  db: Db,
  changes: Changes,
  stopping: AbortSignal,
  streams: Pick<Gauge, 'inc' | 'dec'>,
  aliveMs = KEEP_ALIVE_MS,
): RequestHandler => {
  /** pages that listen, by account */
  const listening = new Map<string, number>();
  const count = (accountId: string, by: 1 | -1): void => {
    const now = (listening.get(accountId) ?? 0) + by;
    if (now === 0) listening.delete(accountId);
    else listening.set(accountId, now);
  };
  return async (req: Request, res) => {
    const who = whoIs(req);
    const { accountId } = who;
    if ((listening.get(accountId) ?? 0) >= MOST_OF_ACCOUNT) {
      throw refused(429, 'Too many pages of this account listen already; close some of them.');
    }
    count(accountId, 1);
    const sid = hashOf(req.sessionID);
    /** Fails when the sign-in or the membership has ended. */
    const stillMay = () =>
      inClubReading(db, who, async (trx, { role }) => {
        memberAs(who, role);
        if (!(await isKept(trx, sid))) throw refused(401, 'Sign in to go on.');
      });
    /** what must be let go of when the page has left */
    const closers: (() => void)[] = [() => count(accountId, -1)];
    let ended = false;
    const end = (): void => {
      if (ended) return;
      ended = true;
      for (const letGo of closers) letGo();
      stopping.removeEventListener('abort', end);
      res.end();
    };
    const say = (line: string): void => {
      if (ended) return;
      res.write(`data: ${line}\n\n`);
      if (res.writableLength <= MOST_WAITING_BYTES) return;
      end();
      res.destroy();
    };
    // Before anything is waited for: a page that leaves at once must leave nothing behind.
    res.on('close', end);
    stopping.addEventListener('abort', end);
    try {
      await stillMay();
    } catch (error) {
      for (const letGo of closers.splice(0)) letGo();
      throw error;
    }
    if (ended) return;
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    say('alive');
    closers.push(
      changes.onChange(who.clubId, ({ topic }) => {
        if (topic === 'club' || topic === 'sign-ins') void stillMay().catch(end);
        if (topic !== 'sign-ins') say(topic);
      }),
    );
    const alive = setInterval(() => {
      stillMay().then(() => say('alive'), end);
    }, aliveMs);
    streams.inc();
    closers.push(
      () => clearInterval(alive),
      () => streams.dec(),
    );
  };
};
