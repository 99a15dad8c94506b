import { run } from './run.mjs';

/** Server tests whose file has one of the given parts in its name; run by `withCluster.mjs`. */
const { code } = await run('npx', [
  'vitest',
  'run',
  '--project',
  'server',
  ...process.argv.slice(2),
]);
process.exit(code);
