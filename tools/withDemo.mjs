import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort } from './postgres.mjs';
import { installDebian, installPackages, ROOT, run, TSX } from './run.mjs';
import { runMain, Stop } from './say.mjs';

/**
 * Runs a script against a fresh demo club: `withDemo.mjs SCRIPT [ARGUMENT …]`. The script is given the
 * address first.
 */
const [script, ...args] = process.argv.slice(2);
await runMain(async () => {
  await installPackages();
  if (!existsSync('/usr/bin/chromium-headless-shell')) {
    await installDebian('chromium-headless-shell', 'the browser');
  }
  const data = mkdtempSync(path.join(tmpdir(), 'gravek-demo-'));
  chmodSync(data, 0o755);
  const port = await freePort();
  const app = spawn(process.execPath, ['tools/start.mjs', '--port', String(port)], {
    cwd: ROOT,
    env: { ...process.env, GRAVEK_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const ended = new Promise((resolve) => app.once('exit', resolve));
  try {
    await new Promise((resolve, reject) => {
      app.stdout.on('data', (part) => String(part).includes(`:${port}`) && resolve());
      app.once('exit', () => reject(new Stop('The demo did not start.')));
    });
    const { code } = await run(process.execPath, [
      ...TSX,
      script,
      `http://127.0.0.1:${port}`,
      ...args,
    ]);
    if (code !== 0) throw new Stop(`${script} did not get to its end.`);
  } finally {
    app.kill('SIGINT');
    await ended;
    rmSync(data, { recursive: true, force: true });
  }
});
