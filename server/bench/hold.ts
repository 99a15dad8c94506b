import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Worker } from 'node:worker_threads';
import type { Restoring } from '@gravek/contract/archive';
import { coachIn, cookieOf, openStage, type Coach, type Stage } from '../test/setup';
import { longClubFile } from './clubFile';

/** How long the server's loop is held at most, ms, while 90 MB are read into a club, and while nothing is. */
const MEGABYTES = 90;
const IDLE_MS = 10_000;

/** Sends a file as another machine would: not from the loop that is looked at. */
const sendFrom = (address: string, cookie: string, file: string): Promise<number> =>
  new Promise((resolve, reject) => {
    const text = `
      const { openAsBlob } = require('node:fs');
      const { parentPort, workerData: { address, cookie, file } } = require('node:worker_threads');
      openAsBlob(file).then(async (body) => {
        const headers = { origin: address, cookie, 'content-type': 'application/json' };
        const { status } = await fetch(address + '/api/archive', { method: 'POST', headers, body });
        parentPort.postMessage(status);
      });`;
    const sender = new Worker(text, { eval: true, workerData: { address, cookie, file } });
    sender.once('message', resolve);
    sender.once('error', reject);
  });

/** @returns the longest time for which the loop did not come round */
const longestHold = async (work: () => Promise<unknown>): Promise<number> => {
  let longest = 0;
  let last = performance.now();
  let over = false;
  const turn = (): void => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
    if (!over) setTimeout(turn, 1);
  };
  turn();
  await work();
  over = true;
  return longest;
};

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const readIn = async (stage: Stage, coach: Coach, file: string): Promise<Restoring> => {
  const status = await sendFrom(stage.address, cookieOf(coach), file);
  if (status !== 202) throw new Error(`the file was answered with ${status}`);
  for (;;) {
    await pause(500);
    const { body, status: found } = await coach.get('/archive/restoring');
    const { last } = body as { last?: Restoring };
    if (!last) throw new Error(`how far it is was answered with ${found} ${JSON.stringify(body)}`);
    if (last.state === 'done' || last.state === 'refused') return last;
  }
};

function* nothing(): Generator<Buffer> {
  const some = Buffer.from('{},'.repeat(30_000));
  yield Buffer.from('{"reps":[');
  for (let sent = 0; sent < MEGABYTES * 1e6; sent += some.length) yield some;
  yield Buffer.from('{}]}');
}

const folder = await mkdtemp(path.join(tmpdir(), 'gravek-bench-'));
const stage = await openStage();
try {
  const files: Record<string, Iterable<Buffer> | AsyncIterable<Buffer>> = {
    'nothing, 90 MB of it': nothing(),
    'a club of 90 MB': longClubFile(MEGABYTES * 1e6),
  };
  const say = (what: string, ms: number, more = ''): void =>
    console.log(`${what.padEnd(34)} ${ms.toFixed(0).padStart(6)} ms${more}`);
  console.log('the loop of the server is held at most');
  say('by nobody', await longestHold(() => pause(IDLE_MS)));
  for (const [what, pieces] of Object.entries(files)) {
    const file = path.join(folder, 'club.json');
    await pipeline(Readable.from(pieces), createWriteStream(file));
    const coach = await coachIn(stage);
    let ended: Restoring | undefined;
    const began = performance.now();
    const held = await longestHold(async () => (ended = await readIn(stage, coach, file)));
    const took = ((performance.now() - began) / 1000).toFixed(0);
    say(`by ${what}`, held, `, ${ended!.state} after ${took} s`);
  }
} finally {
  await stage.close();
  await rm(folder, { recursive: true });
}
