import { buildWeb, installPackages } from './run.mjs';
import { runMain } from './say.mjs';

/** Installs the packages and builds the pages, for a machine where another program starts the server. */
await runMain(async () => {
  await installPackages();
  await buildWeb();
});
