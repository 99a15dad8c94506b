import { sql, type Kysely } from 'kysely';

/**
 * The squad asks for what came of reads, tries and holds: only the counts that have any are gone through,
 * however long the season.
 */
export const up = async (db: Kysely<unknown>): Promise<void> => {
  await sql`
    create index rep_count_reads on rep_count (club_id, movement, athlete_id) where read > 0;
    create index rep_count_results on rep_count (club_id, movement, athlete_id)
      where tried > 0 or held > 0;
  `.execute(db);
};
