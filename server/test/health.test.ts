import { sql } from 'kysely';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { makeNumbers, serveNumbers } from '../src/operator/numbers';
import { watchDisk } from '../src/operator/disk';
import { connect } from '../src/database/connect';
import {
  aRep,
  anAthlete,
  coachIn,
  furnish,
  logOf,
  openStage,
  stranger,
  until,
  type Coach,
  type Stage,
} from './setup';

/** What an operator's tools ask, and what holds when the disk runs full. */

let stage: Stage;
let coach: Coach;
let room = 1e12;

beforeAll(async () => {
  stage = await openStage({ room: () => room });
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const readyz = async () =>
  (await stranger(stage).agent.get('/readyz')).body as { ready: boolean; why: string[] };

/** Leaves so many bytes free, and waits until the server has seen it. */
const leave = async (bytes: number): Promise<void> => {
  room = bytes;
  await until(async () => (await readyz()).why.length === (bytes < 1e6 ? 1 : 0));
};
afterEach(() => leave(1e12));

describe('a disk that is nearly full', () => {
  it('refuses writes with a sentence while reading goes on, loses nothing, and comes back by itself', async () => {
    const { session, rep } = await furnish(coach);
    const late = aRep(session, { rep: 2, turn: 2 });
    await leave(1_000);
    await coach.post('/reps', { reps: [late] }).expect(503);
    const refused = await coach.post('/athletes', anAthlete());
    expect(refused.status).toBe(503);
    expect((refused.body as { title: string }).title).toContain('nearly full');
    expect(await logOf(coach, session.id)).toHaveLength(1);
    expect((await logOf(coach, session.id))[0]!.id).toBe(rep.id);
    // Who is signed out may still come in, to read.
    await coach.agent.post('/api/sign-out').set('origin', stage.origin).expect(204);
    await coach
      .post('/sign-in', { email: coach.email, password: 'long enough for anybody' })
      .expect(204);
    expect(await readyz()).toMatchObject({
      ready: true,
      why: [expect.stringContaining('nearly full')],
    });
    await leave(1e12);
    await coach.post('/reps', { reps: [late] }).expect(200);
    expect((await logOf(coach, session.id)).map(({ id }) => id)).toEqual([rep.id, late.id]);
  });

  it('of another machine is not known, and refuses nothing', async () => {
    const elsewhere = await watchDisk({ folder: undefined, reserveBytes: 1e15 });
    expect([elsewhere.freeBytes(), elsewhere.isLow()]).toEqual([null, false]);
    const gone = await watchDisk({ folder: '/no such folder', reserveBytes: 1e15 });
    expect([gone.freeBytes(), gone.isLow()]).toEqual([null, false]);
    const here = await watchDisk({ folder: '/', reserveBytes: 1e18 });
    expect(here.isLow()).toBe(true);
  });

  it('is told as such when PostgreSQL says so', async () => {
    await stage.owner.transaction().execute(async (trx) => {
      await sql`create function full_disk() returns trigger language plpgsql as
        $$ begin raise exception 'no space left' using errcode = '53100'; end $$`.execute(trx);
      await sql`create trigger full_disk before insert on athlete
        for each row execute function full_disk()`.execute(trx);
    });
    try {
      const { status, body } = await coach.post('/athletes', anAthlete());
      expect([status, (body as { title: string }).title]).toEqual([
        503,
        expect.stringContaining('nearly full'),
      ]);
    } finally {
      await sql`drop function full_disk() cascade`.execute(stage.owner);
    }
  });
});

describe('readiness', () => {
  it('tells tables of an older version from newer ones', async () => {
    expect(await readyz()).toEqual({ app: 'gravek', ready: true, why: [] });
    const [last] = (
      await sql<{ name: string }>`
        delete from kysely_migration where name = (select max(name) from kysely_migration)
        returning name`.execute(stage.owner)
    ).rows;
    expect(await readyz()).toMatchObject({
      ready: false,
      why: ['The tables are of an older version.'],
    });
    await sql`insert into kysely_migration (name, timestamp)
      values (${last!.name}, ''), ('9999_later', '')`.execute(stage.owner);
    expect(await readyz()).toMatchObject({ ready: true });
    await sql`delete from kysely_migration where name = '9999_later'`.execute(stage.owner);
  });

  it('ends when the process is told to stop, and the process is alive all the while', async () => {
    const other = await openStage();
    other.stopping.abort();
    expect((await stranger(other).agent.get('/readyz')).status).toBe(503);
    expect((await stranger(other).agent.get('/healthz')).status).toBe(200);
    await other.close();
  });
});

describe('numbers', () => {
  it('are told at this machine alone, without an id in them', async () => {
    const { pool, db } = connect(stage.appUrl);
    const disk = await watchDisk({ folder: '/', reserveBytes: 0 });
    const numbers = makeNumbers({ pool, disk, waiting: () => 3 });
    const server = await serveNumbers(numbers, 0);
    const { port, address } = server.address() as { port: number; address: string };
    expect(address).toBe('127.0.0.1');
    numbers.repsStored.inc(7);
    const answer = await fetch(`http://127.0.0.1:${port}/metrics`);
    const text = await answer.text();
    expect(answer.headers.get('content-type')).toContain('text/plain');
    expect(text).toMatch(/^gravek_reps_stored_total 7$/m);
    expect(text).toMatch(/^gravek_counting_clubs 3$/m);
    expect(text).toMatch(/^gravek_disk_free_bytes \d/m);
    expect((await fetch(`http://127.0.0.1:${port}/`)).status).toBe(404);
    server.close();
    await db.destroy();
  });

  it('name the route of a request, not its address', async () => {
    const { session } = await furnish(coach);
    await coach.get(`/sessions/${session.id}`).expect(200);
    const text = await stage.numbers.registry.metrics();
    expect(text).toMatch(
      /gravek_request_seconds_count\{method="GET",route="\/sessions\/:id",status="200"\} \d/,
    );
    expect(text).toMatch(/^gravek_reps_stored_total [1-9]/m);
    expect(text).not.toContain(session.id);
    // What is not served here says nothing of itself.
    expect((await coach.agent.get('/metrics')).text).not.toContain('gravek_');
  });
});
