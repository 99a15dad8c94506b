import type { AthleteFaults, FaultHistory, SquadFaults } from '@gravek/contract';
import {
  athleteFaults,
  bySession,
  faultHistory,
  standingsOf,
  toldTo,
  type SessionFaults,
} from '@gravek/library';
import { groupBy, type CueSchool, type Foot } from '@gravek/core';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { hold } from '../database/hold';
import { movementsBy } from '../movements/queries';
import { inChunks } from '../reps/queries';

type Counted = SessionFaults & { athleteId: string; movement: string; sessionId: string };

/** Up to which session counts are wanted, the one named left out. */
type Before = { date: string; sessionId: string };

/**
 * What sessions showed of athletes, a row a condition, earliest session first.
 *
 * @param before only sessions ahead of this one
 */
export const countsOf = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements?: readonly string[] },
  before?: Before,
): Promise<Counted[]> => {
  if (which.athleteIds.length === 0) return [];
  const ids = sql`${[...which.athleteIds]}::uuid[]`;
  const codes = which.movements && sql`${[...which.movements]}::text[]`;
  const { rows } = await sql<Counted>`
    select c.athlete_id as "athleteId", c.movement, c.session_id as "sessionId", s.day as date,
      c.reps, c.cues, coalesce(f.faults, '[]') as faults
    from rep_count c
    join session s on s.club_id = c.club_id and s.id = c.session_id
    left join lateral (
      select jsonb_agg(jsonb_build_object('fault', f.fault, 'reps', f.reps)) as faults
      from fault_count f
      where f.club_id = c.club_id and f.athlete_id = c.athlete_id and f.movement = c.movement
        and f.session_id = c.session_id and f.part = c.part and f.side = c.side
        and f.lead_foot = c.lead_foot and f.speed_pct = c.speed_pct
        and f.rung = c.rung and f.exit = c.exit
    ) f on true
    where c.athlete_id = any(${ids})
      ${codes ? sql`and c.movement = any(${codes})` : sql``}
      ${before ? sql`and (s.day, s.id) < (${before.date}::date, ${before.sessionId}::uuid)` : sql``}
    order by s.day, s.id`.execute(trx);
  return rows;
};

const repsIn = (sessions: readonly SessionFaults[]): number =>
  sessions.reduce((sum, one) => sum + one.reps, 0);

/** Rows by athlete and movement. */
const byStory = (rows: readonly Counted[]): Counted[][] => [
  ...groupBy(rows, (row) => `${row.athleteId}/${row.movement}`).values(),
];

/**
 * Works out anew how the faults of some athletes stand, in the transaction that has changed their
 * counts. Holds the athletes, so that of two who log at once the second sees the counts of the first.
 */
export const refreshStandings = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements?: readonly string[] },
): Promise<void> => {
  if (which.athleteIds.length === 0 || which.movements?.length === 0) return;
  await hold(trx, 'athlete', which.athleteIds);
  const stories = byStory(await countsOf(trx, which)).map((rows) => {
    const { athleteId, movement } = rows[0]!;
    const sessions = bySession(rows);
    const before = sessions.slice(0, -1);
    return {
      athlete_id: athleteId,
      movement,
      reps: repsIn(sessions),
      sessions: sessions.length,
      last_day: sessions.at(-1)!.date,
      last_session_id: rows.at(-1)!.sessionId,
      faults: JSON.stringify(standingsOf(sessions)),
      reps_before: repsIn(before),
      faults_before: JSON.stringify(standingsOf(before)),
    };
  });
  let gone = trx.deleteFrom('fault_standing').where('athlete_id', 'in', [...which.athleteIds]);
  if (which.movements) gone = gone.where('movement', 'in', [...which.movements]);
  await gone.execute();
  await inChunks(stories, (some) => trx.insertInto('fault_standing').values(some).execute());
};

/** The school by which the club chooses its one cue. */
export const schoolOf = async (trx: Trx): Promise<CueSchool> => {
  const club = await trx.selectFrom('club').select('cue_school').executeTakeFirstOrThrow();
  return club.cue_school as CueSchool;
};

type Standing = Omit<AthleteFaults, 'cue'> & { hand: Foot; takeoffFoot: Foot };

const standingRows = (trx: Trx) =>
  trx
    .selectFrom('fault_standing as f')
    .innerJoin('athlete as a', (join) =>
      join.onRef('a.club_id', '=', 'f.club_id').onRef('a.id', '=', 'f.athlete_id'),
    )
    .select([
      'f.athlete_id as athleteId',
      'f.movement',
      'f.reps',
      'f.sessions',
      'f.last_day as lastDay',
      'f.faults',
      sql<Foot>`a.hand`.as('hand'),
      sql<Foot>`a.takeoff_foot`.as('takeoffFoot'),
    ])
    .orderBy('f.last_day', 'desc')
    .orderBy('f.movement');

/** Standings with the one cue, in the words that hold for each athlete. */
const withCues = async (trx: Trx, rows: readonly Standing[]): Promise<AthleteFaults[]> => {
  const movementBy = await movementsBy(
    trx,
    rows.map((row) => row.movement),
  );
  const school = await schoolOf(trx);
  return rows.flatMap(({ hand, takeoffFoot, ...counted }) => {
    const movement = movementBy(counted.movement);
    // A club's movement is put away, never deleted; a file may name one that is not there.
    if (!movement) return [];
    return [athleteFaults(toldTo(movement, { hand, takeoffFoot }), counted, school)];
  });
};

/** How the faults of athletes stand, the movement they ran last first. */
export const faultsOf = async (
  trx: Trx,
  athleteIds: readonly string[],
): Promise<AthleteFaults[]> =>
  athleteIds.length === 0
    ? []
    : withCues(
        trx,
        await standingRows(trx)
          .where('f.athlete_id', 'in', [...athleteIds])
          .execute(),
      );

/**
 * The squad in one movement.
 *
 * @param asked its code; the movement that is run most when absent
 */
export const squadFaults = async (trx: Trx, asked: string | undefined): Promise<SquadFaults> => {
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
  const movement = asked !== undefined && movements.includes(asked) ? asked : movements[0];
  if (movement === undefined) return { movements, movement: null, items: [] };
  const rows = await standingRows(trx)
    .where('f.movement', '=', movement)
    .where('a.archived_at', 'is', null)
    .execute();
  return { movements, movement, items: await withCues(trx, rows) };
};

/**
 * As `faultsOf`, from what was counted before a session: one cue holds for the whole of it. What is
 * kept says so at once, for a session that comes after the athlete's last one or is the last one; only
 * for an earlier session is the history read.
 */
export const faultsBefore = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements: readonly string[] },
  session: Before,
): Promise<AthleteFaults[]> => {
  if (which.athleteIds.length === 0) return [];
  const kept = await standingRows(trx)
    .select(['f.last_session_id', 'f.reps_before', 'f.faults_before'])
    .where('f.athlete_id', 'in', [...which.athleteIds])
    .where('f.movement', 'in', [...which.movements])
    .execute();
  const known: Standing[] = [];
  const earlier: Standing[] = [];
  for (const { last_session_id, reps_before, faults_before, ...row } of kept) {
    if (last_session_id === session.sessionId) {
      known.push({ ...row, reps: reps_before, sessions: row.sessions - 1, faults: faults_before });
    } else if ([row.lastDay, last_session_id].join() < [session.date, session.sessionId].join()) {
      known.push(row);
    } else earlier.push(row);
  }
  const counts = await countsOf(
    trx,
    {
      athleteIds: [...new Set(earlier.map((row) => row.athleteId))],
      movements: [...new Set(earlier.map((row) => row.movement))],
    },
    session,
  );
  for (const rows of byStory(counts)) {
    const row = earlier.find(
      (one) => one.athleteId === rows[0]!.athleteId && one.movement === rows[0]!.movement,
    );
    const sessions = bySession(rows);
    if (row) {
      known.push({
        ...row,
        reps: repsIn(sessions),
        sessions: sessions.length,
        faults: standingsOf(sessions),
      });
    }
  }
  return withCues(
    trx,
    known.filter((row) => row.reps > 0),
  );
};

const PAGE = 30;

/**
 * How the faults of an athlete went in a movement, newest page first.
 *
 * @param before sessions that have been seen, counted from the first; absent for the newest page
 */
export const historyOf = async (
  trx: Trx,
  athleteId: string,
  movement: string,
  before: number | undefined,
): Promise<FaultHistory> => {
  const rows = await countsOf(trx, { athleteIds: [athleteId], movements: [movement] });
  const sessions = bySession(rows);
  const end = Math.min(before ?? sessions.length, sessions.length);
  const from = Math.max(0, end - PAGE);
  return {
    faults: faultHistory(sessions, { from, to: end - 1 }),
    earlier: from > 0 ? String(from) : null,
  };
};
