import { route } from '../http/route';
import { todayOf } from './today';

export const todayRoutes = [
  route({
    method: 'get',
    path: '/today',
    access: 'assistant',
    run: ({ trx, today, timeZone }) => todayOf(trx, { today, timeZone }),
  }),
];
