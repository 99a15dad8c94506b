import type { Review, ReviewInput, ReviewLine } from '@gravek/contract/watched';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';

/** One film held against a plan, with all that was marked in it. */
export const review = async (trx: Trx, id: string): Promise<Review | undefined> => {
  const row = await trx.selectFrom('review').selectAll().where('id', '=', id).executeTakeFirst();
  return (
    row && {
      ...row.document,
      id: row.id,
      athleteId: row.athlete_id,
      approachId: row.approach_id,
      takenOn: row.taken_on,
      version: row.version,
      archived: row.archived_at !== null,
    }
  );
};

/** Where a page of the list ends; the next one starts after it. */
export type ReviewCursor = { takenOn: string; id: string };

/**
 * Reviews as lists show them, newest first; those put away are left out.
 *
 * @param page where the page before ended, null for the first; and how many
 */
export const reviewLines = async (
  trx: Trx,
  { after, limit }: { after: ReviewCursor | null; limit: number },
): Promise<ReviewLine[]> => {
  let query = trx
    .selectFrom('review')
    .select([
      'id',
      'athlete_id as athleteId',
      'taken_on as takenOn',
      sql<string>`document ->> 'movement'`.as('movement'),
      sql<string>`document -> 'film' ->> 'name'`.as('film'),
      sql<number>`jsonb_array_length(document -> 'contacts')`.as('contacts'),
      sql<string[]>`document -> 'faults'`.as('faults'),
    ])
    .where('archived_at', 'is', null)
    .orderBy('taken_on', 'desc')
    .orderBy('id', 'desc')
    .limit(limit);
  if (after) {
    query = query.where(sql<boolean>`(taken_on, id) < (${after.takenOn}::date, ${after.id}::uuid)`);
  }
  return query.execute();
};

/** Every review, those put away included, by when its film was taken. */
export const reviewIds = async (trx: Trx): Promise<string[]> =>
  (
    await trx
      .selectFrom('review')
      .select('id')
      .where(sql<boolean>`club_id = gravek_club()`)
      .orderBy('taken_on')
      .orderBy('id')
      .execute()
  ).map((row) => row.id);

export const reviewColumns = ({
  athleteId,
  approachId,
  takenOn,
  id,
  ...document
}: ReviewInput) => ({
  id,
  athlete_id: athleteId,
  approach_id: approachId,
  taken_on: takenOn,
  document: JSON.stringify(document),
});
