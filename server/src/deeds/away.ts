import { away } from '@gravek/contract/athlete';
import type { Deed } from '@gravek/contract/deeds';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import type { Topic } from '../changes/tell';
import { writeDown } from './write';
import { route, type Route } from '../http/route';

type Archived = 'athlete' | 'movement' | 'rule_set' | 'ground' | 'approach' | 'session' | 'review';
type Removed = 'measurement' | 'restriction';

/**
 * A route that puts a row away or back, so that it can be undone; doing it twice is doing it once.
 *
 * @param path ends in /away; the row is the last of its parameters, and what is answered is of the first
 */
export const awayRoute = (declared: {
  path: string;
  table: Archived | Removed;
  changes: Topic;
  answer: (trx: Trx, id: string) => Promise<unknown>;
  /** what the club's log says when it is put away */
  deed?: Deed;
}): Route => {
  const names = [...declared.path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
  const column =
    declared.table === 'measurement' || declared.table === 'restriction'
      ? 'removed_at'
      : 'archived_at';
  return route({
    method: 'put',
    path: declared.path,
    access: 'coach',
    body: away,
    changes: declared.changes,
    run: async ({ trx, who, params, body }) => {
      const [owner, row] = [params[names[0]!]!, params[names.at(-1)!]!];
      const { numAffectedRows } = await sql`
        update ${sql.table(declared.table)}
        set ${sql.ref(column)} = ${body.away ? sql`now()` : sql`null`}
        where id = ${row} ${owner === row ? sql`` : sql`and athlete_id = ${owner}`}
          and (${sql.ref(column)} is null) = ${body.away}`.execute(trx);
      if (declared.deed && body.away && numAffectedRows) {
        await writeDown(trx, who.accountId, declared.deed);
      }
      return declared.answer(trx, owner);
    },
  });
};
