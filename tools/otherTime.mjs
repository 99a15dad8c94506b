import { existsSync } from 'node:fs';
import { buildServer, buildWeb, installDebian, installPackages, run } from './run.mjs';
import { runMain, say, Stop } from './say.mjs';

/**
 * Runs tests as they would run at another day and hour: `otherTime.mjs 2031-03-08T23:40 SCRIPT [ARGUMENT …]`. Server,
 * database and tests get that clock by a library that is loaded before them; pages get it from the tests.
 */
const LIBRARY = '/usr/lib/x86_64-linux-gnu/faketime/libfaketimeMT.so.1';

const [when = '', ...command] = process.argv.slice(2);
await runMain(async () => {
  const shiftS = Math.round((Date.parse(`${when}Z`) - Date.now()) / 1000);
  if (!Number.isFinite(shiftS) || command.length === 0)
    throw new Stop('Say when and what: otherTime.mjs 2031-03-08T23:40 tools/browserTests.mjs');
  await installPackages();
  if (!existsSync(LIBRARY)) await installDebian('faketime', 'another day');
  await Promise.all([buildServer(), buildWeb()]);
  say(`As at ${when} UTC:`);
  const { code } = await run(process.execPath, ['tools/withCluster.mjs', ...command], {
    env: {
      ...{ LD_PRELOAD: LIBRARY, FAKETIME: `${shiftS < 0 ? '' : '+'}${shiftS}` },
      ...{ FAKETIME_DONT_FAKE_MONOTONIC: '1', GRAVEK_SHIFT_S: String(shiftS) },
    },
  });
  if (code !== 0) throw new Stop(`As at ${when} not everything holds.`);
});
