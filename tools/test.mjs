import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { withThrowaway } from './postgres.mjs';
import { buildWeb, installDebian, installPackages, ROOT, run } from './run.mjs';
import { runMain, say, Stop } from './say.mjs';

/** Everything that must hold: types, lint, unit and server tests, then the browser. */
const results = path.join(ROOT, 'test-results');

/** How a step ends that could not be tried here; it says why. */
const NOT_TRIED = 77;

const step = async (name, command, args, options) => {
  const began = Date.now();
  say(`\n— ${name}`);
  const { code } = await run(command, args, options);
  const how = code === 0 ? 'good' : code === NOT_TRIED ? 'NOT TRIED' : 'FAILED';
  say(`— ${name}: ${how} after ${Math.round((Date.now() - began) / 1000)} s`);
  return code === 0 || code === NOT_TRIED;
};

const read = (file) => {
  const at = path.join(results, file);
  return existsSync(at) ? JSON.parse(readFileSync(at, 'utf8')) : null;
};

await runMain(async () => {
  await installPackages();
  if (!existsSync('/usr/bin/chromium')) await installDebian('chromium', 'the browser tests');
  if (!existsSync('/usr/bin/pdftotext')) {
    await installDebian('poppler-utils', 'the tests of printed sheets');
  }
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  const outcome = [];
  await withThrowaway(async ({ superUrl }) => {
    // Each keeps a core busy; neither needs what the other does.
    outcome.push(
      ...(await Promise.all([
        step('types', process.execPath, ['tools/types.mjs']),
        step('lint', 'npm', ['run', '--silent', 'lint']),
      ])),
    );
    outcome.push(
      await step(
        'unit and server tests',
        'npx',
        [
          'vitest',
          'run',
          '--reporter=default',
          '--reporter=json',
          `--outputFile.json=${results}/unit.json`,
        ],
        { env: { TEST_DATABASE_URL: superUrl } },
      ),
    );
    await buildWeb();
    outcome.push(await step('the cluster', process.execPath, ['tools/clusterTest.mjs']));
    outcome.push(
      await step('browser tests', 'npx', ['playwright', 'test'], { cwd: path.join(ROOT, 'e2e') }),
    );
  });
  const unit = read('unit.json');
  const browser = read('browser.json');
  if (!unit || !browser) throw new Stop('A test run left no result behind.');
  const passed = unit.numPassedTests + browser.stats.expected + browser.stats.flaky;
  const failed = unit.numFailedTests + browser.stats.unexpected;
  const skipped = unit.numPendingTests + browser.stats.skipped;
  say(`\n${passed} passed, ${failed} failed, ${skipped} skipped`);
  if (outcome.includes(false)) throw new Stop('Not everything holds; see above.');
});
