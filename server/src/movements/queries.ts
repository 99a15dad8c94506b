import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { ClubRuleSet } from '@gravek/contract/ruleSet';
import { chainMovement } from '@gravek/library/movement/chains';
import { MOVEMENTS } from '@gravek/library/movement/movements';
import type { Trx } from '../database/connect';

/** The club's own movements, those put away included: plans and reps go on naming them. */
export const clubMovements = async (
  trx: Trx,
  which: { ids: readonly string[] } | 'all' = 'all',
): Promise<ClubMovement[]> => {
  if (which !== 'all' && which.ids.length === 0) return [];
  let query = trx.selectFrom('movement').selectAll().orderBy('id');
  if (which !== 'all') query = query.where('id', 'in', which.ids);
  return (await query.execute()).map((row) => ({
    id: row.id,
    basedOn:
      row.based_on_code !== null && row.based_on_revision !== null
        ? { code: row.based_on_code, revision: row.based_on_revision }
        : null,
    movement: { ...row.document, code: row.id },
    version: row.version,
    archived: row.archived_at !== null,
  }));
};

export const clubMovement = async (trx: Trx, id: string): Promise<ClubMovement | undefined> =>
  (await clubMovements(trx, { ids: [id] }))[0];

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/**
 * Movements by their codes: built in, chains, or the club's own.
 *
 * @returns a function that gives undefined for one that is not there
 */
export const movementsBy = async (
  trx: Trx,
  codes: readonly string[],
): Promise<(code: string) => Movement | undefined> => {
  const ids = [...new Set(codes)].filter((code) => UUID.test(code));
  const clubOwn = (await clubMovements(trx, { ids })).map((movement) => movement.movement);
  return (code) =>
    [...MOVEMENTS, ...clubOwn].find((movement) => movement.code === code) ?? chainMovement(code);
};

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
