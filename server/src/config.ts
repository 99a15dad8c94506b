import { StartFault } from './startFault';

export type Config = {
  databaseUrl: string;
  /** for migrations; absent where somebody else does them */
  ownerUrl: string | undefined;
  host: string;
  port: number;
  /** offer one-press entry to the demo club; only on loopback */
  demo: boolean;
  sessionSecret: string;
  webFolder: string | undefined;
  logLevel: string;
};

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

/** @throws {StartFault} naming what is missing */
export const readConfig = (env: NodeJS.ProcessEnv): Config => {
  const need = (name: string): string => {
    const value = env[name];
    if (!value) throw new StartFault(`${name} is not set.`);
    return value;
  };
  const host = env.HOST ?? '127.0.0.1';
  const port = Number(env.PORT ?? 5180);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    throw new StartFault(`PORT must be a port number, got ${env.PORT}.`);
  }
  return {
    databaseUrl: need('DATABASE_URL'),
    ownerUrl: env.DATABASE_OWNER_URL,
    host,
    port,
    demo: env.GRAVEK_DEMO === '1' && LOOPBACK.has(host),
    sessionSecret: need('SESSION_SECRET'),
    webFolder: env.GRAVEK_WEB,
    logLevel: env.LOG_LEVEL ?? 'info',
  };
};
