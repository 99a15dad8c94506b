import { groundInput, groundUpdate } from '@gravek/contract/ground';
import type { Trx } from '../database/connect';
import { awayRoute } from '../deeds/away';
import { notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { ground, groundColumns, grounds } from './queries';

const must = async (trx: Trx, id: string) => {
  const found = await ground(trx, id);
  if (!found) throw notFound('ground');
  return found;
};

export const groundRoutes = [
  route({
    method: 'get',
    path: '/grounds',
    access: 'assistant',
    run: async ({ trx }) => ({ items: await grounds(trx), next: null }),
  }),
  route({
    method: 'post',
    path: '/grounds',
    access: 'coach',
    body: groundInput,
    changes: 'grounds',
    run: async ({ trx, body }) => {
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('ground')
        .values(groundColumns(body))
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) return settleNew('ground', await ground(trx, body.id), body);
      return must(trx, body.id);
    },
  }),
  route({
    method: 'put',
    path: '/grounds/:id',
    access: 'coach',
    body: groundUpdate,
    changes: 'grounds',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      const { version, ...rest } = body;
      const { numUpdatedRows } = await trx
        .updateTable('ground')
        .set({ ...groundColumns({ id, ...rest }), version: version + 1 })
        .where('id', '=', id)
        .where('version', '=', version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('ground', await ground(trx, id), body);
      return must(trx, id);
    },
  }),
  awayRoute({ path: '/grounds/:id/away', table: 'ground', changes: 'grounds', answer: must }),
];
