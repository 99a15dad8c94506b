import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { request, type IncomingMessage } from 'node:http';
import { createServer } from 'node:net';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import type { SquadFaults } from '@gravek/contract/faults';
import { turnKey } from '@gravek/core/session/repLog';
import { makeSeason } from '@gravek/demo/season';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadClubFile, loadDemo } from '../src/clubFile/load';
import { spooled } from '../src/clubFile/spool';
import { checkRole, connect } from '../src/database/connect';
import { migrate } from '../src/operator/migrate';
import { StartFault } from '../src/startFault';
import { coachIn, openStage, stranger, until, type Stage } from './setup';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage({ demo: true });
});
afterAll(() => stage.close());

describe('the database', () => {
  it('migrates twice without harm, and refuses one made by a newer version', async () => {
    await expect(migrate(stage.ownerUrl)).resolves.toBe(0);
    await sql`insert into kysely_migration (name, timestamp) values ('9999_later', 'x')`.execute(
      stage.owner,
    );
    await expect(migrate(stage.ownerUrl)).rejects.toThrow(/newer Gravek/);
    await sql`delete from kysely_migration where name = '9999_later'`.execute(stage.owner);
  });

  it('is not served with a role that row-level security does not hold back', async () => {
    const { db } = connect(stage.ownerUrl);
    await expect(checkRole(db)).rejects.toThrow(/row-level security/);
    await db.destroy();
    await expect(checkRole(stage.db)).resolves.toBeUndefined();
  });
});

describe('a club file', () => {
  const load = (text: string) => loadClubFile(stage.db, Readable.from([Buffer.from(text)]));
  const season = makeSeason(new Date('2031-05-14T12:00:00Z'), 'a password for tests');

  it('that is wrong is refused whole, with the place', async () => {
    await expect(load('{')).rejects.toThrow('cannot be read as JSON');
    const newer = JSON.stringify({ ...season, version: 99 });
    await expect(load(newer)).rejects.toThrow('newer Gravek');
    for (const version of [0, -1, 2.5, '6', null, {}]) {
      const odd = load(JSON.stringify({ ...season, version }));
      await expect(odd, String(version)).rejects.toThrow('cannot be loaded');
    }
    const bad = JSON.stringify({ ...season, athletes: [{ ...season.athletes[0], heightM: 9 }] });
    await expect(load(bad)).rejects.toThrow('athletes[0].heightM');
    expect((await stranger(stage).get('/door')).body).toEqual({
      demo: true,
      empty: true,
      signedIn: false,
    });
  });

  // What is looked for is in its first rows: all of them would be read anew for each thing that is wrong.
  const reps = season.reps.slice(0, 300);
  const logged = new Set(reps.map((rep) => rep.sessionId));
  const beginning = {
    ...season,
    reps,
    sessions: season.sessions.filter(({ id }) => logged.has(id)),
  };
  type Season = typeof beginning;
  const first = <T>(list: readonly T[], change: object): T[] => [
    { ...list[0]!, ...change },
    ...list.slice(1),
  ];
  const other = '0190a000-0000-7000-8000-00000000abcd';
  it.each<[what: string, where: string, change: (file: Season) => object | string | null]>([
    ['no object', 'the file', () => '7'],
    ['nothing at all', 'the file', () => 'null'],
    ['a list', 'the file', () => '[]'],
    ['another format', 'format', () => ({ format: 'gravek-movement' })],
    ['no version', 'version', () => ({ version: undefined })],
    ['an old version that is laid out as none', 'sessions', () => ({ version: 1, sessions: 7 })],
    [
      'an old version that is said too late',
      'says its version first',
      ({ version: _, ...file }) => JSON.stringify({ ...file, version: 2 }),
    ],
    ['no people', 'people', () => ({ people: [] })],
    ['nobody who owns', 'people', ({ people }) => ({ people: [{ ...people[1]!, role: 'coach' }] })],
    [
      'two of one address',
      'people[1]',
      ({ people }) => ({ people: people.map((person) => ({ ...person, email: 'a@b.invalid' })) }),
    ],
    ['a person twice', 'people[2]', ({ people }) => ({ people: [...people, people[0]] })],
    ['athletes that are no list', 'athletes', () => ({ athletes: 'all' })],
    ['an athlete twice', 'athletes[', ({ athletes }) => ({ athletes: [...athletes, athletes[0]] })],
    [
      'an athlete who is missing',
      'There is no such athlete',
      ({ athletes }) => ({ athletes: athletes.slice(1) }),
    ],
    [
      'a name of signs that no database keeps',
      'athletes[0].name',
      ({ athletes }) => ({ athletes: first(athletes, { name: 'a\0b' }) }),
    ],
    [
      'a restriction of nobody',
      'restrictions[0].athleteId',
      ({ restrictions }) => ({ restrictions: first(restrictions, { athleteId: other }) }),
    ],
    [
      'a day that does not exist',
      'restrictions[0].from',
      ({ restrictions }) => ({ restrictions: first(restrictions, { from: '2031-02-31' }) }),
    ],
    [
      'a run of nobody',
      'trials[0].athleteId',
      ({ trials }) => ({ trials: first(trials, { athleteId: other }) }),
    ],
    ['a run twice', 'trials[', ({ trials }) => ({ trials: [...trials, trials[0]] })],
    [
      'a movement that leads nowhere',
      'movements[0].movement',
      ({ clubId }) => ({ movements: [{ id: clubId, basedOn: null, movement: {} }] }),
    ],
    [
      'an approach of no movement',
      'approaches[0].movement',
      ({ approaches }) => ({ approaches: first(approaches, { movement: 'hovering' }) }),
    ],
    [
      'an approach of a club’s movement that is missing',
      'approaches[0].movement',
      ({ approaches }) => ({ approaches: first(approaches, { movement: other }) }),
    ],
    [
      'an approach twice',
      'approaches[',
      ({ approaches }) => ({ approaches: [...approaches, approaches[0]] }),
    ],
    [
      'an approach for nobody there',
      'approaches[0].athleteIds[0]',
      ({ approaches }) => ({ approaches: first(approaches, { athleteIds: [other] }) }),
    ],
    ['a session twice', 'sessions[', ({ sessions }) => ({ sessions: [...sessions, sessions[0]] })],
    [
      'a drill set in two sessions',
      'sessions[1].drillSets[0].id',
      ({ sessions }) => ({
        sessions: [
          sessions[0]!,
          { ...sessions[1]!, drillSets: sessions[0]!.drillSets },
          ...sessions.slice(2),
        ],
      }),
    ],
    [
      'a drill set of no approach',
      'sessions[0].drillSets[0].work.approachId',
      ({ sessions }) => ({
        sessions: first(sessions, {
          drillSets: [{ ...sessions[0]!.drillSets[0]!, work: { kind: 'plan', approachId: other } }],
        }),
      }),
    ],
    [
      'a rep of another session',
      'reps[0].drillSetId',
      ({ reps }) => ({ reps: first(reps, { sessionId: other }) }),
    ],
    ['a rep twice', 'reps[', ({ reps }) => ({ reps: [...reps, reps[0]] })],
    [
      'a rep of no movement',
      'reps[0].movement',
      ({ reps }) => ({ reps: first(reps, { movement: 'hovering' }) }),
    ],
    [
      'a rep that takes back none',
      'reps[0].voids',
      ({ reps }) => ({ reps: first(reps, { outcome: 'void', voids: other, faults: [] }) }),
    ],
    ['a list longer than anybody’s', 'people', () => ({ people: Array(10_000).fill({}) })],
  ])('with %s is refused with the place, and nothing of it stays', async (_what, where, change) => {
    const changed = change(beginning);
    const file =
      typeof changed === 'string' ? changed : JSON.stringify({ ...beginning, ...changed });
    const refused: unknown = await load(file).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(StartFault);
    const { message } = refused as StartFault;
    expect(message).toContain(where);
    expect(message.length).toBeLessThan(1_500);
    expect((await stranger(stage).get('/door')).body).toEqual({
      demo: true,
      empty: true,
      signedIn: false,
    });
  });

  it('of the version before is read: its reps take what they were from their drill set', async () => {
    // What was trained so far: what comes is of kinds that the version before did not know.
    const trained = season.sessions
      .filter((session) => session.date <= '2031-05-14')
      .map((session) => ({
        ...session,
        drillSets: session.drillSets.map((set) => ({
          ...{ ...set, target: 'attempts', amount: 1, order: 'blocked' },
          vary: { ...set.vary, spots: [], ways: [] },
        })),
      }));
    const asPlanned = season.reps.filter(({ variant }) => variant === '').slice(0, 400);
    const before = {
      ...season,
      version: 2,
      sessions: trained.map((session) => ({
        ...session,
        drillSets: session.drillSets.map(({ id, work, athleteIds, vary, ...set }) => {
          const { sets, reps, restS, setRestS } = set;
          const approachId = work.kind === 'plan' ? work.approachId : '';
          return { id, approachId, athleteIds, sets, reps, restS, setRestS, sides: vary.sides };
        }),
      })),
      reps: asPlanned.map((rep) => {
        const { movement: _m, part: _p, turn: _t, leadFoot: _l, speedPct: _s, ...rest } = rep;
        const { device: _d, deviceNo: _n, ...old } = rest;
        return old;
      }),
    };
    const looked = async (file: unknown) => {
      const spool = await spooled(Readable.from([Buffer.from(JSON.stringify(file))]));
      const all = async <L extends 'sessions' | 'reps'>(list: L) => {
        const found = [];
        for await (const { items } of spool.read(list)) found.push(...items);
        return found;
      };
      const read = { sessions: await all('sessions'), reps: await all('reps') };
      await spool.close();
      return read;
    };
    const { sessions, reps: upgraded } = await looked(before);
    expect(upgraded).toHaveLength(400);
    upgraded.forEach((rep, i) => {
      const { movement, part, turn, speedPct } = asPlanned[i]!;
      expect(rep).toMatchObject({ movement, part, turn, speedPct, deviceNo: i + 1 });
    });
    expect(sessions).toEqual(trained);
    await expect(looked({ ...before, approaches: [] })).rejects.toThrow('reps[0].movement');
    for (const odd of [null, 7, 'x', {}, { version: 2 }, { version: 2, reps: [null] }]) {
      await expect(looked(odd), JSON.stringify(odd)).rejects.toThrow('cannot be loaded');
    }
  });

  it('of the demo loads whole, and is entered with one press', async () => {
    // With the mark that some editors begin a file with.
    await loadDemo(stage.db, Readable.from([Buffer.from(`\ufeff${JSON.stringify(season)}`)]));
    const visitor = stranger(stage);
    await visitor.post('/demo-entry').expect(204);
    const roster = (await visitor.get('/athletes')).body.items as unknown[];
    expect(roster).toHaveLength(season.athletes.length);
    const { movements } = (await visitor.get('/faults')).body as SquadFaults;
    const reps = await Promise.all(
      movements.map(async (code) => {
        const asked = await visitor.get(`/faults?movement=${encodeURIComponent(code)}`);
        return (asked.body as SquadFaults).items.reduce((sum, item) => sum + item.reps, 0);
      }),
    );
    // What a second coach watched too counts once.
    const turns = new Set(
      season.reps.filter((rep) => rep.outcome === 'clean' || rep.outcome === 'fault').map(turnKey),
    );
    expect(reps.reduce((sum, rep) => sum + rep, 0)).toBe(turns.size);
  });
});

describe('the server process', () => {
  const main = fileURLToPath(new URL('../dist/main.mjs', import.meta.url));
  const start = (env: Record<string, string>, ...command: string[]) => {
    const child = spawn(process.execPath, [main, ...command], {
      env: {
        ...process.env,
        SESSION_SECRET: 'for tests only',
        DATABASE_URL: stage.appUrl,
        LOG_LEVEL: 'info',
        ...env,
      },
    });
    let said = '';
    child.stdout.on('data', (part) => (said += String(part)));
    child.stderr.on('data', (part) => (said += String(part)));
    return { child, said: () => said, ended: once(child, 'exit') };
  };
  const freePort = async (): Promise<number> => {
    const probe = createServer().listen(0, '127.0.0.1');
    await once(probe, 'listening');
    const { port } = probe.address() as { port: number };
    probe.close();
    return port;
  };
  const answering = (port: number): Promise<void> =>
    until(() =>
      fetch(`http://127.0.0.1:${port}/healthz`).then(
        (answer) => answer.ok,
        () => false,
      ),
    );

  it('ends requests under way when told to stop, and logs nobody’s name', async () => {
    const port = await freePort();
    const { child, said, ended } = start({ PORT: String(port) });
    await answering(port);
    const coach = await coachIn(stage);
    const address = `http://127.0.0.1:${port}`;
    const entry = await fetch(`${address}/api/sign-in`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ email: coach.email, password: 'long enough for anybody' }),
    });
    expect(entry.status).toBe(204);
    // A proxy gives up a connection after a minute: the server must not be the first.
    expect(entry.headers.get('keep-alive')).toMatch(/^timeout=7\d$/);
    expect((await fetch(`${address}/calendar/a-key-of-somebody.ics`)).status).toBe(404);
    // Under way for sure: the server has asked for the rest of it before it is told to stop.
    const underWay = request(`${address}/api/sign-in`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json', expect: '100-continue' },
    });
    underWay.flushHeaders();
    await once(underWay, 'continue');
    child.kill('SIGTERM');
    underWay.end(JSON.stringify({ email: coach.email, password: 'wrong in any case' }));
    const [answer] = (await once(underWay, 'response')) as [IncomingMessage];
    expect(answer.statusCode).toBe(401);
    answer.resume();
    expect(await ended).toEqual([0, null]);
    expect(said()).toContain('/api/sign-in');
    expect(said()).not.toContain(coach.email);
    expect(said()).not.toContain('wrong in any case');
    // The address of a calendar is a key.
    expect(said()).toContain('/calendar/…');
    expect(said()).not.toContain('a-key-of-somebody');
  });

  it('makes a link to a new password for whoever has forgotten it', async () => {
    const coach = await coachIn(stage);
    const made = start({}, 'link', ` ${coach.email.toUpperCase()} `);
    expect(await made.ended).toEqual([0, null]);
    const [, token] = /new-password#(\S+)/.exec(made.said())!;
    const password = 'cinder and seven lanes';
    await stranger(stage).post('/new-password', { token, password }).expect(204);
    await stranger(stage).post('/sign-in', { email: coach.email, password }).expect(204);
    const nobody = start({}, 'link', 'nobody@farrow.invalid');
    expect(await nobody.ended).toEqual([1, null]);
    expect(nobody.said()).toContain('Nobody has an account');
  });

  it('says in a line what stands in its way', async () => {
    const taken = createServer().listen(0, '127.0.0.1');
    await once(taken, 'listening');
    const { port } = taken.address() as { port: number };
    const fails: [said: string, env: Record<string, string>, ...command: string[]][] = [
      [`Port ${port} is taken`, { PORT: String(port) }],
      [
        'The database cannot be reached',
        { DATABASE_URL: 'postgres://nobody@127.0.0.1:1/none' },
        'prepare',
      ],
      ...['1', 'nginx', '10.0.0.0/x'].map((GRAVEK_PROXY): [string, Record<string, string>] => [
        'GRAVEK_PROXY takes addresses',
        { GRAVEK_PROXY },
      ]),
      ['GRAVEK_HOSTS is not set', { HOST: '0.0.0.0' }],
      ['row-level security does not hold back', { DATABASE_URL: stage.ownerUrl }],
    ];
    // Side by side: a process takes long to start.
    await Promise.all(
      fails.map(async ([said, env, ...command]) => {
        const failing = start(env, ...command);
        expect(await failing.ended).toEqual([1, null]);
        expect(failing.said()).toContain(said);
      }),
    );
    taken.close();
  });
});
