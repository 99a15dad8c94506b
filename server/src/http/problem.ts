import type { Problem } from '@gravek/contract/problem';
import type { ErrorRequestHandler, Response } from 'express';
import pg from 'pg';

/** An answer that is not what was asked for: thrown anywhere, sent as application/problem+json. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

const problem = (status: number, title: string, rest: Partial<Problem> = {}): ProblemError =>
  new ProblemError({ status, title, ...rest });

export const badInput = (fields: Record<string, string>): ProblemError =>
  problem(422, Object.values(fields)[0] ?? 'Something in the form is not right.', { fields });

export const notFound = (what: string): ProblemError => problem(404, `There is no such ${what}.`);

export const refused = (
  status: 401 | 403 | 404 | 409 | 412 | 421 | 429 | 503,
  title: string,
): ProblemError => problem(status, title);

/** Somebody else has saved since; their version goes along. */
export const changedMeanwhile = (what: string, current: unknown): ProblemError =>
  problem(409, `This ${what} was changed in the meantime. Nothing was overwritten.`, { current });

/** What is said to a write for which there is no room. */
export const NO_ROOM = refused(
  503,
  'The disk of the server is nearly full, so nothing is written just now. What you typed or logged stays on this device; reading goes on.',
);

export const send = (res: Response, { problem: body }: ProblemError): void => {
  res.status(body.status).type('application/problem+json').send(JSON.stringify(body));
};

/** Error codes of PostgreSQL that mean it cannot be reached or is going away. */
const UNREACHABLE = new Set([
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
  '25006',
  '55000',
]);
/** It is there, and has too much to do: time is up, a lock is held, no connection is free. */
const BUSY = new Set(['57014', '55P03', '40P01', '40001', '53300', '53200']);
/** Of the database's disk, and of this process's own. */
const DISK_FULL = new Set(['53100', 'ENOSPC']);
const FOREIGN_KEY = '23503';
const UNIQUE = '23505';

/** What is said to a request that never got as far as a route. */
const UNREAD: Record<number, string> = {
  400: 'That could not be read.',
  404: 'There is nothing at this address.',
  413: 'That is too much at once.',
  415: 'That could not be read: it is packed or written in an unknown way.',
};

const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';

export const isUnreachable = (error: unknown): boolean =>
  UNREACHABLE.has(codeOf(error)) ||
  ['ECONNREFUSED', 'ECONNRESET', 'ENOENT', 'ETIMEDOUT'].includes(codeOf(error)) ||
  (error instanceof Error &&
    // The pooler's words for a database that it cannot reach come with a code of their own.
    /Connection terminated|server_login_retry|server conn crashed/.test(error.message));

const isBusy = (error: unknown): boolean =>
  BUSY.has(codeOf(error)) ||
  // Every connection of this process is in use.
  (error instanceof Error && /timeout exceeded when trying to connect/.test(error.message));

/** Turns whatever was thrown into a problem; what nobody expected is logged, not shown. */
export const asProblem = (error: unknown): ProblemError | null => {
  if (error instanceof ProblemError) return error;
  if (isUnreachable(error)) {
    return refused(503, 'The database cannot be reached just now. Nothing was lost; try again.');
  }
  if (DISK_FULL.has(codeOf(error))) return NO_ROOM;
  if (isBusy(error)) {
    return refused(503, 'The database is busy just now. Nothing was lost; try again in a moment.');
  }
  if (error instanceof pg.DatabaseError && error.code === UNIQUE) {
    return refused(409, 'Somebody else did the same just now. Load the page again.');
  }
  if (error instanceof pg.DatabaseError && error.code === FOREIGN_KEY) {
    return problem(422, 'Something that this points to is not there any more.');
  }
  // What no column can hold, or a rule of a table forbids.
  if (error instanceof pg.DatabaseError && /^2[23]/.test(error.code ?? '')) {
    return problem(422, 'Something in that cannot be read.');
  }
  // What passed the door and still cannot be computed; core names the field.
  if (error instanceof RangeError)
    return problem(422, `That cannot be computed: ${error.message}.`);
  const { status } = (error ?? {}) as { status?: unknown };
  if (typeof status === 'number' && status >= 400 && status < 500) {
    return problem(status, UNREAD[status] ?? UNREAD[400]!);
  }
  return null;
};

export const problemHandler: ErrorRequestHandler = (error, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  const expected = asProblem(error);
  if (!expected) req.log.error({ err: error as unknown }, 'unexpected');
  send(res, expected ?? problem(500, 'Something went wrong here. Nothing was changed; try again.'));
};
