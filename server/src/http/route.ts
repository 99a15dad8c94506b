import { check, CLUB_HEADER, MOVEMENT_MAX, ROLES, type Role } from '@gravek/contract';
import { sql } from 'kysely';
import express, { Router, type Request, type Response } from 'express';
import type { AnyObjectSchema, InferType } from 'yup';
import { inClub, type Db, type Trx, type Who } from '../database/connect';
import { badInput, refused } from './problem';

/** What may have changed for others who look at the club; each names a list of the app. */
export type Topic =
  'club' | 'athletes' | 'movements' | 'grounds' | 'approaches' | 'sessions' | 'reps';

export type Member = Who & { role: Role };

export type Context<Body> = {
  trx: Trx;
  who: Member;
  params: Record<string, string>;
  query: Record<string, string>;
  body: Body;
};

export type Route = {
  method: 'get' | 'post' | 'put' | 'delete';
  /** under /api */
  path: string;
  /** least role that may */
  access: Role;
  body?: AnyObjectSchema | undefined;
  changes?: Topic | undefined;
  run: (context: Context<never>) => Promise<unknown>;
};

/**
 * Declares a route of a club. Signing in, the club's transaction, the role, the check of the body and
 * the word to other screens are done here for all of them; `run` gives back what is answered.
 */
export const route = <S extends AnyObjectSchema = AnyObjectSchema>(declared: {
  method: Route['method'];
  path: string;
  access: Role;
  body?: S;
  changes?: Topic;
  run: (context: Context<InferType<S>>) => Promise<unknown>;
}): Route => declared as unknown as Route;

const RANK: Record<Role, number> = { assistant: 0, coach: 1, owner: 2 };
const REFUSALS: Record<Role, string> = {
  assistant: 'This needs a membership of the club.',
  coach: 'An assistant can run sessions and log reps; this needs a coach.',
  owner: 'Only an owner of the club can do this.',
};

/** The member behind a request; 403 when the membership has ended. */
export const memberOf = async (trx: Trx, who: Who): Promise<Member> => {
  const membership = await trx
    .selectFrom('membership')
    .select('role')
    .where('club_id', '=', who.clubId)
    .where('account_id', '=', who.accountId)
    .executeTakeFirst();
  if (!membership) throw refused(403, 'You are not a member of this club any more.');
  return { ...who, role: ROLES.find((role) => role === membership.role)! };
};

/**
 * Who is signed in, and to which club.
 *
 * @throws {ProblemError} 401 when nobody is, or not any more; 412 when the page shows another club
 */
export const whoIs = (req: Request): Who => {
  const { clubId, accountId, until } = req.session;
  if (!clubId || !accountId || !(Number(until) > Date.now())) {
    throw refused(401, 'Sign in to go on.');
  }
  const shown = req.get(CLUB_HEADER);
  if (shown !== undefined && shown !== clubId) {
    throw refused(412, 'Another club has been opened in this browser. Load the page again.');
  }
  return { clubId, accountId };
};

/** A movement, the longest thing that is sent, and what goes with it. */
const BODY_MAX = MOVEMENT_MAX + 10_000;

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

const textsOf = (query: Request['query']): Record<string, string> =>
  Object.fromEntries(
    Object.entries(query).filter(
      (entry): entry is [string, string] => typeof entry[1] === 'string',
    ),
  );

/** Word to other screens that something of a topic has changed; heard when the transaction is through. */
export const tell = async (trx: Trx, { clubId }: Who, topic: Topic): Promise<void> => {
  const word = JSON.stringify({ club: clubId, topic });
  await sql`select pg_notify('gravek', ${word})`.execute(trx);
};

const answer = async (db: Db, declared: Route, req: Request, res: Response): Promise<void> => {
  const params = req.params as Record<string, string>;
  const result = await inClub(db, whoIs(req), async (trx) => {
    const who = await memberOf(trx, whoIs(req));
    if (RANK[who.role] < RANK[declared.access]) throw refused(403, REFUSALS[declared.access]);
    for (const [key, value] of Object.entries(params)) {
      if (key.toLowerCase().endsWith('id') && !UUID.test(value)) {
        throw refused(404, 'There is nothing at this address.');
      }
    }
    let body: unknown;
    if (declared.body) {
      const checked = check(declared.body, req.body);
      if (!checked.ok) throw badInput(checked.fields);
      body = checked.value;
    }
    const given = await declared.run({
      trx,
      who,
      params,
      query: textsOf(req.query),
      body: body as never,
    });
    if (declared.changes) await tell(trx, who, declared.changes);
    return given;
  });
  if (result === undefined) res.status(204).end();
  else res.json(result);
};

/** All routes of the API as one router. */
export const clubRouter = (db: Db, routes: readonly Route[]): Router => {
  const router = Router();
  // Nothing is read of somebody who is not signed in.
  router.use(
    (req, _res, next) => {
      whoIs(req);
      next();
    },
    express.json({ limit: BODY_MAX }),
  );
  for (const declared of routes) {
    router[declared.method](declared.path, (req, res) => answer(db, declared, req, res));
  }
  return router;
};
