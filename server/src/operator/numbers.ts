import { createServer, type Server } from 'node:http';
import type { RequestHandler } from 'express';
import type pg from 'pg';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import type { Disk } from './disk';

export type Numbers = {
  registry: Registry;
  /** measures how long requests take, by what was asked, never by whose it is */
  timed: RequestHandler;
  repsStored: Counter;
  streams: Gauge;
};

/** Whole numbers of an operator's process; each server has its own, so that tests can hold several. */
export const makeNumbers = (parts: {
  pool: pg.Pool;
  disk: Disk;
  /** clubs that wait to be counted here */
  waiting: () => number;
}): Numbers => {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const registers = [registry];
  const requests = new Histogram({
    name: 'gravek_request_seconds',
    help: 'Requests and how long they took, by method, route and status.',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 12],
    registers,
  });
  const gauge = (name: string, help: string, read: () => number) =>
    new Gauge({
      name,
      help,
      registers,
      collect() {
        this.set(read());
      },
    });
  gauge('gravek_counting_clubs', 'Clubs whose reps wait to be counted here.', parts.waiting);
  gauge('gravek_pool_connections', 'Connections to the database.', () => parts.pool.totalCount);
  gauge('gravek_pool_idle', 'Connections that nobody uses.', () => parts.pool.idleCount);
  gauge('gravek_pool_waiting', 'Requests that wait for one.', () => parts.pool.waitingCount);
  gauge(
    'gravek_disk_free_bytes',
    'Room on the disk of the database; NaN when it is elsewhere.',
    () => parts.disk.freeBytes() ?? NaN,
  );
  return {
    registry,
    timed: (req, res, next) => {
      const stop = requests.startTimer({ method: req.method });
      res.once('close', () => {
        // The route as it was declared: an address would name athletes and sessions by their ids.
        const route = (req.route as { path?: unknown } | undefined)?.path;
        stop({ route: typeof route === 'string' ? route : 'other', status: res.statusCode });
      });
      next();
    },
    repsStored: new Counter({
      name: 'gravek_reps_stored_total',
      help: 'Rows of the log that this process has taken.',
      registers,
    }),
    streams: new Gauge({
      name: 'gravek_streams',
      help: 'Pages that listen for changes.',
      registers,
    }),
  };
};

/** GET /metrics, at this machine only: an operator's collector runs there or comes through a tunnel. */
export const serveNumbers = async ({ registry }: Numbers, port: number): Promise<Server> => {
  const server = createServer((req, res) => {
    if (req.url !== '/metrics') {
      res.writeHead(404).end();
      return;
    }
    void registry.metrics().then((text) => {
      res.writeHead(200, { 'content-type': registry.contentType }).end(text);
    });
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return server;
};
