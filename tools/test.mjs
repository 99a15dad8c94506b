import { withThrowaway } from './postgres.mjs';
import { buildServer, buildWeb, ROOT } from './run.mjs';
import { runMain } from './say.mjs';
import { prepareTests, testRun, VITEST } from './testing.mjs';
import path from 'node:path';

/** Everything that must hold: types, lint, unit and server tests, then the browser. What takes minutes by nature is in `testLong.mjs`. */
await runMain(async () => {
  await prepareTests();
  const { part, tell } = testRun();
  await withThrowaway(async ({ superUrl }) => {
    const env = { TEST_DATABASE_URL: superUrl };
    const lint = (by) => part(`lint: ${by}`, 'npm', ['run', '--silent', `lint:${by}`]);
    // Two cores, and two rows that take as long as one another.
    await Promise.all([
      part('types', process.execPath, ['tools/types.mjs']).then(() => lint('eslint')),
      lint('form').then(() => lint('oxlint')),
    ]);
    await Promise.all([buildServer(), buildWeb()]);
    await part('unit and server tests', 'npx', VITEST, { env });
    await part('browser tests', 'npx', ['playwright', 'test'], {
      cwd: path.join(ROOT, 'e2e'),
      env,
    });
  });
  tell(['unit.json', 'browser.json']);
});
