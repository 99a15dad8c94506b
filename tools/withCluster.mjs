import { withThrowaway } from './postgres.mjs';
import { buildServer, installPackages, run, TSX } from './run.mjs';
import { runMain, Stop } from './say.mjs';

/** Runs a script with a PostgreSQL of its own: `withCluster.mjs SCRIPT [ARGUMENT …]`; TEST_DATABASE_URL names it. */
const [script, ...args] = process.argv.slice(2);
await runMain(async () => {
  await installPackages();
  // Archives are read in by a thread that runs what is built.
  await buildServer();
  await withThrowaway(async ({ superUrl }) => {
    const { code } = await run(process.execPath, [...TSX, script, ...args], {
      env: { TEST_DATABASE_URL: superUrl },
    });
    if (code !== 0) throw new Stop(`${script} did not get to its end.`);
  });
});
