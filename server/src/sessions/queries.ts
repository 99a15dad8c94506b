import type { DrillSet, Session, SessionInput } from '@gravek/contract';
import { barredBy, whyBarred } from '@gravek/library';
import { sql } from 'kysely';
import { approaches, solveFor } from '../approaches/queries';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { badInput } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** Sessions with their drill sets, earliest day first. */
export const sessions = async (
  trx: Trx,
  which: { ids: readonly string[] } | { from: string; to: string },
): Promise<Session[]> => {
  let query = trx.selectFrom('session').selectAll().orderBy('day').orderBy('id');
  if ('ids' in which) query = query.where('id', 'in', which.ids);
  else query = query.where('day', '>=', which.from).where('day', '<=', which.to);
  const rows = await query.execute();
  if (rows.length === 0) return [];
  const sessionIds = rows.map((row) => row.id);
  const sets = await trx
    .selectFrom('drill_set')
    .selectAll()
    .where('session_id', 'in', sessionIds)
    .orderBy('position')
    .execute();
  const people =
    sets.length === 0
      ? []
      : await trx
          .selectFrom('drill_set_athlete')
          .selectAll()
          .where(
            'drill_set_id',
            'in',
            sets.map((set) => set.id),
          )
          .orderBy('position')
          .execute();
  const logged = await trx
    .selectFrom('rep')
    .select(['session_id', sql<number>`count(*)::int`.as('reps')])
    .where('session_id', 'in', sessionIds)
    .where('outcome', 'in', ['clean', 'fault'])
    .where(({ not, exists, selectFrom }) =>
      not(exists(selectFrom('rep as v').select('v.id').whereRef('v.voids', '=', 'rep.id'))),
    )
    .groupBy('session_id')
    .execute();
  const loggedOf = new Map(logged.map((row) => [row.session_id, row.reps]));
  return rows.map((row) => ({
    id: row.id,
    date: row.day,
    title: row.title,
    place: row.place,
    version: row.version,
    archived: row.archived_at !== null,
    logged: loggedOf.get(row.id) ?? 0,
    drillSets: sets
      .filter((set) => set.session_id === row.id)
      .map((set) => ({
        id: set.id,
        approachId: set.approach_id,
        athleteIds: people
          .filter((one) => one.drill_set_id === set.id)
          .map((one) => one.athlete_id),
        sets: set.sets,
        reps: set.reps,
        sides: set.sides,
        restS: set.rest_s,
        setRestS: set.set_rest_s,
      })),
  }));
};

export const session = async (trx: Trx, id: string): Promise<Session | undefined> =>
  (await sessions(trx, { ids: [id] }))[0];

/** A drill set as its row; its athletes have rows of their own. */
export const drillSetColumns = (set: DrillSet, sessionId: string, position: number) => ({
  id: set.id,
  session_id: sessionId,
  position,
  approach_id: set.approachId,
  sets: set.sets,
  reps: set.reps,
  sides: set.sides,
  rest_s: set.restS,
  set_rest_s: set.setRestS,
});

/** Reasons why a drill set cannot be as asked, by field. */
const faultsOf = async (
  trx: Trx,
  { drillSets, date }: Pick<SessionInput, 'drillSets' | 'date'>,
  before: Session | undefined,
): Promise<Record<string, string>> => {
  const plans = new Map(
    (await approaches(trx, { ids: drillSets.map((set) => set.approachId) })).map((one) => [
      one.id,
      one,
    ]),
  );
  const people = new Map(
    (await athletes(trx, { ids: drillSets.flatMap((set) => set.athleteIds) })).map((one) => [
      one.id,
      one,
    ]),
  );
  const movementBy = await movementsBy(
    trx,
    [...plans.values()].map((one) => one.movement),
  );
  const fields: Record<string, string> = {};
  drillSets.forEach((set, i) => {
    const already = new Set(before?.drillSets.find((one) => one.id === set.id)?.athleteIds);
    if (!plans.has(set.approachId)) {
      fields[`drillSets[${i}].approachId`] = 'This approach is not there any more; choose another.';
    }
    for (const athleteId of set.athleteIds) {
      const person = people.get(athleteId);
      if (!person) {
        fields[`drillSets[${i}].athleteIds`] = 'One of these athletes is not there any more.';
      } else if (person.archived && !already.has(athleteId)) {
        fields[`drillSets[${i}].athleteIds`] =
          `${person.name} is archived; take them out or bring them back first.`;
      } else if (plans.has(set.approachId) && !already.has(athleteId)) {
        const movement = movementBy(plans.get(set.approachId)!.movement);
        const barred = movement && barredBy(movement, person.restrictions, date);
        if (barred) {
          fields[`drillSets[${i}].athleteIds`] = whyBarred(person.name, barred);
        }
      }
    }
  });
  return fields;
};

/**
 * Stores the drill sets of a session as asked: new ones are added, known ones changed, missing ones
 * taken out, and every athlete gets the approach solved.
 *
 * @throws {ProblemError} naming the drill set that cannot be as asked; one with reps cannot go
 */
export const storeDrillSets = async (
  trx: Trx,
  input: SessionInput,
  before: Session | undefined,
): Promise<void> => {
  const drillSets = input.drillSets;
  const fields = await faultsOf(trx, input, before);
  if (Object.keys(fields).length > 0) throw badInput(fields);

  const kept = new Set(drillSets.map((set) => set.id));
  const gone = (before?.drillSets ?? []).map((set) => set.id).filter((one) => !kept.has(one));
  if (gone.length > 0) {
    const used = await trx
      .selectFrom('rep')
      .select('id')
      .where('drill_set_id', 'in', gone)
      .limit(1)
      .executeTakeFirst();
    if (used) {
      throw badInput({
        drillSets: 'A drill set with logged reps cannot be taken out; its reps would be lost.',
      });
    }
    await trx.deleteFrom('drill_set').where('id', 'in', gone).execute();
  }
  for (const [position, set] of drillSets.entries()) {
    const columns = drillSetColumns(set, input.id, position);
    await trx
      .insertInto('drill_set')
      .values(columns)
      .onConflict((conflict) =>
        conflict
          .columns(['club_id', 'id'])
          .doUpdateSet(columns)
          .where('drill_set.session_id', '=', input.id),
      )
      .execute();
    await trx.deleteFrom('drill_set_athlete').where('drill_set_id', '=', set.id).execute();
    await trx
      .insertInto('drill_set_athlete')
      .values(
        set.athleteIds.map((athlete_id, place) => ({
          drill_set_id: set.id,
          athlete_id,
          position: place,
        })),
      )
      .execute();
  }
  for (const plan of await approaches(trx, { ids: drillSets.map((set) => set.approachId) })) {
    const wanted = drillSets
      .filter((set) => set.approachId === plan.id)
      .flatMap((set) => set.athleteIds);
    const missing = [...new Set(wanted)].filter((one) => !plan.athleteIds.includes(one));
    await solveFor(trx, plan, missing);
  }
};
