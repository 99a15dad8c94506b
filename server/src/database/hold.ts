import type { Trx } from './connect';

/**
 * Holds rows until the transaction ends, always in the same order, so that two who hold several never
 * wait for each other in a ring. Sessions are held before athletes.
 *
 * @returns those of the ids that are there
 */
export const hold = async (
  trx: Trx,
  table: 'session' | 'athlete',
  ids: readonly string[],
): Promise<Set<string>> => {
  if (ids.length === 0) return new Set();
  const rows = await trx
    .selectFrom(table)
    .select('id')
    .where('id', 'in', [...new Set(ids)])
    .orderBy('id')
    .forNoKeyUpdate()
    .execute();
  return new Set(rows.map((row) => row.id));
};
