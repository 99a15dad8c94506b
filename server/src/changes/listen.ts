import { EventEmitter } from 'node:events';
import pg from 'pg';
import type { Logger } from 'pino';

/** `all`: changes may have been missed, so everything that is shown is asked for anew. */
export type Change = { club: string; topic: string };

export type Changes = {
  /** @returns a function that stops the listening */
  onChange: (clubId: string, hear: (change: Change) => void) => () => void;
  close: () => Promise<void>;
};

const RETRY_MS = 2_000;
/** A connection that has gone silent looks like one on which nothing happens, until it is asked. */
const ASKING = { everyMs: 20_000, answerMs: 5_000 };
const MISSED = 'missed';

const isPrimary = async (connection: pg.Client): Promise<boolean> => {
  const { rows } = await connection.query<{ standby: boolean }>(
    'select pg_is_in_recovery() as standby',
  );
  return rows[0]?.standby === false;
};

/**
 * Hears of changes that any server process on this database makes, over one connection that comes
 * back by itself. What was told while it was away is not known, so everybody hears `all` then.
 *
 * @param urls where the database may be; the primary among them is listened to, and looked for anew when
 *   the connection breaks or it is no longer the primary
 * @param asking how often the connection is asked whether it is there, and how long it may take
 */
export const listenForChanges = (
  urls: readonly string[],
  log: Logger,
  asking = ASKING,
): Changes => {
  const heard = new EventEmitter().setMaxListeners(0);
  let closed = false;
  let client: pg.Client | undefined;
  let retry: NodeJS.Timeout | undefined;
  let broken = false;
  let at = 0;

  const open = async (): Promise<void> => {
    if (closed) return;
    const connection = new pg.Client({
      connectionString: urls[at % urls.length],
      application_name: 'gravek changes',
      connectionTimeoutMillis: asking.answerMs,
      query_timeout: asking.answerMs,
    });
    client = connection;
    let lost = false;
    const ask = setInterval(
      () =>
        void isPrimary(connection).then((yes) => {
          if (!yes) again();
        }, again),
      asking.everyMs,
    );
    const again = (): void => {
      if (lost || closed) return;
      lost = true;
      broken = true;
      at += 1;
      clearInterval(ask);
      connection.end().catch(() => undefined);
      retry = setTimeout(() => void open(), RETRY_MS);
    };
    connection.on('error', again);
    connection.on('end', () => {
      clearInterval(ask);
      again();
    });
    connection.on('notification', ({ payload }) => {
      try {
        const change = JSON.parse(payload ?? '') as Change;
        heard.emit(change.club, change);
      } catch (error) {
        log.warn({ err: error as unknown }, 'a change that could not be read');
      }
    });
    try {
      await connection.connect();
      if (!(await isPrimary(connection))) {
        again();
        return;
      }
      await connection.query('listen gravek');
      if (broken) heard.emit(MISSED);
      broken = false;
    } catch {
      again();
    }
  };
  void open();

  return {
    onChange: (clubId, hear) => {
      const missed = (): void => hear({ club: clubId, topic: 'all' });
      heard.on(clubId, hear);
      heard.on(MISSED, missed);
      return () => {
        heard.off(clubId, hear);
        heard.off(MISSED, missed);
      };
    },
    close: async () => {
      closed = true;
      clearTimeout(retry);
      await client?.end().catch(() => undefined);
    },
  };
};
