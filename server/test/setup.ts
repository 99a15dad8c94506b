import { randomBytes } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { ApproachInput } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { GroundInput } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import {
  PLAIN_REP,
  type LogPage,
  type Rep,
  type SessionInput,
  type StoredRep,
} from '@gravek/contract/session';
import type { ReviewInput } from '@gravek/contract/watched';
import { movementOf } from '@gravek/library/movement/movements';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { Kysely, PostgresDialect, sql } from 'kysely';
import pg from 'pg';
import { pino } from 'pino';
import supertest from 'supertest';
import { v7 as uuid } from 'uuid';
import { createApp } from '../src/app';
import { listenForChanges, type Changes } from '../src/changes/listen';
import { teller } from '../src/changes/tell';
import { restorer } from '../src/clubFile/restoring';
import { connect, type Db, inClub, type Tables } from '../src/database/connect';
import { CLUB_TABLES } from '../src/database/clubTables';
import { migrate } from '../src/operator/migrate';
import { piecesSender } from '../src/http/pieces';
import { watchDisk } from '../src/operator/disk';
import { makeNumbers, type Numbers } from '../src/operator/numbers';
import { countClub } from '../src/reps/counter';
import { hashPassword } from '../src/signIn/password';

const superUrl = process.env.TEST_DATABASE_URL;
if (!superUrl) {
  throw new Error('TEST_DATABASE_URL is not set; `npm test` starts a cluster and sets it.');
}

const withPath = (url: string, name: string, user?: string, password?: string): string => {
  const made = new URL(url);
  made.pathname = `/${name}`;
  if (user) made.username = user;
  if (password) made.password = password;
  return made.toString();
};

const asSuper = async (text: string): Promise<void> => {
  const client = new pg.Client({ connectionString: superUrl });
  await client.connect();
  await client.query(text);
  await client.end();
};

export type Stage = {
  db: Db;
  /** another process on the same database, as far as anybody who asks it can tell */
  twin: () => Promise<Stage>;
  /** as the role that owns the tables: sees every club */
  owner: Kysely<Tables>;
  appUrl: string;
  ownerUrl: string;
  address: string;
  origin: string;
  stopping: AbortController;
  numbers: Numbers;
  close: () => Promise<void>;
};

/** A database of its own with nothing in it, and the two roles that use it. */
export const emptyDatabase = async (): Promise<{
  name: string;
  ownerUrl: string;
  appUrl: string;
}> => {
  const name = `test_${randomBytes(6).toString('hex')}`;
  const password = randomBytes(12).toString('hex');
  await asSuper(`
    do $$ begin
      create role gravek_app nologin;
    exception when duplicate_object or unique_violation then null; -- another file of tests was first
    end $$;
    create role ${name}_owner login password '${password}';
    create role ${name}_app login password '${password}' in role gravek_app;`);
  await asSuper(`create database ${name} owner ${name}_owner`);
  return {
    name,
    ownerUrl: withPath(superUrl, name, `${name}_owner`, password),
    appUrl: withPath(superUrl, name, `${name}_app`, password),
  };
};

/** A database of its own with the application on a port of its own. */
export const openStage = async ({
  demo = false,
  changes: given,
  proxy = false,
  room = () => 1e12,
  takenMs = 30_000,
  mostMs,
}: {
  demo?: boolean;
  changes?: Changes;
  proxy?: string | false;
  room?: () => number;
  /** how long is waited for somebody who takes nothing of a file */
  takenMs?: number;
  /** how long an archive may take to be read in */
  mostMs?: number;
} = {}): Promise<Stage> => {
  const { name, ownerUrl, appUrl } = await emptyDatabase();
  await migrate(ownerUrl);
  const ownerPool = new pg.Pool({ connectionString: ownerUrl, max: 2 });
  ownerPool.on('error', () => undefined);
  const owner = new Kysely<Tables>({ dialect: new PostgresDialect({ pool: ownerPool }) });
  const open: (() => Promise<void>)[] = [];
  const serveOnce = async (heard: Changes | undefined): Promise<Stage> => {
    const { db, pool } = connect(appUrl);
    const downloads = connect(appUrl, 'downloads');
    const log = pino({ level: 'error' });
    const changes = heard ?? listenForChanges(appUrl, log);
    const stopping = new AbortController();
    const disk = await watchDisk(
      { folder: '/', reserveBytes: 1e6 },
      () => Promise.resolve(room()),
      20,
    );
    const numbers = makeNumbers({ pool, disk, waiting: () => 0 });
    const tell = teller(db, stopping.signal);
    const restoring = restorer({
      ...{ db, tell, log },
      ...(mostMs === undefined ? {} : { mostMs }),
      databaseUrl: appUrl,
      program: new URL('../dist/readIn.mjs', import.meta.url),
    });
    const app = createApp({
      db,
      pool,
      sendPieces: piecesSender(downloads.db, takenMs),
      changes,
      restorer: restoring,
      tell,
      disk,
      numbers,
      log,
      sessionSecret: 'for tests only',
      demo,
      hosts: ['127.0.0.1'],
      proxy,
      webFolder: undefined,
      stopping: stopping.signal,
    });
    const server: Server = createServer(app);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    open.push(async () => {
      stopping.abort();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await restoring.stop();
      await changes.close();
      await downloads.db.destroy();
      await db.destroy();
    });
    return {
      db,
      twin: () => serveOnce(undefined),
      owner,
      appUrl,
      ownerUrl,
      address: origin,
      origin,
      stopping,
      numbers,
      close: async () => {
        for (const close of open) await close();
        await owner.destroy();
        await asSuper(`drop database ${name} with (force)`);
        await asSuper(`drop role ${name}_owner; drop role ${name}_app;`);
      },
    };
  };
  return serveOnce(given);
};

/** Waits for what comes in its own time. */
export const until = async (what: () => boolean | Promise<boolean>, ms = 45_000): Promise<void> => {
  const end = Date.now() + ms;
  while (!(await what())) {
    if (Date.now() > end) throw new Error('it did not come to pass');
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
};

/** The cookie of somebody who is signed in, for requests of another kind. */
export const cookieOf = (who: Coach): string =>
  (
    who.agent as unknown as {
      jar: { getCookies: (at: object) => { toValueString: () => string } };
    }
  ).jar
    .getCookies({ domain: '127.0.0.1', path: '/', secure: false, script: false })
    .toValueString();

export type Hearing = {
  said: () => string;
  status: () => number | null;
  ended: () => boolean;
  stop: () => void;
};

/** Listens to the changes of a club, as a page does. */
export const hear = (stage: Stage, who: Coach): Hearing => {
  const stop = new AbortController();
  let said = '';
  let status: number | null = null;
  let ended = false;
  void (async () => {
    try {
      const stream = await fetch(`${stage.address}/api/changes`, {
        headers: { cookie: cookieOf(who) },
        signal: stop.signal,
      });
      status = stream.status;
      if (stream.ok)
        for await (const part of stream.body!.pipeThrough(new TextDecoderStream())) said += part;
    } catch {
      // it was told to stop, or the server has
    }
    ended = true;
  })();
  return {
    said: () => said,
    status: () => status,
    ended: () => ended,
    stop: () => stop.abort(),
  };
};

export const PASSWORD = 'long enough for anybody';

export type Coach = {
  clubId: string;
  accountId: string;
  email: string;
  agent: ReturnType<typeof supertest.agent>;
  get: (path: string) => supertest.Test;
  post: (path: string, body?: object) => supertest.Test;
  put: (path: string, body: object) => supertest.Test;
  remove: (path: string) => supertest.Test;
};

const talk = (stage: Stage, who: { clubId: string; accountId: string; email: string }): Coach => {
  const agent = supertest.agent(stage.address);
  const write = (test: supertest.Test): supertest.Test => test.set('origin', stage.origin);
  /** Who logs in these tests waits until it is counted, which a process that leads does a moment later. */
  const thenCounted = (test: supertest.Test): supertest.Test => {
    const answered = test.then.bind(test);
    test.then = (done, failed) =>
      answered(async (answer) => {
        await countClub(stage.db, who.clubId);
        return answer;
      }).then(done, failed);
    return test;
  };
  return {
    ...who,
    agent,
    get: (path) => agent.get(`/api${path}`),
    post: (path, body = {}) => {
      const test = write(agent.post(`/api${path}`)).send(body);
      return path === '/reps' && who.clubId ? thenCounted(test) : test;
    },
    put: (path, body) => write(agent.put(`/api${path}`)).send(body),
    remove: (path) => write(agent.delete(`/api${path}`)),
  };
};

export const stranger = (stage: Stage): Coach =>
  talk(stage, { clubId: '', accountId: '', email: '' });

/** A person with a role in a club, signed in; the club is made when none is named. */
export const coachIn = async (
  stage: Stage,
  role: 'owner' | 'coach' | 'assistant' = 'owner',
  clubId?: string,
): Promise<Coach> => {
  const who = { clubId: clubId ?? uuid(), accountId: uuid(), email: `${uuid()}@club.invalid` };
  await inClub(stage.db, who, async (trx) => {
    await trx
      .insertInto('account')
      .values({
        id: who.accountId,
        email: who.email,
        person: `A ${role}`,
        password_hash: await hashPassword(PASSWORD),
      })
      .execute();
    if (!clubId) {
      await trx
        .insertInto('club')
        .values({
          id: who.clubId,
          name: `Club ${who.clubId.slice(0, 8)}`,
          unit: 'metric',
          cue_school: 'root-cause',
          time_zone: 'UTC',
        })
        .execute();
    }
    await trx
      .insertInto('membership')
      .values({ id: uuid(), account_id: who.accountId, role })
      .execute();
  });
  const coach = talk(stage, who);
  await coach.post('/sign-in', { email: who.email, password: PASSWORD }).expect(204);
  return coach;
};

/** Somebody whom an owner has invited and who has chosen a name and a password by the link. */
export const invited = async (
  stage: Stage,
  owner: Coach,
  { email = `${uuid()}@club.invalid`, role = 'coach', password = PASSWORD } = {},
): Promise<Coach & { memberId: string }> => {
  const memberId = uuid();
  const body = { id: memberId, person: 'Nils Farrow', email, role };
  await owner.post('/invitations', body).expect(200);
  const { token } = (await owner.post(`/invitations/${memberId}/link`).expect(200)).body as {
    token: string;
  };
  const nils = talk(stage, { clubId: owner.clubId, accountId: '', email });
  await nils.post('/invitation/new', { token, person: 'Nils Farrow', password }).expect(204);
  return { ...nils, memberId };
};

/** The link of an invitation to somebody, as the owner passes it on. */
export const inviteTo = async (owner: Coach, email: string, role = 'coach'): Promise<string> => {
  const id = uuid();
  await owner.post('/invitations', { id, person: 'Somebody', email, role }).expect(200);
  return ((await owner.post(`/invitations/${id}/link`).expect(200)).body as { token: string })
    .token;
};

export const anAthlete = (change: Partial<Athlete> = {}) => ({
  id: uuid(),
  name: 'Ilse Marrow',
  squad: 'Athletics',
  hand: 'right',
  takeoffFoot: 'left',
  shoeM: 0.26,
  heightM: 1.74,
  birthYear: 2008,
  bornOn: null,
  positions: ['long jump'],
  ...change,
});

export const anApproach = (athleteIds: string[], change: Partial<ApproachInput> = {}) => ({
  id: uuid(),
  name: 'Board, 12 steps',
  movement: 'straight-run-up',
  choices: {
    target: 'board',
    takeoffFoot: 'own',
    startFoot: null,
    steps: 12,
    distanceM: null,
    ending: { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
    absorb: 'early',
    tolerance: 0.1,
    speedFraction: 1,
    checkMarks: [4],
  },
  athleteIds,
  ...change,
});

export const aSession = (approachId: string, athleteIds: string[]): SessionInput => ({
  id: uuid(),
  date: '2031-05-14',
  title: 'Run-ups',
  groundId: null,
  place: 'Track',
  template: false,
  drillSets: [
    {
      ...freshDrillSet(uuid(), { kind: 'plan', approachId }, athleteIds),
      sets: 2,
      reps: 3,
      setRestS: 120,
    },
  ],
});

/** The phone that logs in the tests, and how many rows it has made. */
export const PHONE = uuid();
let logged = 0;

export const aRep = (session: SessionInput, change: Partial<Rep> = {}): Rep => ({
  id: uuid(),
  sessionId: session.id,
  drillSetId: session.drillSets[0]!.id,
  athleteId: session.drillSets[0]!.athleteIds[0]!,
  ...PLAIN_REP,
  could: movementOf('straight-run-up').faults.map(({ code }) => code),
  movement: 'straight-run-up',
  part: null,
  set: 1,
  side: 'own',
  rep: 1,
  turn: 1,
  leadFoot: null,
  speedPct: 100,
  device: PHONE,
  deviceNo: (logged += 1),
  outcome: 'clean',
  voids: null,
  faults: [],
  cue: null,
  at: '2031-05-14T10:00:00.000Z',
  ...change,
});

/** The log of a session as a phone gets it. */
export const logOf = async (coach: Coach, sessionId: string): Promise<StoredRep[]> =>
  ((await coach.get(`/sessions/${sessionId}/reps`)).body as LogPage).items;

/** The club's own copy of a built-in movement. */
export const aMovement = (change: Partial<Movement> = {}) => {
  const id = uuid();
  const { code, revision, ...rest } = movementOf('give-ground');
  return {
    id,
    basedOn: { code, revision },
    movement: { ...rest, revision, code: id, name: `Mirror ${id.slice(-4)}`, ...change },
  };
};

export const aRuleSet = () => ({
  id: uuid(),
  name: 'Our league',
  note: '',
  rules: [{ kind: 'most-steps', limit: 9 }],
});

export const aGround = (change: Partial<GroundInput> = {}): GroundInput => ({
  id: uuid(),
  name: 'Old quay hall',
  note: '',
  surface: 'hall floor',
  lanes: 2,
  laneM: 30,
  goalM: 3,
  uprightGapM: null,
  apron: null,
  gapM: 0.8,
  baseM: null,
  rim: null,
  net: null,
  marks: [{ name: 'area line', of: 'goal', fromM: 6 }],
  slots: [{ day: 'Wednesday', from: '17:00', to: '18:30' }],
  ...change,
});

/** A film in which four marks and three contacts were marked. */
export const aReview = (athleteId: string, change: Partial<ReviewInput> = {}): ReviewInput => ({
  id: uuid(),
  athleteId,
  movement: 'straight-run-up',
  approachId: null,
  side: 'own',
  takenOn: '2031-05-10',
  note: '',
  film: { name: 'jump.mp4', bytes: 9_000_000, frames: 240, durationS: 4, width: 1280, height: 720 },
  view: {
    kind: 'marks',
    pairs: [
      { px: { x: 210, y: 640 }, ground: { alongM: -6, acrossM: 0.61 } },
      { px: { x: 330, y: 402 }, ground: { alongM: -6, acrossM: -0.61 } },
      { px: { x: 1100, y: 655 }, ground: { alongM: 0, acrossM: 0.61 } },
      { px: { x: 930, y: 410 }, ground: { alongM: 0, acrossM: -0.61 } },
    ],
  },
  lineM: 0,
  firstStep: null,
  callS: null,
  contacts: [
    {
      foot: 'left',
      at: { x: 420, y: 560 },
      on: { atS: 1, gapS: 0.017 },
      off: { atS: 1.12, gapS: 0.017 },
    },
    { foot: 'right', at: { x: 660, y: 540 }, on: { atS: 1.24, gapS: 0.017 }, off: null },
    { foot: 'left', at: { x: 900, y: 560 }, on: { atS: 1.48, gapS: 0.033 }, off: null },
  ],
  poses: [
    {
      on: { atS: 1.48, gapS: 0.033 },
      foot: 'left',
      travel: 'right',
      joints: {
        shoulder: { x: 905, y: 300 },
        hip: { x: 890, y: 400 },
        knee: { x: 915, y: 470 },
        ankle: { x: 880, y: 545 },
        toe: { x: 900, y: 560 },
      },
    },
  ],
  ticks: [{ phase: 'last-steps', atS: 1.24 }],
  checks: [{ phase: 'start', look: 'Mark', right: 'yes' }],
  faults: ['reaches'],
  ...change,
});

/** A club with one of everything. */
export const furnish = async (coach: Coach) => {
  const athlete = anAthlete();
  await coach.post('/athletes', athlete).expect(200);
  const approach = anApproach([athlete.id]);
  await coach.post('/approaches', approach).expect(200);
  const ground = aGround();
  await coach.post('/grounds', ground).expect(200);
  const session = { ...aSession(approach.id, [athlete.id]), groundId: ground.id };
  await coach.post('/sessions', session).expect(200);
  const rep = aRep(session, { outcome: 'fault', faults: ['reaches'] });
  await coach.post('/reps', { reps: [rep] }).expect(200);
  const movement = aMovement();
  await coach.post('/movements', movement).expect(200);
  const review = aReview(athlete.id, { approachId: approach.id });
  await coach.post('/reviews', review).expect(200);
  const rules = aRuleSet();
  await coach.post('/rule-sets', rules).expect(200);
  return { athlete, approach, session, rep, movement, rules, ground, review };
};

/** What the database is asked while some work is done, but for the ends of transactions. */
export const statementsOf = async (work: () => PromiseLike<unknown>): Promise<string[]> => {
  const said: string[] = [];
  const real = pg.Client.prototype.query as (...args: unknown[]) => unknown;
  pg.Client.prototype.query = function heard(this: pg.Client, ...args: unknown[]) {
    const [query] = args as [string | { text: string }];
    said.push((typeof query === 'string' ? query : query.text).trim());
    return real.apply(this, args);
  } as never;
  try {
    await work();
  } finally {
    pg.Client.prototype.query = real as never;
  }
  // What a worker counts after a request is its own, and word of what changed before may come at any time.
  const end = said.indexOf('commit');
  const request = end < 0 ? said : said.slice(0, end);
  return request.filter(
    (text) =>
      !/^(begin|start transaction|set transaction)/.test(text) && !text.includes('pg_notify'),
  );
};

/** Everything that a club holds, as text, to see whether anything has changed. */
export const contentsOf = async (stage: Stage, clubId: string): Promise<string> => {
  const parts = await Promise.all(
    CLUB_TABLES.map(async (table) => {
      const { rows } = await sql<{ all: string }>`
        select coalesce(jsonb_agg(to_jsonb(t) order by to_jsonb(t)::text), '[]')::text as all
        from ${sql.table(table)} t where club_id = ${clubId}`.execute(stage.owner);
      return `${table}: ${rows[0]!.all}`;
    }),
  );
  return parts.join('\n');
};
