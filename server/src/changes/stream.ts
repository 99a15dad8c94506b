import type { RequestHandler } from 'express';
import type { Gauge } from 'prom-client';
import { inClubReading, type Db } from '../database/connect';
import { memberAs, whoIs } from '../http/route';
import type { Changes } from './listen';

const KEEP_ALIVE_MS = 25_000;

/**
 * GET /api/changes: one line for each change in the club, as server-sent events, and `alive` now and
 * then, so that a page notices when nothing comes any more. Whoever is no member any longer stops
 * hearing.
 *
 * @param streams counts pages that listen
 * @param aliveMs how often word is given, and membership looked at
 */
export const changeStream =
  (
    db: Db,
    changes: Changes,
    stopping: AbortSignal,
    streams: Pick<Gauge, 'inc' | 'dec'>,
    aliveMs = KEEP_ALIVE_MS,
  ): RequestHandler =>
  async (req, res) => {
    const who = whoIs(req);
    const isMember = () => inClubReading(db, who, async (_trx, role) => memberAs(who, role));
    /** what must be let go of when the page has left */
    const held: (() => void)[] = [];
    let ended = false;
    const end = (): void => {
      if (ended) return;
      ended = true;
      for (const letGo of held) letGo();
      stopping.removeEventListener('abort', end);
      res.end();
    };
    // Before anything is waited for: a page that leaves at once must leave nothing behind.
    res.on('close', end);
    stopping.addEventListener('abort', end);
    await isMember();
    if (ended) return;
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    res.write('data: alive\n\n');
    held.push(
      changes.onChange(who.clubId, ({ topic }) => {
        if (topic === 'club') void isMember().catch(end);
        res.write(`data: ${topic}\n\n`);
      }),
    );
    const alive = setInterval(() => {
      isMember().then(() => !ended && res.write('data: alive\n\n'), end);
    }, aliveMs);
    streams.inc();
    held.push(
      () => clearInterval(alive),
      () => streams.dec(),
    );
  };
