import { ROLES, type Role } from '@gravek/contract/club';
import { CLUB_HEADER, UNCOUNTED_HEADER } from '@gravek/contract/header';
import { MOVEMENT_MAX } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import { dayIn } from '@gravek/core/days';
import express, { Router, type Request, type RequestHandler } from 'express';
import { sql } from 'kysely';
import type { AnyObjectSchema, InferType } from 'yup';
import type { Tell, Topic } from '../changes/tell';
import { inClub, inClubReading, type Db, type Trx, type Who } from '../database/connect';
import { isConfirmed, isSignedIn } from './session';
import { badInput, isUnreachable, ProblemError, refused } from './problem';
import { LATER, together } from './together';

export type Member = Who & { role: Role };

type Asked<Body> = {
  who: Member;
  params: Record<string, string>;
  query: Record<string, string>;
  body: Body;
};

type Work = {
  trx: Trx;
  /** the club's day, yyyy-mm-dd */
  today: string;
  timeZone: string;
  /** says that more has changed than what the route says by itself */
  tell: (topic: Topic) => void;
  /** takes note of rows that the log has taken */
  stored: (rows: number) => void;
};

export type Context<Body> = Asked<Body> & Work;

type Run<Body> =
  | { run: (context: Context<Body>) => Promise<unknown> }
  /** for what many send at once: answers in the order of the requests that have come together */
  | {
      runAll: (
        context: Work & {
          asks: Asked<Body>[];
          /** whether it may wait for what others hold; else it answers `LATER` */
          patient: boolean;
        },
      ) => Promise<unknown[]>;
    };

type Declared = {
  method: 'get' | 'post' | 'put' | 'delete';
  /** under /api */
  path: string;
  /** least role that may */
  access: Role;
  /** whether the password is asked for again first */
  again?: boolean | undefined;
  body?: AnyObjectSchema | undefined;
  changes?: Topic | undefined;
  /** has to do with the log alone, not with what was counted of it */
  logOnly?: boolean | undefined;
};

export type Route = Declared & Run<never>;

/**
 * Declares a route of a club. Signing in, the club's transaction, the role, the check of the body and
 * the word to other screens are done here for all of them; `run` gives back what is answered.
 */
export const route = <S extends AnyObjectSchema = AnyObjectSchema>(
  declared: Omit<Declared, 'body'> & { body?: S } & Run<InferType<S>>,
): Route => declared as unknown as Route;

const RANK: Record<Role, number> = { assistant: 0, coach: 1, owner: 2 };

/** @throws {ProblemError} 403 when the member may less than the role does */
export const mustBe = (least: Role, { role }: Member): void => {
  if (RANK[role] < RANK[least]) throw refused(403, REFUSALS[least]);
};

const REFUSALS: Record<Role, string> = {
  assistant: 'This needs a membership of the club.',
  coach: 'An assistant can run sessions and log reps; this needs a coach.',
  owner: 'Only an owner of the club can do this.',
};

/**
 * The member behind a request.
 *
 * @param role what the account may in the club; null or absent where it has no part in it
 * @throws {ProblemError} 403 when the membership has ended
 */
export const memberAs = (who: Who, role: string | null | undefined): Member => {
  const ourRole = ROLES.find((other) => other === role);
  if (!ourRole) throw refused(403, 'You are not a member of this club any more.');
  return { ...who, role: ourRole };
};

/** What some accounts may in the club, by account. */
const rolesOf = async (
  trx: Trx,
  accountIds: readonly string[],
): Promise<ReadonlyMap<string, string>> => {
  if (accountIds.length === 0) return new Map();
  const rows = await trx
    .selectFrom('membership')
    .select(['account_id', 'role'])
    .where('club_id', '=', sql<string>`gravek_club()`)
    .where('account_id', 'in', [...accountIds])
    .execute();
  return new Map(rows.map((row) => [row.account_id, row.role]));
};

/**
 * Who is signed in, and to which club.
 *
 * @throws {ProblemError} 401 when nobody is, or not any more; 412 when the page shows another club
 */
export const whoIs = (req: Request): Who => {
  const { clubId, accountId } = req.session;
  if (!isSignedIn(req) || !clubId || !accountId) throw refused(401, 'Sign in to go on.');
  const shown = req.get(CLUB_HEADER);
  if (shown !== undefined && shown !== clubId) {
    throw refused(412, 'Another club has been opened in this browser. Load the page again.');
  }
  return { clubId, accountId };
};

/** @throws {ProblemError} 403 when the password was not given just now */
export const mustBeConfirmed = (confirmed: boolean): void => {
  if (confirmed) return;
  throw new ProblemError({
    status: 403,
    title: 'Give your password again, then this is done.',
    confirm: true,
  });
};

/**
 * A club may ask its owners for a second step.
 *
 * @throws {ProblemError} 403 for an owner who has none
 */
export const mustHaveSecondStep = async (trx: Trx, accountId: string): Promise<void> => {
  const { rows } = await sql<{ lacks: boolean }>`
    select owners_two_steps and (select totp_secret is null from account where id = ${accountId}) as lacks
    from club where id = gravek_club()`.execute(trx);
  if (rows[0]?.lacks) {
    throw refused(
      403,
      'This club asks its owners for a second step when they sign in. Turn yours on under Your account, then go on.',
    );
  }
};

/** What a route reaches besides its request. */
type Outside = {
  db: Db;
  tell: Tell;
  /** takes note of rows that the log has taken */
  stored: (rows: number) => void;
  /** counts what has arrived in the log, before anything is written that goes by counts */
  countNow: (trx: Trx) => Promise<unknown>;
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

/** A request as it came. */
type Came = {
  who: Who;
  params: Record<string, string>;
  query: Record<string, string>;
  body: unknown;
  confirmed: boolean;
};

/** @throws {ProblemError} when the member may not, or what came cannot be read */
const readAs = (declared: Route, request: Came, who: Member): Asked<never> => {
  const { params, query } = request;
  mustBe(declared.access, who);
  for (const [key, value] of Object.entries(params)) {
    if (key.toLowerCase().endsWith('id') && !UUID.test(value)) {
      throw refused(404, 'There is nothing at this address.');
    }
  }
  if (declared.again) mustBeConfirmed(request.confirmed);
  if (!declared.body) return { who, params, query, body: undefined as never };
  const checked = check(declared.body, request.body);
  if (!checked.ok) throw badInput(checked.fields);
  return { who, params, query, body: checked.value as never };
};

/** What is answered to requests of one club, in one transaction; a problem where it is of one of them. */
const answersTo = async (
  { db, tell, stored, countNow }: Outside,
  declared: Route,
  asks: readonly Came[],
  patient = true,
): Promise<{ answers: unknown[]; newer: number | null }> => {
  const { who: first } = asks[0]!;
  const reads = declared.method === 'get';
  let newer: number | null = null;
  const changed = new Set<Topic>(declared.changes ? [declared.changes] : []);
  const answers = await (reads ? inClubReading : inClub)(db, first, async (trx, club) => {
    const others = asks.map(({ who }) => who.accountId).filter((id) => id !== first.accountId);
    const roles = await rolesOf(trx, others);
    const read = asks.map((request) => {
      const { who } = request;
      try {
        const role = who.accountId === first.accountId ? club.role : roles.get(who.accountId);
        return readAs(declared, request, memberAs(who, role));
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        return error;
      }
    });
    const good = read.filter((item): item is Asked<never> => !(item instanceof ProblemError));
    if (good.length === 0) return read;
    if (declared.access === 'owner') await mustHaveSecondStep(trx, first.accountId);
    if (!declared.logOnly) {
      if (reads) newer = club.uncounted;
      else await countNow(trx);
    }
    const work: Work = {
      ...{ trx, timeZone: club.timeZone, today: dayIn(club.timeZone, new Date()) },
      ...{ tell: (topic) => void changed.add(topic), stored },
    };
    const session =
      'runAll' in declared
        ? await declared.runAll({ ...work, asks: good, patient })
        : [await declared.run({ ...work, ...good[0]! })];
    return read.map((item) => (item instanceof ProblemError ? item : session.shift()));
  });
  if (answers.some((answer) => answer !== LATER && !(answer instanceof ProblemError))) {
    for (const topic of changed) tell(first.clubId, topic);
  }
  return { answers, newer };
};

const answerTo = async (outside: Outside, declared: Route, request: Came) => {
  const { answers, newer } = await answersTo(outside, declared, [request]);
  return { answer: answers[0], newer };
};

/** Requests that share a transaction. */
const MOST_TOGETHER = 20;

const handler = (outside: Outside, declared: Route): RequestHandler => {
  const shared = together<Came, unknown>({
    most: MOST_TOGETHER,
    work: async (asks, patient) => (await answersTo(outside, declared, asks, patient)).answers,
    failsAll: isUnreachable,
    tooLong: () =>
      refused(503, 'Somebody is saving this session just now. Nothing was lost; try again.'),
  });
  return async (req, res) => {
    const request: Came = {
      who: whoIs(req),
      params: req.params as Record<string, string>,
      query: textsOf(req.query),
      body: req.body,
      confirmed: isConfirmed(req),
    };
    const { answer, newer } =
      'runAll' in declared
        ? { answer: await shared(request.who.clubId, request), newer: null }
        : await answerTo(outside, declared, request);
    if (newer !== null) res.set(UNCOUNTED_HEADER, String(newer));
    if (answer instanceof ProblemError) throw answer;
    if (answer === undefined) res.status(204).end();
    else res.json(answer);
  };
};

/** All routes of the API as one router. */
export const clubRouter = (outside: Outside, routes: readonly Route[]): Router => {
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
    router[declared.method](declared.path, handler(outside, declared));
  }
  return router;
};
