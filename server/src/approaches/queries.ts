import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { StepModel } from '@gravek/core/runup/stepModel';
import { groupBy } from '@gravek/core/session/repLog';
import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import type { Approach, ApproachSummary, SolvedApproach } from '@gravek/contract/plan';
import { straightStart } from '@gravek/library/planning/planStart';
import { mirrorOutline, outlineOf, solve, solverVersion } from '@gravek/library/planning/solvePlan';
import { sql } from 'kysely';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { badInput } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** Where a page of the list ends; the next one starts after it. */
export type ListCursor = { savedAt: string; id: string };

/**
 * Approaches as lists show them, newest first.
 *
 * @param page where the page before ended, null for the first; and how many
 */
export const summaries = async (
  trx: Trx,
  { after, limit }: { after: ListCursor | null; limit: number },
): Promise<ApproachSummary[]> => {
  let query = trx
    .selectFrom('approach')
    .selectAll()
    // A page ends at a moment that is written with all its digits.
    .select(
      sql<string>`to_char(saved_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`.as(
        'saved',
      ),
    )
    .orderBy('saved_at', 'desc')
    .orderBy('id', 'desc')
    .limit(limit);
  if (after) {
    query = query.where(
      sql<boolean>`(saved_at, id) < (${after.savedAt}::timestamptz, ${after.id}::uuid)`,
    );
  }
  const rows = await query.execute();
  if (rows.length === 0) return [];
  const solved = await trx
    .selectFrom('athlete_approach')
    .select([
      'approach_id',
      'athlete_id',
      'listed',
      sql<number | null>`(own ->> 'steps')::int`.as('steps'),
      sql<number | null>`(own ->> 'startM')::float8`.as('startM'),
      sql<number | null>`(own ->> 'totalTimeS')::float8`.as('runS'),
    ])
    .where(
      'approach_id',
      'in',
      rows.map((row) => row.id),
    )
    .orderBy('position')
    .execute();
  const byPlan = groupBy(solved, (plan) => plan.approach_id);
  return rows.map((row) => {
    const solvedFor = byPlan.get(row.id) ?? [];
    const listed = solvedFor.filter((plan) => plan.listed);
    const marks = listed.flatMap(({ startM }) => startM ?? []);
    const times = solvedFor.flatMap(({ runS }) => runS ?? []);
    return {
      id: row.id,
      name: row.name,
      movement: row.movement,
      choices: row.choices,
      athleteIds: listed.map((plan) => plan.athlete_id),
      version: row.version,
      archived: row.archived_at !== null,
      savedAt: row.saved,
      steps: listed.find((plan) => plan.steps !== null)?.steps ?? null,
      startM: marks.length > 0 ? { from: Math.min(...marks), to: Math.max(...marks) } : null,
      runS: times.length > 0 ? times.reduce((sum, s) => sum + s, 0) / times.length : null,
      misfits: listed.filter((plan) => plan.runS === null).map((plan) => plan.athlete_id),
    };
  });
};

/** Approaches with what they were solved to. */
export const approaches = async (trx: Trx, ids: readonly string[]): Promise<Approach[]> => {
  if (ids.length === 0) return [];
  const rows = await trx
    .selectFrom('approach')
    .selectAll()
    .where('id', 'in', [...ids])
    .orderBy('id')
    .execute();
  const solved = await trx
    .selectFrom('athlete_approach')
    .selectAll()
    .where('approach_id', 'in', [...ids])
    .orderBy('position')
    .execute();
  return rows.map((row) => {
    const solvedFor = solved.filter((plan) => plan.approach_id === row.id);
    return {
      id: row.id,
      name: row.name,
      movement: row.movement,
      choices: row.choices,
      athleteIds: solvedFor.filter((plan) => plan.listed).map((plan) => plan.athlete_id),
      version: row.version,
      archived: row.archived_at !== null,
      savedAt: row.saved_at.toISOString(),
      solved: solvedFor.map((plan): SolvedApproach => ({
        athleteId: plan.athlete_id,
        model: plan.model,
        modelSource: plan.model_source,
        layout: plan.layout,
        straight: plan.straight,
        solverVersion: plan.solver_version,
        solvedAt: plan.solved_at.toISOString(),
      })),
    };
  });
};

export const approach = async (trx: Trx, id: string): Promise<Approach | undefined> =>
  (await approaches(trx, [id]))[0];

/**
 * The movement of a plan.
 *
 * @throws {ProblemError} when it is not there, or cannot be planned with such choices
 */
export const movementFor = async (trx: Trx, code: string, choices: Choices): Promise<Movement> =>
  plannable((await movementsBy(trx, [code]))(code), choices);

/** @throws {ProblemError} when a movement is not there, or cannot be planned with such choices */
const plannable = (movement: Movement | undefined, choices: Choices): Movement => {
  if (!movement) {
    throw badInput({ movement: 'This movement is not there any more; choose another.' });
  }
  if (!isSequence(choices) && !straightStart(movement)) {
    throw badInput({ movement: 'This movement has no run-up to a target to solve.' });
  }
  return movement;
};

const json = (value: object | null): string | null =>
  value === null ? null : JSON.stringify(value);

/** What a plan comes to for an athlete, as columns. */
const solvedColumns = (movement: Movement, choices: Choices, body: Body) => {
  const solved = solve(movement, choices, body);
  const outline = outlineOf(solved);
  return {
    layout: json(solved.layout),
    straight: json(solved.straight),
    own: json(outline),
    other: json(outline && mirrorOutline(outline)),
    solver_version: solverVersion(choices),
  };
};

/** By which steps a plan was solved before. */
export type KnownModel = { model: StepModel; measured: boolean };

/** A body with the steps that it had then. */
const bodyBefore = (
  body: ReturnType<typeof bodyOf>,
  { model, measured }: KnownModel,
): ReturnType<typeof bodyOf> => ({
  ...body,
  model,
  estimated: [
    ...body.estimated.filter((measure) => measure !== 'steps'),
    ...(measured ? [] : ['steps' as const]),
  ],
});

/** A plan to be solved for some athletes. */
export type SolveAsk = {
  plan: { id: string; movement: string; choices: Choices };
  athleteIds: readonly string[];
  /** the plan's own athletes, in their order; those of sessions are solved beside them */
  listed: boolean;
  /** by which steps it was solved before, by athlete; as they stand now where nothing is said */
  known?: ReadonlyMap<string, KnownModel>;
};

/**
 * Solves plans for athletes, and keeps what came out: in three statements at most, however many there are.
 *
 * @param people who are known already; the others are asked for
 * @throws {ProblemError} when an athlete or a movement is not there
 */
export const solveFor = async (
  trx: Trx,
  asks: readonly SolveAsk[],
  people: readonly Athlete[] = [],
): Promise<void> => {
  const wanted = asks.filter(({ athleteIds }) => athleteIds.length > 0);
  if (wanted.length === 0) return;
  const movementBy = await movementsBy(
    trx,
    wanted.map(({ plan }) => plan.movement),
  );
  const personBy = new Map(people.map((person) => [person.id, person]));
  const ids = new Set(wanted.flatMap(({ athleteIds }) => athleteIds));
  const others = [...ids].filter((id) => !personBy.has(id));
  for (const person of await athletes(trx, { ids: others })) personBy.set(person.id, person);
  const rows = wanted.flatMap(({ plan, athleteIds, listed, known }) => {
    const movement = plannable(movementBy(plan.movement), plan.choices);
    return athleteIds.map((athleteId, position) => {
      const person = personBy.get(athleteId);
      if (!person) throw badInput({ athleteIds: 'One of these athletes is not there any more.' });
      const before = known?.get(athleteId);
      const body = before ? bodyBefore(bodyOf(person), before) : bodyOf(person);
      return {
        approach_id: plan.id,
        athlete_id: athleteId,
        position,
        listed,
        model: JSON.stringify(body.model),
        model_source: body.estimated.includes('steps')
          ? ('estimate' as const)
          : ('measured' as const),
        ...solvedColumns(movement, plan.choices, body),
      };
    });
  });
  await trx
    .insertInto('athlete_approach')
    .values(rows)
    .onConflict((conflict) =>
      conflict.columns(['club_id', 'approach_id', 'athlete_id']).doUpdateSet((eb) => ({
        position: eb.ref('excluded.position'),
        listed: eb.ref('excluded.listed'),
        model: eb.ref('excluded.model'),
        model_source: eb.ref('excluded.model_source'),
        layout: eb.ref('excluded.layout'),
        straight: eb.ref('excluded.straight'),
        own: eb.ref('excluded.own'),
        other: eb.ref('excluded.other'),
        solver_version: eb.ref('excluded.solver_version'),
        solved_at: sql`now()`,
      })),
    )
    .execute();
};
