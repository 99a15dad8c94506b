import type {
  Athlete,
  AthleteFields,
  AthletePlan,
  ReadingRow,
  Restriction,
  Trial,
} from '@gravek/contract';
import { isMinor } from '@gravek/core';
import { sql, type Selectable } from 'kysely';
import type { Trx } from '../database/connect';
import type { Tables } from '../database/tables';
import { notFound } from '../http/problem';

export const mustAthlete = async (trx: Trx, id: string): Promise<void> => {
  const there = await trx.selectFrom('athlete').select('id').where('id', '=', id).execute();
  if (there.length === 0) throw notFound('athlete');
};

export const athleteColumns = (fields: AthleteFields) => ({
  name: fields.name,
  squad: fields.squad,
  hand: fields.hand,
  takeoff_foot: fields.takeoffFoot,
  shoe_m: fields.shoeM,
  height_m: fields.heightM,
  leg_m: fields.legM,
  birth_year: fields.birthYear,
  born_on: fields.bornOn,
  positions: fields.positions,
});

const byAthlete = <T extends { athleteId: string }>(rows: readonly T[]): Map<string, T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.athleteId);
    if (group) group.push(row);
    else groups.set(row.athleteId, [row]);
  }
  return groups;
};

/** A row for each measured run and each other test. */
export const measurementColumns = (one: Trial | ReadingRow) => ({
  id: one.id,
  athlete_id: one.athleteId,
  kind: 'steps' in one ? ('trial' as const) : ('reading' as const),
  taken_on: one.takenOn,
  source: one.source,
  note: one.note,
  payload: JSON.stringify('steps' in one ? { steps: one.steps } : one.reading),
});

/** A measurement out of its row. */
const asMeasurement = ({
  id,
  athlete_id: athleteId,
  taken_on: takenOn,
  source,
  note,
  payload,
}: Pick<
  Selectable<Tables['measurement']>,
  'id' | 'athlete_id' | 'taken_on' | 'source' | 'note' | 'payload'
>): Trial | ReadingRow => {
  const own = { id, athleteId, takenOn, source, note };
  return 'kind' in payload ? { ...own, reading: payload } : { ...own, steps: payload.steps };
};

export const isTrial = (one: Trial | ReadingRow): one is Trial => 'steps' in one;

/** One measurement, taken out or not. */
export const measurement = async (
  trx: Trx,
  id: string,
): Promise<Trial | ReadingRow | undefined> => {
  const row = await trx
    .selectFrom('measurement')
    .selectAll()
    .where('id', '=', id)
    .executeTakeFirst();
  return row && asMeasurement(row);
};

const measurementsOf = async (
  trx: Trx,
  ids: readonly string[],
): Promise<{ trials: Trial[]; readings: ReadingRow[] }> => {
  const rows = await trx
    .selectFrom('measurement')
    .select(['id', 'athlete_id', 'taken_on', 'source', 'note', 'payload'])
    .where('athlete_id', 'in', ids)
    .where('removed_at', 'is', null)
    .orderBy('taken_on', 'desc')
    .orderBy('id', 'desc')
    .execute();
  const all = rows.map(asMeasurement);
  return {
    trials: all.filter(isTrial),
    readings: all.filter((one): one is ReadingRow => !isTrial(one)),
  };
};

const asRestriction = (
  row: Pick<
    Selectable<Tables['restriction']>,
    'id' | 'athlete_id' | 'kind' | 'from_day' | 'until_day' | 'share' | 'note'
  >,
): Restriction => ({
  id: row.id,
  athleteId: row.athlete_id,
  kind: row.kind,
  from: row.from_day,
  until: row.until_day,
  share: row.share,
  note: row.note,
});

export const restrictionColumns = (one: Restriction) => ({
  id: one.id,
  athlete_id: one.athleteId,
  kind: one.kind,
  from_day: one.from,
  until_day: one.until,
  share: one.share,
  note: one.note,
});

/** One restriction, taken out or not. */
export const restriction = async (trx: Trx, id: string): Promise<Restriction | undefined> => {
  const row = await trx
    .selectFrom('restriction')
    .selectAll()
    .where('id', '=', id)
    .executeTakeFirst();
  return row && asRestriction(row);
};

const restrictionsOf = async (trx: Trx, ids: readonly string[]): Promise<Restriction[]> => {
  const rows = await trx
    .selectFrom('restriction')
    .select(['id', 'athlete_id', 'kind', 'from_day', 'until_day', 'share', 'note'])
    .where('athlete_id', 'in', ids)
    .where('removed_at', 'is', null)
    .orderBy('until_day', (order) => order.desc().nullsFirst())
    .execute();
  return rows.map(asRestriction);
};

/** Where a page of the roster ends; the next one starts after it. */
export type RosterCursor = { name: string; id: string };

/**
 * Athletes with their restrictions and measured runs, by name.
 *
 * @param which some by id, or a page of all
 */
export const athletes = async (
  trx: Trx,
  which: { ids: readonly string[] } | { after: RosterCursor | null; limit: number },
): Promise<Athlete[]> => {
  if ('ids' in which && which.ids.length === 0) return [];
  let query = trx
    .selectFrom('athlete')
    .selectAll()
    .select(
      sql<string>`(select (now() at time zone time_zone)::date::text from club where id = gravek_club())`.as(
        'today',
      ),
    )
    .orderBy('name')
    .orderBy('id');
  if ('ids' in which) query = query.where('id', 'in', which.ids);
  else {
    const { after } = which;
    query = query.limit(which.limit);
    if (after) {
      query = query.where((eb) =>
        eb.or([
          eb('name', '>', after.name),
          eb.and([eb('name', '=', after.name), eb('id', '>', after.id)]),
        ]),
      );
    }
  }
  const rows = await query.execute();
  const ids = rows.map((row) => row.id);
  if (ids.length === 0) return [];
  const measured = await measurementsOf(trx, ids);
  const trials = byAthlete(measured.trials);
  const readings = byAthlete(measured.readings);
  const restrictions = byAthlete(await restrictionsOf(trx, ids));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    squad: row.squad,
    hand: row.hand as Athlete['hand'],
    takeoffFoot: row.takeoff_foot as Athlete['takeoffFoot'],
    shoeM: row.shoe_m,
    heightM: row.height_m,
    legM: row.leg_m,
    birthYear: row.birth_year,
    bornOn: row.born_on,
    ageYears: row.birth_year === null ? null : Number(row.today.slice(0, 4)) - row.birth_year,
    minor: isMinor({ bornYear: row.birth_year, bornOn: row.born_on, onDate: row.today }).minor,
    positions: row.positions,
    version: row.version,
    archived: row.archived_at !== null,
    restrictions: restrictions.get(row.id) ?? [],
    trials: trials.get(row.id) ?? [],
    readings: readings.get(row.id) ?? [],
  }));
};

export const athlete = async (trx: Trx, id: string): Promise<Athlete | undefined> =>
  (await athletes(trx, { ids: [id] }))[0];

/** What an athlete is planned to run, newest first; put away and run in sessions only left out. */
export const plansOf = async (trx: Trx, athleteId: string): Promise<AthletePlan[]> => {
  const rows = await trx
    .selectFrom('athlete_approach as s')
    .innerJoin('approach as p', (join) =>
      join.onRef('p.club_id', '=', 's.club_id').onRef('p.id', '=', 's.approach_id'),
    )
    .select(['p.id', 'p.name', 's.model_source as modelSource', 's.own as outline'])
    .where('s.athlete_id', '=', athleteId)
    .where('s.listed', '=', true)
    .where('p.archived_at', 'is', null)
    .orderBy('p.saved_at', 'desc')
    .orderBy('p.id')
    .execute();
  return rows.map(({ outline, ...row }) => ({
    ...row,
    outline: outline && {
      startM: outline.startM,
      steps: outline.steps,
      firstFoot: outline.firstFoot,
      checkMarks: outline.checkMarks,
    },
  }));
};
