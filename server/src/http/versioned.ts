import { isDeepStrictEqual } from 'node:util';
import { changedMeanwhile, notFound } from './problem';

/**
 * What to answer when an update found no row of the version it was made from: the row is gone, or
 * somebody else was first, or this very write has been done before and its answer was lost.
 *
 * @param current the row as it stands, in the shape of the body
 * @throws {ProblemError} 404 or 409
 */
export const settle = <T extends { version: number }>(
  what: string,
  current: T | undefined,
  body: { version: number },
): T => {
  if (!current) throw notFound(what);
  const asked: Record<string, unknown> = { ...body, version: body.version + 1 };
  const stands = current as Record<string, unknown>;
  const same = Object.keys(asked).every((key) => isDeepStrictEqual(stands[key], asked[key]));
  if (same) return current;
  throw changedMeanwhile(what, current);
};
