import type { Rep } from '@gravek/contract/session';

export const A_SECOND = 200;
export const DEVICES = 50;

/** What the devices are to send, each rep a request of its own, in turn. */
export type Work = {
  address: string;
  /** where the reps go, if elsewhere than one signs in */
  to?: string;
  email: string;
  password: string;
  reps: Rep[];
};
export type Timed = { times: number[]; refused: number };

/** The first of all are not timed: code and connections are not warm yet. */
export const WARMING = 2 * A_SECOND;

/** Starts work at even intervals, whether or not the one before is done, and times each to its end, ms. */
export const atPace = async (
  many: number,
  work: (n: number) => Promise<void>,
): Promise<number[]> => {
  const times: number[] = [];
  const all: Promise<void>[] = [];
  const began = performance.now();
  for (let n = 0; n < many; n += 1) {
    const waitMs = began + (1000 * n) / A_SECOND - performance.now();
    if (waitMs > 0) await new Promise((resolve) => setTimeout(resolve, waitMs));
    const from = performance.now();
    all.push(
      work(n).then(() => {
        if (n >= WARMING) times.push(performance.now() - from);
      }),
    );
  }
  await Promise.all(all);
  return times;
};
