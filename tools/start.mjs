import { spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, openSync, rmSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { startCluster } from './postgres.mjs';
import { buildWeb, installPackages, isRoot, must, ROOT, TSX } from './run.mjs';
import { runMain, say, Stop } from './say.mjs';

const HOST = '127.0.0.1';

/** Where this checkout keeps its data; the postgres user must be able to reach it. */
const dataFolder = () =>
  process.env.GRAVEK_DATA ??
  (isRoot
    ? `/var/lib/gravek/${createHash('sha256').update(ROOT).digest('hex').slice(0, 12)}`
    : path.join(ROOT, '.data'));

const options = () => {
  try {
    const { values } = parseArgs({
      options: {
        port: { type: 'string', default: process.env.PORT ?? '5180' },
        empty: { type: 'boolean', default: false },
        dev: { type: 'boolean', default: false },
      },
    });
    const port = Number(values.port);
    if (!Number.isInteger(port) || port < 1 || port > 65_535)
      throw new Error(`--port takes a port number, got ${values.port}`);
    return { ...values, port };
  } catch (error) {
    throw new Stop(`${error.message}\nUse: npm start -- [--port N] [--empty]`);
  }
};

const health = async (port) => {
  try {
    const answer = await fetch(`http://${HOST}:${port}/healthz`, {
      signal: AbortSignal.timeout(1500),
    });
    return await answer.json();
  } catch {
    return null;
  }
};

const isTaken = (port) =>
  new Promise((resolve) => {
    const probe = connect(port, HOST);
    probe.once('connect', () => {
      probe.destroy();
      resolve(true);
    });
    probe.once('error', () => resolve(false));
  });

const server = (command, env) =>
  must('The server', process.execPath, [...TSX, 'server/src/main.ts', ...command], { env });

const loadDemo = async (env) => {
  say('Loading the demo club …');
  const folder = mkdtempSync(path.join(tmpdir(), 'gravek-demo-'));
  try {
    const file = path.join(folder, 'club.json');
    writeFileSync(file, await must('The demo', process.execPath, [...TSX, 'demo/src/main.ts']));
    await server(['load', file], env);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};

await runMain(async () => {
  const { port, empty, dev } = options();
  const address = `http://${HOST}:${port}`;
  if ((await health(port))?.app === 'gravek') {
    say(`Gravek is running already.\n${address}`);
    return;
  }
  if (await isTaken(port)) {
    throw new Stop(
      `Port ${port} is taken by another program. Choose another one: npm start -- --port ${port + 1}`,
    );
  }
  await installPackages();

  let cluster = null;
  let stopping = false;
  let child = null;
  let vite = null;
  const folder = dataFolder();
  const ended = (one) =>
    new Promise((resolve) =>
      one && one.exitCode === null ? one.once('exit', resolve) : resolve(),
    );
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    vite?.kill('SIGTERM');
    child?.kill('SIGTERM');
    await Promise.all([ended(child), ended(vite)]);
    await cluster?.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      say('Stopping …');
      void stop(0);
    });
  }

  try {
    let env;
    if (process.env.DATABASE_URL) {
      env = { SESSION_SECRET: process.env.SESSION_SECRET ?? randomBytes(24).toString('base64url') };
      if (!process.env.SESSION_SECRET)
        say('SESSION_SECRET is not set: everybody signs in anew after a restart.');
    } else {
      cluster = await startCluster(folder);
      env = cluster.env;
    }
    Object.assign(env, {
      PORT: String(port),
      HOST,
      GRAVEK_DEMO: empty ? '0' : '1',
      GRAVEK_WEB: dev ? '' : path.join(ROOT, 'web', 'dist'),
      GRAVEK_PARENT: '1',
    });
    const state = (await server(['prepare'], env)).trim();
    if (state === 'empty' && !empty) await loadDemo(env);
    if (!dev) await buildWeb();

    // In a group of its own, so that Ctrl-C reaches it once, through us.
    const log = cluster ? path.join(folder, 'server.log') : null;
    child = spawn(
      process.execPath,
      [...TSX, ...(dev ? ['--watch-path=server/src'] : []), 'server/src/main.ts', 'serve'],
      {
        cwd: ROOT,
        detached: true,
        env: { ...process.env, ...env },
        stdio: ['pipe', log ? openSync(log, 'a') : 'inherit', 'inherit'],
      },
    );
    child.once('exit', (code) => {
      if (stopping) return;
      process.stderr.write(
        `The server ended (${code ?? 'killed'}).${log ? ` Its log: ${log}` : ''}\n`,
      );
      void stop(1);
    });
    for (let i = 0; i < 150 && !stopping && (await health(port))?.app !== 'gravek'; i += 1) {
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    if (stopping) return;
    if (log) say(`Data and log: ${folder}`);
    if (dev) {
      const webPort = port + 1;
      vite = spawn(
        process.execPath,
        [
          path.join(ROOT, 'node_modules/vite/bin/vite.js'),
          '--host',
          HOST,
          '--port',
          String(webPort),
          '--strictPort',
        ],
        {
          cwd: path.join(ROOT, 'web'),
          env: { ...process.env, GRAVEK_API: address },
          stdio: 'inherit',
        },
      );
      say(`http://${HOST}:${webPort}`);
    } else say(address);
  } catch (error) {
    process.stderr.write(`${error instanceof Stop ? error.message : error.stack}\n`);
    await stop(1);
  }
});
