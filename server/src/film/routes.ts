import { reviewInput, reviewUpdate, type Review, type ReviewInput } from '@gravek/contract/watched';
import type { Trx } from '../database/connect';
import { awayRoute } from '../deeds/away';
import { pageOf, readCursor } from '../http/page';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { movementsBy } from '../movements/queries';
import { review, reviewColumns, reviewLines } from './queries';

const PAGE = 100;

const must = async (trx: Trx, id: string): Promise<Review> => {
  const found = await review(trx, id);
  if (!found) throw notFound('film');
  return found;
};

/** @throws {ProblemError} naming what a review points at and is not there */
const checkNamed = async (
  trx: Trx,
  { athleteId, approachId, movement }: Omit<ReviewInput, 'id'>,
): Promise<void> => {
  const athlete = await trx
    .selectFrom('athlete')
    .select('id')
    .where('id', '=', athleteId)
    .executeTakeFirst();
  if (!athlete) throw badInput({ athleteId: 'This athlete is not there any more.' });
  if (!(await movementsBy(trx, [movement]))(movement))
    throw badInput({ movement: 'This movement is not there any more.' });
  if (approachId === null) return;
  const plan = await trx
    .selectFrom('approach')
    .select('movement')
    .where('id', '=', approachId)
    .executeTakeFirst();
  if (!plan) throw badInput({ approachId: 'This plan is not there any more.' });
  if (plan.movement !== movement)
    throw badInput({ approachId: 'This plan is of another movement.' });
};

export const filmRoutes = [
  route({
    method: 'get',
    path: '/reviews',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const after = readCursor(query.after, ['takenOn', 'id']);
      if (after && !/^\d{4}-\d\d-\d\d$/.test(after.takenOn))
        throw badInput({ after: 'That page of the list is not there.' });
      return pageOf(await reviewLines(trx, { after, limit: PAGE + 1 }), PAGE, (last) => ({
        takenOn: last.takenOn,
        id: last.id,
      }));
    },
  }),
  route({
    method: 'get',
    path: '/reviews/:id',
    access: 'assistant',
    run: ({ trx, params }) => must(trx, params.id!),
  }),
  route({
    method: 'post',
    path: '/reviews',
    access: 'coach',
    body: reviewInput,
    changes: 'films',
    run: async ({ trx, body }) => {
      await checkNamed(trx, body);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('review')
        .values(reviewColumns(body))
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) return settleNew('film', await review(trx, body.id), body);
      return must(trx, body.id);
    },
  }),
  route({
    method: 'put',
    path: '/reviews/:id',
    access: 'coach',
    body: reviewUpdate,
    changes: 'films',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      const { version, ...rest } = body;
      await checkNamed(trx, rest);
      const { numUpdatedRows } = await trx
        .updateTable('review')
        .set({ ...reviewColumns({ id, ...rest }), version: version + 1 })
        .where('id', '=', id)
        .where('version', '=', version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('film', await review(trx, id), body);
      return must(trx, id);
    },
  }),
  awayRoute({ path: '/reviews/:id/away', table: 'review', changes: 'films', answer: must }),
];
