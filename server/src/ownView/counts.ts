import {
  MOST_OWN_COUNTS,
  type OwnCount,
  type OwnCounted,
  type OwnCountsKept,
  type OwnList,
} from '@gravek/contract/ownView';
import { type Selectable, sql } from 'kysely';
import type { Tables, Trx } from '../database/connect';
import { badInput } from '../http/problem';

type CountRow = Selectable<Tables['own_count']>;

const asCount = (row: CountRow): OwnCount => ({
  id: row.id,
  sessionId: row.session_id,
  drillSetId: row.drill_set_id,
  side: row.side as OwnCount['side'],
  variant: row.variant,
  made: row.made,
  heldS: row.held_s,
  voids: row.voids,
  at: row.at.toISOString(),
});

/** A try as its table has it, but for when it was. */
export const countColumns = (
  counted: Omit<OwnCount, 'at'>,
  { athleteId, name }: { athleteId: string; name: string },
) => ({
  id: counted.id,
  athlete_id: athleteId,
  session_id: counted.sessionId,
  drill_set_id: counted.drillSetId,
  name,
  side: counted.side,
  variant: counted.variant,
  made: counted.made,
  held_s: counted.heldS,
  voids: counted.voids,
});

/** Every try of the club, for its file. */
export const allCounts = async (
  trx: Trx,
): Promise<(OwnCount & { athleteId: string; name: string })[]> =>
  (await trx.selectFrom('own_count').selectAll().orderBy('at').orderBy('id').execute()).map(
    (row) => ({ ...asCount(row), athleteId: row.athlete_id, name: row.name }),
  );

/** What an athlete has counted in some sessions, in the order of its moments. */
export const countsIn = async (
  trx: Trx,
  athleteId: string,
  sessionIds: readonly string[],
): Promise<OwnCount[]> => {
  if (sessionIds.length === 0) return [];
  const rows = await trx
    .selectFrom('own_count')
    .selectAll()
    .where('athlete_id', '=', athleteId)
    .where('session_id', 'in', sessionIds)
    .orderBy('at')
    .orderBy('id')
    .execute();
  return rows.map(asCount);
};

/**
 * Keeps tries of an athlete; what is there already stays as it is. What is of no list is refused by itself: the
 * coach has changed the session since.
 *
 * @param lists what the athlete may count
 */
export const storeCounts = async (
  trx: Trx,
  athleteId: string,
  lists: readonly OwnList[],
  counts: readonly OwnCount[],
): Promise<OwnCountsKept> => {
  const listOf = ({ sessionId, drillSetId }: OwnCount): OwnList | undefined =>
    lists.find((list) => list.sessionId === sessionId && list.drillSetId === drillSetId);
  const known = counts.filter((counted) => listOf(counted));
  const refused = counts.filter((counted) => !listOf(counted)).map(({ id }) => id);
  if (known.length === 0) return { refused };
  const before = await countsIn(trx, athleteId, [...new Set(lists.map((list) => list.sessionId))]);
  if (before.length + known.length > lists.length * MOST_OWN_COUNTS)
    throw badInput({ counts: 'More than anybody does was counted of this.' });
  await trx
    .insertInto('own_count')
    .values(
      known.map((counted) => ({
        ...countColumns(counted, { athleteId, name: listOf(counted)!.name }),
        // A phone’s clock may be ahead.
        at: sql<Date>`least(${counted.at}::timestamptz, now())`,
      })),
    )
    .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
    .execute();
  return { refused };
};

/** What an athlete has counted alone, by day and drill set, the newest first. */
export const countedBy = async (trx: Trx, athleteId: string): Promise<OwnCounted[]> => {
  const { rows } = await sql<OwnCounted>`
    select s.day::text as date, c.name,
      (count(*) filter (where c.made))::int as made,
      count(*)::int as tried,
      max(c.held_s) as "bestHeldS"
    from own_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    where c.club_id = gravek_club() and c.athlete_id = ${athleteId} and c.voids is null
      and not exists (select from own_count v
        where v.club_id = c.club_id and v.voids = c.id and v.athlete_id = c.athlete_id)
    group by s.day, c.session_id, c.drill_set_id, c.name
    order by s.day desc, min(c.at) desc
    limit 50`.execute(trx);
  return rows;
};
