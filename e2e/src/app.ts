import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import path from 'node:path';
import { text } from 'node:stream/consumers';
import pg from 'pg';
import { freePort } from './startCommand';

/**
 * The application for browser tests: one server process for each file of tests, each with a database of its
 * own that is copied from one in which the demo was loaded once. All lie in the cluster that the test command
 * has started.
 */
const ROOT = path.resolve(import.meta.dirname, '../..');
const SERVER = path.join(ROOT, 'server/dist/main.mjs');
const DEMO = path.join(ROOT, 'demo/dist/main.mjs');
const UP_MS = 60_000;

const EMPTY_CLUB = 'e2e_empty';
const DEMO_CLUB = 'e2e_demo';
/** Of roles that exist only as long as the tests run. */
const PASSWORD = 'only for as long as tests run';

const superUrl = (): URL => {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL is not set; see CONTRIBUTING.md.');
  return new URL(url);
};

const urlOf = (role: string, database: string): string => {
  const url = superUrl();
  url.username = role;
  url.password = PASSWORD;
  url.pathname = `/${database}`;
  return url.toString();
};

const asSuper = async (...statements: string[]): Promise<void> => {
  const client = new pg.Client({ connectionString: superUrl().toString() });
  await client.connect();
  try {
    for (const statement of statements) await client.query(statement);
  } finally {
    await client.end();
  }
};

const databaseEnv = (database: string) => ({
  ...process.env,
  DATABASE_URL: urlOf('e2e_app', database),
  SESSION_SECRET: 'only for tests',
});

/** Runs a command of the server to its end. Returns what it printed. */
const command = async (
  args: readonly string[],
  env: NodeJS.ProcessEnv,
  input = '',
): Promise<string> => {
  const child = spawn(process.execPath, [SERVER, ...args], {
    env,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  child.stdin.end(input);
  const ended = once(child, 'exit') as Promise<[number | null]>;
  const said = await text(child.stdout);
  const [code] = await ended;
  if (code !== 0) throw new Error(`the server could not ${args.join(' ')} (${code})`);
  return said;
};

const demoClub = (): Promise<string> => {
  const child = spawn(process.execPath, [DEMO], { stdio: ['ignore', 'pipe', 'inherit'] });
  return text(child.stdout);
};

/** Makes the databases that files of tests begin with; Playwright calls it once, before all of them. */
export const makeDatabases = async (): Promise<void> => {
  const club = demoClub();
  await asSuper(
    `do $$ begin
      create role gravek_app nologin;
    exception when duplicate_object or unique_violation then null; -- tests of the server were first
    end $$`,
    `create role e2e_owner login createrole password '${PASSWORD}'`,
    `create role e2e_app login password '${PASSWORD}' in role gravek_app`,
    `create database ${EMPTY_CLUB} owner e2e_owner`,
  );
  await command(['prepare'], {
    ...databaseEnv(EMPTY_CLUB),
    DATABASE_OWNER_URL: urlOf('e2e_owner', EMPTY_CLUB),
  });
  await asSuper(`create database ${DEMO_CLUB} template ${EMPTY_CLUB} owner e2e_owner`);
  await command(['load-demo'], databaseEnv(DEMO_CLUB), await club);
};

export type App = {
  address: string;
  /** loads a club file beside what is there; what is printed names a link for each owner */
  load: (club: object) => Promise<string>;
  /** runs a statement as the role that owns the tables */
  sql: (statement: string) => Promise<void>;
  /** the server, at once and without a word, as when the power goes */
  kill: () => Promise<void>;
  /** in order: requests under way are ended first */
  stop: () => Promise<void>;
  start: () => Promise<void>;
  /** stops, and forgets the data */
  remove: () => Promise<void>;
};

const isUp = async (address: string): Promise<boolean> => {
  try {
    return (await fetch(`${address}/healthz`)).ok;
  } catch {
    return false;
  }
};

/** The application with data of its own: the demo, or no club at all. */
export const startApp = async (data: 'demo' | 'empty', at?: number): Promise<App> => {
  const database = `e2e_${randomBytes(6).toString('hex')}`;
  const template = data === 'demo' ? DEMO_CLUB : EMPTY_CLUB;
  await asSuper(`create database ${database} template ${template} owner e2e_owner`);
  const env = databaseEnv(database);
  const port = at ?? (await freePort());
  const address = `http://127.0.0.1:${port}`;
  let running: ChildProcess | null = null;
  const start = async (): Promise<void> => {
    const child = spawn(process.execPath, [SERVER, 'serve'], {
      env: {
        ...env,
        PORT: String(port),
        GRAVEK_DEMO: data === 'demo' ? '1' : '0',
        GRAVEK_WEB: path.join(ROOT, 'web/dist'),
        GRAVEK_PARENT: '1',
        LOG_LEVEL: 'error',
      },
      stdio: ['pipe', 'inherit', 'inherit'],
    });
    running = child;
    const end = Date.now() + UP_MS;
    while (!(await isUp(address))) {
      if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}`);
      if (Date.now() > end) throw new Error('the server is not up in time');
      await new Promise((resolve) => setTimeout(resolve, 25));
    }
  };
  const end = async (signal: NodeJS.Signals): Promise<void> => {
    const child = running;
    running = null;
    if (!child) return;
    const ended = once(child, 'exit');
    child.kill(signal);
    await ended;
  };
  await start();
  return {
    address,
    load: (club) => command(['load', '-'], env, JSON.stringify(club)),
    sql: async (statement) => {
      const client = new pg.Client({ connectionString: urlOf('e2e_owner', database) });
      await client.connect();
      await client.query(statement).finally(() => client.end());
    },
    kill: () => end('SIGKILL'),
    stop: () => end('SIGTERM'),
    start,
    remove: async () => {
      await end('SIGTERM');
      await asSuper(`drop database ${database} with (force)`);
    },
  };
};
