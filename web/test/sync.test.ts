import 'fake-indexeddb/auto';
import type { Rep } from '@gravek/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { forgetBundles, keepBundle, keptBundle, queue } from '../src/run/store';
import { logRep, send, useSending } from '../src/run/sync';

const CLUB = 'club-1';

const rep = (n: number, change: Partial<Rep> = {}): Rep => ({
  id: `rep-${String(n).padStart(4, '0')}`,
  sessionId: 'session-1',
  drillSetId: 'set-1',
  athleteId: 'ana',
  set: 1,
  side: 'own',
  rep: n,
  outcome: 'clean',
  voids: null,
  faults: [],
  cue: null,
  at: new Date(1_900_000_000_000 + n * 1000).toISOString(),
  ...change,
});

type Answer = (reps: Rep[]) => Response | Promise<Response>;

const json = (body: unknown, status = 200, type = 'application/json'): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });

const takeAll: Answer = (reps) => json({ stored: reps.map((one) => one.id), refused: [] });
const gone: Answer = () => Promise.reject(new TypeError('no network'));

/** A server that remembers what it was sent. */
const serve = (answer: Answer): { sent: Rep[][] } => {
  const sent: Rep[][] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn((_url: string, init: { body: string }) => {
      const { reps } = JSON.parse(init.body) as { reps: Rep[] };
      sent.push(reps);
      return Promise.resolve().then(() => answer(reps));
    }),
  );
  return { sent };
};

const fill = (reps: Rep[], clubId = CLUB) => queue.bulkPut(reps.map((one) => ({ ...one, clubId })));

/** Lets time pass for the retries, and IndexedDB, which has its own clock, keep up with it. */
const elapse = async (ms: number): Promise<void> => {
  for (let passed = 0; passed < ms; passed += 1000) {
    await vi.advanceTimersByTimeAsync(1000);
    for (let i = 0; i < 5; i += 1) await new Promise((resolve) => setImmediate(resolve));
  }
};

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  await queue.clear();
  useSending.setState({ state: 'idle' });
});

afterEach(() => {
  vi.clearAllTimers();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the queue of reps', () => {
  it('holds a rep before anything is sent, and lets go once it is stored', async () => {
    let inQueueWhenSent = -1;
    serve(async (reps) => {
      inQueueWhenSent = await queue.count();
      return takeAll(reps);
    });
    await logRep(CLUB, rep(1));
    await send(CLUB);
    expect(inQueueWhenSent).toBe(1);
    expect(await queue.count()).toBe(0);
    expect(useSending.getState().state).toBe('idle');
  });

  it('keeps everything while the server is gone, and tries again by itself', async () => {
    serve(gone);
    await fill([rep(1), rep(2)]);
    await send(CLUB);
    expect(useSending.getState().state).toBe('unreachable');
    expect(await queue.count()).toBe(2);
    const { sent } = serve(takeAll);
    await elapse(30_000);
    await vi.waitFor(async () => expect(await queue.count()).toBe(0));
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0001', 'rep-0002']);
  });

  it('waits longer each time, up to a bound', async () => {
    const server = serve(gone);
    await fill([rep(1)]);
    await send(CLUB);
    await elapse(120_000);
    expect(server.sent.length).toBeGreaterThan(4);
    expect(server.sent.length).toBeLessThan(20);
  });

  it('takes an answer that is lost for no answer: the rep is sent again, with the same id', async () => {
    let lost = true;
    const { sent } = serve((reps) => {
      if (!lost) return takeAll(reps);
      lost = false;
      return Promise.reject(new TypeError('connection reset'));
    });
    await fill([rep(1)]);
    await send(CLUB);
    await elapse(30_000);
    await vi.waitFor(async () => expect(await queue.count()).toBe(0));
    expect(sent.map((batch) => batch[0]!.id)).toEqual(['rep-0001', 'rep-0001']);
  });

  it('sends in order of time, at most 200 at once', async () => {
    const { sent } = serve(takeAll);
    await fill(Array.from({ length: 450 }, (_, i) => rep(450 - i)));
    await send(CLUB);
    expect(sent.map((batch) => batch.length)).toEqual([200, 200, 50]);
    const times = sent.flat().map((one) => one.at);
    expect(times).toEqual([...times].sort());
  });

  it('sends nothing of its own keeping', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1)]);
    await send(CLUB);
    expect(Object.keys(sent[0]![0]!).sort()).toEqual(Object.keys(rep(1)).sort());
  });

  it('sets a refused rep aside with its reason, and goes on with the others', async () => {
    const { sent } = serve((reps) =>
      json({
        stored: reps.filter((one) => one.id !== 'rep-0002').map((one) => one.id),
        refused: [{ id: 'rep-0002', title: 'Its athlete is not there any more.' }],
      }),
    );
    await fill([rep(1), rep(2), rep(3)]);
    await send(CLUB);
    expect(await queue.toArray()).toMatchObject([
      { id: 'rep-0002', refused: 'Its athlete is not there any more.' },
    ]);
    await fill([rep(4)]);
    await send(CLUB);
    expect(sent.at(-1)!.map((one) => one.id)).toEqual(['rep-0004']);
  });

  it('asks to sign in when the session has run out, and does not hammer the server', async () => {
    const { sent } = serve(() =>
      json({ status: 401, title: 'Sign in to go on.' }, 401, 'application/problem+json'),
    );
    await fill([rep(1)]);
    await send(CLUB);
    expect(useSending.getState().state).toBe('signed-out');
    await elapse(60_000);
    expect(sent).toHaveLength(1);
    expect(await queue.count()).toBe(1);
  });

  it('takes what a proxy answers for no answer', async () => {
    serve(
      () =>
        new Response('<h1>Bad gateway</h1>', {
          status: 502,
          headers: { 'content-type': 'text/html' },
        }),
    );
    await fill([rep(1)]);
    await send(CLUB);
    expect(useSending.getState().state).toBe('unreachable');
    expect(await queue.count()).toBe(1);
  });

  it('sends once though asked many times at once', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1), rep(2)]);
    await Promise.all([send(CLUB), send(CLUB), send(CLUB)]);
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0001', 'rep-0002']);
  });

  it('leaves the reps of another club where they are', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1)], 'club-2');
    await fill([rep(2)]);
    await send(CLUB);
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0002']);
    expect(await queue.count()).toBe(1);
  });
});

describe('sessions kept for a field without network', () => {
  it('come back as they were, and are forgotten apart from the reps', async () => {
    const bundle = { session: { id: 'session-1' }, reps: [rep(1)] } as never;
    await keepBundle(bundle);
    await fill([rep(1)]);
    expect(await keptBundle('session-1')).toEqual(bundle);
    expect(await keptBundle('session-2')).toBeUndefined();
    await forgetBundles();
    expect(await keptBundle('session-1')).toBeUndefined();
    expect(await queue.count()).toBe(1);
  });
});
