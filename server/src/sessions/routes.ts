import { sessionInput, sessionUpdate, type RunBundle } from '@gravek/contract';
import { approaches } from '../approaches/queries';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { faultCounts } from '../faults/queries';
import { awayRoute } from '../http/away';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle } from '../http/versioned';
import { clubMovements } from '../movements/queries';
import { repsOf } from '../reps/queries';
import { session, sessions, storeDrillSets } from './queries';

const must = async (trx: Trx, id: string) => {
  const found = await session(trx, id);
  if (!found) throw notFound('session');
  return found;
};

const DAY = /^\d{4}-\d\d-\d\d$/;

export const sessionRoutes = [
  route({
    method: 'get',
    path: '/sessions',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const { from = '', to = '' } = query;
      if (!DAY.test(from) || !DAY.test(to))
        throw badInput({ from: 'Say from which day to which.' });
      return { items: await sessions(trx, { from, to }), next: null };
    },
  }),
  route({
    method: 'post',
    path: '/sessions',
    access: 'coach',
    body: sessionInput,
    changes: 'sessions',
    run: async ({ trx, body }) => {
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('session')
        .values({ id: body.id, day: body.date, title: body.title, place: body.place })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (numInsertedOrUpdatedRows) await storeDrillSets(trx, body, undefined);
      return must(trx, body.id);
    },
  }),
  route({
    method: 'get',
    path: '/sessions/:id',
    access: 'assistant',
    run: ({ trx, params }) => must(trx, params.id!),
  }),
  route({
    method: 'put',
    path: '/sessions/:id',
    access: 'coach',
    body: sessionUpdate,
    changes: 'sessions',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      const before = await session(trx, id);
      const { numUpdatedRows } = await trx
        .updateTable('session')
        .set({
          day: body.date,
          title: body.title,
          place: body.place,
          version: body.version + 1,
        })
        .where('id', '=', id)
        .where('version', '=', body.version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('session', before, body);
      await storeDrillSets(trx, { ...body, id }, before);
      return must(trx, id);
    },
  }),
  awayRoute({ path: '/sessions/:id/away', table: 'session', changes: 'sessions', answer: must }),
  route({
    method: 'get',
    path: '/sessions/:id/run',
    access: 'assistant',
    run: async ({ trx, params }): Promise<RunBundle> => {
      const own = await must(trx, params.id!);
      const athleteIds = [...new Set(own.drillSets.flatMap((set) => set.athleteIds))];
      return {
        session: own,
        approaches: await approaches(trx, { ids: own.drillSets.map((set) => set.approachId) }),
        athletes: await athletes(trx, { ids: athleteIds }),
        reps: await repsOf(trx, own.id),
        counts: await faultCounts(trx, { athleteIds }),
        movements: (await clubMovements(trx)).map((one) => one.movement),
      };
    },
  }),
];
