import { isDeepStrictEqual } from 'node:util';
import { changedMeanwhile, notFound, ProblemError } from './problem';

/** Whether a row stands as a body asks, as far as the body says anything. */
const standsAs = (current: object, change: object): boolean =>
  Object.entries(change).every(([key, value]) =>
    isDeepStrictEqual((current as Record<string, unknown>)[key], value),
  );

/**
 * What to answer when an update found no row of the version it was made from: the row is gone, or
 * somebody else was first, or this very write has been done before and its answer was lost.
 *
 * @param current the row as it stands now, read after the update has failed, in the shape of the body
 * @throws {ProblemError} 404 or 409
 */
export const settle = <T extends { version: number }>(
  what: string,
  current: T | undefined,
  body: { version: number },
): T => {
  if (!current) throw notFound(what);
  if (standsAs(current, { ...body, version: body.version + 1 })) return current;
  throw changedMeanwhile(what, current);
};

/**
 * What to answer to a creation under an id that is taken: the same again is a retry whose answer was
 * lost, anything else would be dropped without a word.
 *
 * @param current the row as it stands now, in the shape of the body
 * @throws {ProblemError} 409 when it holds something else
 */
export const settleNew = <T extends object>(
  what: string,
  current: T | undefined,
  body: object,
): T => {
  if (!current) throw notFound(what);
  if (standsAs(current, body)) return current;
  throw new ProblemError({
    status: 409,
    title: `Another ${what} is already kept under this id. Nothing was overwritten.`,
    current,
  });
};
