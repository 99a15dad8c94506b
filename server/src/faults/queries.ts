import type { CueSchool } from '@gravek/core/cue/chooseCue';
import type { Foot } from '@gravek/core/feet';
import type { CueChoice, CueChoiceInput } from '@gravek/contract/coachChoices';
import type { AthleteFaults, CueTold } from '@gravek/contract/faults';
import { bySession } from '@gravek/library/cue/sessionFaults';
import { athleteFaults, standingsOf, toldOf } from '@gravek/library/cue/standings';
import { drillOf, faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { sql } from 'kysely';
import { jsonObjectFrom } from 'kysely/helpers/postgres';
import type { Trx } from '../database/connect';
import { badInput, notFound } from '../http/problem';
import { settleNew } from '../http/versioned';
import { type MovementBy, movementsBy } from '../movements/queries';
import { type Before, countRows, watchedIn } from './counts';
import { byStory, repsIn } from './refresh';

type Standing = Omit<AthleteFaults, 'cue'> & {
  hand: Foot;
  takeoffFoot: Foot;
  told: CueTold | null;
  /** by which the club chooses its one cue */
  school: CueSchool;
  /** the last that a coach has made */
  choice: CueChoice | null;
};

/** A standing with what it was before the athlete's last session. */
export type KeptStanding = Standing & {
  last_session_id: string;
  reps_before: number;
  faults_before: Standing['faults'];
  told_before: CueTold | null;
};

/**
 * How athletes stand in movements, each with the last choice of a cue that a coach has made.
 *
 * @param until day after which choices are passed over
 */
export const standingRows = (trx: Trx, until?: string) =>
  trx
    .selectFrom('fault_standing as f')
    .innerJoin('athlete as a', (join) =>
      join.onRef('a.club_id', '=', 'f.club_id').onRef('a.id', '=', 'f.athlete_id'),
    )
    .select((eb) => [
      'f.athlete_id as athleteId',
      'f.movement',
      'f.reps',
      'f.sessions',
      'f.last_day as lastDay',
      'f.faults',
      'f.told',
      sql<Foot>`a.hand`.as('hand'),
      sql<Foot>`a.takeoff_foot`.as('takeoffFoot'),
      // Who is in two clubs sees both.
      sql<CueSchool>`(select cue_school from club where id = gravek_club())`.as('school'),
      jsonObjectFrom(
        eb
          .selectFrom('cue_choice as c')
          .select([
            'c.fault',
            'c.drill',
            'c.reason',
            'c.day',
            sql<string>`c.made_at`.as('at'),
            sql<string | null>`c.told_at`.as('toldAt'),
            sql<string>`coalesce(gravek_person(c.account_id), 'Somebody')`.as('person'),
          ])
          .whereRef('c.club_id', '=', 'f.club_id')
          .whereRef('c.athlete_id', '=', 'f.athlete_id')
          .whereRef('c.movement', '=', 'f.movement')
          .$if(until !== undefined, (query) => query.where('c.day', '<=', until!))
          .orderBy('c.made_at', 'desc')
          .limit(1),
      ).as('choice'),
    ])
    .orderBy('f.last_day', 'desc')
    .orderBy('f.movement');

const isoOf = (moment: string): string => new Date(moment).toISOString();

/** Standings with the one cue, in the words that hold for each athlete. */
export const withCues = (rows: readonly Standing[], movementBy: MovementBy): AthleteFaults[] =>
  rows.flatMap(({ hand, takeoffFoot, school, choice: kept, ...counted }) => {
    const movement = movementBy(counted.movement);
    // A club's movement is put away, never deleted; a file may name one that is not there.
    if (!movement) return [];
    const choice = kept && {
      ...kept,
      ...{ at: isoOf(kept.at), toldAt: kept.toldAt === null ? null : isoOf(kept.toldAt) },
    };
    return [athleteFaults(toldTo(movement, { hand, takeoffFoot }), { ...counted, choice }, school)];
  });

/**
 * How athletes stand, and stood before their last session.
 *
 * @param until day after which choices of a cue are passed over
 */
export const keptStandings = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements?: readonly string[] },
  until?: string,
): Promise<KeptStanding[]> => {
  if (which.athleteIds.length === 0) return [];
  let query = standingRows(trx, until)
    .select(['f.last_session_id', 'f.reps_before', 'f.faults_before', 'f.told_before'])
    .where('f.athlete_id', 'in', [...which.athleteIds]);
  if (which.movements) query = query.where('f.movement', 'in', [...which.movements]);
  return query.execute();
};

export const cuedIn = async (trx: Trx, rows: readonly Standing[]): Promise<AthleteFaults[]> =>
  withCues(
    rows,
    await movementsBy(
      trx,
      rows.map((row) => row.movement),
    ),
  );

/** How the faults of athletes stand, the movement they ran last first. */
export const faultsOf = async (trx: Trx, athleteIds: readonly string[]): Promise<AthleteFaults[]> =>
  cuedIn(trx, await keptStandings(trx, { athleteIds }));

/** How all of a club stand, and the movements of those standings. */
export type Everybody = { kept: readonly KeptStanding[]; movementOf: MovementBy };

/**
 * As `faultsOf`, from what was counted before a session: one cue holds for the whole of it. What is
 * kept says so at once, for a session that comes after the athlete's last one or is the last one; only
 * for an earlier session is the history read.
 *
 * @param everybody standings up to that day, where they are known already
 */
export const faultsBefore = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements: readonly string[] },
  session: Before,
  everybody?: Everybody,
): Promise<AthleteFaults[]> => {
  if (which.athleteIds.length === 0) return [];
  const kept =
    everybody?.kept.filter(
      ({ athleteId, movement }) =>
        which.athleteIds.includes(athleteId) && which.movements.includes(movement),
    ) ?? (await keptStandings(trx, which, session.date));
  const standings: Standing[] = [];
  const earlier: Standing[] = [];
  for (const { last_session_id, reps_before, faults_before, told_before, ...row } of kept) {
    if (last_session_id === session.sessionId) {
      standings.push({
        ...row,
        reps: reps_before,
        sessions: row.sessions - 1,
        faults: faults_before,
        told: told_before,
      });
    } else if ([row.lastDay, last_session_id].join() < [session.date, session.sessionId].join()) {
      standings.push(row);
    } else earlier.push(row);
  }
  const counts = await countRows(
    trx,
    {
      athleteIds: [...new Set(earlier.map((row) => row.athleteId))],
      movements: [...new Set(earlier.map((row) => row.movement))],
    },
    session,
  );
  const movementBy =
    everybody?.movementOf ??
    (await movementsBy(
      trx,
      kept.map((row) => row.movement),
    ));
  for (const rows of byStory(watchedIn(counts))) {
    const row = earlier.find(
      (row) => row.athleteId === rows[0]!.athleteId && row.movement === rows[0]!.movement,
    );
    if (!row) continue;
    const sessions = bySession(rows);
    const priors = new Map(row.faults.map(({ code, prior }) => [code, prior]));
    standings.push({
      ...row,
      reps: repsIn(sessions),
      sessions: sessions.length,
      faults: standingsOf(sessions, priors, movementBy(row.movement)),
      told: toldOf(sessions),
    });
  }
  return withCues(
    standings.filter((row) => row.reps > 0),
    movementBy,
  );
};

/**
 * Keeps a coach's choice of a cue; sent again it is the same one.
 *
 * @throws {ProblemError} when the movement has no such fault or drill, or another choice has the id
 */
export const chooseCue = async (
  trx: Trx,
  accountId: string,
  athleteId: string,
  { id, movement: code, fault, drill, reason, day }: CueChoiceInput & { day: string },
): Promise<void> => {
  const movement = (await movementsBy(trx, [code]))(code);
  if (!movement) throw notFound('movement');
  if (fault !== null && !faultOf(movement, fault)) {
    throw badInput({ fault: 'The movement has no such fault.' });
  }
  if (drill !== null && !drillOf(movement, drill)) {
    throw badInput({ drill: 'The movement has no such drill.' });
  }
  const row = { athlete_id: athleteId, movement: code, fault, drill, reason };
  const standing = await trx
    .selectFrom('fault_standing')
    .select('told')
    .where('athlete_id', '=', athleteId)
    .where('movement', '=', code)
    .executeTakeFirst();
  const { numInsertedOrUpdatedRows } = await trx
    .insertInto('cue_choice')
    .values({
      id,
      ...row,
      account_id: accountId,
      day,
      told_at: standing?.told?.at ?? null,
    })
    .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
    .executeTakeFirst();
  if (numInsertedOrUpdatedRows) return;
  const kept = await trx
    .selectFrom('cue_choice')
    .select(['athlete_id', 'movement', 'fault', 'drill', 'reason'])
    .where('id', '=', id)
    .executeTakeFirst();
  settleNew('choice', kept, row);
};
