import {
  athleteInput,
  athleteUpdate,
  readingInput,
  restrictionInput,
  trialInput,
  type Athlete,
  type ReadingRow,
  type Trial,
} from '@gravek/contract';
import type { AnyObjectSchema } from 'yup';
import type { Trx } from '../database/connect';
import { awayRoute } from '../http/away';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle } from '../http/versioned';
import { faultCounts } from '../faults/queries';
import {
  athlete,
  athleteColumns,
  athletes,
  measurementColumns,
  type RosterCursor,
} from './queries';

const PAGE = 200;

const must = async (trx: Trx, id: string): Promise<Athlete> => {
  const found = await athlete(trx, id);
  if (!found) throw notFound('athlete');
  return found;
};

const readCursor = (text: string | undefined): RosterCursor | null => {
  if (!text) return null;
  try {
    const cursor = JSON.parse(Buffer.from(text, 'base64url').toString()) as RosterCursor;
    if (typeof cursor.name === 'string' && /^[0-9a-f-]{36}$/.test(cursor.id)) return cursor;
  } catch {
    // falls through to the refusal
  }
  throw badInput({ after: 'That page of the list is not there.' });
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
      const one = taken as Trial | ReadingRow;
      if (one.athleteId !== params.id) throw badInput({ athleteId: 'Another athlete is meant.' });
      await must(trx, one.athleteId);
      await trx
        .insertInto('measurement')
        .values(measurementColumns(one))
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .execute();
      return must(trx, one.athleteId);
    },
  });

export const athleteRoutes = [
  route({
    method: 'get',
    path: '/athletes',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const page = await athletes(trx, { after: readCursor(query.after), limit: PAGE + 1 });
      const items = page.slice(0, PAGE);
      const last = page.length > PAGE ? items.at(-1)! : null;
      const next =
        last && Buffer.from(JSON.stringify({ name: last.name, id: last.id })).toString('base64url');
      return { items, next };
    },
  }),
  route({
    method: 'post',
    path: '/athletes',
    access: 'coach',
    body: athleteInput,
    changes: 'athletes',
    run: async ({ trx, body }) => {
      await trx
        .insertInto('athlete')
        .values({ id: body.id, ...athleteColumns(body) })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .execute();
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
  awayRoute({ path: '/athletes/:id/away', table: 'athlete', changes: 'athletes', answer: must }),
  route({
    method: 'get',
    path: '/athletes/:id/export',
    access: 'coach',
    run: async ({ trx, params }) => {
      const person = await must(trx, params.id!);
      const reps = await trx
        .selectFrom('rep')
        .selectAll()
        .where('athlete_id', '=', params.id!)
        .orderBy('at')
        .execute();
      const plans = await trx
        .selectFrom('athlete_approach')
        .selectAll()
        .where('athlete_id', '=', params.id!)
        .execute();
      const faults = await faultCounts(trx, { athleteIds: [params.id!] });
      return { athlete: person, plans, reps, faults };
    },
  }),
  route({
    method: 'delete',
    path: '/athletes/:id',
    access: 'owner',
    changes: 'athletes',
    run: async ({ trx, params }) => {
      await trx.deleteFrom('athlete').where('id', '=', params.id!).execute();
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
      await trx
        .insertInto('restriction')
        .values({
          id: body.id,
          athlete_id: body.athleteId,
          kind: body.kind,
          from_day: body.from,
          until_day: body.until,
          note: body.note,
        })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .execute();
      return must(trx, body.athleteId);
    },
  }),
  awayRoute({
    path: '/athletes/:id/restrictions/:restrictionId/away',
    table: 'restriction',
    changes: 'athletes',
    answer: must,
  }),
];
