import type { MeasuredReps, Rep, StoredRep } from '@gravek/contract/session';
import { steadyRunOf } from '@gravek/library/measuring/measuredRows';
import { type RawBuilder, type Selectable, sql } from 'kysely';
import type { Tables, Trx } from '../database/connect';

type RepRow = Selectable<Tables['rep']> & { faults: string[] };

export const asRep = (row: Omit<RepRow, 'logged_by'>): StoredRep => ({
  id: row.id,
  sessionId: row.session_id,
  drillSetId: row.drill_set_id,
  athleteId: row.athlete_id,
  movement: row.movement,
  part: row.part,
  set: row.set_no,
  side: row.side,
  rep: row.rep_no,
  turn: row.turn,
  leadFoot: row.lead_foot,
  speedPct: row.speed_pct,
  variant: row.variant,
  rung: row.rung as StoredRep['rung'],
  exit: row.exit,
  ways: row.ways,
  taken: row.taken,
  right: row.was_right,
  lateS: row.late_s,
  lateBy: row.late_by,
  made: row.made,
  heldS: row.held_s,
  touchS: row.touch_s,
  ranM: row.ran_m,
  ranS: row.ran_s,
  load: row.load,
  measured: row.measured,
  note: row.note,
  outcome: row.outcome,
  voids: row.voids,
  faults: row.faults,
  watched: row.watched,
  could: row.could,
  cue: row.cue,
  device: row.device,
  deviceNo: row.device_no,
  arrival: row.arrival,
  at: row.at.toISOString(),
});

export const withFaults = (trx: Trx) =>
  trx
    .selectFrom('rep')
    .selectAll('rep')
    .select((eb) =>
      eb
        .selectFrom('rep_fault')
        .select(sql<string[]>`coalesce(array_agg(fault order by fault), '{}')`.as('faults'))
        .whereRef('rep_fault.club_id', '=', 'rep.club_id')
        .whereRef('rep_fault.rep_id', '=', 'rep.id')
        .$asScalar()
        .$notNull()
        .as('faults'),
    );

/**
 * The log of a session from a number on, voids included, in the order of arrival.
 *
 * @param after number of the last row that is known; 0 for all
 */
export const repsOf = async (
  trx: Trx,
  sessionId: string,
  { after, limit }: { after: number; limit: number },
): Promise<StoredRep[]> => {
  const rows = await withFaults(trx)
    .where('session_id', '=', sessionId)
    .where('arrival', '>', after)
    .orderBy('arrival')
    .limit(limit)
    .execute();
  return rows.map(asRep);
};

/** Reps by their ids. */
export const repsBy = async (trx: Trx, ids: readonly string[]): Promise<StoredRep[]> =>
  ids.length === 0
    ? []
    : (
        await withFaults(trx)
          .where('id', 'in', [...ids])
          .execute()
      ).map(asRep);

/** Every row about one athlete, in all sessions. */
export const repsOfAthlete = async (trx: Trx, athleteId: string): Promise<StoredRep[]> =>
  (
    await withFaults(trx)
      .where('athlete_id', '=', athleteId)
      .orderBy('session_id')
      .orderBy('arrival')
      .execute()
  ).map(asRep);

/**
 * Rows of some athletes, each in one session, in some movements, those of the newest day first.
 *
 * @param tries gives athletes, each with a session
 */
export const repsOfTries = async (
  trx: Trx,
  tries: RawBuilder<{ athleteId: string; sessionId: string }>,
  movements: readonly string[],
): Promise<StoredRep[]> => {
  const rows = await withFaults(trx)
    .where(sql<boolean>`(rep.athlete_id, rep.session_id) in (${tries})`)
    .where('movement', 'in', [...movements])
    .orderBy(
      sql`(select day from session s where s.club_id = rep.club_id and s.id = rep.session_id)`,
      'desc',
    )
    .orderBy('session_id', 'desc')
    .execute();
  return rows.map(asRep);
};

/** Measured reps of an athlete that are shown, and steady runs that the weeks are made of. */
const MOST_MEASURED = 30;
const MOST_STEADY = 90;

/** What was measured of an athlete's reps that stand, the newest first. */
export const measuredReps = async (trx: Trx, athleteId: string): Promise<MeasuredReps> => {
  const measured = trx
    .selectFrom('rep')
    .innerJoin('session', 'session.id', 'rep.session_id')
    .where('rep.athlete_id', '=', athleteId)
    .where('rep.measured', 'is not', null)
    .where((eb) =>
      eb.not(
        eb.exists(
          eb
            .selectFrom('rep as void')
            .select('void.id')
            .whereRef('void.club_id', '=', 'rep.club_id')
            .whereRef('void.voids', '=', 'rep.id'),
        ),
      ),
    )
    .select(['rep.id', 'rep.measured', 'session.day as date'])
    .orderBy('rep.at', 'desc')
    .orderBy('rep.id', 'desc');
  const rows = await measured
    .select(['rep.session_id', 'rep.movement', 'rep.side', 'rep.set_no', 'rep.rep_no'])
    .limit(MOST_MEASURED)
    .execute();
  const steady = await measured
    .where(sql<boolean>`(rep.measured ->> 'perMinute')::boolean`)
    .limit(MOST_STEADY)
    .execute();
  return {
    items: rows.map((row) => ({
      id: row.id,
      sessionId: row.session_id,
      date: row.date,
      movement: row.movement,
      side: row.side,
      set: row.set_no,
      rep: row.rep_no,
      measured: row.measured!,
    })),
    steady: steady.flatMap(({ date, measured: measuredRun }) => {
      const run = steadyRunOf(measuredRun!);
      return run ? [{ takenOn: date, ...run }] : [];
    }),
  };
};

/** A rep as its row, but for its number. */
export const repColumns = (rep: Rep, loggedBy: string | null) => ({
  id: rep.id,
  session_id: rep.sessionId,
  drill_set_id: rep.drillSetId,
  athlete_id: rep.athleteId,
  movement: rep.movement,
  part: rep.part,
  set_no: rep.set,
  side: rep.side,
  rep_no: rep.rep,
  turn: rep.turn,
  lead_foot: rep.leadFoot,
  speed_pct: rep.speedPct,
  variant: rep.variant,
  rung: rep.rung,
  exit: rep.exit,
  ways: rep.ways,
  taken: rep.taken,
  was_right: rep.right,
  late_s: rep.lateS,
  late_by: rep.lateBy,
  made: rep.made,
  held_s: rep.heldS,
  touch_s: rep.touchS,
  ran_m: rep.ranM,
  ran_s: rep.ranS,
  load: rep.load,
  measured: rep.measured,
  note: rep.note,
  outcome: rep.outcome,
  voids: rep.voids,
  watched: rep.watched,
  could: rep.could,
  cue: rep.cue,
  device: rep.device,
  device_no: rep.deviceNo,
  at: rep.at,
  logged_by: loggedBy,
});
