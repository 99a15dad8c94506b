import { createServer } from 'node:http';
import { createApp } from './app';
import { listenForChanges } from './changes/listen';
import { teller } from './changes/tell';
import { restorer } from './clubFile/restoring';
import type { Config } from './config';
import { checkRole, connect } from './database/connect';
import { piecesSender } from './http/pieces';
import { openLog } from './log';
import { watchDisk } from './operator/disk';
import { makeNumbers, serveNumbers } from './operator/numbers';
import { keepCounting } from './reps/counter';
import { forgetDeeds } from './deeds/write';
import { forgetAttempts } from './signIn/attempts';
import { StartFault } from './startFault';

const GRACE_MS = 8_000;
/**
 * So long a connection is kept that nobody uses. Whoever stands before this process must give it up first (nginx
 * after 60 s): what is sent at the moment it is closed here is lost.
 */
const KEPT_MS = 75_000;
const PRUNE_MS = 3600_000;

/** As it is built, beside the server: a thread runs no TypeScript. */
const READ_IN = new URL('../dist/readIn.mjs', import.meta.url);

/**
 * Serves until told to stop, then lets requests under way end, at most for the grace time.
 *
 * @returns a promise that ends when the server listens; it holds the function that stops it
 * @throws {StartFault} when the role is too strong or the port is taken
 */
export const serve = async (config: Config): Promise<{ stop: () => Promise<void> }> => {
  const log = openLog(config.logLevel, config.logFile);
  const { db, pool } = connect(config.databaseUrl);
  const downloads = connect(config.databaseUrl, 'downloads');
  await checkRole(db);
  const changes = listenForChanges(config.listenUrl, log);
  const stopping = new AbortController();
  const tell = teller(db, stopping.signal);
  const counting = keepCounting({ db, changes, tell, log });
  const disk = await watchDisk({ folder: config.diskFolder, reserveBytes: config.reserveBytes });
  const numbers = makeNumbers({ pool, disk, waiting: counting.waiting });
  const restoring = restorer({
    ...{ db, tell, log },
    databaseUrl: config.databaseUrl,
    program: READ_IN,
  });
  const server = createServer(
    createApp({
      ...config,
      sendPieces: piecesSender(downloads.db),
      restorer: restoring,
      ...{ db, pool, changes, tell, disk, numbers, log },
      stopping: stopping.signal,
    }),
  );
  server.keepAliveTimeout = KEPT_MS;
  const numbersServer =
    config.numbersPort === undefined ? null : await serveNumbers(numbers, config.numbersPort);
  const prune = setInterval(() => {
    db.deleteFrom('http_session' as never)
      .where('expire' as never, '<', new Date() as never)
      .execute()
      .catch(() => undefined);
    forgetAttempts(db).catch(() => undefined);
    forgetDeeds(db).catch(() => undefined);
  }, PRUNE_MS);

  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      reject(
        error.code === 'EADDRINUSE'
          ? new StartFault(`Port ${config.port} is taken. Start with another one: -- --port N`)
          : error,
      );
    });
    server.listen(config.port, config.host, resolve);
  });
  log.info({ port: config.port }, 'listening');

  const end = async (): Promise<void> => {
    stopping.abort();
    clearInterval(prune);
    // Connections that are in use end with what is under way on them.
    server.keepAliveTimeout = 1;
    const closed = new Promise<void>((resolve) => server.close(() => resolve()));
    server.closeIdleConnections();
    const late = setTimeout(() => server.closeAllConnections(), GRACE_MS);
    await closed;
    numbersServer?.close();
    disk.stop();
    clearTimeout(late);
    await restoring.stop();
    await counting.stop();
    await changes.close();
    await downloads.db.destroy();
    await db.destroy();
    log.info('stopped');
  };
  let ending: Promise<void> | undefined;
  return { stop: () => (ending ??= end()) };
};
