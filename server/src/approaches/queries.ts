import { currentModel, SOLVER_VERSION, solveStraight } from '@gravek/core';
import {
  straightAsk,
  type Approach,
  type ApproachSummary,
  type SolvedApproach,
  type StraightChoices,
} from '@gravek/contract';
import { sql } from 'kysely';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { badInput } from '../http/problem';

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
      movement: row.movement as ApproachSummary['movement'],
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
 * Solves an approach for athletes by their steps as they stand, and keeps what came out.
 *
 * @throws {ProblemError} when an athlete is not there
 */
export const solveFor = async (
  trx: Trx,
  approachId: string,
  choices: StraightChoices,
  athleteIds: readonly string[],
): Promise<void> => {
  if (athleteIds.length === 0) return;
  const found = new Map((await athletes(trx, { ids: athleteIds })).map((one) => [one.id, one]));
  const rows = athleteIds.map((athleteId, position) => {
    const person = found.get(athleteId);
    if (!person) throw badInput({ athleteIds: 'One of these athletes is not there any more.' });
    const { model, source } = currentModel(person);
    return {
      approach_id: approachId,
      athlete_id: athleteId,
      position,
      model: JSON.stringify(model),
      model_source: source,
      result: JSON.stringify(
        solveStraight(straightAsk(choices, { takeoffFoot: person.takeoffFoot }, model)),
      ),
      solver_version: SOLVER_VERSION,
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
