import { inChunks } from '../database/chunks';
import type { Trx } from '../database/connect';
import { reviewColumns } from '../film/queries';
import { drillSetColumns } from '../sessions/drillSets';
import { sessionColumns } from '../sessions/queries';
import { each, type Loading, type MovementCheck, mustBeThere, type Piece, put } from './intoTables';

/** What the drill sets of sessions name must be there. */
const lookAtSets = async (
  trx: Trx,
  { items, at }: Piece<'sessions'>,
  movementsMustBe: MovementCheck,
): Promise<void> => {
  const sets = items.flatMap(({ drillSets }, i) =>
    drillSets.map((set, d) => ({ set, path: `${at(i)}.drillSets[${d}]` })),
  );
  await mustBeThere(
    trx,
    'ground',
    items.flatMap(({ groundId }, i) =>
      groundId === null ? [] : [{ path: `${at(i)}.groundId`, id: groundId }],
    ),
  );
  await mustBeThere(
    trx,
    'approach',
    sets.flatMap(({ set: { work }, path }) =>
      work.kind === 'plan' ? [{ path: `${path}.work.approachId`, id: work.approachId }] : [],
    ),
  );
  await mustBeThere(
    trx,
    'athlete',
    sets.flatMap(({ set, path }) =>
      set.athleteIds.map((id, a) => ({ path: `${path}.athleteIds[${a}]`, id })),
    ),
  );
  await movementsMustBe(
    sets.flatMap(({ set: { work }, path }) =>
      work.kind === 'movement' ? [{ path: `${path}.work.movement`, id: work.movement }] : [],
    ),
  );
};

export const loadSessions = async (
  loading: Loading,
  movementsMustBe: MovementCheck,
): Promise<void> => {
  const { trx } = loading;
  await each(loading, 'sessions', async (piece) => {
    const { items, at } = piece;
    await lookAtSets(trx, piece, movementsMustBe);
    await put(
      trx,
      'session',
      items.map((item) => ({
        id: item.id,
        ...sessionColumns(item),
        archived_at: awayNow(item.archived),
      })),
      at,
    );
    const sets = items.flatMap(({ id: sessionId, drillSets }, i) =>
      drillSets.map((set, d) => ({ set, d, sessionId, path: `${at(i)}.drillSets[${d}].id` })),
    );
    await inChunks(sets, (some) =>
      put(
        trx,
        'drill_set',
        some.map(({ set, d, sessionId }) => drillSetColumns(set, sessionId, d)),
        (i) => some[i]!.path,
      ),
    );
    const people = sets.flatMap(({ set }) =>
      set.athleteIds.map((athlete_id, position) => ({
        drill_set_id: set.id,
        athlete_id,
        position,
      })),
    );
    await inChunks(people, (some) => trx.insertInto('drill_set_athlete').values(some).execute());
  });
  await each(loading, 'reviews', async ({ items, at }) => {
    await mustBeThere(
      trx,
      'athlete',
      items.map(({ athleteId }, i) => ({ path: `${at(i)}.athleteId`, id: athleteId })),
    );
    await mustBeThere(
      trx,
      'approach',
      items.flatMap(({ approachId }, i) =>
        approachId === null ? [] : [{ path: `${at(i)}.approachId`, id: approachId }],
      ),
    );
    await put(
      trx,
      'review',
      items.map(({ archived, ...review }) => ({
        ...reviewColumns(review),
        archived_at: awayNow(archived),
      })),
      at,
    );
  });
};

export const awayNow = (flag: boolean | undefined) => (flag ? new Date() : null);
