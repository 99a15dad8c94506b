import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { startCluster } from './postgres.mjs';
import { installPackages, run, TSX } from './run.mjs';
import { runMain, Stop } from './say.mjs';

/** Runs a script with a PostgreSQL of its own: `withCluster.mjs SCRIPT [ARGUMENT …]`; TEST_DATABASE_URL names it. */
const [script, ...args] = process.argv.slice(2);
await runMain(async () => {
  await installPackages();
  const folder = mkdtempSync(path.join(tmpdir(), 'gravek-bench-'));
  // The postgres user must be able to pass through.
  chmodSync(folder, 0o755);
  const cluster = await startCluster(folder, { throwaway: true });
  try {
    const { code } = await run(process.execPath, [...TSX, script, ...args], {
      env: { TEST_DATABASE_URL: cluster.superUrl },
    });
    if (code !== 0) throw new Stop(`${script} did not get to its end.`);
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
