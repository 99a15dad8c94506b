import path from 'node:path';
import { buildServer, buildWeb, ROOT, run } from './run.mjs';

/** Browser tests, with what `playwright test` takes, such as a part of a file's name; run by `withCluster.mjs`. */
await Promise.all([buildServer(), buildWeb()]);
const { code } = await run('npx', ['playwright', 'test', ...process.argv.slice(2)], {
  cwd: path.join(ROOT, 'e2e'),
});
process.exit(code);
