import { isDeepStrictEqual } from 'node:util';
import { groupBy, keptVariants } from '@gravek/core';
import type { DrillSet, Session, SessionInput } from '@gravek/contract';
import {
  barredBy,
  baseOf,
  demandOfSet,
  notJoined,
  variantWords,
  whyBarred,
  withoutAthletes,
  type Finds,
} from '@gravek/library';
import { sql, type Selectable } from 'kysely';
import { solveFor } from '../approaches/queries';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import type { Tables } from '../database/tables';
import { ground } from '../grounds/queries';
import { badInput } from '../http/problem';
import { movementsBy } from '../movements/queries';

/** More than anybody looks through. */
const MOST_TEMPLATES = 200;

/**
 * Sessions put together from their rows, in the order of the rows.
 *
 * Invariant: no row is looked at more than a few times, however many there are.
 */
export const assembled = ({
  rows,
  sets,
  people,
  logged,
}: {
  rows: readonly Selectable<Tables['session']>[];
  sets: readonly Selectable<Tables['drill_set']>[];
  people: readonly Selectable<Tables['drill_set_athlete']>[];
  /** reps of each session */
  logged: ReadonlyMap<string, number>;
}): Session[] => {
  const setsOf = groupBy(sets, (set) => set.session_id);
  const peopleOf = groupBy(people, (person) => person.drill_set_id);
  return rows.map((row) => ({
    id: row.id,
    date: row.day,
    title: row.title,
    groundId: row.ground_id,
    place: row.place,
    template: row.template,
    version: row.version,
    archived: row.archived_at !== null,
    logged: logged.get(row.id) ?? 0,
    drillSets: (setsOf.get(row.id) ?? []).map((set) => ({
      ...set.document,
      id: set.id,
      athleteIds: (peopleOf.get(set.id) ?? []).map((person) => person.athlete_id),
    })),
  }));
};

/** Sessions with their drill sets, earliest day first. */
export const sessions = async (
  trx: Trx,
  which: { ids: readonly string[] } | { from: string; to: string } | 'templates',
): Promise<Session[]> => {
  let query = trx.selectFrom('session').selectAll().orderBy('day').orderBy('id');
  if (which === 'templates') query = query.where('template', '=', true).limit(MOST_TEMPLATES);
  else if ('ids' in which) query = query.where('id', 'in', which.ids);
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
    .selectFrom('rep_count')
    .select(['session_id', sql<number>`sum(reps)::int`.as('reps')])
    .where('session_id', 'in', sessionIds)
    .groupBy('session_id')
    .execute();
  return assembled({
    rows,
    sets,
    people,
    logged: new Map(logged.map((row) => [row.session_id, row.reps])),
  });
};

export const sessionColumns = (
  session: Pick<SessionInput, 'date' | 'title' | 'groundId' | 'place' | 'template'>,
) => ({
  day: session.date,
  title: session.title,
  ground_id: session.groundId,
  place: session.place,
  template: session.template,
});

export const session = async (trx: Trx, id: string): Promise<Session | undefined> =>
  (await sessions(trx, { ids: [id] }))[0];

/** @throws {ProblemError} when a session is to be on a ground that is not there */
export const mustHaveGround = async (trx: Trx, groundId: string | null): Promise<void> => {
  if (groundId !== null && !(await ground(trx, groundId))) {
    throw badInput({ groundId: 'This ground is not there any more; choose another.' });
  }
};

/** A drill set as its row; its athletes have rows of their own. */
export const drillSetColumns = (set: DrillSet, sessionId: string, position: number) => {
  const { id, athleteIds: _athletes, ...document } = set;
  return {
    id,
    session_id: sessionId,
    position,
    approach_id: approachOf(set),
    document: JSON.stringify(document),
  };
};

/** The plan that a drill set runs; null where it runs none. */
const approachOf = ({ work }: Pick<DrillSet, 'work'>): string | null =>
  work.kind === 'plan' ? work.approachId : null;

const approachesOf = (drillSets: readonly DrillSet[]): string[] => [
  ...new Set(drillSets.flatMap((set) => approachOf(set) ?? [])),
];

/** What a session needs of the approaches that it runs. */
const plansBy = async (trx: Trx, ids: readonly string[]) =>
  ids.length === 0
    ? []
    : trx
        .selectFrom('approach')
        .select(['id', 'name', 'movement', 'choices'])
        .where('id', 'in', [...ids])
        .execute();

/** Drill sets with the session that holds them and whether reps were logged in them. */
const setsThere = async (trx: Trx, ids: readonly string[]) =>
  ids.length === 0
    ? []
    : trx
        .selectFrom('drill_set as d')
        .select((eb) => [
          'd.id',
          'd.session_id as sessionId',
          'd.document as document',
          eb
            .exists(
              eb
                .selectFrom('rep as r')
                .select('r.id')
                .whereRef('r.club_id', '=', 'd.club_id')
                .whereRef('r.drill_set_id', '=', 'd.id'),
            )
            .as('hasReps'),
        ])
        .where('d.id', 'in', [...ids])
        .execute();

/** Reasons why a drill set cannot be as asked, by field. */
const faultsOf = async (
  trx: Trx,
  { id: sessionId, drillSets, date }: SessionInput,
  before: Session | undefined,
): Promise<Record<string, string>> => {
  const plans = new Map((await plansBy(trx, approachesOf(drillSets))).map((one) => [one.id, one]));
  const people = new Map(
    (await athletes(trx, { ids: drillSets.flatMap((set) => set.athleteIds) })).map((one) => [
      one.id,
      one,
    ]),
  );
  const movementOf = await movementsBy(trx, [
    ...[...plans.values()].map((one) => one.movement),
    ...drillSets.flatMap(({ work }) => (work.kind === 'movement' ? [work.movement] : [])),
  ]);
  const finds: Finds = { planOf: (id) => plans.get(id), movementOf };
  const fields = withoutAthletes(drillSets, before?.drillSets);
  const there = new Map(
    (
      await setsThere(
        trx,
        drillSets.map((set) => set.id),
      )
    ).map((one) => [one.id, one]),
  );
  drillSets.forEach((set, i) => {
    const old = before?.drillSets.find((one) => one.id === set.id);
    const already = new Set(old?.athleteIds);
    const kept = there.get(set.id);
    if (drillSets.findIndex((one) => one.id === set.id) !== i) {
      fields[`drillSets[${i}].id`] = 'This drill set is in the session twice.';
    } else if (kept && kept.sessionId !== sessionId) {
      fields[`drillSets[${i}].id`] =
        'This drill set belongs to another session; add it here as a new one.';
    }
    const path = `drillSets[${i}]`;
    if (kept?.hasReps && !isDeepStrictEqual(kept.document.work, set.work)) {
      fields[`${path}.work`] =
        'Reps of this drill set have been logged, so what is done stays. Add another drill set for the other.';
    }
    const base = baseOf(set.work, finds);
    if (!base) {
      fields[`${path}.work`] =
        set.work.kind === 'plan'
          ? 'This approach is not there any more; choose another.'
          : 'This movement is not there any more; choose another.';
    }
    if (keptVariants(set).length === 0) {
      fields[`${path}.struck`] = 'Every combination is struck out; leave at least one.';
    }
    const [apart] = base ? notJoined(base, set) : [];
    if (apart) {
      fields[`${path}.struck`] =
        `${variantWords(base!, apart.variant).join(', ')}: ${apart.why} Strike it out.`;
    }
    const asked = base ? demandOfSet(base, set) : [];
    for (const athleteId of set.athleteIds) {
      const person = people.get(athleteId);
      if (!person) {
        fields[`${path}.athleteIds`] = 'One of these athletes is not there any more.';
      } else if (person.archived && !already.has(athleteId)) {
        fields[`${path}.athleteIds`] =
          `${person.name} is archived; take them out or bring them back first.`;
      } else if (!already.has(athleteId)) {
        const barred = barredBy(asked, person.restrictions, date);
        if (barred) fields[`${path}.athleteIds`] = whyBarred(person.name, barred);
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
      .onConflict((conflict) => conflict.columns(['club_id', 'id']).doUpdateSet(columns))
      .execute();
    await trx.deleteFrom('drill_set_athlete').where('drill_set_id', '=', set.id).execute();
    if (set.athleteIds.length === 0) continue;
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
  await solveForGuests(trx, drillSets);
};

/** Has the approaches of a session solved for those of its athletes who are not on them yet. */
const solveForGuests = async (trx: Trx, drillSets: readonly DrillSet[]): Promise<void> => {
  const ids = approachesOf(drillSets);
  if (ids.length === 0) return;
  const solved = await trx
    .selectFrom('athlete_approach')
    .select(['approach_id', 'athlete_id'])
    .where('approach_id', 'in', ids)
    .execute();
  for (const plan of await plansBy(trx, ids)) {
    const have = new Set(
      solved.filter((one) => one.approach_id === plan.id).map((one) => one.athlete_id),
    );
    const wanted = drillSets
      .filter((set) => approachOf(set) === plan.id)
      .flatMap((set) => set.athleteIds);
    await solveFor(
      trx,
      plan,
      [...new Set(wanted)].filter((one) => !have.has(one)),
      false,
    );
  }
};
