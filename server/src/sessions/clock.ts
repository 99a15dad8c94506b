import { clockActInput, MOST_ACTS, type SessionClock } from '@gravek/contract/circuit';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settleNew } from '../http/versioned';

/**
 * What was done to the clock of a session, and what time it is. The database tells the time, so that all processes
 * tell the same.
 */
const clockOf = async (trx: Trx, sessionId: string): Promise<SessionClock> => {
  const row = await trx
    .selectFrom('session')
    .select([
      'clock',
      sql<number>`(1000 * extract(epoch from clock_timestamp()))::float8`.as('nowMs'),
    ])
    .where('id', '=', sessionId)
    .executeTakeFirst();
  if (!row) throw notFound('session');
  return { nowMs: row.nowMs, acts: row.clock };
};

export const clockRoutes = [
  route({
    method: 'get',
    path: '/sessions/:id/clock',
    access: 'assistant',
    logOnly: true,
    run: ({ trx, params }) => clockOf(trx, params.id!),
  }),
  route({
    method: 'post',
    path: '/sessions/:id/clock',
    access: 'assistant',
    body: clockActInput,
    changes: 'clock',
    logOnly: true,
    run: async ({ trx, params, body }): Promise<SessionClock> => {
      const id = params.id!;
      // Held until this is done: two presses at once are two acts, and the same press twice is one.
      await trx.selectFrom('session').select('id').where('id', '=', id).forUpdate().execute();
      const { acts, nowMs } = await clockOf(trx, id);
      const same = acts.find((act) => act.id === body.id);
      // A phone that never heard the time may be ahead of it.
      const { kind, of } = body;
      if (same) settleNew('press of the clock', same, { kind, of });
      else if (acts.length >= MOST_ACTS)
        throw badInput({ kind: 'The clock of this session was pressed too often.' });
      else
        await trx
          .updateTable('session')
          .set({
            clock: JSON.stringify([
              ...acts,
              { ...body, atMs: Math.min(body.atMs, Math.floor(nowMs)) },
            ]),
          })
          .where('id', '=', id)
          .execute();
      return clockOf(trx, id);
    },
  }),
];
