import { store } from './store';

/** Films of a device for looking at them again; the ones opened longest ago make room. */
const FILMS_KEPT = 8;

/**
 * Keeps a film on this device.
 *
 * @param reviewId what is marked in it
 * @returns whether there was room for it
 */
export const keepFilm = async (reviewId: string, film: Blob): Promise<boolean> => {
  try {
    await store.films.put({ reviewId, film, keptMs: Date.now() });
  } catch {
    return false;
  }
  const old = (await store.films.toArray())
    .sort((a, b) => b.keptMs - a.keptMs)
    .slice(FILMS_KEPT)
    .map((film) => film.reviewId);
  await store.films.bulkDelete(old);
  return true;
};

/** A film that was opened on this device before. */
export const keptFilm = async (reviewId: string): Promise<Blob | undefined> =>
  (await store.films.get(reviewId))?.film;

/** What is marked in the films that this device keeps. */
export const keptFilms = (): Promise<string[]> => store.films.toCollection().primaryKeys();

export const dropFilm = (reviewId: string): Promise<void> => store.films.delete(reviewId);
