import { groupBy, standing, wasRun, type LogRow } from '@gravek/core/session/repLog';
import type { Turn } from '@gravek/core/session/runOrder';
import { watchNext } from '@gravek/core/cue/watchNext';
import type { Exit } from './reads';

/** So many a coach watches at a call, unless they say otherwise. */
export const WATCHED_AT_ONCE = 3;

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

/**
 * What differs in words between people of a row, those who are told the same together.
 *
 * @returns what most are told first; the others by their names
 * @example wordsOfRow([{ name: 'Ana', words: 'to the left' }, { name: 'Mira', words: 'to the right' }])
 *   // ['to the left', 'Mira: to the right']
 */
export const wordsOfRow = (told: readonly { name: string; words: string }[]): string[] => {
  const groups = [...groupBy(told, ({ words }) => words)].sort(
    ([, a], [, b]) => b.length - a.length,
  );
  return groups.map(([words, people], i) =>
    i === 0 ? words : `${people.map(({ name }) => name).join(', ')}: ${words}`,
  );
};

/** An exit as a row is called it: what each is asked by it, and whether one word holds for all. */
export type RowCall = Exit & {
  /** code of the exit that it asks, by athlete */
  codeBy: ReadonlyMap<string, string>;
  /** left for some and right for others: it is called by its number */
  isTwoSided: boolean;
};

/**
 * Exits that may be called of a row. “Left” is left for all who hear it, whichever hand they use, where each of
 * them has an exit of that name; else each is told their own word for the same exit.
 *
 * @param callable exits of whoever is up first, in their words
 * @param people all who go, with the exits of their turns in theirs
 * @example
 * // Ana opens to the left; for Mira, a left-hander, the same exit opens to the right.
 * const exits = [['a', 'Left open'], ['b', 'Right open']].map(([code, name]) => ({ code, name, weight: 1 }));
 * const mirrored = [{ ...exits[0], name: 'Right open' }, { ...exits[1], name: 'Left open' }];
 * const people = [{ athleteId: '1', name: 'Ana', exits }, { athleteId: '2', name: 'Mira', exits: mirrored }];
 * rowCalls(exits, people)[0]!.name // 'Left open'
 */
export const rowCalls = (
  callable: readonly Exit[],
  people: readonly { athleteId: string; name: string; exits: readonly Exit[] }[],
): RowCall[] =>
  callable.map((exit) => {
    const sameName = people.map(({ exits }) => exits.find(({ name }) => name === exit.name)?.code);
    const isAlike = sameName.every((code) => code !== undefined);
    const words = wordsOfRow(
      people.map(({ name, exits }) => ({
        name,
        words: exits.find(({ code }) => code === exit.code)?.name ?? exit.name,
      })),
    );
    return {
      ...exit,
      name: isAlike ? exit.name : words.join('; '),
      codeBy: new Map(
        people.map(({ athleteId }, i) => [athleteId, (isAlike && sameName[i]) || exit.code]),
      ),
      isTwoSided: !isAlike,
    };
  });

/**
 * Whom to watch at the call after this one, once these have been watched.
 *
 * @example
 * const places = ['ana', 'bo', 'cy', 'di'].map((athleteId, i) => ({ athleteId, turn: {}, isWatched: i < 2, watched: 1 }));
 * watchedAfter(places, 2) // ['cy', 'di']
 */
export const watchedAfter = (places: readonly RowPlace[], atOnce: number): string[] =>
  watchNext({
    row: places.filter(({ turn }) => turn).map(({ athleteId }) => athleteId),
    watched: Object.fromEntries(
      places.map(({ athleteId, watched, isWatched }) => [athleteId, watched + Number(isWatched)]),
    ),
    atOnce,
  }).ids;
