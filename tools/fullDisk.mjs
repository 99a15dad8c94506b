import { randomBytes } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CLUB, makeAsker, makeClub, startPhones } from './cluster/phones.mjs';
import { startLogged } from './cluster/machines.mjs';
import { holds, pause, seconds, until } from './cluster/waiting.mjs';
import { freePort, startCluster } from './postgres.mjs';
import { buildServer, installPackages, isRoot, must, ROOT, SERVER } from './run.mjs';
import { runMain, say, step } from './say.mjs';

/**
 * Tries what a full disk does: the database lies on a small disk of its own, phones log reps, and the disk is
 * filled; first to below the reserve, then, with no reserve kept, to the last byte. Nothing that was acknowledged
 * may be lost, and all goes on by itself once there is room.
 */
const DISK_MB = 400;
const RESERVE_MB = 80;
const PHONE_EVERY_MS = 500;
/** Says that it was not tried, as against tried and failed. */
const NOT_TRIED = 77;

const ends = [];
const endAll = async () => {
  for (const end of ends.splice(0).reverse()) await end();
};

const tryDisk = async (disk) => {
  const freeMb = () => {
    const { bavail, bsize } = statfsSync(disk);
    return (bavail * bsize) / 1e6;
  };
  const ballast = path.join(disk, 'ballast');
  /** Leaves so much room; written in small pieces, since the database writes meanwhile. */
  const fillTo = (mb) => {
    const piece = Buffer.alloc(100_000, 7);
    try {
      while (freeMb() > mb) writeFileSync(ballast, piece, { flag: 'a' });
    } catch (error) {
      if (error.code !== 'ENOSPC') throw error;
    }
  };
  const cluster = await startCluster(path.join(disk, 'gravek'));
  ends.push(cluster.stop);
  const port = await freePort();
  const env = { ...process.env, ...cluster.env, GRAVEK_DISK: disk, PORT: String(port) };
  await must('The tables', process.execPath, [SERVER, 'prepare'], { env });
  const serve = (reserveMb) => {
    const child = startLogged([process.execPath, SERVER, 'serve'], '/dev/null', {
      cwd: ROOT,
      env: { ...env, DATABASE_OWNER_URL: '', GRAVEK_RESERVE_MB: String(reserveMb) },
    });
    const gone = new Promise((resolve) => child.once('exit', resolve));
    const end = () => {
      child.kill('SIGTERM');
      return gone;
    };
    ends.push(end);
    return end;
  };
  const origin = `http://127.0.0.1:${port}`;
  const isUp = async () => (await fetch(`${origin}/healthz`)).ok;

  const stop = serve(RESERVE_MB);
  await until('the server is up', isUp);
  const asker = makeAsker(origin);
  asker.signIn(
    await asker.ask('POST', '/api/first-club', {
      ...{ club: CLUB, person: 'Edda Brook', email: 'edda@tarn.invalid' },
      password: randomBytes(12).toString('base64url'),
    }),
  );
  const works = await makeClub(asker, 2);
  const database = new URL(cluster.superUrl.replace(/postgres$/, 'gravek'));
  const asSuper = { PGPASSWORD: decodeURIComponent(database.password) };
  database.password = '';
  const count = async () => {
    const ask = ['-XAtqc', 'select count(*) from rep', database.toString()];
    return Number(await must('A count', 'psql', ask, { cwd: '/', env: asSuper }));
  };
  const phones = startPhones(asker, works, { everyMs: PHONE_EVERY_MS, fromTurn: 1 });
  ends.push(phones.end);
  await phones.someMore(60);

  await step(`Less than ${RESERVE_MB} MB free`, async () => {
    fillTo(RESERVE_MB - 10);
    const refusal = await until('writes are refused', async () => {
      const answer = await asker.ask('POST', '/api/reps', { reps: [] });
      return answer.status === 507 || answer.status === 503 ? answer : null;
    });
    say(`  told: ${JSON.parse(refusal.said).title}`);
    holds('reading goes on', (await asker.ask('GET', '/api/faults')).status === 200);
    await pause(3_000);
    const held = phones.acknowledged.size;
    await pause(3_000);
    holds('nothing is acknowledged meanwhile', phones.acknowledged.size === held);
    rmSync(ballast);
    await phones.someMore(60);
  });
  await stop();

  serve(0);
  await until('the server is up', isUp);
  await phones.someMore(60);
  await step('Full to the last byte, with no reserve', async () => {
    fillTo(0);
    // What the database has set aside for itself is used up too.
    await until(
      'nothing can be stored any more',
      async () => {
        fillTo(0);
        const before = phones.acknowledged.size;
        await pause(4_000);
        return phones.acknowledged.size === before;
      },
      240_000,
    );
    say(`  ${phones.acknowledged.size} acknowledged, ${freeMb().toFixed(1)} MB free`);
    await pause(5_000);
    const sinceMs = Date.now();
    rmSync(ballast);
    await phones.someMore(60);
    say(`  taken again ${seconds(Date.now() - sinceMs)} after there was room`);
  });
  await phones.end();
  holds(
    `each of the ${phones.acknowledged.size} acknowledged reps is there, once`,
    (await count()) === phones.acknowledged.size,
  );
};

await runMain(async () => {
  await installPackages();
  await buildServer();
  const disk = mkdtempSync(path.join(tmpdir(), 'gravek-disk-'));
  const mounted =
    isRoot && spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'none', disk]);
  if (!mounted || mounted.status !== 0) {
    rmSync(disk, { recursive: true });
    say('A full disk cannot be tried here: it takes root, and a disk of its own.');
    process.exit(NOT_TRIED);
  }
  chmodSync(disk, 0o755);
  ends.push(() => {
    spawnSync('umount', [disk]);
    rmSync(disk, { recursive: true });
  });
  try {
    await tryDisk(disk);
    say('A full disk loses nothing.');
  } finally {
    await endAll();
  }
});
