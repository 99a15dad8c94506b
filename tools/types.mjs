import path from 'node:path';
import { ROOT, run } from './run.mjs';

/** Checks the types of every workspace, by the compiler in machine code; ESLint still needs the one before it. */
const TSC = path.join(ROOT, 'node_modules/typescript-native/bin/tsc');
let failed = false;
for (const name of ['core', 'contract', 'library', 'server', 'web', 'demo', 'e2e']) {
  const { code, out } = await run(process.execPath, [TSC, '-p', name], { quiet: true });
  if (code !== 0) {
    failed = true;
    process.stdout.write(`${name}:\n${out}`);
  }
}
process.exit(failed ? 1 : 0);
