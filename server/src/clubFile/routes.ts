import { createHash } from 'node:crypto';
import { CLUB_FILE_MAX, type Deed } from '@gravek/contract';
import express, { Router, type Request } from 'express';
import type { Tell, Topic } from '../changes/tell';
import { inClub, type Db, type Who } from '../database/connect';
import { writeDown } from '../deeds/write';
import type { SendPieces } from '../http/pieces';
import { ProblemError, refused } from '../http/problem';
import { memberAs, mustBe, mustBeConfirmed, mustHaveSecondStep, whoIs } from '../http/route';
import { isConfirmed } from '../signIn/session';
import { StartFault } from '../startFault';
import { readClubFile, restoreInto } from './load';
import { writeClubFile } from './write';

const TOPICS: Topic[] = ['club', 'athletes', 'approaches', 'sessions', 'movements', 'reps'];

const TOO_LARGE = `An archive of more than ${CLUB_FILE_MAX / 1e6} MB is loaded at the terminal of the server. Nothing was changed.`;

/** What cannot be loaded, as an answer. */
const asAnswer = (error: unknown): unknown =>
  error instanceof StartFault ? new ProblemError({ status: 422, title: error.message }) : error;

/**
 * The whole club out as one file and into an empty club again. Both run for as long as they take, and
 * their bodies are too large for the routes that the others are declared as.
 */
export const archiveRouter = (db: Db, sendPieces: SendPieces, tell: Tell): Router => {
  const router = Router();
  /** One at a time: each takes the room of a large club. */
  let reading = false;

  /** Whether the asker may, before anything is read of what they send. */
  const owner = async (req: Request, deed?: Deed): Promise<Who> => {
    const who = whoIs(req);
    await inClub(db, who, async (trx, role) => {
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

  router.post(
    '/archive',
    async (req, res, next) => {
      await owner(req);
      if (reading)
        throw refused(503, 'Another archive is being read just now; try again in a minute.');
      if (Number(req.get('content-length')) > CLUB_FILE_MAX) {
        // What is still on its way is not waited for.
        res.set('connection', 'close');
        throw new ProblemError({ status: 413, title: TOO_LARGE });
      }
      reading = true;
      // However it ends: answered, refused, or gone in the middle of the body.
      res.once('close', () => (reading = false));
      next();
    },
    express.text({ limit: CLUB_FILE_MAX, type: 'application/json' }),
    async (req, res) => {
      const who = whoIs(req);
      const text = typeof req.body === 'string' ? req.body : '';
      try {
        const file = await readClubFile(text);
        const mark = createHash('sha256').update(text).digest('hex');
        await inClub(db, who, async (trx, role) => {
          mustBe('owner', memberAs(who, role));
          await restoreInto(trx, who, file, mark);
          await writeDown(trx, who.accountId, 'read an archive in', `${file.reps.length} reps`);
        });
      } catch (error) {
        throw asAnswer(error);
      }
      for (const topic of TOPICS) tell(who.clubId, topic);
      res.status(204).end();
    },
  );
  return router;
};
