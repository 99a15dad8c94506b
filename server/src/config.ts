import { isIP } from 'node:net';
import { StartFault } from './startFault';

export type Config = {
  databaseUrl: string;
  /** for migrations; absent where somebody else does them */
  ownerUrl: string | undefined;
  /** where changes are listened for: past a pooler, the databases one of which is the primary */
  listenUrls: readonly string[];
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
  logLevel: string;
  /** undefined: the standard output */
  logFile: string | undefined;
};

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);
const LOOPBACK_NAMES = ['127.0.0.1', '[::1]', 'localhost'];

/** Networks that have a name. */
const NEAR = new Set(['loopback', 'linklocal', 'uniquelocal']);

const listed = (text: string | undefined): string[] => (text ?? '').split(/[\s,]+/).filter(Boolean);

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
  const named = listed(env.GRAVEK_HOSTS).map((name) => name.toLowerCase());
  if (named.length === 0 && !LOOPBACK.has(host)) {
    throw new StartFault(
      'GRAVEK_HOSTS is not set. Give the names under which people open Gravek, such as GRAVEK_HOSTS=gravek.club.example.',
    );
  }
  const proxies = listed(env.GRAVEK_PROXY);
  const unknown = proxies.find(
    (one) => !NEAR.has(one) && !(isIP(one.split('/')[0]!) && /^[^/]+(\/\d{1,3})?$/.test(one)),
  );
  if (unknown) {
    throw new StartFault(
      `GRAVEK_PROXY takes addresses, networks such as 10.0.0.0/8, or loopback; got ${unknown}.`,
    );
  }
  const databaseUrl = need('DATABASE_URL');
  const listenUrls = listed(env.DATABASE_LISTEN_URL);
  return {
    databaseUrl,
    listenUrls: listenUrls.length > 0 ? listenUrls : [databaseUrl],
    ownerUrl: env.DATABASE_OWNER_URL,
    host,
    port,
    hosts: [...(LOOPBACK.has(host) ? LOOPBACK_NAMES : []), ...named],
    proxy: proxies.join(', ') || false,
    demo: env.GRAVEK_DEMO === '1' && LOOPBACK.has(host),
    sessionSecret: need('SESSION_SECRET'),
    webFolder: env.GRAVEK_WEB,
    logLevel: env.LOG_LEVEL ?? 'info',
    logFile: env.GRAVEK_LOG,
  };
};
