import { randomBytes } from 'node:crypto';
import { dayNumber, isDay } from '@gravek/core/days';
import type { CalendarAddress, CalendarKept } from '@gravek/contract/club';
import type { RunAnswer } from '@gravek/contract/run';
import { sessionInput, sessionUpdate } from '@gravek/contract/sessionSchema';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { awayRoute } from '../deeds/away';
import { refreshStandings } from '../faults/refresh';
import { pageOf, readCursor } from '../http/page';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { hashOf } from '../http/token';
import { settle, settleNew } from '../http/versioned';
import { runBundle } from './bundle';
import { calendarOf } from './calendar';
import { cuesOn } from './cues';
import { storeDrillSets } from './drillSets';
import { loadHistory } from './history';
import { needsOn } from './needs';
import { mustHaveGround, session, sessionColumns, sessions } from './queries';

const must = async (trx: Trx, id: string) => {
  const planned = await session(trx, id);
  if (!planned) throw notFound('session');
  return planned;
};

/** More days than any page shows. */
const MOST_DAYS = 100;
const PAGE = 100;

/** A day that a session moves to weighs its reps anew, and may put them in another order. */
const refreshSession = async (trx: Trx, sessionId: string): Promise<void> => {
  const rows = await trx
    .selectFrom('rep_count')
    .select('athlete_id')
    .distinct()
    .where('session_id', '=', sessionId)
    .execute();
  await refreshStandings(trx, { athleteIds: rows.map((row) => row.athlete_id) });
};

export const sessionRoutes = [
  route({
    method: 'get',
    path: '/sessions',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const { from = '', to = '' } = query;
      const many = isDay(from) && isDay(to) ? dayNumber('to', to) - dayNumber('from', from) : -1;
      if (many < 0 || many > MOST_DAYS) {
        throw badInput({ from: `Say from which day to which, ${MOST_DAYS} days at most.` });
      }
      const after = readCursor(query.after, ['date', 'id']);
      if (after && !isDay(after.date)) throw badInput({ after: 'That page is not there.' });
      const rows = await sessions(trx, { from, to, after, limit: PAGE + 1 });
      return pageOf(rows, PAGE, ({ date, id }) => ({ date, id }));
    },
  }),
  route({
    method: 'post',
    path: '/sessions',
    access: 'coach',
    body: sessionInput,
    changes: 'sessions',
    run: async ({ trx, body }) => {
      await mustHaveGround(trx, body.groundId);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('session')
        .values({ id: body.id, ...sessionColumns(body) })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) return settleNew('session', await session(trx, body.id), body);
      await storeDrillSets(trx, body, undefined);
      return { ...body, version: 1, archived: false, logged: 0 };
    },
  }),
  route({
    method: 'get',
    path: '/sessions/history',
    access: 'assistant',
    run: async ({ trx, query }) => {
      if (!isDay(query.day ?? '')) throw badInput({ day: 'Say of which day.' });
      return loadHistory(trx, query.day!);
    },
  }),
  route({
    method: 'get',
    path: '/sessions/templates',
    access: 'assistant',
    run: async ({ trx }) => ({
      items: (await sessions(trx, 'templates')).filter((session) => !session.archived),
      next: null,
    }),
  }),
  route({
    method: 'get',
    path: '/sessions/needs',
    access: 'assistant',
    run: async ({ trx, query }) => {
      if (!isDay(query.day ?? '')) throw badInput({ day: 'Say of which day.' });
      return needsOn(trx, query.day!);
    },
  }),
  route({
    method: 'get',
    path: '/cues',
    access: 'assistant',
    run: async ({ trx, query }) => {
      const { on = '' } = query;
      if (!isDay(on)) throw badInput({ on: 'Say for which day.' });
      return { items: await cuesOn(trx, on), next: null };
    },
  }),
  route({
    method: 'get',
    path: '/sessions/:id/calendar',
    access: 'assistant',
    run: async ({ trx, params, who }): Promise<{ text: string }> => ({
      text: await calendarOf(trx, who.clubId, [await must(trx, params.id!)]),
    }),
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
      const before = await must(trx, id);
      if (body.groundId !== before.groundId) await mustHaveGround(trx, body.groundId);
      // Of this version only, so that what was read before is what stands when it is written.
      const { numUpdatedRows } = await trx
        .updateTable('session')
        .set({
          ...sessionColumns(body),
          version: body.version + 1,
        })
        .where('id', '=', id)
        .where('version', '=', body.version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('session', await session(trx, id), body);
      await storeDrillSets(trx, { ...body, id }, before);
      if (before.date !== body.date) await refreshSession(trx, id);
      const { archived, logged } = before;
      return { ...body, id, version: body.version + 1, archived, logged };
    },
  }),
  awayRoute({ path: '/sessions/:id/away', table: 'session', changes: 'sessions', answer: must }),
  route({
    method: 'get',
    path: '/sessions/:id/run',
    access: 'assistant',
    run: async ({ trx, params, query }): Promise<RunAnswer> => {
      const bundle = await runBundle(trx, params.id!);
      if (!bundle) throw notFound('session');
      return query.known === bundle.stamp ? { unchanged: true } : bundle;
    },
  }),
  route({
    method: 'get',
    path: '/calendar',
    access: 'assistant',
    run: async ({ trx, who }): Promise<CalendarKept> => {
      const address = await trx
        .selectFrom('calendar_address')
        .select('made_at')
        .where('account_id', '=', who.accountId)
        .executeTakeFirst();
      return { madeAt: address?.made_at.toISOString() ?? null };
    },
  }),
  route({
    method: 'post',
    path: '/calendar',
    access: 'assistant',
    // An address made before holds no more; one whose answer was lost is made anew.
    run: async ({ trx, who }): Promise<CalendarAddress> => {
      const token = randomBytes(32).toString('base64url');
      const address = { token_hash: hashOf(token), made_at: sql<Date>`now()` };
      await trx
        .insertInto('calendar_address')
        .values({ account_id: who.accountId, ...address })
        .onConflict((conflict) => conflict.columns(['club_id', 'account_id']).doUpdateSet(address))
        .execute();
      return { token };
    },
  }),
  route({
    method: 'delete',
    path: '/calendar',
    access: 'assistant',
    run: async ({ trx, who }) => {
      await trx.deleteFrom('calendar_address').where('account_id', '=', who.accountId).execute();
    },
  }),
];
