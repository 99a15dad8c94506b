import { fork } from 'node:child_process';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { Rep, SessionInput } from '@gravek/contract/session';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import express from 'express';
import expressSession from 'express-session';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { connect, inClub } from '../src/database/connect';
import { signInStore } from '../src/signIn/store';
import { anAthlete, aRep, coachIn, hear, openStage, PASSWORD, until } from '../test/setup';
import { A_SECOND, atPace, DEVICES, WARMING, type Timed, type Work } from './pace';

/**
 * Two hundred reps a second from fifty devices for a minute, each a request of its own, and the same
 * number of bare one-row inserts through the same pool: how long the slowest hundredth of each takes.
 */
/** Taps, one after the other, that another process is heard to tell of. */
const TOLD = 30;
const SECONDS = Number(process.env.GRAVEK_BENCH_SECONDS ?? 60);
const CPU_SECONDS = Math.min(10, SECONDS);
/** As the server of the tests keeps its sign-ins. */
const SESSION = {
  ...{ name: 'gravek', secret: 'for tests only' },
  ...{ resave: false, saveUninitialized: false, rolling: false },
};

const percentile = (times: readonly number[], part: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * part))]!;

/** The devices run in a process of their own, as they do not take the server's time either. */
const onDevices = (work: Work): Promise<Timed> =>
  new Promise((resolve, reject) => {
    const child = fork(fileURLToPath(new URL('devices.ts', import.meta.url)));
    child.on('message', (timed) => resolve(timed as Timed));
    child.on('error', reject);
    child.send(work);
  });

const stage = await openStage();
try {
  const coach = await coachIn(stage);
  // As many sessions as squads train at once; each device is one coach's at one of them.
  const sessions: { session: SessionInput; people: { id: string }[] }[] = [];
  for (let s = 0; s < 10; s += 1) {
    const people = Array.from({ length: 12 }, () => anAthlete());
    for (const person of people) await coach.post('/athletes', person).expect(200);
    const session: SessionInput = {
      id: uuid(),
      date: '2031-05-14',
      title: `Session ${s}`,
      groundId: null,
      place: '',
      template: false,
      drillSets: [
        {
          ...freshDrillSet(
            uuid(),
            { kind: 'movement', movement: 'wall-switches', drill: null },
            people.map((other) => other.id),
          ),
          sets: 20,
          reps: 50,
        },
      ],
    };
    await coach.post('/sessions', session).expect(200);
    sessions.push({ session, people });
  }
  const devices = Array.from({ length: DEVICES }, () => uuid());
  const repOf = (n: number): Rep => {
    const { session, people } = sessions[n % sessions.length]!;
    const turn = Math.floor(n / sessions.length);
    const athleteId = people[turn % people.length]!.id;
    const nth = Math.floor(turn / people.length);
    return aRep(session, {
      athleteId,
      movement: 'wall-switches',
      set: 1 + (Math.floor(nth / 50) % 20),
      rep: 1 + (nth % 50),
      turn: nth + 1,
      device: devices[n % DEVICES]!,
      deviceNo: n + 1,
      load: { contacts: 4, jumps: 0, throws: 0, sprintM: 0 },
    });
  };

  await sql`create table bare (id uuid primary key, club_id uuid not null, body jsonb not null, at timestamptz default now());
    grant all on bare to public`.execute(stage.owner);
  const all = WARMING + A_SECOND * SECONDS;
  const bare = await atPace(all, async (n) => {
    const rep = repOf(n);
    await inClub(stage.db, coach, (trx) =>
      sql`insert into bare (id, club_id, body) values (${rep.id}, ${coach.clubId}, ${JSON.stringify(rep)})`.execute(
        trx,
      ),
    );
  });
  const { times: taps, refused } = await onDevices({
    address: stage.address,
    email: coach.email,
    password: PASSWORD,
    reps: Array.from({ length: all }, (_, n) => repOf(n)),
  });
  const { rows } = await sql<{ n: number }>`select count(*)::int as n from rep`.execute(
    stage.owner,
  );
  for (const [name, times] of [
    ['bare one-row inserts', bare],
    ['taps through the API', taps],
  ] as const) {
    console.log(
      `${name.padEnd(24)} ${times.length} in ${SECONDS} s: ${percentile(times, 0.5).toFixed(1)} ms median, ${percentile(times, 0.99).toFixed(1)} ms at 99 %, ${percentile(times, 1).toFixed(0)} ms most`,
    );
  }
  console.log(
    `99th percentile: ${(percentile(taps, 0.99) / percentile(bare, 0.99)).toFixed(2)} times that of bare inserts; ${rows[0]!.n} rows stored, ${refused} refused`,
  );

  // What a tap takes of the processor, beside a route that checks the sign-in and inserts one row: both in this
  // process, at the same pace, one after the other. What is counted later is not in it.
  const { pool } = connect(stage.appUrl);
  const simple = express()
    .use(expressSession({ ...SESSION, store: signInStore(pool) }))
    .use(express.json())
    .post('/api/reps', async (req, res) => {
      const { clubId, accountId } = req.session;
      if (!clubId || !accountId) {
        res.status(401).end();
        return;
      }
      const [rep] = (req.body as { reps: Rep[] }).reps;
      await inClub(stage.db, { clubId, accountId }, (trx) =>
        sql`insert into bare (id, club_id, body) values (${rep!.id}, ${clubId}, ${JSON.stringify(rep)})`.execute(
          trx,
        ),
      );
      res.json({ stored: [{ id: rep!.id, arrival: 1 }], refused: [] });
    })
    .listen(0, '127.0.0.1');
  await new Promise((resolve) => simple.once('listening', resolve));
  const bareAddress = `http://127.0.0.1:${(simple.address() as AddressInfo).port}`;
  let next = all;
  /** Milliseconds of the processor that a request takes in this process. */
  const processorMs = async (to: string): Promise<number> => {
    const many = WARMING + A_SECOND * CPU_SECONDS;
    const reps = Array.from({ length: many }, () => repOf((next += 1)));
    const from = process.cpuUsage();
    const work = { address: stage.address, email: coach.email, password: PASSWORD, reps };
    const { refused: no } = await onDevices({ ...work, to });
    const { user, system } = process.cpuUsage(from);
    if (no > 0) throw new Error(`${no} of ${many} were refused by ${to}`);
    return (user + system) / 1000 / many;
  };
  const rounds: { tap: number; simple: number }[] = [];
  for (let i = 0; i < 3; i += 1) {
    rounds.push({ simple: await processorMs(bareAddress), tap: await processorMs(stage.address) });
  }
  simple.close();
  await pool.end();
  const tapMs = percentile(
    rounds.map((round) => round.tap),
    0.5,
  );
  const simpleMs = percentile(
    rounds.map((round) => round.simple),
    0.5,
  );
  console.log(
    `processor a tap: ${tapMs.toFixed(2)} ms, ${(tapMs / simpleMs).toFixed(2)} times the ${simpleMs.toFixed(2)} ms of a route that checks the sign-in and inserts one row`,
  );

  // How long until another process has told whoever listens to it.
  const twin = await stage.twin();
  const heard = hear(twin, coach);
  await until(() => heard.said().includes('alive'));
  const told: number[] = [];
  for (let n = next + 1; n <= next + TOLD; n += 1) {
    const before = heard.said().length;
    const from = performance.now();
    await coach.post('/reps', { reps: [repOf(n)] }).expect(200);
    while (heard.said().length === before) await new Promise((resolve) => setTimeout(resolve, 1));
    told.push(performance.now() - from);
  }
  heard.stop();
  console.log(
    `a tap told by another process after ${percentile(told, 0.5).toFixed(0)} ms median, ${percentile(told, 1).toFixed(0)} ms most`,
  );
} finally {
  await stage.close();
}
