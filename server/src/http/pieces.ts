import type { Role } from '@gravek/contract';
import type { Response } from 'express';
import { sql } from 'kysely';
import { withoutHurry, type Db, type Trx, type Who } from '../database/connect';
import { memberAs, mustBe } from './route';

/**
 * How to wait until all that was written has left, or nobody listens any more. It is listened for once: what
 * packs an answer never gives a listener back.
 */
const drains = (res: Response): (() => Promise<void>) => {
  let go = (): void => undefined;
  res.on('drain', () => go());
  res.on('close', () => go());
  return () =>
    new Promise((resolve) => {
      go = resolve;
      if (res.closed) resolve();
    });
};

/**
 * Sends a file that is too long to be held: piece by piece as they are read, all as it was at one moment.
 *
 * @param least role that may have it
 */
export const sendPieces = async (
  db: Db,
  who: Who,
  { least, name, type }: { least: Role; name: string; type: string },
  res: Response,
  write: (trx: Trx) => AsyncIterable<string>,
): Promise<void> => {
  const drained = drains(res);
  await db
    .transaction()
    .setIsolationLevel('repeatable read')
    .setAccessMode('read only')
    .execute(async (trx) => {
      const { rows } = await sql<{ role: string | null }>`
        select gravek_enter(${who.clubId}, ${who.accountId}) as role`.execute(trx);
      mustBe(least, memberAs(who, rows[0]!.role));
      await withoutHurry(trx);
      for await (const piece of write(trx)) {
        if (!res.headersSent) {
          res.type(type);
          res.set('content-disposition', `attachment; filename="${name}"`);
        }
        if (!res.write(piece)) await drained();
        if (res.closed) return;
      }
    });
  res.end();
};
