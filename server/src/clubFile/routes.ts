import type { FileHandle } from 'node:fs/promises';
import { CLUB_FILE_MAX, type Restoring } from '@gravek/contract/archive';
import type { Deed } from '@gravek/contract/deeds';
import { Router, type Request } from 'express';
import { inClub, type Db, type Who } from '../database/connect';
import { writeDown } from '../deeds/write';
import type { SendPieces } from '../http/pieces';
import { ProblemError, refused } from '../http/problem';
import { memberAs, mustBe, mustBeConfirmed, mustHaveSecondStep, whoIs } from '../http/route';
import { isConfirmed } from '../http/session';
import type { Restorer } from './restoring';
import { unnamedFile } from './spool';
import { writeClubFile } from './write';

const TOO_LARGE = new ProblemError({
  status: 413,
  title: `An archive of more than ${CLUB_FILE_MAX / 1e6} MB is loaded at the terminal of the server. Nothing was changed.`,
});

/** Puts a body on disk as it comes. */
const receive = async (req: Request, file: FileHandle): Promise<number> => {
  let bytes = 0;
  for await (const piece of req as AsyncIterable<Buffer>) {
    bytes += piece.length;
    if (bytes > CLUB_FILE_MAX) throw TOO_LARGE;
    await file.appendFile(piece);
  }
  return bytes;
};

/**
 * The whole club out as one file, and into an empty club again. Their bodies are too large for the routes
 * that the others are declared as.
 */
export const archiveRouter = (db: Db, sendPieces: SendPieces, restorer: Restorer): Router => {
  const router = Router();
  /** clubs that are sending a file to this process */
  const sending = new Set<string>();

  /** Whether the asker may, before anything is read of what they send. */
  const owner = async (req: Request, deed?: Deed): Promise<Who> => {
    const who = whoIs(req);
    await inClub(db, who, async (trx, { role }) => {
      mustBe('owner', memberAs(who, role));
      await mustHaveSecondStep(trx, who.accountId);
      mustBeConfirmed(isConfirmed(req));
      if (deed) await writeDown(trx, who.accountId, deed);
    });
    return who;
  };

  router.get('/archive', async (req, res) => {
    const who = await owner(req, 'took the archive out');
    const file = { least: 'owner', name: 'gravek-archive.json', type: 'application/json' } as const;
    return sendPieces(who, file, res, (trx) => writeClubFile(trx, who.clubId));
  });

  router.post('/archive', async (req, res) => {
    const who = await owner(req);
    if (Number(req.get('content-length')) > CLUB_FILE_MAX) {
      // What is still on its way is not waited for.
      res.set('connection', 'close');
      throw TOO_LARGE;
    }
    if (sending.has(who.clubId)) {
      throw refused(503, 'Another archive is being sent to this club just now.');
    }
    if (restorer.isFull()) {
      res.set('connection', 'close');
      throw refused(503, 'Several archives wait to be read already; try again in some minutes.');
    }
    sending.add(who.clubId);
    const file = await unnamedFile();
    try {
      await restorer.begin({ who, file, bytes: await receive(req, file) });
    } catch (error) {
      await file.close();
      // Whoever has gone in the middle of the body is told nothing.
      if (req.readableAborted) return;
      res.set('connection', 'close');
      throw error;
    } finally {
      sending.delete(who.clubId);
    }
    const last: Restoring = { state: 'waits', done: 0, total: 0, said: null };
    res.status(202).json({ last });
  });
  return router;
};
