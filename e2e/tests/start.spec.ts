import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { connect, createServer } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { dataFolder, freePort, runStart } from '../src/startCommand';
import { LONG } from '../src/test';

const WITH_CLUSTER = fileURLToPath(new URL('../../tools/withCluster.mjs', import.meta.url));

test.describe.configure({ mode: 'serial', timeout: 240_000 });

const folder = dataFolder();
const env = { GRAVEK_DATA: folder };
let port: string;

test.beforeAll(async () => {
  port = String(await freePort());
});

test.afterAll(async () => {
  // Joins whatever still runs on this folder, and stops it as the last one out.
  const last = runStart(['--empty', '--port', String(await freePort())], env);
  await last.up;
  last.child.kill('SIGINT');
  await last.ended;
  rmSync(folder, { recursive: true, force: true });
});

const roster = async (address: string): Promise<number> => {
  const entry = await fetch(`${address}/api/demo-entry`, {
    method: 'POST',
    headers: { origin: address },
  });
  const cookie = entry.headers
    .getSetCookie()
    .map((text) => text.split(';')[0])
    .join('; ');
  const answer = await fetch(`${address}/api/athletes`, { headers: { cookie } });
  return ((await answer.json()) as { items: unknown[] }).items.length;
};

test('a second start finds the first one running', LONG, async () => {
  const first = runStart(['--port', port], env);
  const address = await first.up;
  const second = await runStart(['--port', port], env).ended;
  expect(second.code).toBe(0);
  expect(second.said).toContain('running already');
  expect(await roster(address)).toBeGreaterThanOrEqual(24);
  first.child.kill('SIGINT');
  expect((await first.ended).code).toBe(0);
});

test('after a kill -9 of everything it comes up again with its data', LONG, async () => {
  const first = runStart(['--port', port], env);
  const address = await first.up;
  const before = await roster(address);
  const pid = Number(
    readFileSync(path.join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0],
  );
  first.child.kill('SIGKILL');
  process.kill(pid, 'SIGKILL');
  await first.ended;
  // The server notices that its parent is gone.
  await expect
    .poll(() =>
      fetch(`${address}/readyz`).then(
        () => 'up',
        () => 'down',
      ),
    )
    .toBe('down');
  const again = runStart(['--port', port], env);
  expect(await roster(await again.up)).toBe(before);
  expect(again.said()).not.toContain('Loading the demo');
  again.child.kill('SIGINT');
  await again.ended;
});

const postmaster = (): number =>
  Number(readFileSync(path.join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]);

const isUp = (address: string): Promise<boolean> =>
  fetch(`${address}/readyz`).then(
    (answer) => answer.ok,
    () => false,
  );

/** The processes that a process has started. */
const childrenOf = (pid: number): number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').map(Number);

test(
  'a killed database is started again under the server; a killed server ends the command and the database',
  LONG,
  async () => {
    const first = runStart(['--port', port], env);
    const address = await first.up;
    const before = await roster(address);
    const killed = postmaster();
    process.kill(killed, 'SIGKILL');
    await expect.poll(() => isUp(address), { intervals: [40] }).toBe(false);
    await expect.poll(() => isUp(address), { timeout: 30_000 }).toBe(true);
    expect(postmaster()).not.toBe(killed);
    expect(await roster(address)).toBe(before);

    for (const child of childrenOf(first.child.pid!)) process.kill(child, 'SIGKILL');
    const { code, said } = await first.ended;
    expect(code).toBe(1);
    expect(said).toContain('The server ended (SIGKILL)');
    // PostgreSQL takes this file away when it has ended in order.
    expect(existsSync(path.join(folder, 'pg', 'postmaster.pid'))).toBe(false);
  },
);

test(
  'two starts at once on a fresh folder wait for each other; no password is on a command line, and the log is the owner’s',
  LONG,
  async () => {
    const fresh = dataFolder();
    const seen = new Set<string>();
    const look = setInterval(() => {
      for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
        try {
          seen.add(readFileSync(`/proc/${pid}/cmdline`, 'utf8'));
        } catch {
          // it has ended
        }
      }
    }, 15);
    const both = await Promise.all(
      [await freePort(), await freePort()].map(async (at) => {
        const one = runStart(['--port', String(at)], { GRAVEK_DATA: fresh });
        return { ...one, address: await one.up };
      }),
    );
    clearInterval(look);
    const [one, two] = both.map(({ address }) => roster(address));
    expect(await one).toBeGreaterThanOrEqual(24);
    expect(await two).toBe(await one);
    const loads = both.filter(({ said }) => said().includes('Loading the demo club …'));
    expect(loads).toHaveLength(1);

    const secrets = JSON.parse(readFileSync(path.join(fresh, 'secrets.json'), 'utf8')) as object;
    expect(seen.size).toBeGreaterThan(10);
    for (const secret of Object.values(secrets) as string[])
      expect([...seen].filter((line) => line.includes(secret))).toEqual([]);
    const { mode } = statSync(path.join(fresh, 'server.log'));
    expect(mode & 0o077).toBe(0);
    for (const { child, ended } of both) {
      child.kill('SIGINT');
      expect((await ended).code).toBe(0);
    }
    rmSync(fresh, { recursive: true, force: true });
  },
);

test('a taken port, a missing database and nonsense each get a sentence', LONG, async () => {
  const other = createServer().listen(0, '127.0.0.1');
  await once(other, 'listening');
  const taken = String((other.address() as { port: number }).port);
  const busy = await runStart(['--port', taken], env).ended;
  expect(busy.code).toBe(1);
  expect(busy.said).toContain(`Port ${taken} is taken by another program`);
  other.close();

  const nowhere = { ...env, DATABASE_URL: 'postgres://nobody:x@127.0.0.1:1/none' };
  const lost = await runStart(['--port', port], nowhere).ended;
  expect(lost.code).toBe(1);
  expect(lost.said).toContain('The database cannot be reached');
  expect(lost.said).not.toContain('    at ');

  const odd = await runStart(['--port', 'eighty'], env).ended;
  expect(odd.code).toBe(1);
  expect(odd.said).toContain('--port takes a port number');
});

test('data of another PostgreSQL is left alone, with what to do', LONG, async () => {
  const file = path.join(folder, 'pg', 'PG_VERSION');
  const made = readFileSync(file, 'utf8');
  writeFileSync(file, '9.6\n');
  const before = readdirSync(path.join(folder, 'pg')).sort();
  const old = await runStart(['--port', port], env).ended;
  writeFileSync(file, made);
  expect(old.code).toBe(1);
  expect(old.said).toContain('was made by PostgreSQL 9.6');
  expect(old.said).toContain('Nothing was changed');
  expect(readdirSync(path.join(folder, 'pg')).sort()).toEqual(before);
});

test(
  'a folder that cannot hold data, passwords or versions that are empty: a sentence each, and nothing left running',
  LONG,
  async () => {
    const broken = dataFolder();
    const file = path.join(broken, 'a file');
    writeFileSync(file, '');
    const wrong = async (data: string): Promise<string> => {
      const { code, said } = await runStart(['--port', port], { GRAVEK_DATA: data }).ended;
      expect(code).toBe(1);
      expect(said).not.toContain('    at ');
      return said;
    };
    expect(await wrong(file)).toContain('is a file, or lies below one');
    expect(await wrong(path.join(file, 'below'))).toContain('is a file, or lies below one');
    expect(await wrong('/sys/gravek')).toContain('cannot be written');

    const passwords = path.join(folder, 'secrets.json');
    const kept = readFileSync(passwords, 'utf8');
    for (const text of ['', '{}', '{"super": "x"']) {
      writeFileSync(passwords, text);
      expect(await wrong(folder)).toContain('does not hold the passwords');
      expect(readFileSync(passwords, 'utf8')).toBe(text);
    }
    writeFileSync(passwords, kept);

    const version = path.join(folder, 'pg', 'PG_VERSION');
    const made = readFileSync(version, 'utf8');
    writeFileSync(version, '');
    expect(await wrong(folder)).toContain('should say which PostgreSQL');
    writeFileSync(version, made);

    const foreign = path.join(broken, 'foreign');
    mkdirSync(path.join(foreign, 'pg'), { recursive: true });
    writeFileSync(path.join(foreign, 'pg', 'a letter'), 'to somebody');
    expect(await wrong(foreign)).toContain('holds something, but no database');
    expect(readdirSync(path.join(foreign, 'pg'))).toEqual(['a letter']);

    const running = readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .map((pid) => {
        try {
          return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
        } catch {
          return '';
        }
      });
    expect(running.filter((line) => line.includes(broken) || line.includes('/sys/gravek'))).toEqual(
      [],
    );
    rmSync(broken, { recursive: true, force: true });
  },
);

test('making a database that was broken off halfway is begun anew', LONG, async () => {
  const fresh = dataFolder();
  // What initdb leaves behind when it is killed: its first files.
  mkdirSync(path.join(fresh, 'pg.new'), { recursive: true });
  writeFileSync(path.join(fresh, 'pg.new', 'PG_VERSION'), '15\n');
  const again = runStart(['--empty', '--port', port], { GRAVEK_DATA: fresh });
  await again.up;
  again.child.kill('SIGINT');
  expect((await again.ended).code).toBe(0);
  expect(existsSync(path.join(fresh, 'pg.new'))).toBe(false);
  rmSync(fresh, { recursive: true, force: true });
});

test('a cluster for what is only tried goes when that is broken off', LONG, async () => {
  const script = path.join(folder, 'waits.mjs');
  writeFileSync(script, 'console.log(process.env.TEST_DATABASE_URL); setInterval(() => 0, 1000);');
  const trying = spawn(process.execPath, [WITH_CLUSTER, script]);
  let said = '';
  const url = await new Promise<URL>((resolve, reject) => {
    trying.stdout.on('data', (part) => {
      said += String(part);
      const found = /^postgres:.*$/m.exec(said);
      if (found) resolve(new URL(found[0]));
    });
    trying.once('exit', () => reject(new Error(said)));
  });
  const knock = async (): Promise<boolean> => {
    const door = connect(Number(url.port), '127.0.0.1');
    const heard = await Promise.race([
      once(door, 'connect').then(() => true),
      once(door, 'error').then(() => false),
    ]).catch(() => false);
    door.destroy();
    return heard;
  };
  expect(await knock()).toBe(true);
  trying.kill('SIGINT');
  await once(trying, 'exit');
  expect(await knock()).toBe(false);
});
