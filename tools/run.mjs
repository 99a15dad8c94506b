import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { exclusively } from './lock.mjs';
import { say, step, Stop } from './say.mjs';

export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');
/** Node flags that let scripts run from their TypeScript. */
export const TSX = ['--import', 'tsx'];

export const VITE = path.join(ROOT, 'node_modules/vite/bin/vite.js');

export const isRoot = process.getuid?.() === 0;

/** What runs now; it ends when this command does, so that the next one finds nothing half under way. */
const underWay = new Set();
process.on('exit', () => {
  for (const child of underWay) child.kill('SIGTERM');
});

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
    underWay.add(child);
    let out = '';
    let err = '';
    child.stdout?.on('data', (part) => (out += part));
    child.stderr?.on('data', (part) => (err += part));
    // A program that ends before it has read this says so by its code.
    child.stdin?.on('error', () => undefined);
    if (input !== undefined) child.stdin.end(input);
    child.on('error', reject);
    child.on('close', (code) => {
      underWay.delete(child);
      resolve({ code, out, err });
    });
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

/** Installs the packages when they are missing or the lock file has changed. */
export const installPackages = async () => {
  const stamp = path.join(ROOT, 'node_modules', '.gravek-lock');
  const lock = digest(['package-lock.json']);
  if (read(stamp) !== lock) await exclusively(`${ROOT} packages`, () => install(stamp, lock));
};

const install = async (stamp, lock) => {
  if (read(stamp) === lock) return;
  await step('Installing packages (npm ci)', async () => {
    const { code, err } = await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      quiet: true,
    });
    if (code !== 0) throw new Stop(`The packages could not be installed:\n${err.trim()}`);
    writeFileSync(stamp, lock);
  });
};

const filesUnder = (folder) =>
  readdirSync(path.join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const name = `${folder}/${entry.name}`;
    if (entry.isDirectory())
      return ['dist', 'node_modules', 'test'].includes(entry.name) ? [] : filesUnder(name);
    return [name];
  });

const SHARED = ['core/src', 'contract/src', 'library/src', 'library/data'];

/** Builds what is made of some folders, unless it was built of these very contents. */
const buildOf = async (name, folders, work) => {
  const stamp = path.join(ROOT, name, 'dist', '.stamp');
  const sources = [...folders, ...SHARED].flatMap(filesUnder).sort();
  const now = digest([...sources, 'package-lock.json']);
  if (read(stamp) === now) return;
  await exclusively(`${ROOT} ${name} build`, async () => {
    if (read(stamp) === now) return;
    await work();
    writeFileSync(stamp, now);
  });
};

/** Builds the web application when anything that goes into it has changed. */
export const buildWeb = () =>
  buildOf('web', ['web'], () =>
    step('Building the web application', () =>
      must('The build', process.execPath, [VITE, 'build', '--logLevel', 'warn'], {
        cwd: path.join(ROOT, 'web'),
      }),
    ),
  );

/** The server and the maker of the demo club, as Node runs them. */
export const SERVER = 'server/dist/main.mjs';
export const DEMO = 'demo/dist/main.mjs';

/** Puts programs into a file each, out of which they start in a third of the time. */
export const bundleServer = async (entryPoints, plugins = []) => {
  const { build } = await import('esbuild');
  await build({
    ...{ absWorkingDir: ROOT, entryPoints, outdir: '.', outExtension: { '.js': '.mjs' } },
    ...{ bundle: true, platform: 'node', format: 'esm', target: 'node20', sourcemap: true },
    logLevel: 'error',
    plugins: [
      {
        name: 'other packages stay where npm put them',
        setup: (made) =>
          made.onResolve({ filter: /^[^./]/ }, ({ path: asked, kind }) =>
            kind === 'entry-point' || asked.startsWith('@gravek/')
              ? undefined
              : { path: asked, external: true },
          ),
      },
      ...plugins,
    ],
  });
};

export const buildServer = () =>
  buildOf('server', ['server/src', 'demo/src', 'demo/data'], () =>
    bundleServer({
      'server/dist/main': 'server/src/main.ts',
      'server/dist/readIn': 'server/src/clubFile/readIn.ts',
      'demo/dist/main': 'demo/src/main.ts',
    }),
  );
