import { repBatch } from '@gravek/contract/repSchema';
import type { LogPage } from '@gravek/contract/session';
import { mustAthlete } from '../athletes/queries';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { LATER } from '../http/together';
import { measuredReps, repsOf } from './queries';
import { busySessions, storeReps } from './store';

const PAGE = 500;

export const repRoutes = [
  route({
    method: 'post',
    path: '/reps',
    access: 'assistant',
    body: repBatch,
    changes: 'reps',
    logOnly: true,
    runAll: async ({ trx, asks, patient, tell, stored }) => {
      const batches = asks.map(({ who, body }) => ({
        rows: body.reps,
        accountId: who.accountId,
      }));
      const busy = await busySessions(trx, batches, patient);
      const now = batches.filter((_, i) => !busy.has(i));
      const { receipts, heldBack } = await storeReps(trx, now);
      if (heldBack) tell('athletes');
      stored(receipts.reduce((sum, receipt) => sum + receipt.stored.length, 0));
      return batches.map((_, i) => (busy.has(i) ? LATER : receipts.shift()!));
    },
  }),
  route({
    method: 'get',
    path: '/sessions/:id/reps',
    access: 'assistant',
    logOnly: true,
    run: async ({ trx, params, query }): Promise<LogPage> => {
      const { after = '0' } = query;
      if (!/^\d{1,9}$/.test(after)) throw badInput({ after: 'Say after which rep.' });
      const id = params.id!;
      const storedSession = await trx
        .selectFrom('session')
        .select('id')
        .where('id', '=', id)
        .execute();
      if (storedSession.length === 0) throw notFound('session');
      const rows = await repsOf(trx, id, { after: Number(after), limit: PAGE + 1 });
      return { items: rows.slice(0, PAGE), more: rows.length > PAGE };
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id/measured',
    access: 'assistant',
    run: async ({ trx, params }) => {
      await mustAthlete(trx, params.id!);
      return measuredReps(trx, params.id!);
    },
  }),
];
