import { approachInput, approachUpdate } from '@gravek/contract';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { awayRoute } from '../http/away';
import { notFound } from '../http/problem';
import { route } from '../http/route';
import { settle } from '../http/versioned';
import { approach, approaches, movementFor, solveFor } from './queries';

const must = async (trx: Trx, id: string) => {
  const found = await approach(trx, id);
  if (!found) throw notFound('approach');
  return found;
};

/** Athletes who run this approach in a session: they stay on it, whatever the plan's own list says. */
const athletesInSessions = async (trx: Trx, approachId: string): Promise<string[]> => {
  const rows = await trx
    .selectFrom('drill_set')
    .innerJoin('drill_set_athlete', 'drill_set_athlete.drill_set_id', 'drill_set.id')
    .select('athlete_id')
    .distinct()
    .where('approach_id', '=', approachId)
    .execute();
  return rows.map((row) => row.athlete_id);
};

export const approachRoutes = [
  route({
    method: 'get',
    path: '/approaches',
    access: 'assistant',
    run: async ({ trx }) => ({ items: await approaches(trx, 'all'), next: null }),
  }),
  route({
    method: 'post',
    path: '/approaches',
    access: 'coach',
    body: approachInput,
    changes: 'approaches',
    run: async ({ trx, body }) => {
      await movementFor(trx, body.movement, body.choices);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('approach')
        .values({
          id: body.id,
          name: body.name,
          movement: body.movement,
          choices: JSON.stringify(body.choices),
        })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (numInsertedOrUpdatedRows) await solveFor(trx, body, body.athleteIds);
      return must(trx, body.id);
    },
  }),
  route({
    method: 'get',
    path: '/approaches/:id',
    access: 'assistant',
    run: ({ trx, params }) => must(trx, params.id!),
  }),
  route({
    method: 'put',
    path: '/approaches/:id',
    access: 'coach',
    body: approachUpdate,
    changes: 'approaches',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      await movementFor(trx, body.movement, body.choices);
      const { numUpdatedRows } = await trx
        .updateTable('approach')
        .set({
          name: body.name,
          movement: body.movement,
          choices: JSON.stringify(body.choices),
          version: body.version + 1,
          saved_at: sql`now()`,
        })
        .where('id', '=', id)
        .where('version', '=', body.version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('approach', await approach(trx, id), body);
      const running = await athletesInSessions(trx, id);
      const keep = [...new Set([...body.athleteIds, ...running])];
      await trx
        .deleteFrom('athlete_approach')
        .where('approach_id', '=', id)
        .$if(keep.length > 0, (query) => query.where('athlete_id', 'not in', keep))
        .execute();
      await solveFor(trx, { ...body, id }, keep);
      return must(trx, id);
    },
  }),
  awayRoute({
    path: '/approaches/:id/away',
    table: 'approach',
    changes: 'approaches',
    answer: must,
  }),
];
