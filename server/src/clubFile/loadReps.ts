import type { ClubItem } from '@gravek/contract/clubFile';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { inChunks } from '../database/chunks';
import { repColumns } from '../reps/queries';
import {
  athletesOf,
  each,
  mustBeThere,
  put,
  type Loading,
  type MovementCheck,
  type Piece,
} from './intoTables';
import { refusal } from './refusal';

/** What is known of a row that another one takes back. */
type Meant = Pick<ClubItem<'reps'>, 'sessionId' | 'drillSetId' | 'athleteId' | 'outcome'>;

/** A void stands after its row, which is of the same turn and no void itself. */
const lookAtVoids = async (trx: Trx, { items, at }: Piece<'reps'>): Promise<void> => {
  const voided = items.flatMap(({ voids }) => (voids === null ? [] : [voids]));
  if (voided.length === 0) return;
  const rows = await trx
    .selectFrom('rep')
    .select(['id', 'session_id', 'drill_set_id', 'athlete_id', 'outcome'])
    .where('id', '=', sql<string>`any(${voided}::uuid[])`)
    .execute();
  const before = new Map<string, Meant>(
    rows.map((row) => [
      row.id,
      {
        sessionId: row.session_id,
        drillSetId: row.drill_set_id,
        athleteId: row.athlete_id,
        outcome: row.outcome,
      },
    ]),
  );
  items.forEach((rep, i) => {
    const path = `${at(i)}.voids`;
    if (rep.voids !== null) {
      const meant = before.get(rep.voids);
      if (!meant) throw refusal({ [path]: 'The rep that it takes back does not stand before it.' });
      if (
        meant.sessionId !== rep.sessionId ||
        meant.drillSetId !== rep.drillSetId ||
        meant.athleteId !== rep.athleteId ||
        meant.outcome === 'void'
      ) {
        throw refusal({ [path]: 'It takes back a rep of another turn.' });
      }
    }
    before.set(rep.id, rep);
  });
};

/** Each rep must be of a drill set of its session. */
const lookAtTurns = async (trx: Trx, { items, at }: Piece<'reps'>): Promise<void> => {
  const ids = [...new Set(items.map((rep) => rep.drillSetId))];
  const rows = await trx
    .selectFrom('drill_set')
    .select(['id', 'session_id'])
    .where('id', '=', sql<string>`any(${ids}::uuid[])`)
    .execute();
  const sessionOf = new Map(rows.map((row) => [row.id, row.session_id]));
  items.forEach((rep, i) => {
    if (sessionOf.get(rep.drillSetId) !== rep.sessionId) {
      throw refusal({ [`${at(i)}.drillSetId`]: 'There is no such drill set in its session.' });
    }
  });
};

/** Rows in the order of the file, numbered within their sessions as if they had arrived so. */
export const loadReps = async (loading: Loading, movementsMustBe: MovementCheck): Promise<void> => {
  const { trx, accountBy } = loading;
  const ends = new Map<string, number>();
  await each(loading, 'reps', async (piece) => {
    const { items, at } = piece;
    await mustBeThere(trx, 'athlete', athletesOf(piece));
    await movementsMustBe(
      items.map(({ movement }, i) => ({ path: `${at(i)}.movement`, id: movement })),
    );
    await lookAtTurns(trx, piece);
    await lookAtVoids(trx, piece);
    const rows = items.map((rep) => {
      const arrival = (ends.get(rep.sessionId) ?? 0) + 1;
      ends.set(rep.sessionId, arrival);
      return {
        ...repColumns(rep, rep.loggedBy === undefined ? null : accountBy(rep.loggedBy)),
        load: rep.load && JSON.stringify(rep.load),
        measured: rep.measured && JSON.stringify(rep.measured),
        arrival,
      };
    });
    await put(trx, 'rep', rows, at);
    const faults = items
      .filter((rep) => rep.outcome === 'fault')
      .flatMap((rep) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
    await inChunks(faults, (some) => trx.insertInto('rep_fault').values(some).execute());
  });
  await inChunks([...ends], async (some) => {
    await sql`
      update session set log_end = given.log_end
      from unnest(${some.map(([id]) => id)}::uuid[], ${some.map(([, end]) => end)}::int[]) as given (id, log_end)
      where club_id = gravek_club() and session.id = given.id`.execute(trx);
  });
};
