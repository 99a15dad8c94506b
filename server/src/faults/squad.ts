import type { SquadFaults } from '@gravek/contract/faults';
import { isTelling } from '@gravek/library/cue/ledger';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { cuedIn, standingRows } from './queries';

const LATELY_DAYS = 28;

/** Reps of the last four weeks in a movement, up to a day, by athlete. */
const repsLately = async (
  trx: Trx,
  movement: string,
  day: string,
): Promise<ReadonlyMap<string, number>> => {
  const { rows } = await sql<{ athleteId: string; reps: number }>`
    select athlete_id as "athleteId", sum(reps)::int as reps
    from rep_count
    where club_id = gravek_club() and movement = ${movement} and watched and session_id = any(array(
      select id from session where club_id = gravek_club()
        and day > ${day}::date - ${LATELY_DAYS}::int and day <= ${day}::date))
    group by 1`.execute(trx);
  return new Map(rows.map((row) => [row.athleteId, row.reps]));
};

/**
 * The squad in one movement.
 *
 * @param squad its code; the movement that is run most when absent
 * @param day today in the club
 */
export const squadFaults = async (
  trx: Trx,
  squad: string | undefined,
  day: string,
): Promise<SquadFaults> => {
  const run = await trx
    .selectFrom('fault_standing as f')
    .innerJoin('athlete as a', (join) =>
      join.onRef('a.club_id', '=', 'f.club_id').onRef('a.id', '=', 'f.athlete_id'),
    )
    .select(['f.movement', sql<number>`sum(f.reps)::int`.as('reps')])
    .where('a.archived_at', 'is', null)
    .groupBy('f.movement')
    .orderBy('reps', 'desc')
    .orderBy('f.movement')
    .execute();
  const movements = run.map((row) => row.movement);
  const movement = squad !== undefined && movements.includes(squad) ? squad : movements[0];
  if (movement === undefined) return { movements, movement: null, items: [] };
  const rows = await standingRows(trx)
    .select(['f.reads', 'f.totals'])
    .where('f.movement', '=', movement)
    .where('a.archived_at', 'is', null)
    .execute();
  const lately = await repsLately(trx, movement, day);
  const keptBy = new Map(rows.map((row) => [row.athleteId, row]));
  const items = (await cuedIn(trx, rows)).map((ledger) => ({
    ...ledger,
    lately: lately.get(ledger.athleteId) ?? 0,
    reads: keptBy.get(ledger.athleteId)?.reads ?? [],
    results: keptBy.get(ledger.athleteId)?.totals ?? [],
    faults: ledger.faults
      .filter(isTelling)
      .map(({ code, seen, rate, low, high, state, effect }) => ({
        code,
        seen,
        rate,
        low,
        high,
        state,
        effect,
      })),
  }));
  return { movements, movement, items };
};
