import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { exclusively } from '../lock.mjs';
import { freePort, ownByPostgres, programs } from '../postgres.mjs';
import {
  buildServer,
  buildWeb,
  bundleServer,
  installDebian,
  installPackages,
  isRoot,
  must,
  ROOT,
  run,
} from '../run.mjs';
import { runMain, say, step, Stop } from '../say.mjs';
import { makeFront } from './front.mjs';
import { laysNetwork, makeMachines } from './machines.mjs';
import { CLUB, makeAsker, makeClub, repOf, startPhones } from './phones.mjs';
import { holds, pause, seconds, until } from './waiting.mjs';

/**
 * Tries what deploy/ describes, on three machines that are network namespaces of this one: a hundred phones log
 * reps while the leader dies, is cut off, and each thing before it is killed and updated. Every rep that a phone
 * was told is stored must be there once. At the end the same is tried without synchronous replication, where
 * reps must be lost, or the test could not tell.
 */
const PHONE_EVERY_MS = 1_500;
/** What systemd waits before it starts again what has died: RestartSec. */
const RESTART_MS = 2_000;
/** A leader that is gone must have been replaced by then: its time to live, a vote and a look. */
const REPLACED_MS = 45_000;
/** The same for what is started again beside it. */
const BACK_MS = 15_000;

const word = () => randomBytes(12).toString('hex');

/** What has to be ended, the last first. */
const ends = [];
const endAll = async () => {
  for (const end of ends.splice(0).reverse()) await end().catch(() => undefined);
};

const tryCluster = async (folder) => {
  const bin = await programs(path.join(folder, 'none'));
  const secret = Object.fromEntries(
    ['super', 'owner', 'web', 'replica', 'rest', 'cipher', 'session'].map((name) => [name, word()]),
  );
  const cluster = await makeMachines(folder, bin, secret);
  const { machines } = cluster;
  ends.push(cluster.end);
  try {
    await step('Three machines vote for a leader', async () => {
      for (const machine of Object.values(machines)) machine.start();
      await until('a leader and two that follow it', cluster.isWhole, 120_000);
    });
    const front = await makeFront(folder, cluster.addresses, secret);
    ends.push(front.end);
    front.start('haproxy');
    /** A statement as the superuser, by the input: what stands on the command line everybody here can read. */
    const asSuper = (at, input, database = 'gravek') =>
      run(
        `${bin}/psql`,
        [
          ...['-XAtq', '-v', 'ON_ERROR_STOP=1', '-d'],
          `postgres://postgres@${at}/${database}?connect_timeout=3`,
        ],
        { quiet: true, cwd: '/', env: { PGPASSWORD: secret.super }, input },
      );
    /** To the primary, whichever it is. */
    const sql = async (text, database) => {
      const at = `127.0.0.1:${front.port.leader}`;
      const { code, out, err } = await asSuper(at, text, database);
      // Not the statement itself: roles are made with their passwords.
      if (code !== 0) throw new Error(`${text.trim().slice(0, 40)} …: ${err}`);
      return out.trim();
    };
    /** Before its first look HAProxy takes each machine for the primary, by turns. */
    const leadsToPrimary = async () => {
      for (let turn = 1; turn <= 3; turn += 1)
        if ((await sql('select pg_is_in_recovery()', 'postgres')) !== 'f') return false;
      return true;
    };
    await step('Roles, tables, archive, pooler, two servers, https', async () => {
      await until('HAProxy leads to the primary', leadsToPrimary);
      await sql(
        `create role gravek_owner login createrole password '${secret.owner}';
         create role gravek_app nologin;
         create role gravek_web login password '${secret.web}' in role gravek_app;
         create database gravek owner gravek_owner;`,
        'postgres',
      );
      const at = await cluster.leader();
      await at.runHere('The archive', 'pgbackrest', '--stanza=gravek', 'stanza-create');
      front.start('pooler');
      await until('the tables are there', async () => {
        await front.prepare();
        return true;
      });
      for (const name of ['one', 'two', 'nginx']) front.start(name);
      for (const name of ['one', 'two']) await front.ready(name);
    });

    const asker = makeAsker(front.origin, front.ca);
    const { ask } = asker;
    await until('https answers', async () => (await ask('GET', '/api/door')).status === 200);
    const edda = { email: 'edda@tarn.invalid', password: word() };
    const entry = await ask('POST', '/api/first-club', {
      ...{ club: CLUB, person: 'Edda Brook', ...edda },
    });
    asker.signIn(entry);
    holds(
      'the first club is made by https, and its cookie is for https only',
      entry.status === 204 && /secure/i.test(entry.headers['set-cookie'].join()),
    );
    const door = await ask('GET', '/api/door');
    holds(
      'browsers are told to keep to https, and the demo is not offered',
      Boolean(door.headers['strict-transport-security']) && JSON.parse(door.said).demo === false,
    );
    await nginxSendsPacked(asker);
    await refusalsAreRead(asker, front);

    const works = await step('A club of a hundred athletes', () => makeClub(asker, 10));
    const changes = asker.listen();
    ends.push(async () => changes.end());
    await until('changes are heard', async () => changes.heard().includes('alive'));
    await step('A first backup', () =>
      cluster.leader().then((at) => at.runHere('The backup', 'sh', `${ROOT}/deploy/backup.sh`)),
    );

    await step('A server that reads from a standby', () =>
      behindStandby({
        ...{ cluster, front },
        write: async () => {
          for (const away of [true, false]) {
            await asker.must('PUT', `/api/athletes/${works[0].athleteId}/away`, { away });
          }
        },
      }),
    );

    const ofClub = `from rep where club_id = '${(await asker.must('GET', '/api/me')).club.id}'`;
    const phones = startPhones(asker, works, { everyMs: PHONE_EVERY_MS, fromTurn: 1 });
    ends.push(phones.end);
    /** Acknowledged reps that the log does not hold once, under the number that was told. */
    const lost = async ({ acknowledged }) => {
      const told = new Map(acknowledged);
      const rows = (await sql(`select id, arrival ${ofClub}`)).split('\n').filter(Boolean);
      const kept = new Map(rows.map((row) => row.split('|')));
      if (kept.size !== rows.length) throw new Stop('A rep is there twice.');
      return [...told].filter(([id, arrival]) => kept.get(id) !== String(arrival)).length;
    };
    /** Does something to the cluster while the phones log, and says for how long none could write. */
    const under = async (what, atMostMs, work) => {
      await phones.someMore(works.length);
      const sinceMs = Date.now();
      await work();
      await until('HAProxy leads to the primary', leadsToPrimary);
      await phones.someMore(works.length);
      const silenceMs = phones.silenceMs(sinceMs);
      const gone = await lost(phones);
      say(
        `${what}: nobody could write for ${seconds(silenceMs)}; ${phones.acknowledged.size} reps acknowledged, ${gone} of them lost`,
      );
      holds('nothing that was acknowledged is lost, nothing is there twice', gone === 0);
      holds(`writing went on within ${seconds(atMostMs)}`, silenceMs < atMostMs);
    };
    const replaced = (old) =>
      until(
        'another machine leads',
        async () => {
          const now = await cluster.leader();
          return now && now.name !== old.name ? now : null;
        },
        90_000,
      );
    const whole = () => until('all three are there again', cluster.isWhole, 120_000);

    await under('The leader’s machine loses its power', REPLACED_MS, async () => {
      const old = await cluster.leader();
      await old.powerOff();
      await replaced(old);
      old.start();
      await whole();
      say(`  ${old.name} came back as a standby by itself`);
    });

    await sql('create table fence (at timestamptz default now())');
    await under('The leader is cut off from the others, but alive', REPLACED_MS, async () => {
      const old = await cluster.leader();
      await old.cutOff();
      let cut = true;
      let written = 0;
      // Somebody who still reaches it, and does not ask whether it leads.
      const stubborn = (async () => {
        while (cut) {
          const { code } = await asSuper(`${old.address}:5432`, 'insert into fence default values');
          if (code === 0) written += 1;
          await pause(200);
        }
      })();
      await replaced(old);
      await pause(5_000);
      cut = false;
      await old.join();
      await stubborn;
      await whole();
      holds('the old leader took no write while it was cut off', written === 0);
      holds('nor has it kept one', (await sql('select count(*) from fence')) === '0');
      say(`  ${old.name} came back as a standby by itself`);
    });

    for (const [name, what] of [
      ['one', 'A server process is killed'],
      ['pooler', 'The pooler is killed'],
      ['haproxy', 'The proxy before the database is killed'],
      ['nginx', 'The proxy before the servers is killed'],
    ]) {
      await under(what, BACK_MS, async () => {
        await front.stop(name, 'SIGKILL');
        await pause(RESTART_MS);
        front.start(name);
      });
    }

    await under(
      'A long batch, and the archive out and in, through the proxy',
      BACK_MS,
      async () => {
        await longBatch(asker, works[0], sql);
        const second = makeAsker(front.origin, front.ca);
        second.signIn(await second.ask('POST', '/api/sign-in', edda));
        await archiveOutAndIn(second, sql, phones.acknowledged.size);
      },
    );

    await under(
      'An update with a new step of the tables, one process at a time',
      BACK_MS,
      async () => {
        const next = path.join(ROOT, 'server/dist/next.mjs');
        await bundleServer({ 'server/dist/next': 'server/src/main.ts' }, [withAnotherStep]);
        ends.push(async () => rmSync(next, { force: true }));
        front.update(next);
        await front.prepare();
        holds('the step was taken', (await sql('select count(*) from next_step')) === '0');
        for (const name of ['one', 'two']) {
          await front.ready(name);
          await front.stop(name, 'SIGTERM');
          front.start(name);
          await front.ready(name);
        }
      },
    );

    say(
      `Through all of it a phone waited ${seconds(phones.longestMs())} at most to be rid of a rep; ${phones.unanswered()} tries were without an answer.`,
    );
    holds('some tries were without an answer, so the breaks were felt', phones.unanswered() > 0);
    await phones.end();
    holds('at the end all of it is there, once', (await lost(phones)) === 0);
    await countedOnce(asker, () => sql(`select count(*) ${ofClub}`));
    const mark = changes.heard().length;
    await until('a change is heard from the new primary', async () => {
      const { athleteId } = works[0];
      await asker.must('PUT', `/api/athletes/${athleteId}/away`, { away: false });
      await pause(500);
      return changes.heard().slice(mark).includes('data: athletes');
    });
    say('  holds: changes are heard from the new primary');

    await step('Back to a moment before a mistake', () => backToAMoment({ folder, cluster, sql }));

    await step('The same without synchronous replication must lose reps', async () => {
      await cluster.change({ synchronous_mode: false, synchronous_mode_strict: false });
      await until(
        'commits wait for nobody',
        async () => (await sql('show synchronous_standby_names')) === '',
      );
      const later = startPhones(asker, works, { everyMs: PHONE_EVERY_MS, fromTurn: 701 });
      ends.push(later.end);
      const old = await cluster.leader();
      const standbys = Object.values(machines).filter(({ name }) => name !== old.name);
      const receivers = standbys.flatMap((standby) => standby.processes('walreceiver'));
      for (const pid of receivers) process.kill(pid, 'SIGSTOP');
      // Nor does it reach their machines: a receiver that was stopped while it read would read all of it at its end.
      await old.cutOff();
      await later.someMore(works.length);
      await old.powerOff();
      for (const pid of receivers) process.kill(pid, 'SIGTERM');
      for (const pid of receivers) process.kill(pid, 'SIGCONT');
      await replaced(old);
      await until('HAProxy leads to the primary', leadsToPrimary);
      const gone = await lost(later);
      holds(
        `the test sees that reps are lost (${gone}, with ${receivers.length} receivers stopped)`,
        receivers.length === 2 && gone > 0,
      );
    });
  } catch (error) {
    tellLogs(folder);
    throw error;
  }
};

/** How far its standby is behind it tells itself, and it is of use again once that has caught up. */
const behindStandby = async ({ cluster, front, write }) => {
  const leader = await cluster.leader();
  const name = Object.keys(cluster.machines).find((machine) => machine !== leader.name);
  front.startReader(name);
  await front.ready('reader');
  // Asked to pause, its keeper would let it go on within seconds.
  const replaying = cluster.machines[name].processes('startup');
  for (const pid of replaying) process.kill(pid, 'SIGSTOP');
  holds('what replays on the standby is stopped', replaying.length === 1);
  await write();
  let why = [];
  await until('the reader is of no use any more', async () => {
    why = await front.why('reader');
    return why.length > 0;
  });
  holds(`it says so: ${why.join(' ')}`, /^The standby is \d+ s behind\.$/.test(why.join(' ')));
  holds('the others are of use', (await front.why('one')).length === 0);
  for (const pid of replaying) process.kill(pid, 'SIGCONT');
  await front.ready('reader');
  await front.stop('reader', 'SIGTERM');
};

/** A step that every later version could bring: a table of its own. */
const withAnotherStep = {
  name: 'another step of the tables',
  setup: (made) =>
    made.onLoad({ filter: /operator\/migrate\.ts$/ }, ({ path: file }) => {
      const text = readFileSync(file, 'utf8');
      const begin = 'const MIGRATIONS: Record<string, Migration> = {';
      if (!text.includes(begin)) throw new Error(`${file}: the steps are not where they were`);
      const up = 'async (db) => { await sql`create table next_step (id integer)`.execute(db); }';
      return {
        loader: 'ts',
        contents: text.replace(begin, `${begin}\n'9999_next': { up: ${up} },`),
      };
    }),
};

const nginxSendsPacked = async (asker) => {
  const script = readdirSync(path.join(ROOT, 'web/dist/assets')).find((name) =>
    name.endsWith('.js.br'),
  );
  const { headers } = await asker.ask('GET', `/assets/${script.replace('.br', '')}`, undefined, {
    'accept-encoding': 'br',
  });
  holds(
    'nginx sends a script packed, to be kept for good',
    headers['content-encoding'] === 'br' && /immutable/.test(headers['cache-control']),
  );
};

/** What is too much, or not there, is said as the server says it, whoever of the two refuses. */
const refusalsAreRead = async (asker, front) => {
  for (const [what, bytes] of [
    ['the server', 1_000_000],
    ['nginx', 3_000_000],
  ]) {
    const body = JSON.stringify({ reps: ['x'.repeat(bytes)] });
    const { status, headers, said } = await asker.ask('POST', '/api/reps', body);
    holds(
      `a batch of ${bytes / 1e6} MB is refused by ${what}, readably`,
      status === 413 &&
        /problem\+json/.test(headers['content-type']) &&
        JSON.parse(said).status === 413,
    );
  }
  for (const name of ['one', 'two']) await front.stop(name, 'SIGTERM');
  const { status, headers } = await asker.ask('GET', '/api/door');
  holds(
    'without a server nginx says so, readably',
    status === 503 && /problem\+json/.test(headers['content-type']),
  );
  for (const name of ['one', 'two']) front.start(name);
  for (const name of ['one', 'two']) await front.ready(name);
  await until('https answers', async () => (await asker.ask('GET', '/api/door')).status === 200);
};

/** A phone that was away comes with a hundred at once, the same again, and one bad among good ones. */
const longBatch = async (asker, work, sql) => {
  const device = randomUUID();
  const reps = Array.from({ length: 100 }, (_, nr) => repOf(work, device, 901 + nr));
  const first = await asker.must('POST', '/api/reps', { reps });
  const again = await asker.must('POST', '/api/reps', { reps });
  const mixed = [{ ...repOf(work, device, 1), id: 'nonsense' }, repOf(work, device, 899)];
  const some = await asker.must('POST', '/api/reps', { reps: mixed });
  const count = await sql(`select count(*) from rep where device = '${device}'`);
  holds(
    'a batch of a hundred is stored once, and one bad rep does not hold up a good one',
    first.stored.length === 100 &&
      JSON.stringify(again.stored) === JSON.stringify(first.stored) &&
      some.stored.length === 1 &&
      count === '101',
  );
};

/** Out of the club that is being logged to, and into an empty one of the same owner. */
const archiveOutAndIn = async (asker, sql, acknowledged) => {
  const { status, said } = await asker.ask('GET', '/api/archive');
  const out = JSON.parse(said).reps.length;
  holds(
    `the archive comes out whole: ${out} reps, ${(said.length / 1e6).toFixed(1)} MB`,
    status === 200 && out >= acknowledged,
  );
  const clubId = randomUUID();
  await sql(
    `insert into club (id, name, unit, cue_school, time_zone)
       values ('${clubId}', 'Second', 'metric', 'root-cause', 'UTC');
     insert into membership (id, club_id, account_id, role)
       select '${randomUUID()}', '${clubId}', account_id, 'owner' from membership;`,
  );
  asker.signIn(await asker.ask('POST', '/api/switch', { clubId }));
  await asker.must('POST', '/api/archive', said);
  await until('it is read in, and either server tells how far', async () => {
    const { last } = await asker.must('GET', '/api/archive/restoring');
    if (last.state === 'refused' || last.state === 'stopped') throw new Error(last.said);
    return last.state === 'done';
  });
  const count = await sql(`select count(*) from rep where club_id = '${clubId}'`);
  holds('and goes whole into an empty club', count === String(out));
};

/** The log and what is told of it are the same number, once it has been counted. */
const countedOnce = async (asker, count) => {
  await until('whoever leads has counted every rep, once', async () => {
    const squad = await asker.must('GET', '/api/faults');
    return squad.items.reduce((sum, line) => sum + line.reps, 0) === Number(await count());
  });
  say('  holds: each rep is counted once');
};

const filesUnder = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const name = path.join(folder, entry.name);
    return entry.isDirectory() ? filesUnder(name) : entry.isFile() ? [name] : [];
  });

/** What openssl and its like begin an encrypted file with. */
const isEncrypted = (file) => readFileSync(file).subarray(0, 8).toString() === 'Salted__';

const backToAMoment = async ({ folder, cluster, sql }) => {
  const at = await cluster.leader();
  const backup = (machine) =>
    machine.runHere('The backup', 'sh', path.join(ROOT, 'deploy/backup.sh'));
  for (const machine of Object.values(cluster.machines)) await backup(machine);
  const what = `select (select count(*) from rep), (select sum(arrival) from rep),
    (select max(name) from club where name <> 'Second')`;
  const before = await sql(what);
  const moment = await sql('select clock_timestamp()');
  await pause(1_000);
  await sql("update club set name = 'Overwritten' where name <> 'Second'; truncate rep cascade");
  const last = await sql('select pg_walfile_name(pg_switch_wal())');
  await until(
    'the mistake is archived too',
    async () => (await sql('select last_archived_wal from pg_stat_archiver')) >= last,
  );
  const again = path.join(at.home, 'again');
  const port = String(await freePort());
  const restore = path.join(ROOT, 'deploy/restore.sh');
  await at.runHere('The restore', 'sh', restore, again, moment, port);
  const ask = ['psql', '-h', again, '-p', port, '-d', 'gravek', '-XAtqc'];
  const found = await at.runHere('A look', ...ask, what);
  holds(
    `the restored database is as it was before the mistake (${before})`,
    found.trim() === before,
  );
  const files = filesUnder(path.join(folder, 'backups'));
  holds(
    `all ${files.length} files of the backups are encrypted`,
    files.length > 20 && files.every(isEncrypted),
  );
};

const tellLogs = (folder) => {
  for (const where of [folder, ...['db1', 'db2', 'db3'].map((name) => `${folder}/${name}`)])
    for (const name of readdirSync(where).filter(
      (file) => file.endsWith('.log') && file !== 'etcd.log',
    )) {
      const lines = readFileSync(path.join(where, name), 'utf8').trim().split('\n').slice(-8);
      say(`${path.basename(where)}/${name}:\n  ${lines.join('\n  ').slice(-1500)}`);
    }
};

/** Says that it was not tried, as against tried and failed. */
const NOT_TRIED = 77;

const installPrograms = async () => {
  for (const [program, name] of [
    ['/usr/bin/patroni', 'patroni'],
    ['/usr/bin/etcd', 'etcd-server'],
    ['/usr/sbin/haproxy', 'haproxy'],
    ['/usr/sbin/pgbouncer', 'pgbouncer'],
    ['/usr/bin/pgbackrest', 'pgbackrest'],
    ['/usr/sbin/nginx', 'nginx-light'],
    ['/usr/lib/nginx/modules/ngx_http_brotli_static_module.so', 'libnginx-mod-http-brotli-static'],
    ['/usr/bin/openssl', 'openssl'],
    ['/usr/sbin/ip', 'iproute2'],
  ]) {
    if (!existsSync(program)) await installDebian(name, 'the test of the cluster');
  }
  if (!isRoot || !laysNetwork())
    throw new Stop('The test of the cluster needs root, to lay networks between its machines.');
};

await runMain(async () => {
  await installPackages();
  try {
    await installPrograms();
  } catch (error) {
    say(error.message);
    process.exit(NOT_TRIED);
  }
  await Promise.all([buildServer(), buildWeb()]);
  const folder = mkdtempSync(path.join(tmpdir(), 'gravek-cluster-'));
  chmodSync(folder, 0o755);
  ownByPostgres(folder);
  ends.push(async () => rmSync(folder, { recursive: true, force: true }));
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.once(signal, () => void endAll().then(() => process.exit(1)));
  try {
    await exclusively('the machines of the cluster', () => tryCluster(folder));
    say('The cluster holds.');
  } finally {
    await endAll();
  }
});
