import type { Trx } from '../database/connect';
import { isDay } from '@gravek/core';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { cuesOn } from './cues';
import { faultsOf, historyOf, squadFaults } from './queries';

const mustAthlete = async (trx: Trx, id: string): Promise<void> => {
  const there = await trx.selectFrom('athlete').select('id').where('id', '=', id).execute();
  if (there.length === 0) throw notFound('athlete');
};

export const faultRoutes = [
  route({
    method: 'get',
    path: '/faults',
    access: 'assistant',
    run: ({ trx, query }) => squadFaults(trx, query.movement),
  }),
  route({
    method: 'get',
    path: '/cues',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const { on = '' } = query;
      if (!isDay(on)) throw badInput({ on: 'Say for which day.' });
      return { items: await cuesOn(trx, on), next: null };
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id/faults',
    access: 'assistant',
    run: async ({ trx, params }) => {
      await mustAthlete(trx, params.id!);
      return { items: await faultsOf(trx, [params.id!]), next: null };
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id/faults/:movement',
    access: 'assistant',
    run: async ({ trx, params, query }) => {
      const { before } = query;
      if (before !== undefined && !/^\d{1,6}$/.test(before)) {
        throw badInput({ before: 'That page is not there.' });
      }
      await mustAthlete(trx, params.id!);
      return historyOf(
        trx,
        params.id!,
        params.movement!,
        before === undefined ? undefined : Number(before),
      );
    },
  }),
];
