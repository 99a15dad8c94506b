import { isDeepStrictEqual } from 'node:util';
import { keptVariants } from '@gravek/core/session/variants';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Ground } from '@gravek/contract/ground';
import type { Session, SessionInput } from '@gravek/contract/session';
import { barredBy, whyBarred } from '@gravek/library/session/restrictions';
import { withoutAthletes } from '@gravek/library/session/sessionFit';
import {
  baseOf,
  demandOfSet,
  notJoined,
  variantWords,
  type Finds,
} from '@gravek/library/session/work';
import { sql } from 'kysely';
import { jsonArrayFrom, jsonObjectFrom } from 'kysely/helpers/postgres';
import { solveFor } from '../approaches/queries';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { asGround, ground } from '../grounds/queries';
import { badInput } from '../http/problem';
import { findsOf, type PlansFound } from '../approaches/finds';

/** More than anybody looks through. */
const MOST_TEMPLATES = 200;

/** Sessions with their drill sets and how much was logged in them, earliest day first. */
const sessionRows = (trx: Trx) =>
  trx
    .selectFrom('session as s')
    .selectAll('s')
    .select((eb) => [
      jsonArrayFrom(
        eb
          .selectFrom('drill_set as d')
          .select((set) => [
            'd.id',
            'd.document',
            jsonArrayFrom(
              set
                .selectFrom('drill_set_athlete as p')
                .select('p.athlete_id as id')
                .whereRef('p.club_id', '=', 'd.club_id')
                .whereRef('p.drill_set_id', '=', 'd.id')
                .orderBy('p.position'),
            ).as('athletes'),
          ])
          .whereRef('d.club_id', '=', 's.club_id')
          .whereRef('d.session_id', '=', 's.id')
          .orderBy('d.position'),
      ).as('drillSets'),
      eb
        .selectFrom('rep_count as c')
        .select(sql<number>`coalesce(sum(c.reps), 0)::int`.as('reps'))
        .whereRef('c.club_id', '=', 's.club_id')
        .whereRef('c.session_id', '=', 's.id')
        .as('logged'),
    ])
    .orderBy('s.day')
    .orderBy('s.id');

type SessionRow = Awaited<ReturnType<ReturnType<typeof sessionRows>['execute']>>[number];

const asSession = (row: SessionRow): Session => ({
  id: row.id,
  date: row.day,
  title: row.title,
  groundId: row.ground_id,
  place: row.place,
  template: row.template,
  version: row.version,
  archived: row.archived_at !== null,
  logged: row.logged ?? 0,
  drillSets: row.drillSets.map(({ id, document, athletes: people }) => ({
    ...document,
    id,
    athleteIds: people.map((person) => person.id),
  })),
});

/** Where a page of sessions ends; the next one starts after it. */
export type SessionCursor = { date: string; id: string };

/**
 * Sessions, earliest day first.
 *
 * @param which some by id; those of some days, all or a page of them; or those that others begin from
 */
export const sessions = async (
  trx: Trx,
  which:
    | { ids: readonly string[] }
    | { from: string; to: string; after?: SessionCursor | null; limit?: number }
    | 'templates',
): Promise<Session[]> => {
  let query = sessionRows(trx);
  if (which === 'templates') query = query.where('s.template', '=', true).limit(MOST_TEMPLATES);
  else if ('ids' in which) query = query.where('s.id', 'in', which.ids);
  else {
    const { from, to, after, limit } = which;
    query = query.where('s.day', '>=', from).where('s.day', '<=', to);
    if (after)
      query = query.where(sql<boolean>`(s.day, s.id) > (${after.date}::date, ${after.id}::uuid)`);
    if (limit !== undefined) query = query.limit(limit);
  }
  return (await query.execute()).map(asSession);
};

/** More names than anybody looks through in the field. */
const MOST_LATECOMERS = 500;

/** A session with its ground, and the names of all who could come to it. */
export const sessionToRun = async (
  trx: Trx,
  id: string,
): Promise<
  { session: Session; ground: Ground | null; names: { id: string; name: string }[] } | undefined
> => {
  const row = await sessionRows(trx)
    .select((eb) => [
      jsonObjectFrom(
        eb
          .selectFrom('ground as g')
          .select(['g.id', 'g.document', 'g.version', 'g.archived_at'])
          .whereRef('g.club_id', '=', 's.club_id')
          .whereRef('g.id', '=', 's.ground_id'),
      ).as('ground'),
      jsonArrayFrom(
        eb
          .selectFrom('athlete as a')
          .select(['a.id', 'a.name'])
          .whereRef('a.club_id', '=', 's.club_id')
          .where('a.archived_at', 'is', null)
          .orderBy('a.name')
          .limit(MOST_LATECOMERS),
      ).as('names'),
    ])
    .where('s.id', '=', id)
    .executeTakeFirst();
  return (
    row && { session: asSession(row), ground: row.ground && asGround(row.ground), names: row.names }
  );
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
  { finds, people }: { finds: Finds; people: readonly Athlete[] },
): Promise<Record<string, string>> => {
  const personBy = new Map(people.map((person) => [person.id, person]));
  const fields = withoutAthletes(drillSets, before?.drillSets);
  const beforeBy = new Map(before?.drillSets.map((set) => [set.id, set]));
  const unsure = drillSets.filter(
    ({ id, work }) => !isDeepStrictEqual(beforeBy.get(id)?.work, work),
  );
  const stored = await setsThere(
    trx,
    unsure.map((set) => set.id),
  );
  const there = new Map(stored.map((set) => [set.id, set]));
  drillSets.forEach((set, i) => {
    const old = beforeBy.get(set.id);
    const already = new Set(old?.athleteIds);
    const kept = there.get(set.id);
    if (drillSets.findIndex((other) => other.id === set.id) !== i) {
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
      const person = personBy.get(athleteId);
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
  const finds = await findsOf(trx, drillSets);
  const people = await athletes(trx, {
    ids: [...new Set(drillSets.flatMap(({ athleteIds }) => athleteIds))],
  });
  const fields = await faultsOf(trx, input, before, { finds, people });
  if (Object.keys(fields).length > 0) throw badInput(fields);

  const kept = new Set(drillSets.map((set) => set.id));
  const gone = (before?.drillSets ?? []).map((set) => set.id).filter((id) => !kept.has(id));
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
  if (drillSets.length > 0) {
    await trx
      .insertInto('drill_set')
      .values(drillSets.map((set, position) => drillSetColumns(set, input.id, position)))
      .onConflict((conflict) =>
        conflict.columns(['club_id', 'id']).doUpdateSet((eb) => ({
          session_id: eb.ref('excluded.session_id'),
          position: eb.ref('excluded.position'),
          approach_id: eb.ref('excluded.approach_id'),
          document: eb.ref('excluded.document'),
        })),
      )
      .execute();
    await trx
      .deleteFrom('drill_set_athlete')
      .where('drill_set_id', 'in', [...kept])
      .execute();
    const rows = drillSets.flatMap(({ id, athleteIds }) =>
      athleteIds.map((athlete_id, position) => ({ drill_set_id: id, athlete_id, position })),
    );
    if (rows.length > 0) await trx.insertInto('drill_set_athlete').values(rows).execute();
  }
  await solveForGuests(trx, drillSets, finds, people);
};

/** Has the approaches of a session solved for those of its athletes who are not on them yet. */
const solveForGuests = (
  trx: Trx,
  drillSets: readonly DrillSet[],
  { planOf, solvedFor }: PlansFound,
  people: readonly Athlete[],
): Promise<void> =>
  solveFor(
    trx,
    approachesOf(drillSets).map((id) => {
      const isSolved = new Set(solvedFor(id).map(({ athleteId }) => athleteId));
      const athleteIds = drillSets
        .filter((set) => approachOf(set) === id)
        .flatMap((set) => set.athleteIds)
        .filter((athleteId) => !isSolved.has(athleteId));
      return { plan: { id, ...planOf(id)! }, athleteIds: [...new Set(athleteIds)], listed: false };
    }),
    people,
  );
