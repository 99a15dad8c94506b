import type { AthletePlan } from '@gravek/contract/approach';
import type { Athlete, AthleteFields, Restriction, Trial } from '@gravek/contract/athlete';
import type { ReadingRow } from '@gravek/contract/reading';
import { isMinor } from '@gravek/core/age';
import { sql, type Selectable } from 'kysely';
import { jsonArrayFrom } from 'kysely/helpers/postgres';
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

/** A row for each measured run and each other test. */
export const measurementColumns = (readingRow: Trial | ReadingRow) => ({
  id: readingRow.id,
  athlete_id: readingRow.athleteId,
  kind: 'steps' in readingRow ? ('trial' as const) : ('reading' as const),
  taken_on: readingRow.takenOn,
  source: readingRow.source,
  note: readingRow.note,
  payload: JSON.stringify('steps' in readingRow ? { steps: readingRow.steps } : readingRow.reading),
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

export const isTrial = (readingRow: Trial | ReadingRow): readingRow is Trial =>
  'steps' in readingRow;

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

export const restrictionColumns = (restriction: Restriction) => ({
  id: restriction.id,
  athlete_id: restriction.athleteId,
  kind: restriction.kind,
  from_day: restriction.from,
  until_day: restriction.until,
  share: restriction.share,
  note: restriction.note,
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

/** Where a page of the roster ends; the next one starts after it. */
export type RosterCursor = { name: string; id: string };

/**
 * Athletes with their restrictions and measured runs, by name, in one statement.
 *
 * @param which those who are not archived; some by id, with those who have reps in a session; or a page of all
 */
export const athletes = async (
  trx: Trx,
  which:
    | 'present'
    | { ids: readonly string[]; withRepsIn?: string }
    | { after: RosterCursor | null; limit: number },
): Promise<Athlete[]> => {
  if (which !== 'present' && 'ids' in which && which.ids.length === 0 && !which.withRepsIn)
    return [];
  let query = trx
    .selectFrom('athlete as a')
    .selectAll('a')
    .select((eb) => [
      sql<string>`(select (now() at time zone time_zone)::date::text from club where id = gravek_club())`.as(
        'today',
      ),
      jsonArrayFrom(
        eb
          .selectFrom('measurement as m')
          .select(['m.id', 'm.athlete_id', 'm.taken_on', 'm.source', 'm.note', 'm.payload'])
          .whereRef('m.club_id', '=', 'a.club_id')
          .whereRef('m.athlete_id', '=', 'a.id')
          .where('m.removed_at', 'is', null)
          .orderBy('m.taken_on', 'desc')
          .orderBy('m.id', 'desc'),
      ).as('measurements'),
      jsonArrayFrom(
        eb
          .selectFrom('restriction as r')
          .select([
            'r.id',
            'r.athlete_id',
            'r.kind',
            'r.from_day',
            'r.until_day',
            'r.share',
            'r.note',
          ])
          .whereRef('r.club_id', '=', 'a.club_id')
          .whereRef('r.athlete_id', '=', 'a.id')
          .where('r.removed_at', 'is', null)
          .orderBy('r.until_day', (order) => order.desc().nullsFirst()),
      ).as('restrictions'),
    ])
    .orderBy('a.name')
    .orderBy('a.id');
  if (which === 'present') query = query.where('a.archived_at', 'is', null);
  else if ('ids' in which) {
    const { ids, withRepsIn } = which;
    query = query.where((eb) =>
      eb.or([
        sql<boolean>`a.id = any(${[...ids]}::uuid[])`,
        ...(withRepsIn
          ? [
              eb(
                'a.id',
                'in',
                eb.selectFrom('rep').select('athlete_id').where('session_id', '=', withRepsIn),
              ),
            ]
          : []),
      ]),
    );
  } else {
    const { after } = which;
    query = query.limit(which.limit);
    if (after) {
      query = query.where((eb) =>
        eb.or([
          eb('a.name', '>', after.name),
          eb.and([eb('a.name', '=', after.name), eb('a.id', '>', after.id)]),
        ]),
      );
    }
  }
  return (await query.execute()).map((row) => {
    const measured = row.measurements.map(asMeasurement);
    return {
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
      restrictions: row.restrictions.map(asRestriction),
      trials: measured.filter(isTrial),
      readings: measured.filter((readingRow): readingRow is ReadingRow => !isTrial(readingRow)),
    };
  });
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
