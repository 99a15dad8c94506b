import { standing, wasRun, type LogRow } from '@gravek/core/repLog';
import type { Turn } from '@gravek/core/runOrder';
import { watchNext } from '@gravek/core/watchNext';

/** So many a coach watches at a call, unless they say otherwise. */
export const WATCHED_AT_ONCE = 3;
/** More than this nobody can watch. */
export const MOST_WATCHED = 6;

/** Somebody's place in a row. */
export type RowPlace = {
  athleteId: string;
  /** what is to be done now; null for who does nothing at this call */
  turn: Turn | null;
  /** whether the coach is to watch them at this call */
  isWatched: boolean;
  /** calls of this set at which they were watched so far */
  watched: number;
};

/**
 * A row as it stands: everybody in a place that never changes, also who has stopped, and whom to watch at
 * this call.
 *
 * @param people ids in the order in which they stand, from the coach's left
 * @param now turns of those who go at this call
 * @param log rows of this drill set
 * @param atOnce how many are watched at a call, from 1
 */
export const rowPlaces = (
  people: readonly string[],
  now: readonly Turn[],
  log: readonly (LogRow & { watched: boolean })[],
  atOnce: number,
): RowPlace[] => {
  const watched: Record<string, number> = Object.fromEntries(people.map((id) => [id, 0]));
  for (const row of standing(log)) {
    if (wasRun(row) && row.watched) watched[row.athleteId] = (watched[row.athleteId] ?? 0) + 1;
  }
  const turnBy = new Map(now.map((turn) => [turn.athleteId, turn]));
  const row = people.filter((id) => turnBy.has(id));
  const { ids } = watchNext({ row, watched, atOnce });
  return people.map((athleteId) => ({
    athleteId,
    turn: turnBy.get(athleteId) ?? null,
    isWatched: ids.includes(athleteId),
    watched: watched[athleteId] ?? 0,
  }));
};

/** Whom to watch at the call after this one, once these have been watched. */
export const watchedAfter = (places: readonly RowPlace[], atOnce: number): string[] =>
  watchNext({
    row: places.filter(({ turn }) => turn).map(({ athleteId }) => athleteId),
    watched: Object.fromEntries(
      places.map(({ athleteId, watched, isWatched }) => [athleteId, watched + Number(isWatched)]),
    ),
    atOnce,
  }).ids;
