import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { ClubRuleSet } from '@gravek/contract/ruleSet';
import { chainMovement } from '@gravek/library/movement/chains';
import { MOVEMENTS } from '@gravek/library/movement/movements';
import type { Selectable } from 'kysely';
import type { Tables, Trx } from '../database/connect';

/** A club's movement out of its row. */
export const asClubMovement = (
  row: Pick<
    Selectable<Tables['movement']>,
    'id' | 'based_on_code' | 'based_on_revision' | 'document' | 'version'
  > & { archived_at: unknown },
): ClubMovement => ({
  id: row.id,
  basedOn:
    row.based_on_code !== null && row.based_on_revision !== null
      ? { code: row.based_on_code, revision: row.based_on_revision }
      : null,
  movement: { ...row.document, code: row.id },
  version: row.version,
  archived: row.archived_at !== null,
});

/** The club's own movements, those put away included: plans and reps go on naming them. */
export const clubMovements = async (
  trx: Trx,
  which: { ids: readonly string[] } | 'all' = 'all',
): Promise<ClubMovement[]> => {
  if (which !== 'all' && which.ids.length === 0) return [];
  let query = trx.selectFrom('movement').selectAll().orderBy('id');
  if (which !== 'all') query = query.where('id', 'in', which.ids);
  return (await query.execute()).map(asClubMovement);
};

export const clubMovement = async (trx: Trx, id: string): Promise<ClubMovement | undefined> =>
  (await clubMovements(trx, { ids: [id] }))[0];

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Gives undefined for a movement that is not there. */
export type MovementBy = (code: string) => Movement | undefined;

/** Those of the codes that are a club's own movements. */
export const clubMovementIds = (codes: readonly string[]): string[] =>
  [...new Set(codes)].filter((code) => UUID.test(code));

/** Movements by their codes: built in, chains, or some of the club's own. */
export const movementsAmong = (clubOwn: readonly ClubMovement[]): MovementBy => {
  const allMovements = [...MOVEMENTS, ...clubOwn.map(({ movement }) => movement)];
  return (code) => allMovements.find((movement) => movement.code === code) ?? chainMovement(code);
};

/** As `movementsAmong`, with those of the club that the codes name. */
export const movementsBy = async (trx: Trx, codes: readonly string[]): Promise<MovementBy> =>
  movementsAmong(await clubMovements(trx, { ids: clubMovementIds(codes) }));

/** A movement as its row: the code of a club's movement is its id, so it is not kept twice. */
export const movementColumns = (input: Pick<ClubMovement, 'basedOn' | 'movement'>) => ({
  based_on_code: input.basedOn?.code ?? null,
  based_on_revision: input.basedOn?.revision ?? null,
  document: JSON.stringify(input.movement),
});

export const ruleSets = async (
  trx: Trx,
  which: { ids: readonly string[] } | 'all' = 'all',
): Promise<ClubRuleSet[]> => {
  let query = trx.selectFrom('rule_set').selectAll().orderBy('name').orderBy('id');
  if (which !== 'all') query = query.where('id', 'in', which.ids);
  return (await query.execute()).map((row) => ({
    id: row.id,
    name: row.name,
    note: row.note,
    rules: row.rules,
    version: row.version,
    archived: row.archived_at !== null,
  }));
};

export const ruleSet = async (trx: Trx, id: string): Promise<ClubRuleSet | undefined> =>
  (await ruleSets(trx, { ids: [id] }))[0];
