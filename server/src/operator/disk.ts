import { statfs } from 'node:fs/promises';

const LOOK_MS = 2_000;

export type Disk = {
  /** bytes that are free; null where nothing is known of a disk */
  freeBytes: () => number | null;
  /** whether less is free than is kept back for what must still be written */
  isLow: () => boolean;
  stop: () => void;
};

/** Bytes that are free where a folder lies. */
const freeIn = async (folder: string): Promise<number> => {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
};

/**
 * Watches the disk that the database writes to, as far as it is one of this machine.
 *
 * Invariant: below the reserve no request writes, so that the database keeps the room that it needs to end
 * in order and to start again.
 *
 * @param folder on that disk; undefined when the database is elsewhere
 * @param reserveBytes below it writes are refused
 * @param measure free bytes in a folder; another one is for tests
 * @example
 * const disk = watchDisk({ folder: '/var/lib/postgresql', reserveBytes: 500e6 });
 * disk.isLow() // false while half a gigabyte is free
 */
export const watchDisk = async (
  { folder, reserveBytes }: { folder: string | undefined; reserveBytes: number },
  measure = freeIn,
  lookMs = LOOK_MS,
): Promise<Disk> => {
  let free: number | null = null;
  const look = async (): Promise<void> => {
    // A folder that cannot be looked at says nothing of its disk; the database itself still may.
    free = folder === undefined ? null : await measure(folder).catch(() => null);
  };
  await look();
  const timer = setInterval(() => void look(), lookMs);
  timer.unref();
  return {
    freeBytes: () => free,
    isLow: () => free !== null && free < reserveBytes,
    stop: () => clearInterval(timer),
  };
};
