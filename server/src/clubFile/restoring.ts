import type { FileHandle } from 'node:fs/promises';
import { Worker } from 'node:worker_threads';
import type { Restoring } from '@gravek/contract/archive';
import { sql } from 'kysely';
import type { Logger } from 'pino';
import { v7 as uuid } from 'uuid';
import type { Tell, Topic } from '../changes/tell';
import { inClub, type Db, type Trx, type Who } from '../database/connect';
import { refused } from '../http/problem';
import { route } from '../http/route';
import type { FromReadIn, ReadIn } from './readIn';

const TOPICS: Topic[] = [
  'club',
  'athletes',
  'approaches',
  'sessions',
  'movements',
  'grounds',
  'films',
  'reps',
];

/** Archives that wait for their turn on the disk of this process. */
const MOST_WAITING = 4;
/** How often word is given of an archive that is read in. */
const WORD_MS = 1_000;
/** Nobody reads an archive any more of which no word has come for so long. */
const SILENT_S = 20;
/** Longer than the largest file takes that is sent from the app. */
const MOST_MS = 30 * 60_000;
/** What it needs does not grow with the file; what grows all the same ends by itself. */
const MEMORY_MB = 400;

const TOO_LONG =
  'It took more than half an hour, so it was given up; nothing was changed. Such a file is loaded at the terminal of the server.';
const TOO_MUCH =
  'It takes more memory than the server gives an archive; nothing was changed. Such a file is loaded at the terminal of the server.';
const UNEXPECTED = 'Something went wrong while it was read. Nothing was changed; try again.';
const STOPPED =
  'The server was stopped while it read the file. Nothing was changed; send it again.';

/** Whether a row tells of something that still happens. */
const isLive = sql<boolean>`state not in ('done', 'refused') and seen_at > now() - make_interval(secs => ${SILENT_S})`;

/** How the archive stands that was read into the club last, of those of the last day. */
const lastOf = async (trx: Trx): Promise<Restoring | null> => {
  const row = await trx
    .selectFrom('restoring')
    .select(['state', 'done', 'total', 'said', isLive.as('live')])
    .where('seen_at', '>', sql<Date>`now() - interval '1 day'`)
    .executeTakeFirst();
  if (!row) return null;
  const isOver = row.state === 'done' || row.state === 'refused';
  return {
    state: isOver || row.live ? row.state : 'stopped',
    done: Number(row.done),
    total: Number(row.total),
    said: row.said,
  };
};

export const restoringRoutes = [
  route({
    method: 'get',
    path: '/archive/restoring',
    access: 'owner',
    run: async ({ trx }) => ({ last: await lastOf(trx) }),
  }),
];

/** An archive that was sent. */
type Sent = { who: Who; file: FileHandle; bytes: number };

export type Restorer = {
  /** Whether as many wait already as there is room for. */
  isFull: () => boolean;
  /**
   * Takes an archive in hand: it is read as soon as those before it have been, and the file closed.
   *
   * @throws {ProblemError} 503 while another one is read into this club
   */
  begin: (sent: Sent) => Promise<void>;
  stop: () => Promise<void>;
};

type Needs = {
  db: Db;
  databaseUrl: string;
  tell: Tell;
  log: Logger;
  /** the program of the thread, as it is built */
  program: URL;
  mostMs?: number;
};

/** Reads archives into clubs, one after the other, each in a thread of its own. */
export const restorer = ({
  db,
  databaseUrl,
  tell,
  log,
  program,
  mostMs = MOST_MS,
}: Needs): Restorer => {
  const waiting: (Sent & { id: string })[] = [];
  let current: Promise<void> | null = null;
  let worker: Worker | null = null;
  let stopping = false;

  /** Unless it is over: what the thread wrote at its end stays. */
  const note = (
    { who, id }: { who: Who; id: string },
    now: Partial<Pick<Restoring, 'state' | 'done' | 'total' | 'said'>>,
  ): Promise<unknown> =>
    inClub(db, who, (trx) =>
      trx
        .updateTable('restoring')
        .set({ ...(now as { done?: number }), seen_at: sql<Date>`now()` })
        .where('id', '=', id)
        .where('state', 'not in', ['done', 'refused'])
        .execute(),
    ).catch((error: unknown) => log.warn({ err: error }, 'no word of an archive'));

  /** @returns why it was not read in; null when it was */
  const read = async ({ file, ...job }: Sent & { id: string }): Promise<string | null> => {
    let now: Partial<Restoring> = { state: 'checks', done: 0, total: job.bytes };
    const word = setInterval(() => void note(job, now), WORD_MS);
    let late = false;
    const readInJob: ReadIn = { ...job, databaseUrl, fd: file.fd };
    const thread = new Worker(program, {
      workerData: readInJob,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    });
    worker = thread;
    const end = setTimeout(() => {
      late = true;
      void thread.terminate();
    }, mostMs);
    try {
      return await new Promise<string | null>((resolve) => {
        let said: string | null = UNEXPECTED;
        thread.on('message', (told: FromReadIn) => {
          if ('now' in told) ({ now } = told);
          else said = told.end && told.end.said;
        });
        thread.on('error', (error: NodeJS.ErrnoException) => {
          if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') said = TOO_MUCH;
          else log.error({ err: error }, 'an archive could not be read in');
        });
        thread.on('exit', () => {
          if (said === UNEXPECTED && stopping) said = STOPPED;
          resolve(said === null || !late ? said : TOO_LONG);
        });
      });
    } finally {
      clearInterval(word);
      clearTimeout(end);
      worker = null;
    }
  };

  const run = async (job: Sent & { id: string }): Promise<void> => {
    const said = await read(job).catch((error: unknown) => {
      log.error({ err: error }, 'an archive could not be read in');
      return UNEXPECTED;
    });
    await job.file.close();
    if (said !== null) await note(job, { state: 'refused', said });
    for (const topic of said === null ? TOPICS : (['club'] as const)) tell(job.who.clubId, topic);
  };

  const next = (): void => {
    if (current || stopping) return;
    const job = waiting.shift();
    if (!job) return;
    current = run(job).finally(() => {
      current = null;
      next();
    });
  };

  const word = setInterval(() => {
    for (const job of waiting) void note(job, {});
  }, WORD_MS);

  return {
    isFull: () => waiting.length >= MOST_WAITING,
    begin: async (sent) => {
      const id = uuid();
      const begun = await inClub(db, sent.who, async (trx) => {
        const values = { id, state: 'waits', done: 0, total: 0, said: null } as const;
        return trx
          .insertInto('restoring')
          .values(values)
          .onConflict((conflict) =>
            conflict
              .column('club_id')
              .doUpdateSet({ ...values, seen_at: sql<Date>`now()` })
              .where(
                sql<boolean>`restoring.state in ('done', 'refused')
                  or restoring.seen_at < now() - make_interval(secs => ${SILENT_S})`,
              ),
          )
          .returning('id')
          .executeTakeFirst();
      });
      if (!begun) throw refused(503, 'Another archive is being read into this club just now.');
      waiting.push({ ...sent, id });
      next();
    },
    stop: async () => {
      stopping = true;
      clearInterval(word);
      await worker?.terminate();
      await current;
      for (const job of waiting) {
        await job.file.close();
        await note(job, { state: 'refused', said: STOPPED });
      }
    },
  };
};
