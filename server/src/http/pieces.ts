import type { Role } from '@gravek/contract/club';
import type { Response } from 'express';
import { enterClub, withoutHurry, type Db, type Trx, type Who } from '../database/connect';
import { refused } from './problem';
import { memberAs, mustBe } from './route';

/** Files of one club that are sent at once, by this process. */
const MOST_AT_ONCE = 2;
/** Whoever takes nothing for so long has gone. */
const TAKEN_MS = 30_000;
/** Little enough that a slow line takes it in that time. */
const SLICE = 32_000;

/**
 * How to wait until what was written has left.
 *
 * @returns a function that says whether somebody has taken it; false when they have gone, or take nothing
 */
const drains = (res: Response, takenMs: number): (() => Promise<boolean>) => {
  let go = (_taken: boolean): void => undefined;
  // Listened for once: what packs an answer never gives a listener back.
  res.on('drain', () => go(true));
  res.on('close', () => go(false));
  return () =>
    new Promise((resolve) => {
      const late = setTimeout(() => {
        res.destroy();
        resolve(false);
      }, takenMs);
      go = (taken) => {
        clearTimeout(late);
        resolve(taken);
      };
      if (res.closed) go(false);
    });
};

/** A piece cut into slices. */
function* slices(piece: string): Generator<Buffer> {
  // Cut by bytes: a sign may be two characters of a text.
  const bytes = Buffer.from(piece);
  for (let i = 0; i < bytes.length; i += SLICE) yield bytes.subarray(i, i + SLICE);
}

type File = {
  /** role that may have it at least */
  least: Role;
  name: string;
  type: string;
};

/** Sends files that are too long to be held, piece by piece as they are read, all as it was at one moment. */
export type SendPieces = (
  who: Who,
  file: File,
  res: Response,
  write: (trx: Trx) => AsyncIterable<string>,
) => Promise<void>;

/**
 * @param db connections of its own, so that whoever reads slowly keeps nobody from being answered
 * @param takenMs how long is waited for somebody to take a slice
 */
export const piecesSender = (db: Db, takenMs = TAKEN_MS): SendPieces => {
  /** files that are being sent, by club */
  const underWay = new Map<string, number>();
  return async (who, { least, name, type }, res, write) => {
    const before = underWay.get(who.clubId) ?? 0;
    if (before >= MOST_AT_ONCE) {
      throw refused(
        503,
        'Two files of this club are being sent just now. Wait until one is there, then try again.',
      );
    }
    underWay.set(who.clubId, before + 1);
    const drained = drains(res, takenMs);
    try {
      await db
        .transaction()
        .setIsolationLevel('repeatable read')
        .setAccessMode('read only')
        .execute(async (trx) => {
          const { role } = await enterClub(trx, who);
          mustBe(least, memberAs(who, role));
          await withoutHurry(trx);
          for await (const piece of write(trx)) {
            if (!res.headersSent) {
              res.type(type);
              res.set('content-disposition', `attachment; filename="${name}"`);
            }
            for (const slice of slices(piece)) {
              if (res.closed || (!res.write(slice) && !(await drained()))) return;
            }
          }
        });
      res.end();
    } finally {
      const left = underWay.get(who.clubId)! - 1;
      if (left > 0) underWay.set(who.clubId, left);
      else underWay.delete(who.clubId);
    }
  };
};
