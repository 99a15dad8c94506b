import pg from 'pg';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { listenForChanges, type Change } from '../src/changes/listen';
import { connect, inClub } from '../src/database/connect';
import { anAthlete, coachIn, openStage, until, type Coach, type Stage } from './setup';

/** Several server processes on one database, and a database that goes away. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

/** Asks the cluster as its superuser, who sees what all connections do. */
const asSuper = async (text: string): Promise<pg.QueryResult<{ n: number }>> => {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await admin.connect();
  try {
    return await admin.query<{ n: number }>(text);
  } finally {
    await admin.end();
  }
};

const database = (): string => new URL(stage.appUrl).pathname.slice(1);

const listening = async (): Promise<boolean> => {
  const { rows } = await asSuper(`select count(*)::int as n from pg_stat_activity
    where application_name = 'gravek changes' and datname = '${database()}' and query <> ''`);
  return rows[0]!.n >= 2;
};

it('tells another process of a change, once it is made, and finds its way back after a break', async () => {
  const heard: Change[] = [];
  const changes = listenForChanges(stage.appUrl, pino({ level: 'silent' }));
  const stop = changes.onChange(coach.clubId, (change) => heard.push(change));
  const elsewhere: Change[] = [];
  changes.onChange('00000000-0000-7000-8000-000000000000', (change) => elsewhere.push(change));
  await until(listening);

  await coach.post('/athletes', anAthlete()).expect(200);
  await until(() => heard.length === 1);
  expect(heard[0]).toEqual({ club: coach.clubId, topic: 'athletes' });

  const refused = await coach.post('/athletes', { ...anAthlete(), name: '' });
  expect(refused.status).toBe(422);
  // The next one comes after it on the same connection.
  await coach.put(`/athletes/${(await coach.get('/athletes')).body.items[0].id}/away`, {
    away: false,
  });
  await until(() => heard.length === 2);
  expect(heard[1]!.topic).toBe('athletes');

  await asSuper(`select pg_terminate_backend(pid) from pg_stat_activity
    where application_name = 'gravek changes' and datname = '${database()}'`);
  // What is told while nobody listens is lost, so everybody is told to look anew.
  await coach.post('/athletes', anAthlete()).expect(200);
  await until(listening);
  await until(() => heard.some((change) => change.topic === 'all'));
  const before = heard.length;
  await coach.post('/athletes', anAthlete()).expect(200);
  await until(() => heard.length > before);
  expect(elsewhere.every((change) => change.topic === 'all')).toBe(true);
  stop();
  await changes.close();
});

it('leaves nothing of the club on a connection that goes back to the pool', async () => {
  const { db } = connect(stage.appUrl);
  const who = { clubId: coach.clubId, accountId: coach.accountId };
  const seen = await inClub(db, who, (trx) => trx.selectFrom('athlete').select('id').execute());
  expect(seen.length).toBeGreaterThan(0);
  await expect(inClub(db, who, () => Promise.reject(new Error('broken off')))).rejects.toThrow(
    'broken off',
  );
  for (let i = 0; i < 12; i += 1) {
    expect(await db.selectFrom('athlete').select('id').execute()).toEqual([]);
  }
  await db.destroy();
});

it('keeps two clubs apart that ask at the same time', async () => {
  const other = await coachIn(stage);
  await other.post('/athletes', anAthlete({ name: 'Of The Other' })).expect(200);
  const answers = await Promise.all(
    Array.from({ length: 30 }, (_, i) => (i % 2 ? other : coach).get('/athletes')),
  );
  answers.forEach((answer, i) => {
    const names = (answer.body.items as { name: string }[]).map((one) => one.name);
    expect(names.includes('Of The Other')).toBe(i % 2 === 1);
  });
});

it('answers 503 in a sentence while the database is gone, and goes on when it is back', async () => {
  await asSuper(`alter database ${database()} with allow_connections false`);
  await asSuper(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${database()}'`,
  );
  const shut = await coach.get('/athletes');
  expect(shut.status).toBe(503);
  expect(shut.body.title).toContain('The database cannot be reached');
  expect((await coach.agent.get('/readyz')).status).toBe(503);
  expect((await coach.agent.get('/healthz')).status).toBe(200);
  await asSuper(`alter database ${database()} with allow_connections true`);
  await until(async () => (await coach.agent.get('/readyz')).status === 200);
  expect((await coach.get('/athletes')).status).toBe(200);
});
