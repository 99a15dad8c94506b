import { dayNumber, hourIn } from '@gravek/core/days';
import { groupBy } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { FirstSteps, Today, TodayCue, TodayDue } from '@gravek/contract/today';
import { faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { measurementDue, type Need, needsOf } from '@gravek/library/session/needs';
import { holding } from '@gravek/library/session/restrictions';
import { sessionOutlook, sessionsOnNow } from '@gravek/library/session/sessionOutlook';
import { sessionReps } from '@gravek/library/session/sessionTime';
import { sql } from 'kysely';
import { codesOf, findsAmong, plansOf } from '../approaches/finds';
import { outdatedPlans, plansToLookAt, type SolvedPlan } from '../approaches/outdated';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { type Everybody, keptStandings, withCues } from '../faults/queries';
import { asGround } from '../grounds/queries';
import { asClubMovement, clubMovementIds, movementsAmong } from '../movements/queries';
import { cuesOfDay } from '../sessions/cues';
import { needsOf as needsKnown } from '../sessions/needs';
import { sessions } from '../sessions/queries';

/** Sessions further away than this do not count as begun, days. */
const AROUND_DAYS = 14;

/** What stands beside the day: plans to look at again, movements, grounds, and how far the club has come. */
const besideToday = async (trx: Trx, today: string, movementIds: readonly string[]) => {
  const { rows } = await sql<{
    plans: SolvedPlan[];
    movements: Parameters<typeof asClubMovement>[0][];
    grounds: Parameters<typeof asGround>[0][];
    planned: boolean;
    sessionId: string | null;
    logged: boolean;
  }>`
    with near as (
      select id, day, log_end from session
      where club_id = gravek_club() and archived_at is null and not template
        and day between ${today}::date - ${AROUND_DAYS}::int and ${today}::date + ${AROUND_DAYS}::int
    ), plan as (${plansToLookAt})
    select (select coalesce(json_agg(plan), '[]') from plan) as plans,
      (select coalesce(json_agg(m), '[]') from movement m
        where m.id = any(${[...movementIds]}::uuid[])) as movements,
      (select coalesce(json_agg(g), '[]') from ground g) as grounds,
      exists (select from approach where club_id = gravek_club()) as planned,
      (select id from near order by day = ${today}::date desc, day, id limit 1) as "sessionId",
      exists (select from near where log_end > 0) as logged`.execute(trx);
  return rows[0]!;
};

const firstSteps = (
  { planned, sessionId, logged }: Awaited<ReturnType<typeof besideToday>>,
  people: readonly Athlete[],
): FirstSteps => ({
  athletes: people.length > 0,
  measured: people.some((person) => person.trials.length > 0),
  planned,
  session: sessionId !== null,
  logged,
  athleteId: people[0]?.id ?? null,
  sessionId,
});

/** Cues in the words that hold for each athlete; the movement is named for whoever runs several. */
const cueLines = async (
  trx: Trx,
  cueParts: Parameters<typeof cuesOfDay>[1],
  byId: ReadonlyMap<string, Athlete>,
): Promise<TodayCue[]> => {
  const lines = (await cuesOfDay(trx, cueParts)).filter((line) => byId.has(line.athleteId));
  const { movementOf } = cueParts.finds;
  const linesOf = groupBy(lines, (line) => line.athleteId);
  return lines.flatMap((line): TodayCue[] => {
    const athlete = byId.get(line.athleteId)!;
    const document = movementOf(line.movement);
    if (!document) return [];
    const movement = toldTo(document, athlete);
    return [
      {
        athleteId: athlete.id,
        name: athlete.name,
        movement: line.movement,
        movementName: linesOf.get(athlete.id)!.length > 1 ? movement.name : null,
        state: line.state,
        cue: (line.cue && faultOf(movement, line.cue.fault)?.cue) ?? null,
        reason: line.cue?.reason ?? '',
        sessions: line.cue?.sessions ?? 0,
        reps: line.reps,
      },
    ];
  });
};

const DUE_KINDS = ['away', 'rung', 'check'] as const;

/** Tests that are due, what may be cleared and rungs that change: what a session should make room for. */
const dueOf = async (
  trx: Trx,
  today: string,
  people: readonly Athlete[],
  { kept, movementOf }: Everybody,
): Promise<TodayDue[]> => {
  const byId = new Map(people.map((athlete) => [athlete.id, athlete]));
  const neededNow = await needsKnown(trx, today, withCues(kept, movementOf));
  const needs = needsOf(people, neededNow, movementOf, today);
  const wordsOf = (need: Need): string => {
    const athlete = byId.get(need.athleteId)!;
    if (need.kind === 'check') return measurementDue(athlete, today) ?? need.what;
    const movement = need.kind === 'away' && need.movement ? movementOf(need.movement) : undefined;
    if (!movement) return need.what;
    return faultOf(toldTo(movement, athlete), need.fault!)?.name.toLowerCase() ?? need.what;
  };
  return DUE_KINDS.flatMap((kind) => {
    const needsBy = groupBy(
      needs.filter((need) => need.kind === kind),
      (need) => need.athleteId,
    );
    if (needsBy.size === 0) return [];
    return [
      {
        kind,
        athletes: [...needsBy].map(([athleteId, list]) => ({
          athleteId,
          name: byId.get(athleteId)!.name,
          words: list.map(wordsOf).join(', '),
        })),
      },
    ];
  });
};

/** The day before or after, yyyy-mm-dd. */
const dayBefore = (day: string): string =>
  new Date((dayNumber('day', day) - 1) * 86_400_000).toISOString().slice(0, 10);

/** What a coach needs to know today, in the club's day. */
export const todayOf = async (
  trx: Trx,
  { today, timeZone }: { today: string; timeZone: string },
): Promise<Today> => {
  const people = await athletes(trx, 'present');
  const byId = new Map(people.map((athlete) => [athlete.id, athlete]));
  const around = await sessions(trx, { from: dayBefore(today), to: today });
  const { isOnNow, inTurn } = sessionsOnNow({
    today,
    hour: hourIn(timeZone, new Date()),
    people,
  });
  const on = around.filter(isOnNow).sort(inTurn);
  const drillSets = around.flatMap((session) => session.drillSets);
  const plans = await plansOf(trx, drillSets);
  const kept = await keptStandings(trx, { athleteIds: [...byId.keys()] }, today);
  const codes = [...codesOf(plans, drillSets), ...kept.map(({ movement }) => movement)];
  const beside = await besideToday(trx, today, clubMovementIds(codes));
  const movementOf = movementsAmong(beside.movements.map(asClubMovement));
  const finds = findsAmong(plans, movementOf);
  const grounds = beside.grounds.map(asGround);
  const everybody = { kept, movementOf };
  return {
    sessions: on.map((session) => {
      const { where, seconds, sets } = sessionOutlook(session, { finds, grounds, people });
      return {
        id: session.id,
        title: session.title,
        date: session.date,
        where,
        seconds,
        reps: sessionReps(session, people),
        logged: session.logged,
        sets: sets.map((set, i) => ({
          ...set,
          athletes: session.drillSets[i]!.athleteIds.length,
        })),
      };
    }),
    cues: await cueLines(
      trx,
      {
        sessions: around.filter(({ date }) => date === today),
        finds,
        present: people.map(({ id }) => id),
        everybody,
      },
      byId,
    ),
    due: await dueOf(trx, today, people, everybody),
    restricted: people.flatMap(({ id: athleteId, name, restrictions }) =>
      holding(restrictions, today).map(({ id, kind, until, note }) => ({
        ...{ id, athleteId, name, kind, until, note },
      })),
    ),
    outdated: outdatedPlans(beside.plans, people),
    firstSteps: firstSteps(beside, people),
  };
};
