import type { Circuit } from '@gravek/contract/circuit';
import type { Ground } from '@gravek/contract/ground';
import type { Session, SessionInput } from '@gravek/contract/session';
import { sql } from 'kysely';
import { jsonArrayFrom, jsonObjectFrom } from 'kysely/helpers/postgres';
import type { Trx } from '../database/connect';
import { asGround, ground } from '../grounds/queries';
import { badInput } from '../http/problem';

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

/** Groups without those who were deleted since: they are in no drill set any more. */
const groupsThere = ({ circuit, drillSets }: SessionRow): Circuit | undefined => {
  if (!circuit) return undefined;
  const there = new Set(drillSets.flatMap((set) => set.athletes.map(({ id }) => id)));
  const groups = circuit.groups.map((group) => ({
    ...group,
    athleteIds: group.athleteIds.filter((id) => there.has(id)),
  }));
  return { ...circuit, groups };
};

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
  circuit: groupsThere(row),
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
  session: Pick<SessionInput, 'date' | 'title' | 'groundId' | 'place' | 'template' | 'circuit'>,
) => ({
  day: session.date,
  title: session.title,
  ground_id: session.groundId,
  place: session.place,
  template: session.template,
  circuit: session.circuit ? JSON.stringify(session.circuit) : null,
});

export const session = async (trx: Trx, id: string): Promise<Session | undefined> =>
  (await sessions(trx, { ids: [id] }))[0];

/** @throws {ProblemError} when a session is to be on a ground that is not there */
export const mustHaveGround = async (trx: Trx, groundId: string | null): Promise<void> => {
  if (groundId !== null && !(await ground(trx, groundId))) {
    throw badInput({ groundId: 'This ground is not there any more; choose another.' });
  }
};
