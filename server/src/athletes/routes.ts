import {
  athleteInput,
  athleteUpdate,
  restrictionInput,
  trialInput,
  type Athlete,
  type Trial,
} from '@gravek/contract/athlete';
import { readingInput, type ReadingRow } from '@gravek/contract/reading';
import type { AnyObjectSchema } from 'yup';
import type { Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { awayRoute } from '../deeds/away';
import { pageOf, readCursor } from '../http/page';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import {
  athlete,
  athleteColumns,
  athletes,
  measurementColumns,
  measurements,
  plansOf,
  restrictionColumns,
  restrictions,
} from './queries';

const PAGE = 200;

const must = async (trx: Trx, id: string): Promise<Athlete> => {
  const person = await athlete(trx, id);
  if (!person) throw notFound('athlete');
  return person;
};

/** A route that keeps a measured run or another test of an athlete. */
const measured = (path: string, body: AnyObjectSchema) =>
  route({
    method: 'post',
    path,
    access: 'coach',
    body,
    changes: 'athletes',
    run: async ({ trx, params, body: taken }) => {
      const measure = taken as Trial | ReadingRow;
      if (measure.athleteId !== params.id)
        throw badInput({ athleteId: 'Another athlete is meant.' });
      await must(trx, measure.athleteId);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('measurement')
        .values(measurementColumns(measure))
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows)
        settleNew('measurement', (await measurements(trx, { id: measure.id }))[0]?.row, measure);
      return must(trx, measure.athleteId);
    },
  });

export const athleteRoutes = [
  route({
    method: 'get',
    path: '/athletes',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const after = readCursor(query.after, ['name', 'id']);
      return pageOf(await athletes(trx, { after, limit: PAGE + 1 }), PAGE, ({ name, id }) => ({
        name,
        id,
      }));
    },
  }),
  route({
    method: 'post',
    path: '/athletes',
    access: 'coach',
    body: athleteInput,
    changes: 'athletes',
    run: async ({ trx, body }) => {
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('athlete')
        .values({ id: body.id, ...athleteColumns(body) })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) return settleNew('athlete', await athlete(trx, body.id), body);
      return must(trx, body.id);
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id',
    access: 'assistant',
    run: ({ trx, params }) => must(trx, params.id!),
  }),
  route({
    method: 'put',
    path: '/athletes/:id',
    access: 'coach',
    body: athleteUpdate,
    changes: 'athletes',
    run: async ({ trx, params, body }) => {
      const { numUpdatedRows } = await trx
        .updateTable('athlete')
        .set({ ...athleteColumns(body), version: body.version + 1 })
        .where('id', '=', params.id!)
        .where('version', '=', body.version)
        .executeTakeFirst();
      const current = await athlete(trx, params.id!);
      return numUpdatedRows > 0n ? current : settle('athlete', current, body);
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id/approaches',
    access: 'assistant',
    run: async ({ trx, params }) => {
      await must(trx, params.id!);
      return { items: await plansOf(trx, params.id!), next: null };
    },
  }),
  awayRoute({ path: '/athletes/:id/away', table: 'athlete', changes: 'athletes', answer: must }),
  route({
    method: 'delete',
    path: '/athletes/:id',
    access: 'owner',
    again: true,
    changes: 'athletes',
    run: async ({ trx, who, params }) => {
      const { numDeletedRows } = await trx
        .deleteFrom('athlete')
        .where('id', '=', params.id!)
        .executeTakeFirst();
      if (numDeletedRows > 0n) await writeDown(trx, who.accountId, 'deleted an athlete');
    },
  }),
  measured('/athletes/:id/trials', trialInput),
  measured('/athletes/:id/readings', readingInput),
  awayRoute({
    path: '/athletes/:id/readings/:readingId/away',
    table: 'measurement',
    changes: 'athletes',
    answer: must,
  }),
  awayRoute({
    path: '/athletes/:id/trials/:trialId/away',
    table: 'measurement',
    changes: 'athletes',
    answer: must,
  }),
  route({
    method: 'post',
    path: '/athletes/:id/restrictions',
    access: 'coach',
    body: restrictionInput,
    changes: 'athletes',
    run: async ({ trx, params, body }) => {
      if (body.athleteId !== params.id) throw badInput({ athleteId: 'Another athlete is meant.' });
      await must(trx, body.athleteId);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('restriction')
        .values(restrictionColumns(body))
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows)
        settleNew('restriction', (await restrictions(trx, { id: body.id }))[0]?.row, body);
      return must(trx, body.athleteId);
    },
  }),
  awayRoute({
    path: '/athletes/:id/restrictions/:restrictionId/away',
    table: 'restriction',
    changes: 'athletes',
    answer: must,
    deed: 'lifted a restriction',
  }),
];
