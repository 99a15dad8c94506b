import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { say, Stop } from './say.mjs';

export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');
/** Node flags that let the server and the demo run from their TypeScript. */
export const TSX = ['--import', 'tsx'];

export const isRoot = process.getuid?.() === 0;

/** Runs a command to its end; its output is shown, or given back when `quiet`. */
export const run = (command, args, { env = {}, cwd = ROOT, quiet = false, input } = {}) =>
  new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: [
        input === undefined ? 'ignore' : 'pipe',
        quiet ? 'pipe' : 'inherit',
        quiet ? 'pipe' : 'inherit',
      ],
    });
    let out = '';
    let err = '';
    child.stdout?.on('data', (part) => (out += part));
    child.stderr?.on('data', (part) => (err += part));
    if (input !== undefined) child.stdin.end(input);
    child.on('error', reject);
    child.on('close', (code) => resolve({ code, out, err }));
  });

/** As `run` quietly; a failure ends the command with what was printed. */
export const must = async (what, command, args, options = {}) => {
  const { code, out, err } = await run(command, args, { quiet: true, ...options });
  if (code !== 0) throw new Stop(`${what} did not work:\n${(err || out).trim()}`);
  return out;
};

const canSudo = () => spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;

/** Installs a Debian package where that is allowed, else says how. */
export const installDebian = async (name, why) => {
  const how = `apt-get install -y ${name}`;
  if (!existsSync('/usr/bin/apt-get') || !(isRoot || canSudo())) {
    throw new Stop(
      `${why} needs ${name}, which is not installed. Install it and start again:\n  sudo ${how}`,
    );
  }
  say(`Installing ${name} (${why}) …`);
  const apt = async (...args) => {
    const [command, rest] = isRoot ? ['apt-get', args] : ['sudo', ['apt-get', ...args]];
    return run(command, rest, { quiet: true, env: { DEBIAN_FRONTEND: 'noninteractive' } });
  };
  await apt('update', '-qq');
  const { code, err } = await apt('install', '-y', '-qq', '--no-install-recommends', name);
  if (code !== 0)
    throw new Stop(`${name} could not be installed:\n${err.trim()}\nTry: sudo ${how}`);
};

const digest = (files) => {
  const hash = createHash('sha256');
  for (const file of files) hash.update(file).update(readFileSync(path.join(ROOT, file)));
  return hash.digest('hex');
};

const read = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : '');

/** One command of this checkout at a time does such work; the others wait for it, then look again. */
const exclusively = async (work) => {
  const lock = path.join(ROOT, '.gravek-lock');
  for (;;) {
    try {
      writeFileSync(lock, String(process.pid), { flag: 'wx' });
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      try {
        process.kill(Number(read(lock)), 0);
      } catch {
        rmSync(lock, { force: true });
      }
      await new Promise((resolve) => setTimeout(resolve, 300));
    }
  }
  try {
    await work();
  } finally {
    rmSync(lock, { force: true });
  }
};

/** Installs the packages when they are missing or the lock file has changed. */
export const installPackages = async () => {
  const stamp = path.join(ROOT, 'node_modules', '.gravek-lock');
  const lock = digest(['package-lock.json']);
  if (read(stamp) !== lock) await exclusively(() => install(stamp, lock));
};

const install = async (stamp, lock) => {
  if (read(stamp) === lock) return;
  say('Installing packages (npm ci) …');
  const { code, err } = await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    quiet: true,
  });
  if (code !== 0) throw new Stop(`The packages could not be installed:\n${err.trim()}`);
  writeFileSync(stamp, lock);
};

const filesUnder = (folder) =>
  readdirSync(path.join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const name = `${folder}/${entry.name}`;
    if (entry.isDirectory())
      return ['dist', 'node_modules', 'test'].includes(entry.name) ? [] : filesUnder(name);
    return [name];
  });

/** Builds the web application when anything that goes into it has changed. */
export const buildWeb = async () => {
  const stamp = path.join(ROOT, 'web', 'dist', '.stamp');
  const sources = ['web', 'core/src', 'contract/src', 'library/src'].flatMap(filesUnder).sort();
  const now = digest([...sources, 'package-lock.json']);
  if (read(stamp) !== now) await exclusively(() => build(stamp, now));
};

const build = async (stamp, now) => {
  if (read(stamp) === now) return;
  say('Building the web application …');
  await must('The build', 'npx', ['vite', 'build', '--logLevel', 'warn'], {
    cwd: path.join(ROOT, 'web'),
  });
  writeFileSync(stamp, now);
};
