import { run } from './run.mjs';

/** Checks the types of every workspace, two at a time. */
const WORKSPACES = ['core', 'contract', 'library', 'server', 'web', 'demo', 'e2e'];

const waiting = [...WORKSPACES];
let failed = false;
const worker = async () => {
  for (let name = waiting.shift(); name; name = waiting.shift()) {
    const { code, out } = await run('npx', ['tsc', '-p', name], { quiet: true });
    if (code !== 0) {
      failed = true;
      process.stdout.write(`${name}:\n${out}`);
    }
  }
};
await Promise.all([worker(), worker()]);
process.exit(failed ? 1 : 0);
