import path from 'node:path';
import compression from 'compression';
import express, { Router, type Express, type RequestHandler } from 'express';
import session from 'express-session';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Changes } from './changes/listen';
import type { Restorer } from './clubFile/restoring';
import { archiveRouter } from './clubFile/routes';
import { changeStream } from './http/stream';
import type { Tell } from './changes/tell';
import type { Db } from './database/connect';
import type { SendPieces } from './http/pieces';
import { NO_ROOM, problemHandler, refused, send } from './http/problem';
import { whatFailed } from './log';
import { clubRouter } from './http/route';
import type { Disk } from './operator/disk';
import type { Numbers } from './operator/numbers';
import { readiness } from './operator/ready';
import { reportRouter } from './reports/routes';
import { countNew } from './reps/countNew';
import { ROUTES } from './routes';
import { ownRouter } from './ownView/routes';
import { calendarFeed } from './sessions/calendar';
import { limitAttempts } from './signIn/attempts';
import { doorRouter } from './signIn/routes';
import { noteUse, SIGNED_IN_MS } from './http/session';
import { signInStore } from './signIn/store';

export type Parts = {
  db: Db;
  pool: pg.Pool;
  /** over connections that nothing else needs */
  sendPieces: SendPieces;
  restorer: Restorer;
  changes: Changes;
  tell: Tell;
  disk: Disk;
  numbers: Numbers;
  log: Logger;
  sessionSecret: string;
  demo: boolean;
  /** names under which it may be asked for, without ports */
  hosts: readonly string[];
  /** whose word about the asker's address is taken: Express's `trust proxy` */
  proxy: string | false;
  webFolder: string | undefined;
  stopping: AbortSignal;
};

/** A page elsewhere can give its own name to this address; then it would be the origin of its writes. */
const knownHost =
  (hosts: readonly string[]): RequestHandler =>
  (req, res, next) => {
    const origin = `http://${req.headers.host ?? ''}`;
    if (URL.canParse(origin) && hosts.includes(new URL(origin).hostname)) next();
    else send(res, refused(421, 'Gravek does not answer under this name.'));
  };

/** What pages use of a device: landings are heard, calls are answered by motion, pods tell the cadence. */
const USED = ['microphone', 'accelerometer', 'gyroscope', 'bluetooth', 'fullscreen', 'autoplay'];
const UNUSED = [
  'camera',
  'geolocation',
  'magnetometer',
  'midi',
  'usb',
  'serial',
  'hid',
  'payment',
  'display-capture',
  'browsing-topics',
];
const PERMISSIONS = [
  ...USED.map((name) => `${name}=(self)`),
  ...UNUSED.map((name) => `${name}=()`),
].join(', ');

/** Files of a folder, as they were packed when the pages were built. */
const packed = (folder: string, serveStatic: { maxAge: number | string; immutable?: boolean }) =>
  staticGzip(folder, { enableBrotli: true, orderPreference: ['br', 'gz'], serveStatic });

/** Changes come line by line; packing would hold them back. */
const mayPack: compression.CompressionFilter = (req, res) =>
  res.get('content-type') !== 'text/event-stream' && compression.filter(req, res);

/** A write must come from a page of this very address. */
const sameOrigin: RequestHandler = (req, res, next) => {
  if (req.method === 'GET' || req.method === 'HEAD') {
    next();
    return;
  }
  const { origin, host } = req.headers;
  if (origin && host && URL.canParse(origin) && new URL(origin).host === host) next();
  else send(res, refused(403, 'This write did not come from a page of Gravek.'));
};

/** Small writes without which nobody could read either. */
const TO_READ = new Set(['/sign-in', '/sign-out', '/demo-entry', '/own', '/invitation']);

/** Refuses writes while the disk is nearly full; what is only read goes on. */
const whileThereIsRoom =
  (disk: Disk): RequestHandler =>
  (req, res, next) => {
    const reads = req.method === 'GET' || req.method === 'HEAD' || TO_READ.has(req.path);
    if (reads || !disk.isLow()) next();
    else send(res, NO_ROOM);
  };

export const createApp = (parts: Parts): Express => {
  const { db, pool, sendPieces, restorer, changes, tell, disk, numbers, log, stopping } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', parts.proxy);
  app.use(
    pinoHttp({
      logger: log,
      // Addresses hold ids only; headers, bodies and query texts could hold names.
      serializers: {
        req: (req: { method: string; url: string }) => ({
          method: req.method,
          // The address of a calendar is a key.
          path: req.url.split('?')[0]!.replace(/^\/calendar\/.*/, '/calendar/…'),
        }),
        res: (res: { statusCode: number }) => ({ status: res.statusCode }),
        err: whatFailed,
      },
      autoLogging: { ignore: (req) => req.url === '/healthz' || req.url === '/readyz' },
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // React and the drawings set style attributes; no inline style sheet is allowed.
          styleSrc: ["'self'"],
          styleSrcAttr: ["'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          // Films are opened from the device and never leave it.
          mediaSrc: ["'self'", 'blob:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          // Only what the pages' own policy has looked at is run as a script.
          requireTrustedTypesFor: ["'script'"],
          trustedTypes: ['gravek'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use((req, res, next) => {
    // Once it was asked for by https, it is not asked for otherwise for half a year.
    if (req.secure) res.set('strict-transport-security', 'max-age=15552000');
    res.set('permissions-policy', PERMISSIONS);
    next();
  });

  app.use(knownHost(parts.hosts));
  // That this process is alive; whether it is of use is another question.
  app.get('/healthz', (_req, res) => {
    res.json({ app: 'gravek', ok: true });
  });
  app.get('/readyz', readiness({ db, pool, disk, stopping }));

  const api = Router();
  api.use(compression({ filter: mayPack }));
  api.use(numbers.timed);
  api.use(
    sameOrigin,
    whileThereIsRoom(disk),
    session({
      store: signInStore(pool),
      name: 'gravek',
      secret: parts.sessionSecret,
      resave: false,
      saveUninitialized: false,
      rolling: false,
      cookie: { httpOnly: true, sameSite: 'lax', secure: 'auto', maxAge: SIGNED_IN_MS },
    }),
  );
  api.use(noteUse(db));
  api.use((_req, res, next) => {
    res.set('cache-control', 'no-store');
    next();
  });
  const limits = limitAttempts(db);
  api.use(doorRouter(db, tell, limits, parts.demo));
  api.use(ownRouter(db, limits));
  api.get('/changes', changeStream(db, changes, stopping, numbers.streams));
  api.use(archiveRouter(db, sendPieces, restorer));
  api.use(reportRouter(db, sendPieces));
  const stored = (rows: number): void => numbers.repsStored.inc(rows);
  api.use(clubRouter({ db, tell, stored, countNow: countNew }, ROUTES));
  api.use((_req, res) => {
    send(res, refused(404, 'There is nothing at this address.'));
  });
  app.use('/api', api);
  app.get('/calendar/:token.ics', calendarFeed(db));

  if (parts.webFolder) {
    const folder = path.resolve(parts.webFolder);
    app.use(
      '/assets',
      packed(path.join(folder, 'assets'), { immutable: true, maxAge: '1y' }),
      (_req, res) => {
        res.status(404).end();
      },
    );
    const pages = packed(folder, { maxAge: 0 });
    app.use(pages, (req, res, next) => {
      // Every other address is one of the page's.
      if (req.method !== 'GET' && req.method !== 'HEAD') return next();
      req.url = '/index.html';
      pages(req, res, next);
    });
  }
  app.use(problemHandler);
  return app;
};
