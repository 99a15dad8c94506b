import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { repsOfAthlete } from '../reps/queries';
import { athlete, isTrial, measurement, restriction } from '../athletes/queries';

/** Ids of rows of an athlete, those that were taken out included, each with whether it was. */
const rowsOf = async (trx: Trx, table: 'measurement' | 'restriction', athleteId: string) =>
  trx
    .selectFrom(table)
    .select(['id', 'removed_at'])
    .where('athlete_id', '=', athleteId)
    .orderBy('id')
    .execute();

/** Rows with what they are called, whatever was put away since. */
const named = async (trx: Trx, table: 'approach' | 'session', ids: readonly string[]) => {
  if (ids.length === 0) return [];
  const unique = [...new Set(ids)];
  return table === 'approach'
    ? trx
        .selectFrom('approach')
        .select(['id', 'name', 'movement'])
        .where('id', 'in', unique)
        .orderBy('id')
        .execute()
    : trx
        .selectFrom('session')
        .leftJoin('ground', (join) =>
          join
            .onRef('ground.club_id', '=', 'session.club_id')
            .onRef('ground.id', '=', 'session.ground_id'),
        )
        .select([
          'session.id',
          'title as name',
          'day',
          sql<string>`coalesce(ground.document ->> 'name', place)`.as('place'),
        ])
        .where('session.id', 'in', unique)
        .orderBy('day')
        .orderBy('session.id')
        .execute();
};

/**
 * Everything that is held about one athlete, put away or not: measures, restrictions, plans with the
 * names they have, sessions, every row of the log with its faults, and what was counted from them.
 */
export const everythingOf = async (trx: Trx, athleteId: string) => {
  const measurements = [];
  for (const { id, removed_at } of await rowsOf(trx, 'measurement', athleteId)) {
    measurements.push({ ...(await measurement(trx, id))!, takenOut: removed_at !== null });
  }
  const restrictions = [];
  for (const { id, removed_at } of await rowsOf(trx, 'restriction', athleteId)) {
    restrictions.push({ ...(await restriction(trx, id))!, takenOut: removed_at !== null });
  }
  const plans = await trx
    .selectFrom('athlete_approach')
    .selectAll()
    .where('athlete_id', '=', athleteId)
    .orderBy('approach_id')
    .execute();
  const listed = await trx
    .selectFrom('drill_set_athlete as x')
    .innerJoin('drill_set as d', (join) =>
      join.onRef('d.club_id', '=', 'x.club_id').onRef('d.id', '=', 'x.drill_set_id'),
    )
    .select(['d.session_id as sessionId'])
    .where('x.athlete_id', '=', athleteId)
    .execute();
  const reps = await repsOfAthlete(trx, athleteId);
  const counts = await trx
    .selectFrom('rep_count')
    .selectAll()
    .where('athlete_id', '=', athleteId)
    .execute();
  const cues = await trx
    .selectFrom('cue_choice')
    .selectAll()
    .where('athlete_id', '=', athleteId)
    .orderBy('made_at')
    .execute();
  const rungs = await trx
    .selectFrom('rung_choice')
    .selectAll()
    .where('athlete_id', '=', athleteId)
    .orderBy('made_at')
    .execute();
  const {
    trials: _trials,
    readings: _readings,
    restrictions: _own,
    ...person
  } = (await athlete(trx, athleteId))!;
  return {
    athlete: person,
    trials: measurements.filter(isTrial),
    readings: measurements.filter((measurement) => !isTrial(measurement)),
    restrictions,
    plans,
    approaches: await named(
      trx,
      'approach',
      plans.map((plan) => plan.approach_id),
    ),
    sessions: await named(trx, 'session', [
      ...reps.map((rep) => rep.sessionId),
      ...listed.map((session) => session.sessionId),
    ]),
    reps,
    counts,
    cues,
    rungs,
    reviews: await trx
      .selectFrom('review')
      .selectAll()
      .where('athlete_id', '=', athleteId)
      .orderBy('taken_on')
      .execute(),
  };
};
