import type { Problem } from '@gravek/contract';
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
  status: 401 | 403 | 404 | 409 | 413 | 429 | 503,
  title: string,
): ProblemError => problem(status, title);

/** Somebody else has saved since; their version goes along. */
export const changedMeanwhile = (what: string, current: unknown): ProblemError =>
  problem(409, `This ${what} was changed in the meantime. Nothing was overwritten.`, { current });

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
  '53300',
  '55000',
]);
const FOREIGN_KEY = '23503';

const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';

export const isUnreachable = (error: unknown): boolean =>
  UNREACHABLE.has(codeOf(error)) ||
  ['ECONNREFUSED', 'ECONNRESET', 'ENOENT', 'ETIMEDOUT'].includes(codeOf(error)) ||
  (error instanceof Error &&
    /Connection terminated|timeout exceeded when trying/.test(error.message));

/** Turns whatever was thrown into a problem; what nobody expected is logged, not shown. */
export const asProblem = (error: unknown): ProblemError | null => {
  if (error instanceof ProblemError) return error;
  if (isUnreachable(error)) {
    return refused(503, 'The database cannot be reached just now. Nothing was lost; try again.');
  }
  if (error instanceof pg.DatabaseError && error.code === FOREIGN_KEY) {
    return problem(422, 'Something that this points to is not there any more.');
  }
  // Text or a moment that no column can hold: it came with the address or a cursor.
  if (error instanceof pg.DatabaseError && error.code?.startsWith('22')) {
    return problem(422, 'Something in that cannot be read.');
  }
  // What passed the door and still cannot be computed; core names the field.
  if (error instanceof RangeError)
    return problem(422, `That cannot be computed: ${error.message}.`);
  const type = (error as { type?: string } | null)?.type;
  if (type === 'entity.too.large') return refused(413, 'That is too much at once.');
  if (type === 'entity.parse.failed') return problem(400, 'That could not be read.');
  return null;
};

export const problemHandler: ErrorRequestHandler = (error, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  const known = asProblem(error);
  if (!known) req.log.error({ err: error as unknown }, 'unexpected');
  send(res, known ?? problem(500, 'Something went wrong here. Nothing was changed; try again.'));
};
