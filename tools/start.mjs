import { spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, existsSync } from 'node:fs';
import { connect } from 'node:net';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { startCluster } from './postgres.mjs';
import { exclusively } from './lock.mjs';
import {
  buildServer,
  buildWeb,
  DEMO,
  installPackages,
  isRoot,
  must,
  ROOT,
  SERVER,
  TSX,
  VITE,
} from './run.mjs';
import { runMain, say, step, Stop } from './say.mjs';

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
  must('The server', process.execPath, [SERVER, ...command], { env });

const makeDemo = (env) => must('The demo', process.execPath, [DEMO], { env });

const loadDemo = (club, env) =>
  must('The server', process.execPath, [SERVER, 'load-demo'], {
    env,
    input: club,
  });

/** Brings the database up to this version, with the demo in it where it is empty. */
const prepare = async (env, { empty, isNew }) => {
  // Made while the tables are, where it is plain that it will be wanted.
  const early = isNew && !empty ? makeDemo(env) : undefined;
  early?.catch(() => undefined);
  const tables = () => server(['prepare'], env);
  const state = await (isNew ? step('Making the tables', tables) : tables());
  if (empty || state.trim() !== 'empty') return;
  await step('Loading the demo club', async () => loadDemo(await (early ?? makeDemo(env)), env));
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

  let cluster = null;
  /** may still be on its way when the command is told to stop */
  let coming = Promise.resolve(null);
  let stopping = false;
  let child = null;
  let vite = null;
  const folder = dataFolder();
  const ended = (one) =>
    new Promise((resolve) =>
      one && one.exitCode === null && one.signalCode === null
        ? one.once('exit', resolve)
        : resolve(),
    );
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    vite?.kill('SIGTERM');
    child?.kill('SIGTERM');
    await Promise.all([ended(child), ended(vite)]);
    await (await coming.catch(() => null))?.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      say('Stopping …');
      void stop(0);
    });
  }

  try {
    const isOwn = !process.env.DATABASE_URL;
    const isNew = isOwn && !existsSync(path.join(folder, 'pg', 'PG_VERSION'));
    // The cluster is made while packages come in.
    const packages = installPackages();
    if (isOwn) coming = startCluster(folder);
    // Whichever fails is told; the other ends first, so that nothing is left half made.
    const [installed, made] = await Promise.allSettled([packages, coming]);
    for (const one of [made, installed]) if (one.status === 'rejected') throw one.reason;
    if (stopping) return;
    cluster = made.value;
    const env = cluster
      ? { ...cluster.env }
      : { SESSION_SECRET: process.env.SESSION_SECRET ?? randomBytes(24).toString('base64url') };
    if (!cluster && !process.env.SESSION_SECRET)
      say('SESSION_SECRET is not set: everybody signs in anew after a restart.');
    const log = cluster ? path.join(folder, 'server.log') : undefined;
    Object.assign(env, {
      PORT: String(port),
      HOST,
      GRAVEK_DEMO: empty ? '0' : '1',
      GRAVEK_WEB: dev ? '' : path.join(ROOT, 'web', 'dist'),
      GRAVEK_PARENT: '1',
      ...(cluster ? { GRAVEK_DISK: folder } : {}),
      ...(log ? { GRAVEK_LOG: log } : {}),
    });
    const building = dev ? undefined : buildWeb();
    building?.catch(() => undefined);
    await buildServer();
    await exclusively(`${folder} contents`, () => prepare(env, { empty, isNew }));
    // The server looks once which files are packed.
    await building;
    if (stopping) return;

    if (log && existsSync(log)) chmodSync(log, 0o600);
    // In a group of its own, so that Ctrl-C reaches it once, through us.
    child = spawn(
      process.execPath,
      dev
        ? [...TSX, '--watch-path=server/src', 'server/src/main.ts', 'serve']
        : ['--enable-source-maps', SERVER, 'serve'],
      {
        cwd: ROOT,
        detached: true,
        env: { ...process.env, ...env },
        stdio: ['pipe', 'inherit', 'inherit'],
      },
    );
    child.once('exit', (code, signal) => {
      if (stopping) return;
      process.stderr.write(
        `The server ended (${signal ?? code}).${log ? ` Its log: ${log}` : ''}\n`,
      );
      void stop(1);
    });
    for (let i = 0; i < 300 && !stopping && (await health(port))?.app !== 'gravek'; i += 1) {
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    if (stopping) return;
    if (log) say(`Data and log: ${folder}`);
    if (dev) {
      const webPort = port + 1;
      vite = spawn(
        process.execPath,
        [VITE, '--host', HOST, '--port', String(webPort), '--strictPort'],
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
