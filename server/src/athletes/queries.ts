import { isMinor } from '@gravek/core/age';
import { READING_KINDS } from '@gravek/core/measuring/measures';
import type { Athlete, AthleteFields, Restriction, Trial } from '@gravek/contract/athlete';
import type { AthletePlan } from '@gravek/contract/plan';
import type { ReadingRow } from '@gravek/contract/reading';
import { type Selectable, type SelectQueryBuilder, sql } from 'kysely';
import { jsonArrayFrom } from 'kysely/helpers/postgres';
import type { Tables, Trx } from '../database/connect';
import { notFound } from '../http/problem';

export const mustAthlete = async (trx: Trx, id: string): Promise<void> => {
  const stored = await trx.selectFrom('athlete').select('id').where('id', '=', id).execute();
  if (stored.length === 0) throw notFound('athlete');
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

type MeasurementRow = Pick<
  Selectable<Tables['measurement']>,
  'id' | 'athlete_id' | 'taken_on' | 'source' | 'note' | 'payload'
>;

/** A measurement out of its row. */
const asMeasurement = ({
  id,
  athlete_id: athleteId,
  taken_on: takenOn,
  source,
  note,
  payload,
}: MeasurementRow): Trial | ReadingRow => {
  const measurement = { id, athleteId, takenOn, source, note };
  return 'kind' in payload
    ? { ...measurement, reading: payload }
    : { ...measurement, steps: payload.steps };
};

export const isTrial = (readingRow: Trial | ReadingRow): readingRow is Trial =>
  'steps' in readingRow;

/** What is measured of an athlete, or of the whole club, by its id; each with whether it was taken out. */
export const measurements = async (
  trx: Trx,
  of: { athleteId?: string; id?: string } = {},
): Promise<{ row: Trial | ReadingRow; removed: boolean }[]> =>
  (await rowsOf(trx, 'measurement', of).execute()).map((row) => ({
    row: asMeasurement(row),
    removed: row.removed_at !== null,
  }));

/** What athletes were told not to do, as `measurements` has what is measured. */
export const restrictions = async (
  trx: Trx,
  of: { athleteId?: string; id?: string } = {},
): Promise<{ row: Restriction; removed: boolean }[]> =>
  (await rowsOf(trx, 'restriction', of).execute()).map((row) => ({
    row: asRestriction(row),
    removed: row.removed_at !== null,
  }));

/** Rows of a club, of an athlete, or the row with an id, those that were taken out included. */
const rowsOf = <T extends 'measurement' | 'restriction'>(
  trx: Trx,
  table: T,
  { athleteId, id }: { athleteId?: string; id?: string },
) =>
  trx
    .selectFrom<'measurement' | 'restriction'>(table)
    .selectAll()
    .where(sql<boolean>`club_id = gravek_club()`)
    .$if(athleteId !== undefined, (query) => query.where('athlete_id', '=', athleteId!))
    .$if(id !== undefined, (query) => query.where('id', '=', id!))
    .orderBy('id') as unknown as SelectQueryBuilder<Tables, T, Selectable<Tables[T]>>;

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
/** Where a page of the roster ends; the next one starts after it. */
export type RosterCursor = { name: string; id: string };

/** What was measured longer than this before the newest of its kind says nothing of the athlete any more, days. */
const SPEAKS_DAYS = 180;
const WHAT_IS_MEASURED = ['trial', ...READING_KINDS];

const MEASURED = sql`m.id, m.athlete_id, m.taken_on, m.source, m.note, m.payload`;

/** What was measured of an athlete and stands: all of it, or what plans are solved from. */
const measuredOf = (all: boolean) =>
  all
    ? sql`select ${MEASURED} from measurement m
        where m.club_id = a.club_id and m.athlete_id = a.id and m.removed_at is null`
    : sql`select ${MEASURED} from unnest(${WHAT_IS_MEASURED}::text[]) kind (what)
        cross join lateral (select max(n.taken_on) as newest_day from measurement n
          where n.club_id = a.club_id and n.athlete_id = a.id and n.what = kind.what
            and n.removed_at is null) newest
        join measurement m on m.club_id = a.club_id and m.athlete_id = a.id
          and m.what = kind.what and m.taken_on >= newest.newest_day - ${SPEAKS_DAYS}::int
          and m.removed_at is null`;

/**
 * Athletes with their restrictions and what was measured of them, by name, in one statement. Of many, only what
 * plans are solved from is read; `athlete` has everything of one.
 *
 * @param which those who are not archived; some by id, with those who have reps in a session; or a page of all
 * @param everything also what was measured too long ago to say anything
 */
export const athletes = async (
  trx: Trx,
  which:
    | 'present'
    | { ids: readonly string[]; withRepsIn?: string }
    | { after: RosterCursor | null; limit: number },
  everything = false,
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
      sql<MeasurementRow[]>`(select coalesce(json_agg(m order by m.taken_on desc, m.id desc), '[]')
        from (${measuredOf(everything)}) m)`.as('measurements'),
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
  (await athletes(trx, { ids: [id] }, true))[0];

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
