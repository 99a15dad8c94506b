import type { ClubItem, ClubList } from '@gravek/contract/clubFile';
import { WARM_UP } from '@gravek/contract/drillSet';
import { sql, type Insertable } from 'kysely';
import type { Tables, Trx } from '../database/connect';
import { movementsBy } from '../movements/queries';
import { refusal } from './refusal';
import type { Spool } from './spool';

/** A club file on its way into a club. */
export type Loading = {
  trx: Trx;
  spool: Spool;
  /** who an account of the file is here */
  accountBy: (id: string) => string;
  /** is told how many items are in the tables; null: all of them, and now they are counted */
  told: (stored: number | null) => void;
};

/** Some items of a list, and where in the file they stand. */
export type Piece<L extends ClubList> = { items: ClubItem<L>[]; at: (i: number) => string };

/** Takes a list from its beginning, piece by piece. */
export const each = async <L extends ClubList>(
  { spool, told }: Loading,
  list: L,
  take: (piece: Piece<L>) => Promise<void>,
): Promise<void> => {
  for await (const { from, items } of spool.read(list)) {
    await take({ items, at: (i) => `${list}[${from + i}]` });
    told(items.length);
  }
};

/** Tables whose rows have an id of their own within the club. */
type WithId = {
  [T in keyof Tables]: 'id' extends keyof Tables[T] ? T : never;
}[keyof Tables];

/**
 * Puts rows into a table, whose key says which of them it has already.
 *
 * @throws {StartFault} with the place of the first row whose key is there twice
 */
export const put = async <T extends WithId>(
  trx: Trx,
  table: T,
  rows: readonly (Insertable<Tables[T]> & { id: string })[],
  at: (i: number) => string,
  what = 'This id',
): Promise<void> => {
  if (rows.length === 0) return;
  const taken = await trx
    .insertInto(table as WithId)
    .values(rows as never)
    .onConflict((conflict) => conflict.doNothing())
    .returning('id')
    .execute();
  const left = new Set(taken.map((row) => row.id));
  rows.forEach(({ id }, i) => {
    if (!left.delete(id)) throw refusal({ [at(i)]: `${what} stands there twice.` });
  });
};

export type Named = { path: string; id: string };

/** @throws {StartFault} with the places that name what is not in the file */
export const mustBeThere = async (
  trx: Trx,
  table: 'athlete' | 'approach' | 'ground',
  items: readonly Named[],
): Promise<void> => {
  if (items.length === 0) return;
  const ids = [...new Set(items.map((item) => item.id))];
  const rows = await trx
    .selectFrom(table)
    .select('id')
    .where('id', '=', sql<string>`any(${ids}::uuid[])`)
    .execute();
  const here = new Set(rows.map((row) => row.id));
  const places = items.filter(({ id }) => !here.has(id));
  if (places.length === 0) return;
  throw refusal(
    Object.fromEntries(places.map(({ path }) => [path, `There is no such ${table} in the file.`])),
  );
};

/** The athletes that items name must be there. */
export const athletesOf = <L extends 'restrictions' | 'trials' | 'readings' | 'reps'>({
  items,
  at,
}: Piece<L>): Named[] =>
  (items as { athleteId: string }[]).map(({ athleteId }, i) => ({
    path: `${at(i)}.athleteId`,
    id: athleteId,
  }));

/** Which movements there are, built in or in the file; asked for once. */
export const movementCheck = (trx: Trx) => {
  const storedIds = new Set<string>([WARM_UP]);
  return async (items: readonly Named[]): Promise<void> => {
    const codes = [...new Set(items.map((item) => item.id))].filter((code) => !storedIds.has(code));
    if (codes.length === 0) return;
    const movementBy = await movementsBy(trx, codes);
    for (const code of codes) if (movementBy(code)) storedIds.add(code);
    const missing = items.find(({ id }) => !storedIds.has(id));
    if (!missing) return;
    throw refusal({
      [missing.path]: 'There is no such movement, neither built in nor in the file.',
    });
  };
};

export type MovementCheck = ReturnType<typeof movementCheck>;
