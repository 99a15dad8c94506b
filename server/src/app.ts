import path from 'node:path';
import connectPgSimple from 'connect-pg-simple';
import express, { Router, type Express, type RequestHandler } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import { sql } from 'kysely';
import type pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Changes } from './changes/listen';
import { changeStream } from './changes/stream';
import type { Db } from './database/connect';
import { problemHandler, refused, send } from './http/problem';
import { clubRouter } from './http/route';
import { ROUTES } from './routes';
import { doorRouter } from './signIn/routes';

export type Parts = {
  db: Db;
  pool: pg.Pool;
  changes: Changes;
  log: Logger;
  sessionSecret: string;
  demo: boolean;
  webFolder: string | undefined;
  stopping: AbortSignal;
};

const WEEK_MS = 7 * 24 * 3600_000;

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

export const createApp = (parts: Parts): Express => {
  const { db, pool, changes, log, stopping } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', 'loopback');
  app.use(
    pinoHttp({
      logger: log,
      // Addresses hold ids only; headers, bodies and query texts could hold names.
      serializers: {
        req: (req: { method: string; url: string }) => ({
          method: req.method,
          path: req.url.split('?')[0],
        }),
        res: (res: { statusCode: number }) => ({ status: res.statusCode }),
      },
      autoLogging: { ignore: (req) => req.url === '/healthz' },
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
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );

  app.get('/healthz', async (_req, res) => {
    try {
      await sql`select 1`.execute(db);
      res.json({ app: 'gravek', ok: !stopping.aborted });
    } catch {
      res.status(503).json({ app: 'gravek', ok: false, why: 'no database' });
    }
  });

  const api = Router();
  const Store = connectPgSimple(session);
  api.use(
    sameOrigin,
    session({
      store: new Store({ pool, tableName: 'http_session', pruneSessionInterval: false }),
      name: 'gravek',
      secret: parts.sessionSecret,
      resave: false,
      saveUninitialized: false,
      rolling: false,
      cookie: { httpOnly: true, sameSite: 'lax', secure: 'auto', maxAge: WEEK_MS },
    }),
    express.json({ limit: '1mb' }),
  );
  api.use((_req, res, next) => {
    res.set('cache-control', 'no-store');
    next();
  });
  api.use(doorRouter(db, parts.demo));
  api.get('/changes', changeStream(db, changes, stopping));
  api.use(clubRouter(db, ROUTES));
  api.use((_req, res) => {
    send(res, refused(404, 'There is nothing at this address.'));
  });
  app.use('/api', api);

  if (parts.webFolder) {
    const folder = path.resolve(parts.webFolder);
    app.use(
      '/assets',
      express.static(path.join(folder, 'assets'), { immutable: true, maxAge: '1y' }),
      (_req, res) => {
        res.status(404).end();
      },
    );
    app.use(express.static(folder, { cacheControl: true, maxAge: 0 }));
    app.get(/.*/, (_req, res) => {
      res.set('cache-control', 'no-cache').sendFile(path.join(folder, 'index.html'));
    });
  }
  app.use(problemHandler);
  return app;
};
