import { buildServer, buildWeb, installPackages } from './run.mjs';
import { runMain } from './say.mjs';

/** Installs the packages and builds pages and server, for a machine where another program starts the server. */
await runMain(async () => {
  await installPackages();
  await Promise.all([buildServer(), buildWeb()]);
});
