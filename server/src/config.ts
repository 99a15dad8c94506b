import { isIP } from 'node:net';
import { StartFault } from './startFault';

export type Config = {
  databaseUrl: string;
  /** for migrations; absent where somebody else does them */
  ownerUrl: string | undefined;
  /** where changes are listened for: past a pooler, to the primary */
  listenUrl: string;
  host: string;
  port: number;
  /** names under which it may be asked for, without ports */
  hosts: readonly string[];
  /** whose word about the asker's address is taken; false: nobody's */
  proxy: string | false;
  /** offer one-press entry to the demo club; only on loopback */
  demo: boolean;
  sessionSecret: string;
  webFolder: string | undefined;
  /** a folder on the disk that the database writes to; undefined when that is another machine's */
  diskFolder: string | undefined;
  /** room that is kept back there: below it nothing is written */
  reserveBytes: number;
  /** where this machine alone may read numbers of the process; undefined: nowhere */
  numbersPort: number | undefined;
  logLevel: string;
  /** undefined: the standard output */
  logFile: string | undefined;
};

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);
const LOOPBACK_NAMES = ['127.0.0.1', '[::1]', 'localhost'];

/** Networks that have a name. */
const NEAR = new Set(['loopback', 'linklocal', 'uniquelocal']);

const listed = (text: string | undefined): string[] => (text ?? '').split(/[\s,]+/).filter(Boolean);

const isPort = (port: number): boolean => Number.isInteger(port) && port >= 1 && port <= 65_535;

/** What PostgreSQL needs to end in order and to start again, with room to spare. */
const RESERVE_MB = 300;

/** @throws {StartFault} naming what is missing */
export const readConfig = (env: NodeJS.ProcessEnv): Config => {
  const need = (name: string): string => {
    const value = env[name];
    if (!value) throw new StartFault(`${name} is not set.`);
    return value;
  };
  const host = env.HOST ?? '127.0.0.1';
  const port = Number(env.PORT ?? 5180);
  if (!isPort(port)) {
    throw new StartFault(`PORT must be a port number, got ${env.PORT}.`);
  }
  const hosts = listed(env.GRAVEK_HOSTS).map((name) => name.toLowerCase());
  if (hosts.length === 0 && !LOOPBACK.has(host)) {
    throw new StartFault(
      'GRAVEK_HOSTS is not set. Give the names under which people open Gravek, such as GRAVEK_HOSTS=gravek.club.example.',
    );
  }
  const proxies = listed(env.GRAVEK_PROXY);
  const unknown = proxies.find(
    (proxy) =>
      !NEAR.has(proxy) && !(isIP(proxy.split('/')[0]!) && /^[^/]+(\/\d{1,3})?$/.test(proxy)),
  );
  if (unknown) {
    throw new StartFault(
      `GRAVEK_PROXY takes addresses, networks such as 10.0.0.0/8, or loopback; got ${unknown}.`,
    );
  }
  const reserveMb = Number(env.GRAVEK_RESERVE_MB ?? RESERVE_MB);
  if (!(reserveMb >= 0)) {
    throw new StartFault(`GRAVEK_RESERVE_MB takes megabytes, got ${env.GRAVEK_RESERVE_MB}.`);
  }
  const numbersPort = env.GRAVEK_NUMBERS_PORT ? Number(env.GRAVEK_NUMBERS_PORT) : undefined;
  if (numbersPort !== undefined && !isPort(numbersPort)) {
    throw new StartFault(
      `GRAVEK_NUMBERS_PORT must be a port number, got ${env.GRAVEK_NUMBERS_PORT}.`,
    );
  }
  const databaseUrl = need('DATABASE_URL');
  return {
    databaseUrl,
    listenUrl: env.DATABASE_LISTEN_URL || databaseUrl,
    ownerUrl: env.DATABASE_OWNER_URL,
    host,
    port,
    hosts: [...(LOOPBACK.has(host) ? LOOPBACK_NAMES : []), ...hosts],
    proxy: proxies.join(', ') || false,
    demo: env.GRAVEK_DEMO === '1' && LOOPBACK.has(host),
    sessionSecret: need('SESSION_SECRET'),
    webFolder: env.GRAVEK_WEB,
    diskFolder: env.GRAVEK_DISK || undefined,
    reserveBytes: reserveMb * 1e6,
    numbersPort,
    logLevel: env.LOG_LEVEL ?? 'info',
    logFile: env.GRAVEK_LOG,
  };
};
