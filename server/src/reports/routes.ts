import { Router } from 'express';
import { inClub, type Db } from '../database/connect';
import { sendPieces } from '../http/pieces';
import { notFound } from '../http/problem';
import { memberAs, mustBe, whoIs } from '../http/route';
import { countNew } from '../reps/countNew';
import { csvPieces, isTable } from './tables';

/** Tables of the club for a spreadsheet. */
export const reportRouter = (db: Db): Router => {
  const router = Router();
  router.get('/csv/:table', async (req, res) => {
    const who = whoIs(req);
    const { table } = req.params;
    if (!isTable(table)) throw notFound('table');
    const file = { least: 'coach', name: `gravek-${table}.csv`, type: 'text/csv' } as const;
    await inClub(db, who, async (trx, role) => {
      mustBe(file.least, memberAs(who, role));
      await countNew(trx);
    });
    await sendPieces(db, who, file, res, (trx) => csvPieces(trx, table));
  });
  return router;
};
