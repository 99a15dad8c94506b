import { approachInput, approachUpdate } from '@gravek/contract/approach';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { awayRoute } from '../deeds/away';
import { pageOf, readCursor } from '../http/page';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { approach, movementFor, solveFor, summaries } from './queries';

const PAGE = 100;

const must = async (trx: Trx, id: string) => {
  const plan = await approach(trx, id);
  if (!plan) throw notFound('approach');
  return plan;
};

/** Athletes who run this approach in a session: it stays solved for them, whatever the plan's own list says. */
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

/** Whether reps were logged in a drill set of this approach. */
const wasRun = async (trx: Trx, approachId: string): Promise<boolean> =>
  (await trx
    .selectFrom('drill_set')
    .innerJoin('rep', 'rep.drill_set_id', 'drill_set.id')
    .select('rep.id')
    .where('approach_id', '=', approachId)
    .limit(1)
    .executeTakeFirst()) !== undefined;

export const approachRoutes = [
  route({
    method: 'get',
    path: '/approaches',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const after = readCursor(query.after, ['savedAt', 'id']);
      return pageOf(await summaries(trx, { after, limit: PAGE + 1 }), PAGE, ({ savedAt, id }) => ({
        savedAt,
        id,
      }));
    },
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
      if (!numInsertedOrUpdatedRows)
        return settleNew('approach', await approach(trx, body.id), body);
      await solveFor(trx, [{ plan: body, athleteIds: body.athleteIds, listed: true }]);
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
      const before = await trx
        .selectFrom('approach')
        .select('movement')
        .where('id', '=', id)
        .executeTakeFirst();
      if (before && before.movement !== body.movement && (await wasRun(trx, id))) {
        throw badInput({
          movement:
            'Reps of this approach have been logged, so its movement stays. Plan the other movement as an approach of its own.',
        });
      }
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
      const running = (await athletesInSessions(trx, id)).filter(
        (id) => !body.athleteIds.includes(id),
      );
      const keep = [...body.athleteIds, ...running];
      await trx
        .deleteFrom('athlete_approach')
        .where('approach_id', '=', id)
        .$if(keep.length > 0, (query) => query.where('athlete_id', 'not in', keep))
        .execute();
      const plan = { ...body, id };
      await solveFor(trx, [
        { plan, athleteIds: body.athleteIds, listed: true },
        { plan, athleteIds: running, listed: false },
      ]);
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
