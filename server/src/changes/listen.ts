import { EventEmitter } from 'node:events';
import pg from 'pg';
import type { Logger } from 'pino';

/** `all`: changes may have been missed, so everything that is shown is asked for anew. */
export type Change = { club: string; topic: string };

export type Changes = {
  /** @returns a function that stops the listening */
  onChange: (clubId: string, hear: (change: Change) => void) => () => void;
  /** as `onChange`, for all clubs; not told of what was missed */
  onAny: (hear: (change: Change) => void) => () => void;
  /** called whenever this process becomes the one that leads */
  onLead: (begin: () => void) => () => void;
  /** whether this process does what one of all processes has to do */
  leads: () => boolean;
  close: () => Promise<void>;
};

const RETRY_MS = 2_000;
/** A connection that has gone silent looks like one on which nothing happens, until it is asked. */
const ASKING = { everyMs: 20_000, answerMs: 5_000 };
/** How often a process that does not lead asks whether nobody does any more. */
const LEAD_MS = 1_000;
/** The lock of the process that leads; any number that nothing else in this database locks. */
const LEAD_LOCK = 71_253_001;
const MISSED = 'missed';
const ANY = 'any';
const LEAD = 'lead';
/** A database whose machine is cut off lets go of a lock once its connection is known to be dead. */
const NOTICES_DEATH =
  'set tcp_keepalives_idle = 5; set tcp_keepalives_interval = 2; set tcp_keepalives_count = 3';

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
 * Invariant: of all processes at most one leads. It holds a lock of the primary for as long as its
 * connection lives, so that another takes over by itself when it dies.
 *
 * @param url past a pooler, to the primary; connected to anew when the connection breaks or what it leads to is
 *   no longer the primary
 * @param asking how often the connection is asked whether it is there, and how long it may take
 */
export const listenForChanges = (url: string, log: Logger, asking = ASKING): Changes => {
  const heard = new EventEmitter().setMaxListeners(0);
  let closed = false;
  let client: pg.Client | undefined;
  let retry: NodeJS.Timeout | undefined;
  let broken = false;
  let leading = false;

  const open = async (): Promise<void> => {
    if (closed) return;
    const connection = new pg.Client({
      connectionString: url,
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
    let leader: NodeJS.Timeout | undefined;
    const lead = async (): Promise<void> => {
      // Who has nothing to do for all of them leaves it to another.
      if (leading || lost || closed || heard.listenerCount(LEAD) === 0) return;
      const { rows } = await connection.query<{ leads: boolean }>(
        'select pg_try_advisory_lock($1) as leads',
        [LEAD_LOCK],
      );
      if (!rows[0]?.leads || lost) return;
      leading = true;
      clearInterval(leader);
      heard.emit(LEAD);
    };
    const again = (): void => {
      clearInterval(ask);
      clearInterval(leader);
      if (lost || closed) return;
      lost = true;
      broken = true;
      leading = false;
      connection.end().catch(() => undefined);
      retry = setTimeout(() => void open(), RETRY_MS);
    };
    connection.on('error', again);
    connection.on('end', again);
    connection.on('notification', ({ payload }) => {
      try {
        const change = JSON.parse(payload ?? '') as Change;
        heard.emit(change.club, change);
        heard.emit(ANY, change);
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
      await connection.query(NOTICES_DEATH);
      await connection.query('listen gravek');
      if (broken) heard.emit(MISSED);
      broken = false;
      leader = setInterval(() => void lead().catch(again), LEAD_MS);
      await lead();
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
    onAny: (hear) => {
      heard.on(ANY, hear);
      return () => heard.off(ANY, hear);
    },
    onLead: (begin) => {
      heard.on(LEAD, begin);
      if (leading) begin();
      return () => heard.off(LEAD, begin);
    },
    leads: () => leading,
    close: async () => {
      closed = true;
      clearTimeout(retry);
      await client?.end().catch(() => undefined);
    },
  };
};
