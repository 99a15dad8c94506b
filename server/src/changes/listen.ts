import { EventEmitter } from 'node:events';
import pg from 'pg';
import type { Logger } from 'pino';

export type Change = { club: string; topic: string };

export type Changes = {
  /** @returns a function that stops the listening */
  onChange: (clubId: string, hear: (change: Change) => void) => () => void;
  close: () => Promise<void>;
};

const RETRY_MS = 2_000;

/**
 * Hears of changes that any server process on this database makes, over one connection that comes
 * back by itself.
 */
export const listenForChanges = (url: string, log: Logger): Changes => {
  const heard = new EventEmitter().setMaxListeners(0);
  let closed = false;
  let client: pg.Client | undefined;
  let retry: NodeJS.Timeout | undefined;

  const open = async (): Promise<void> => {
    if (closed) return;
    const own = new pg.Client({ connectionString: url, application_name: 'gravek changes' });
    client = own;
    let lost = false;
    const again = (): void => {
      if (lost || closed) return;
      lost = true;
      own.end().catch(() => undefined);
      retry = setTimeout(() => void open(), RETRY_MS);
    };
    own.on('error', again);
    own.on('end', again);
    own.on('notification', ({ payload }) => {
      try {
        const change = JSON.parse(payload ?? '') as Change;
        heard.emit(change.club, change);
      } catch (error) {
        log.warn({ err: error as unknown }, 'a change that could not be read');
      }
    });
    try {
      await own.connect();
      await own.query('listen gravek');
    } catch {
      again();
    }
  };
  void open();

  return {
    onChange: (clubId, hear) => {
      heard.on(clubId, hear);
      return () => heard.off(clubId, hear);
    },
    close: async () => {
      closed = true;
      clearTimeout(retry);
      await client?.end().catch(() => undefined);
    },
  };
};
