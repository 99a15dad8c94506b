import { read } from 'node:fs';
import { promisify } from 'node:util';
import { parentPort, workerData } from 'node:worker_threads';
import type { Restoring } from '@gravek/contract/archive';
import { connect, inClub, type Who } from '../database/connect';
import { writeDown } from '../deeds/write';
import { asProblem, ProblemError } from '../http/problem';
import { memberAs, mustBe } from '../http/route';
import { StartFault } from '../startFault';
import { restoreInto } from './load';
import { spooled, type Spool } from './spool';

/** What a thread is given that reads an archive into a club. */
export type ReadIn = {
  databaseUrl: string;
  who: Who;
  /** of the row of `restoring` that tells of it */
  id: string;
  /** the file, open for as long as the thread runs */
  fd: number;
  bytes: number;
};

/** What it tells meanwhile, and at its end: null when it is done, else why not. */
export type FromReadIn =
  { now: Pick<Restoring, 'state' | 'done' | 'total'> } | { end: { said: string } | null };

/**
 * A thread of its own, with a connection of its own: however long it reads, checks and stores, whoever asks
 * the server for something is answered by another.
 */
const { databaseUrl, who, id, fd, bytes } = workerData as ReadIn;
const tell = (told: FromReadIn): void => parentPort!.postMessage(told);

const readAt = promisify(read);
const PIECE_BYTES = 64_000;

/** The file from its beginning; whoever gave it closes it. */
async function* pieces(): AsyncGenerator<Buffer> {
  for (let at = 0; ;) {
    const { bytesRead, buffer } = await readAt(fd, Buffer.alloc(PIECE_BYTES), 0, PIECE_BYTES, at);
    if (bytesRead === 0) return;
    yield buffer.subarray(0, bytesRead);
    at += bytesRead;
  }
}

const store = async (spool: Spool): Promise<void> => {
  const { db } = connect(databaseUrl, 'archive');
  let done = 0;
  try {
    await inClub(db, who, async (trx, { role }) => {
      mustBe('owner', memberAs(who, role));
      const wasHere = await restoreInto(trx, who, spool, (items) => {
        done += items ?? 0;
        const state = items === null ? 'counts' : 'stores';
        tell({ now: { state, done, total: spool.items } });
      });
      if (!wasHere) await writeDown(trx, who.accountId, 'read an archive in', `${done} entries`);
      // Together with what it tells of: it is there, or it is not.
      await trx.updateTable('restoring').set({ state: 'done' }).where('id', '=', id).execute();
    });
  } finally {
    await db.destroy();
  }
};

/** Why an archive is not read in, as a sentence; undefined where nobody expected it. */
const sentenceOf = (error: unknown): string | undefined =>
  error instanceof StartFault || error instanceof ProblemError
    ? error.message
    : asProblem(error)?.message;

try {
  const spool = await spooled(pieces(), (done) =>
    tell({ now: { state: 'checks', done, total: bytes } }),
  );
  try {
    await store(spool);
  } finally {
    await spool.close();
  }
  tell({ end: null });
} catch (error) {
  const said = sentenceOf(error);
  if (said === undefined) throw error;
  tell({ end: { said } });
}
