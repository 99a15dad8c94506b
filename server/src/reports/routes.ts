import { UNCOUNTED_HEADER } from '@gravek/contract/header';
import { Router } from 'express';
import { inClub, inClubReading, type Db } from '../database/connect';
import { writeDown } from '../deeds/write';
import type { SendPieces } from '../http/pieces';
import { notFound } from '../http/problem';
import { memberAs, mustBe, route, whoIs } from '../http/route';
import { everythingOf } from './export';
import { csvPieces, isTable } from './tables';

export const reportRoutes = [
  route({
    method: 'get',
    path: '/athletes/:id/export',
    access: 'coach',
    run: ({ trx, params }) => everythingOf(trx, params.id!),
  }),
];

/** Tables of the club for a spreadsheet. */
export const reportRouter = (db: Db, sendPieces: SendPieces): Router => {
  const router = Router();
  router.get('/csv/:table', async (req, res) => {
    const who = whoIs(req);
    const { table } = req.params;
    if (!isTable(table)) throw notFound('table');
    const file = { least: 'coach', name: `gravek-${table}.csv`, type: 'text/csv' } as const;
    const { role, uncounted } = await inClubReading(db, who, (_trx, club) => Promise.resolve(club));
    mustBe(file.least, memberAs(who, role));
    await inClub(db, who, (trx) => writeDown(trx, who.accountId, 'took a table out', table));
    res.set(UNCOUNTED_HEADER, String(uncounted));
    await sendPieces(who, file, res, (trx) => csvPieces(trx, table));
  });
  return router;
};
