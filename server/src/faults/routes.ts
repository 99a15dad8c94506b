import { route } from '../http/route';
import { faultCounts } from './queries';

export const faultRoutes = [
  route({
    method: 'get',
    path: '/faults',
    access: 'assistant',
    run: async ({ trx }) => ({ items: await faultCounts(trx, 'all'), next: null }),
  }),
  route({
    method: 'get',
    path: '/athletes/:id/faults',
    access: 'assistant',
    run: async ({ trx, params }) => ({
      items: await faultCounts(trx, { athleteIds: [params.id!] }),
      next: null,
    }),
  }),
];
