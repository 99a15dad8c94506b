import type { RequestHandler } from 'express';
import { inClub, type Db } from '../database/connect';
import { memberOf, whoIs } from '../http/route';
import type { Changes } from './listen';

const KEEP_ALIVE_MS = 25_000;

/** GET /api/changes: one line for each change in the club, as server-sent events. */
export const changeStream =
  (db: Db, changes: Changes, stopping: AbortSignal): RequestHandler =>
  async (req, res) => {
    const who = await inClub(db, whoIs(req), (trx) => memberOf(trx, whoIs(req)));
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    res.write(': here\n\n');
    const stop = changes.onChange(who.clubId, ({ topic }) => res.write(`data: ${topic}\n\n`));
    const alive = setInterval(() => res.write(': still here\n\n'), KEEP_ALIVE_MS);
    const end = (): void => {
      stop();
      clearInterval(alive);
      stopping.removeEventListener('abort', end);
      res.end();
    };
    stopping.addEventListener('abort', end);
    res.on('close', end);
  };
