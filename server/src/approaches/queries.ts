import { bodyOf, LAYOUT_VERSION, SOLVER_VERSION } from '@gravek/core';
import {
  isSequence,
  type Approach,
  type Choices,
  type Movement,
  type SolvedApproach,
} from '@gravek/contract';
import { solvePlan, straightStart } from '@gravek/library';
import { sql } from 'kysely';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { badInput } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** Approaches with what they were solved to, newest first. */
export const approaches = async (
  trx: Trx,
  which: { ids: readonly string[] } | 'all',
): Promise<Approach[]> => {
  if (which !== 'all' && which.ids.length === 0) return [];
  let query = trx.selectFrom('approach').selectAll().orderBy('saved_at', 'desc').orderBy('id');
  if (which !== 'all') query = query.where('id', 'in', which.ids);
  const rows = await query.execute();
  if (rows.length === 0) return [];
  const solved = await trx
    .selectFrom('athlete_approach')
    .selectAll()
    .where(
      'approach_id',
      'in',
      rows.map((row) => row.id),
    )
    .orderBy('position')
    .execute();
  return rows.map((row) => {
    const own = solved.filter((one) => one.approach_id === row.id);
    return {
      id: row.id,
      name: row.name,
      movement: row.movement,
      choices: row.choices,
      athleteIds: own.map((one) => one.athlete_id),
      version: row.version,
      archived: row.archived_at !== null,
      savedAt: row.saved_at.toISOString(),
      solved: own.map((one): SolvedApproach => ({
        athleteId: one.athlete_id,
        model: one.model,
        modelSource: one.model_source,
        result: one.result,
        solverVersion: one.solver_version,
        solvedAt: one.solved_at.toISOString(),
      })),
    };
  });
};

export const approach = async (trx: Trx, id: string): Promise<Approach | undefined> =>
  (await approaches(trx, { ids: [id] }))[0];

/**
 * The movement of a plan.
 *
 * @throws {ProblemError} when it is not there, or cannot be planned with such choices
 */
export const movementFor = async (trx: Trx, code: string, choices: Choices): Promise<Movement> => {
  const movement = (await movementsBy(trx, [code]))(code);
  if (!movement) {
    throw badInput({ movement: 'This movement is not there any more; choose another.' });
  }
  if (!isSequence(choices) && !straightStart(movement)) {
    throw badInput({ movement: 'This movement has no run-up to a target to solve.' });
  }
  return movement;
};

/**
 * Solves an approach for athletes by their measures as they stand, and keeps what came out.
 *
 * @throws {ProblemError} when an athlete or the movement is not there
 */
export const solveFor = async (
  trx: Trx,
  { id: approachId, movement: code, choices }: { id: string; movement: string; choices: Choices },
  athleteIds: readonly string[],
): Promise<void> => {
  if (athleteIds.length === 0) return;
  const movement = await movementFor(trx, code, choices);
  const found = new Map((await athletes(trx, { ids: athleteIds })).map((one) => [one.id, one]));
  const rows = athleteIds.map((athleteId, position) => {
    const person = found.get(athleteId);
    if (!person) throw badInput({ athleteIds: 'One of these athletes is not there any more.' });
    const body = bodyOf(person);
    return {
      approach_id: approachId,
      athlete_id: athleteId,
      position,
      model: JSON.stringify(body.model),
      model_source: body.estimated.includes('steps')
        ? ('estimate' as const)
        : ('measured' as const),
      result: JSON.stringify(solvePlan(movement, choices, body)),
      solver_version: isSequence(choices) ? LAYOUT_VERSION : SOLVER_VERSION,
    };
  });
  await trx
    .insertInto('athlete_approach')
    .values(rows)
    .onConflict((conflict) =>
      conflict.columns(['club_id', 'approach_id', 'athlete_id']).doUpdateSet((eb) => ({
        position: eb.ref('excluded.position'),
        model: eb.ref('excluded.model'),
        model_source: eb.ref('excluded.model_source'),
        result: eb.ref('excluded.result'),
        solver_version: eb.ref('excluded.solver_version'),
        solved_at: sql`now()`,
      })),
    )
    .execute();
};
