import { randomBytes } from 'node:crypto';
import { request } from 'node:http';
import { connect as connectTo, type AddressInfo, type Socket } from 'node:net';
import { CLUB_FILE_MAX, isUnderWay, type Restoring } from '@gravek/contract/archive';
import { CLUB_FILE_VERSION, type ClubFile } from '@gravek/contract/clubFile';
import type { OwnLink } from '@gravek/contract/ownView';
import compression from 'compression';
import express from 'express';
import { sql } from 'kysely';
import Papa from 'papaparse';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CLUB_TABLES } from '../src/database/clubTables';
import { connect } from '../src/database/connect';
import { piecesSender } from '../src/http/pieces';
import { problemHandler } from '../src/http/problem';
import {
  aMovement,
  anApproach,
  anAthlete,
  aRep,
  aSession,
  coachIn,
  cookieOf,
  furnish,
  openStage,
  PASSWORD,
  stranger,
  until,
  type Coach,
  type Stage,
} from './setup';

/** The whole club out as one file, and into an empty club with nothing lost. */

let stage: Stage;
beforeAll(async () => (stage = await openStage()));
afterAll(() => stage.close());

const outOf = async (coach: Coach): Promise<ClubFile> =>
  JSON.parse((await coach.get('/archive').expect(200)).text) as ClubFile;

const send = (coach: Coach, file: unknown) =>
  coach.agent
    .post('/api/archive')
    .set('origin', stage.origin)
    .type('application/json')
    .send(typeof file === 'string' ? file : JSON.stringify(file));

/** How an archive ended that was sent, however long it took. */
const ended = async (coach: Coach): Promise<Restoring> => {
  let last: Restoring | null = null;
  await until(async () => {
    ({ last } = (await coach.get('/archive/restoring').expect(200)).body as {
      last: Restoring | null;
    });
    return last !== null && !isUnderWay(last);
  });
  return last!;
};

const into = async (coach: Coach, file: unknown): Promise<Restoring> => {
  await send(coach, file).expect(202);
  return ended(coach);
};

/** @throws {Error} with why it was refused */
const done = async (coach: Coach, file: unknown): Promise<void> =>
  expect(await into(coach, file)).toMatchObject({ state: 'done', said: null });

/** What is answered to a body that says it is too large, before any of it is there. */
const statusOfTooLarge = async (coach: Coach): Promise<number | undefined> => {
  const cookie = cookieOf(coach);
  return new Promise((resolve, reject) => {
    const asked = request(
      `${stage.address}/api/archive`,
      {
        method: 'POST',
        headers: {
          ...{ origin: stage.origin, 'content-type': 'application/json' },
          ...{ 'content-length': CLUB_FILE_MAX + 1, cookie },
        },
      },
      (res) => {
        resolve(res.statusCode);
        res.destroy();
      },
    );
    asked.on('error', reject);
    asked.write('{');
  });
};

/** Addresses of calendars and own pages are keys; who is a member is looked at by itself. */
const KEYS = ['calendar_address', 'own_link', 'membership', 'invitation', 'deed', 'restoring'];
const KEPT = CLUB_TABLES.filter((table) => !KEYS.includes(table));

/** Every row of a club, without what tells when it came into this database and how often it was saved. */
const rowsOf = async (clubId: string): Promise<Record<string, string[]>> => {
  const all: Record<string, string[]> = {};
  for (const table of KEPT) {
    const { rows } = await sql<{ row: Record<string, unknown> }>`
      select to_jsonb(t) - 'club_id' - 'created_at' - 'version' - 'counted' as row
      from ${sql.table(table)} t where club_id = ${clubId}`.execute(stage.owner);
    all[table] = rows
      .map(({ row }) => {
        for (const flag of ['archived_at', 'removed_at']) if (row[flag]) row[flag] = true;
        if (table === 'movement' || table === 'ground' || table === 'rule_set') delete row.saved_at;
        // A file writes moments to the thousandth of a second.
        for (const [key, value] of Object.entries(row))
          if (/_at$/.test(key) && typeof value === 'string')
            row[key] = new Date(value).toISOString();
        return JSON.stringify(row);
      })
      .sort();
  }
  return all;
};

/** A club in which everything that can be kept is kept, put away or taken out. */
const fullClub = async (): Promise<Coach> => {
  const coach = await coachIn(stage);
  const helper = await coachIn(stage, 'assistant', coach.clubId);
  const own = await furnish(coach);
  const { athlete } = own;
  const gone = anAthlete({ legM: 0.9 });
  const guest = anAthlete({ hand: 'left', takeoffFoot: 'left' });
  for (const one of [gone, guest]) await coach.post('/athletes', one).expect(200);
  await coach.put(`/athletes/${gone.id}/away`, { away: true }).expect(200);
  const trial = (takenOn: string) => ({
    ...{ id: uuid(), athleteId: athlete.id, takenOn, source: 'other', note: 'wind' },
    steps: Array.from({ length: 9 }, (_, i) => ({
      lengthM: 1.2 + 0.08 * i,
      intervalS: 0.27 - 0.003 * i,
    })),
  });
  const at = `/athletes/${athlete.id}`;
  const [kept, out] = [trial('2031-05-02'), trial('2031-05-01')];
  for (const one of [kept, out]) await coach.post(`${at}/trials`, one).expect(200);
  await coach.put(`${at}/trials/${out.id}/away`, { away: true }).expect(200);
  const reading = { kind: 'run-through', missesM: [0.1, -0.05, 0.02] };
  await coach
    .post(`${at}/readings`, { ...kept, steps: undefined, id: uuid(), reading })
    .expect(200);
  const restriction = {
    ...{ id: uuid(), athleteId: athlete.id, kind: 'reduced', from: '2031-05-01' },
    ...{ until: null, share: 0.5, note: 'knee' },
  };
  await coach.post(`${at}/restrictions`, restriction).expect(200);
  await coach.put(`${at}/restrictions/${restriction.id}/away`, { away: true }).expect(200);
  const put = aMovement();
  await coach.post('/movements', put).expect(200);
  await coach.put(`/movements/${put.id}/away`, { away: true }).expect(200);
  // Solved before another run was measured: it stays as it was.
  const plan = anApproach([athlete.id]);
  await coach.post('/approaches', plan).expect(200);
  const session = aSession(plan.id, [athlete.id, guest.id]);
  await coach.post('/sessions', session).expect(200);
  await coach.post(`${at}/trials`, trial('2031-05-10')).expect(200);
  const rep = (change: object) =>
    aRep(session, { outcome: 'fault', faults: ['reaches'], ...change });
  const measured = {
    by: 'film',
    simulated: false,
    steps: [{ lengthM: 1.91, intervalS: 0.24 }],
    course: [],
  };
  const [first, second] = [
    rep({ rep: 1, turn: 1 }),
    rep({ rep: 2, turn: 2, cue: 'reaches', measured }),
  ];
  await coach.post('/reps', { reps: [first, second] }).expect(200);
  const undo = { ...first, id: uuid(), outcome: 'void', voids: first.id, faults: [] };
  await coach.post('/reps', { reps: [{ ...undo, deviceNo: 90 }] }).expect(200);
  const theirs = rep({ rep: 2, turn: 2, device: uuid(), faults: ['slows-in'], note: 'late' });
  await helper.post('/reps', { reps: [theirs] }).expect(200);
  const choice = { id: uuid(), movement: 'straight-run-up', reason: 'seen' };
  await coach.post(`${at}/cues`, { ...choice, fault: 'reaches', drill: null }).expect(204);
  await coach.post(`${at}/rungs`, { ...choice, id: uuid(), rung: 'half' }).expect(204);
  const put2 = aSession(plan.id, [athlete.id]);
  await coach.post('/sessions', put2).expect(200);
  await coach.put(`/sessions/${put2.id}/away`, { away: true }).expect(200);
  const { token } = (await coach.post(`${at}/own-link`, { days: 5, guardian: true }).expect(200))
    .body as OwnLink;
  const today = new Date().toISOString().slice(0, 10);
  const alone = { ...aSession(plan.id, [athlete.id]), date: today };
  await coach.post('/sessions', alone).expect(200);
  const counted = { ...{ id: uuid(), sessionId: alone.id, drillSetId: alone.drillSets[0]!.id } };
  await stranger(stage)
    .agent.post('/api/own/counts')
    .set('origin', stage.origin)
    .send({
      token,
      counts: [{ ...counted, side: 'own', made: true, at: `${today}T00:00:00.000Z` }],
    })
    .expect(200, { refused: [] });
  const club = (await coach.get('/me').expect(200)).body.club as Record<string, unknown>;
  const limits = [{ kind: 'jumps', upToAge: 14, week: 60 }];
  await coach.put('/club', { ...club, unit: 'imperial', limits }).expect(200);
  return coach;
};

describe('tables for a spreadsheet', () => {
  it('hold reps that stand, faults, measures and loads, and no cell that would run', async () => {
    const coach = await fullClub();
    const cells = async (table: string): Promise<string[][]> => {
      const { text } = await coach.get(`/csv/${table}`).expect(200).expect('content-type', /csv/);
      const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: true });
      expect(new Set(data.map((row) => row.length)).size).toBe(1);
      return data;
    };
    const [heads, ...reps] = await cells('reps');
    // One was taken back, and one was logged by two: two turns and that of another session stand.
    const logged = (await outOf(coach)).reps.filter(({ outcome }) => outcome !== 'void');
    expect(logged).toHaveLength(4);
    expect(reps).toHaveLength(2);
    expect(reps.map((row) => row[heads!.indexOf('logged by')])).toEqual(['A owner', 'A owner']);
    expect((await cells('faults')).length).toBeGreaterThan(1);
    const measures = await cells('measures');
    expect(measures.filter((row) => row[3] === 'run-through').map((row) => row[5])).toEqual([
      '0.1',
      '-0.05',
      '0.02',
    ]);
    expect(measures.some((row) => row[4] === 'step 9 lengthM' && row[5] === '1.84')).toBe(true);
    expect((await cells('loads'))[1]!.slice(4, 6)).toEqual(['Straight run-up', '1']);
    const { athletes } = await outOf(coach);
    const { id, ...fields } = athletes[0]!;
    const named = { ...fields, name: '@SUM(1)', squad: '=1+1' };
    await coach.put(`/athletes/${id}`, { ...named, version: 1 }).expect(200);
    expect((await cells('measures'))[1]!.slice(0, 2)).toEqual(["'@SUM(1)", "'=1+1"]);
    for (const table of ['reps', 'faults', 'results', 'measures', 'loads']) {
      for (const cell of (await cells(table)).flat()) {
        expect(cell).not.toMatch(/^\s*[=@+]/);
      }
    }
    await coach.get('/csv/everything').expect(404);
    const helper = await coachIn(stage, 'assistant', coach.clubId);
    await helper.get('/csv/reps').expect(403);
    await stranger(stage).get('/csv/reps').expect(401);
  });
});

/** What a club's reps say of a movement. */
const OF_RUN_UP = ['causes', 'ways', 'progress'].map((what) => `/${what}/straight-run-up`);

describe('an archive', () => {
  it('restores a club into an empty one with nothing lost, and says the same of it', async () => {
    const from = await fullClub();
    const file = await outOf(from);
    expect(file.version).toBe(CLUB_FILE_VERSION);
    expect(JSON.stringify(file)).not.toMatch(/password|argon/i);
    const to = await coachIn(stage);
    await done(to, file);
    expect(await rowsOf(to.clubId)).toEqual(await rowsOf(from.clubId));
    for (const table of KEPT.filter((one) => one !== 'rep_count' && one !== 'fault_standing'))
      expect((await rowsOf(from.clubId))[table]!.length, table).toBeGreaterThan(0);
    for (const place of ['/faults', '/today', ...OF_RUN_UP]) {
      expect((await to.get(place).expect(200)).body).toEqual((await from.get(place)).body);
    }
    const again = await outOf(to);
    expect(again.people.map((person) => person.email)).toEqual(
      expect.arrayContaining(file.people.map((person) => person.email)),
    );
    expect({ ...again, clubId: '', people: [] }).toEqual({ ...file, clubId: '', people: [] });
    // An answer that was lost: the same once more is done; another is refused, and changes nothing.
    await done(to, file);
    const other = { ...file, club: { ...file.club, name: 'Another' } };
    expect((await into(to, other)).said).toContain('holds something already');
    expect((await outOf(to)).club).toEqual(file.club);
  });

  /** A server that sends pieces which do not pack well, so that each fills what may wait. */
  const sending = async (coach: Coach, takenMs: number, pieces: number) => {
    const { db } = connect(stage.appUrl, 'downloads');
    const send = piecesSender(db, takenMs);
    const file = { least: 'owner', name: 'long.txt', type: 'text/plain' } as const;
    const served = express()
      .use(compression())
      .get('/long', (_req, res) =>
        send(coach, file, res, async function* () {
          for (let i = 0; i < pieces; i += 1) yield `${randomBytes(40_000).toString('base64')}é🏃`;
        }),
      )
      .use(problemHandler)
      .listen(0);
    const { port } = served.address() as AddressInfo;
    return {
      address: `http://127.0.0.1:${port}/long`,
      close: async () => {
        served.close();
        await db.destroy();
      },
    };
  };

  it('goes out in many pieces without a listener more for each', async () => {
    const coach = await coachIn(stage, 'owner');
    const warned: string[] = [];
    const hear = ({ name }: Error): void => void warned.push(name);
    process.on('warning', hear);
    const { address, close } = await sending(coach, 30_000, 60);
    const text = await (await fetch(address)).text();
    expect(text.length).toBe(60 * (53_336 + 3));
    expect(text.split('é🏃')).toHaveLength(61);
    // Warnings are told a moment later.
    await new Promise((resolve) => setImmediate(resolve));
    process.off('warning', hear);
    await close();
    expect(warned).toEqual([]);
  });

  it('keeps nobody from being answered, however many ask for it and read nothing', async () => {
    const coaches = await Promise.all(Array.from({ length: 8 }, () => coachIn(stage, 'owner')));
    const [first, ...others] = await Promise.all(
      coaches.map((coach) => sending(coach, 1_500, 5_000)),
    );
    const silent: Socket[] = [];
    const ask = (address: string): Promise<number> => {
      const { hostname, port } = new URL(address);
      const socket = connectTo(Number(port), hostname);
      silent.push(socket);
      socket.on('error', () => undefined);
      socket.write(`GET /long HTTP/1.1\r\nhost: ${hostname}\r\n\r\n`);
      return new Promise((resolve) => {
        socket.once('data', (part) => {
          // The first line only: from here on nothing is taken.
          socket.pause();
          resolve(Number(/^HTTP\/1.1 (\d+)/.exec(String(part))?.[1]));
        });
      });
    };
    expect(await Promise.all([ask(first!.address), ask(first!.address)])).toEqual([200, 200]);
    expect(await ask(first!.address)).toBe(503);
    await Promise.all(others.map((other) => ask(other.address)));
    for (const coach of coaches) await coach.get('/me').expect(200);
    await stranger(stage).agent.get('/readyz').expect(200);
    // Who takes nothing is let go of, and others are sent theirs.
    await until(async () => {
      const { status, body } = await fetch(first!.address);
      await body?.cancel();
      return status === 200;
    });
    const left = sql<{ n: number }>`select count(*)::int as n from pg_stat_activity
      where datname = current_database() and state like 'idle in transaction%'`;
    await until(async () => (await left.execute(stage.owner)).rows[0]!.n === 0);
    for (const socket of silent) socket.destroy();
    for (const one of [first!, ...others]) await one.close();
  });

  it('is for owners only, and nobody else’s body is read', async () => {
    const owner = await coachIn(stage);
    const coach = await coachIn(stage, 'coach', owner.clubId);
    await coach.get('/archive').expect(403);
    await send(coach, '{}').expect(403);
    await stranger(stage).get('/archive').expect(401);
    await send(stranger(stage), '{}').expect(401);
  });

  it('is refused whole and in words when it is broken, newer, too large or does not hang together', async () => {
    const file = await outOf(await fullClub());
    const to = await coachIn(stage);
    const before = await rowsOf(to.clubId);
    const said = async (sent: unknown): Promise<string> => {
      const { state, said: why } = await into(to, sent);
      expect(state).toBe('refused');
      return why!;
    };
    expect(await said('{"format": "gravek-')).toContain('cannot be read as JSON');
    expect(await said('[]')).toContain('cannot be loaded');
    expect(await said({ ...file, version: CLUB_FILE_VERSION + 1 })).toContain('newer Gravek');
    expect(await said({ ...file, format: 'other' })).toContain('format');
    const [rep, ...others] = file.reps;
    expect(await said({ ...file, reps: [...others, { ...rep!, outcome: 'splendid' }] })).toContain(
      `reps[${others.length}].outcome`,
    );
    expect(await said({ ...file, athletes: file.athletes.slice(1) })).toContain(
      'no such athlete in the file',
    );
    const { model } = file.approaches.at(-1)!.solved![0]!;
    const solved = [
      { ...file.approaches.at(-1)!.solved![0]!, model: { ...model, topLengthM: -1 } },
    ];
    expect(await said({ ...file, approaches: [{ ...file.approaches.at(-1)!, solved }] })).toContain(
      'solved[0].model.topLengthM',
    );
    expect(await statusOfTooLarge(to)).toBe(413);
    expect(await rowsOf(to.clubId)).toEqual(before);
  });

  it('keeps nobody waiting for a body that never ends, and takes the next one', async () => {
    const coach = await coachIn(stage);
    const begun = request(`${stage.address}/api/archive`, {
      method: 'POST',
      headers: {
        origin: stage.origin,
        'content-type': 'application/json',
        cookie: cookieOf(coach),
      },
    });
    begun.on('error', () => undefined);
    begun.write('{"format":');
    await until(async () => (await send(coach, '{}')).status === 503);
    const other = await coachIn(stage);
    expect((await into(other, '{}')).state).toBe('refused');
    begun.destroy();
    await until(async () => (await send(coach, '{}')).status === 202);
    expect((await ended(coach)).state).toBe('refused');
  });

  it('of 90 MB of nothing is refused, and who asks meanwhile is answered', async () => {
    const coach = await coachIn(stage);
    const sent = send(coach, `{"people":[${'{},'.repeat(30_000_000)}{}]}`).expect(202);
    const isThere = sent.then(() => true);
    let answered = 0;
    for (let over = false; !over;) {
      await coach.get('/me').expect(200);
      answered += 1;
      over = await Promise.race([isThere, Promise.resolve(false)]);
    }
    expect(answered).toBeGreaterThan(0);
    expect((await ended(coach)).said).toContain('people: At most 200');
  });

  it('brings people who are new here in by a link only', async () => {
    const file = await outOf(await fullClub());
    const to = await coachIn(stage);
    const email = `${uuid()}@club.invalid`;
    const person = { id: uuid(), account: uuid(), person: 'Somebody New', email, role: 'coach' };
    const reps = file.reps.map((rep) => ({ ...rep, loggedBy: person.account }));
    await done(to, { ...file, reps, people: [...file.people, person] });
    const members = (await to.get('/members').expect(200)).body as { email: string }[];
    expect(members.map((member) => member.email)).toEqual([to.email]);
    const accounts = await stage.owner
      .selectFrom('account')
      .select('id')
      .where('email', '=', email)
      .execute();
    expect(accounts).toEqual([]);
    const { token } = (await to.post(`/invitations/${person.id}/link`).expect(200)).body as {
      token: string;
    };
    const somebody = stranger(stage);
    await somebody
      .post('/invitation/new', { token, person: 'Sunna Vale', password: PASSWORD })
      .expect(204);
    // What stands under the account of the file is theirs now, here and in the next archive.
    expect((await to.get('/csv/reps').expect(200)).text).toContain('Sunna Vale');
    const again = await outOf(to);
    const { account } = again.people.find((person) => person.email === email)!;
    expect(account).not.toBe(person.account);
    expect(again.reps.filter((rep) => rep.loggedBy === account)).toHaveLength(file.reps.length);
  });
});
