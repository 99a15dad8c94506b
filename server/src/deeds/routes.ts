import type { Deed, DeedLine } from '@gravek/contract/deeds';
import { sql } from 'kysely';
import { pageOf, readCursor } from '../http/page';
import { route } from '../http/route';

const PAGE = 100;

/** What was done to the club and by whom, newest first; `q` looks for words in it. */
export const deedRoutes = [
  route({
    method: 'get',
    path: '/deeds',
    access: 'owner',
    run: async ({ trx, query }) => {
      const after = readCursor(query.after, ['at', 'id']);
      const words = (query.q ?? '').slice(0, 100).split(/\s+/).filter(Boolean);
      const rows = await trx
        .selectFrom('deed')
        .select(['id', 'at', 'person', 'what', 'about'])
        // A moment in JavaScript is coarser than one of the database.
        .select(sql<string>`at::text`.as('moment'))
        .where((eb) =>
          eb.and([
            ...words.map(
              (word) =>
                sql<boolean>`strpos(lower(concat_ws(' ', person, what, about)), lower(${word})) > 0`,
            ),
            ...(after
              ? [sql<boolean>`(at, id) < (${after.at}::timestamptz, ${after.id}::uuid)`]
              : []),
          ]),
        )
        .orderBy('at', 'desc')
        .orderBy('id', 'desc')
        .limit(PAGE + 1)
        .execute();
      const { items, next } = pageOf(rows, PAGE, ({ moment, id }) => ({ at: moment, id }));
      return {
        items: items.map(({ id, at, person, what, about }): DeedLine => ({
          ...{ id, person, about },
          at: at.toISOString(),
          what: what as Deed,
        })),
        next,
      };
    },
  }),
];
