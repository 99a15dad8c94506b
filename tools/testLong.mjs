import path from 'node:path';
import { withThrowaway } from './postgres.mjs';
import { buildServer, buildWeb, ROOT } from './run.mjs';
import { runMain } from './say.mjs';
import { prepareTests, testRun } from './testing.mjs';

/** What takes minutes by nature: what React's compiler says, storms and whole films, the cluster. */
await runMain(async () => {
  await prepareTests();
  const { part, tell } = testRun();
  await part('lint by React’s compiler', 'npm', ['run', '--silent', 'lint:deep']);
  await Promise.all([buildServer(), buildWeb()]);
  await part('the cluster', process.execPath, ['tools/cluster/test.mjs']);
  await part('a full disk', process.execPath, ['tools/fullDisk.mjs']);
  await part(
    '2,000,000 reps',
    process.execPath,
    ['tools/withCluster.mjs', 'server/bench/bench.ts'],
    {
      env: { GRAVEK_BENCH_SESSIONS: '303' },
    },
  );
  await withThrowaway(async ({ superUrl }) => {
    const env = { TEST_DATABASE_URL: superUrl };
    await part('long server tests', 'npx', ['vitest', 'run', '--project', 'server', '.long.'], {
      env: { ...env, GRAVEK_LONG: '1' },
    });
    await part(
      'an archive of 100 MB',
      'npx',
      ['vitest', 'run', '--project', 'server', 'clubFile', '-t', '100 MB'],
      {
        env: { ...env, GRAVEK_LONG: '1' },
      },
    );
    await part('long browser tests', 'npx', ['playwright', 'test'], {
      cwd: path.join(ROOT, 'e2e'),
      env: { ...env, GRAVEK_LONG: '1' },
    });
  });
  tell(['browser.json']);
});
