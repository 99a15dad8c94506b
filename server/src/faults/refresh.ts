import { groupBy } from '@gravek/core/session/repLog';
import { cueResults } from '@gravek/library/cue/ledger';
import { addResults, readsOfCounts, resultsOfCounts } from '@gravek/library/cue/results';
import {
  byFaultCode,
  bySession,
  type Priors,
  priorsOf,
  type SessionFaults,
  type Shown,
} from '@gravek/library/cue/sessionFaults';
import { standingsOf, toldOf } from '@gravek/library/cue/standings';
import { sql } from 'kysely';
import { inChunks } from '../database/chunks';
import type { Trx } from '../database/connect';
import { hold } from '../database/hold';
import { movementsBy } from '../movements/queries';
import { type Counted, type CountRow, countRows, readsIn, resultsIn, watchedIn } from './counts';

export const repsIn = (sessions: readonly SessionFaults[]): number =>
  sessions.reduce((sum, session) => sum + session.reps, 0);

/** Rows by athlete and movement. */
const storyKey = ({ athleteId, movement }: CountRow): string => `${athleteId}/${movement}`;

export const byStory = (rows: readonly Counted[]): Counted[][] => [
  ...groupBy(rows, storyKey).values(),
];

/** What others of the club have shown in movements, as it stands. */
const shownByOthers = async (
  trx: Trx,
  movements: readonly string[],
  athleteIds: readonly string[],
): Promise<Map<string, Shown[]>> => {
  const { rows } = await sql<Shown & { movement: string }>`
    select movement, exposed, coalesce((
      select jsonb_object_agg(f ->> 'code', f -> 'seen') from jsonb_array_elements(faults) f
    ), '{}') as seen
    from fault_standing
    where movement = any(${[...movements]}::text[])
      and not athlete_id = any(${[...athleteIds]}::uuid[])`.execute(trx);
  return groupBy(rows, (row) => row.movement);
};

/**
 * Works out anew how the faults of some athletes stand, in the transaction that has changed their
 * counts. Holds the athletes, so that of two who log at once the second sees the counts of the first.
 * What the club knows of a fault is taken as it is then.
 */
export const refreshStandings = async (
  trx: Trx,
  which: { athleteIds: readonly string[]; movements?: readonly string[] },
): Promise<void> => {
  if (which.athleteIds.length === 0 || which.movements?.length === 0) return;
  await hold(trx, 'athlete', which.athleteIds);
  const counted = await countRows(trx, which);
  const rowsBy = groupBy(counted, storyKey);
  const storyCounts = byStory(watchedIn(counted)).map((rows) => ({
    ...rows[0]!,
    sessions: bySession(rows),
  }));
  const movements = [...new Set(storyCounts.map((count) => count.movement))];
  const movementBy = await movementsBy(trx, movements);
  const others = await shownByOthers(trx, movements, which.athleteIds);
  const shown = groupBy(storyCounts, (count) => count.movement);
  const priors = new Map<string, Priors>(
    movements.map((movement) => [
      movement,
      priorsOf([
        ...(others.get(movement) ?? []),
        ...shown.get(movement)!.map(({ sessions }) => ({
          exposed: byFaultCode(sessions.flatMap(({ exposed }) => exposed)),
          seen: byFaultCode(sessions.flatMap(({ faults }) => faults)),
        })),
      ]),
    ]),
  );
  const json = (value: object | null) => (value === null ? null : JSON.stringify(value));
  const stories = storyCounts.map((story) => {
    const { athleteId, movement, sessions } = story;
    const before = sessions.slice(0, -1);
    const prior = priors.get(movement);
    const document = movementBy(movement);
    const rows = rowsBy.get(storyKey(story)) ?? [];
    return {
      athlete_id: athleteId,
      movement,
      reps: repsIn(sessions),
      sessions: sessions.length,
      last_day: sessions.at(-1)!.date,
      last_session_id: sessions.at(-1)!.sessionId,
      faults: JSON.stringify(standingsOf(sessions, prior, document)),
      told: json(toldOf(sessions)),
      exposed: JSON.stringify(byFaultCode(sessions.flatMap(({ exposed }) => exposed))),
      results: JSON.stringify(cueResults(sessions)),
      reads: JSON.stringify(readsOfCounts(readsIn(rows))),
      totals: JSON.stringify(addResults(resultsOfCounts(resultsIn(rows)), 'all')),
      reps_before: repsIn(before),
      faults_before: JSON.stringify(standingsOf(before, prior, document)),
      told_before: json(toldOf(before)),
    };
  });
  let gone = trx.deleteFrom('fault_standing').where('athlete_id', 'in', [...which.athleteIds]);
  if (which.movements) gone = gone.where('movement', 'in', [...which.movements]);
  await gone.execute();
  await inChunks(stories, (some) => trx.insertInto('fault_standing').values(some).execute());
};
