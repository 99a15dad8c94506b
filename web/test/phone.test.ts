import 'fake-indexeddb/auto';
import type { RunBundle } from '@gravek/contract/run';
import { PLAIN_REP, type Rep, type StoredRep } from '@gravek/contract/session';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import Dexie from 'dexie';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  deviceId,
  enqueue,
  forgetSessions,
  keepBundle,
  keptBundle,
  keptSessions,
  logEnd,
  logOf,
  queue,
} from '../src/phone/store';
import { jot, recoverJotted } from '../src/phone/jot';
import { useSending } from '../src/phone/sending';
import { fetchBundle, fetchLog, keepSending, logReps, refreshKept, send } from '../src/phone/sync';

const CLUB = 'club-1';
const WHO = { clubId: CLUB, accountId: 'runa', person: 'Runa Telford' };

/** The part of a page's local storage that is written to. */
const jotted = new Map<string, string>();
Object.defineProperty(globalThis, 'localStorage', {
  value: new Proxy(
    {
      setItem: (key: string, text: string) => void jotted.set(key, text),
      getItem: (key: string) => jotted.get(key) ?? null,
      removeItem: (key: string) => void jotted.delete(key),
    },
    {
      ownKeys: () => [...jotted.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    },
  ),
});

const rep = (n: number, change: Partial<Rep> = {}): Rep => ({
  id: `rep-${String(n).padStart(4, '0')}`,
  sessionId: 'session-1',
  drillSetId: 'set-1',
  athleteId: 'ana',
  ...PLAIN_REP,
  movement: 'straight-run-up',
  part: null,
  set: 1,
  side: 'own',
  rep: n,
  turn: n,
  leadFoot: 'left',
  speedPct: 100,
  outcome: 'clean',
  voids: null,
  faults: [],
  cue: null,
  device: 'device-1',
  deviceNo: n,
  at: new Date(1_900_000_000_000 + n * 1000).toISOString(),
  ...change,
});

type Answer = (reps: Rep[]) => Response | Promise<Response>;

const json = (body: unknown, status = 200, type = 'application/json'): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });

const stored = (reps: Rep[]) => reps.map(({ id }, i) => ({ id, arrival: i + 1 }));
const takeAll: Answer = (reps) => json({ stored: stored(reps), refused: [] });
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

const fill = (reps: Rep[], clubId = CLUB) => queue.bulkPut(reps.map((rep) => ({ ...rep, clubId })));

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
  await forgetSessions();
  useSending.setState({ state: 'idle', why: null });
});

afterEach(() => {
  vi.clearAllTimers();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the queue of reps', () => {
  it('finds again what a tab had only written down when it was closed', async () => {
    serve(takeAll);
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    const two = { ...one, id: 'rep-0002' };
    // The second is in the queue already: it was closed between queueing and crossing out.
    jot(WHO, [one, two]);
    await enqueue(WHO, [two]);
    await recoverJotted();
    await recoverJotted();
    expect((await queue.toArray()).map((row) => row.id).sort()).toEqual([one.id, two.id]);
    expect(jotted.size).toBe(0);
    await send(WHO);
    expect(await queue.count()).toBe(0);
  });

  it('gives a tap one number, however often it is found again while it is queued', async () => {
    serve(gone);
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    jot(WHO, [one]);
    await Promise.all([enqueue(WHO, [one]), recoverJotted(), recoverJotted()]);
    const first = (await queue.get(one.id))!.deviceNo;
    jot(WHO, [one]);
    await recoverJotted();
    expect((await queue.toArray()).map(({ deviceNo }) => deviceNo)).toEqual([first]);
    // Stored meanwhile, it is not sent anew.
    serve(takeAll);
    await send(WHO);
    jot(WHO, [one]);
    await recoverJotted();
    expect(await queue.count()).toBe(0);
    expect(jotted.size).toBe(0);
  });

  it('sends what it can though something that was written down cannot be read', async () => {
    const { sent } = serve(takeAll);
    jotted.set('gravek.tap.0', '{"who":');
    jotted.set('gravek.tap.00', 'null');
    jotted.set('gravek.tap.000', '{"who":{}}');
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    jot(WHO, [one]);
    await recoverJotted();
    await send(WHO);
    expect(sent.flat().map(({ id }) => id)).toEqual([one.id]);
    // Nothing is thrown away that somebody may still read.
    expect([...jotted.keys()]).toEqual(['gravek.tap.0', 'gravek.tap.00', 'gravek.tap.000']);
    jotted.clear();
  });

  it('is of whoever tapped: nobody else who signs in sends it', async () => {
    const sent: Rep[] = [];
    serve((reps) => {
      sent.push(...reps);
      return takeAll(reps);
    });
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    const aldo = { ...WHO, accountId: 'aldo', person: 'Aldo Penhale' };
    await enqueue(aldo, [one]);
    await logReps(WHO, [{ ...one, id: 'rep-0002' }]);
    await send(WHO);
    expect(sent.map(({ id }) => id)).toEqual(['rep-0002']);
    expect((await queue.toArray()).map(({ person }) => person)).toEqual(['Aldo Penhale']);
    await send(aldo);
    expect(sent.map(({ id }) => id)).toEqual(['rep-0002', one.id]);
    for (const key of ['accountId', 'person', 'clubId']) expect(sent[0]).not.toHaveProperty(key);
    expect(await queue.count()).toBe(0);
  });

  it('holds a rep before anything is sent, and lets go once it is stored', async () => {
    let inQueueWhenSent = -1;
    serve(async (reps) => {
      inQueueWhenSent = await queue.count();
      return takeAll(reps);
    });
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    await logReps(WHO, [one]);
    await send(WHO);
    expect(inQueueWhenSent).toBe(1);
    expect(await queue.count()).toBe(0);
    expect(useSending.getState().state).toBe('idle');
  });

  it('keeps everything while the server is gone, and tries again by itself', async () => {
    serve(gone);
    await fill([rep(1), rep(2)]);
    await send(WHO);
    expect(useSending.getState().state).toBe('unreachable');
    expect(await queue.count()).toBe(2);
    const { sent } = serve(takeAll);
    await elapse(30_000);
    await vi.waitFor(async () => expect(await queue.count()).toBe(0));
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0001', 'rep-0002']);
  });

  it('sends nothing under the next name, when somebody leaves while an answer is still out', async () => {
    const page = { addEventListener: vi.fn(), removeEventListener: vi.fn() };
    vi.stubGlobal('window', page);
    vi.stubGlobal('document', page);
    let fail: (error: Error) => void = () => undefined;
    const { sent } = serve(() => new Promise((_resolve, reject) => (fail = reject)));
    await fill([rep(1)]);
    const leave = keepSending(WHO);
    await vi.waitFor(() => expect(sent.length).toBe(1));
    leave();
    fail(new TypeError('no network'));
    await elapse(30_000);
    expect(sent.length).toBe(1);
    expect(useSending.getState().state).toBe('idle');
    // Back again, it goes.
    serve(takeAll);
    keepSending(WHO)();
    await send(WHO);
    expect(await queue.count()).toBe(0);
  });

  it('waits longer each time, up to a bound', async () => {
    const server = serve(gone);
    await fill([rep(1)]);
    await send(WHO);
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
    await send(WHO);
    await elapse(30_000);
    await vi.waitFor(async () => expect(await queue.count()).toBe(0));
    expect(sent.map((batch) => batch[0]!.id)).toEqual(['rep-0001', 'rep-0001']);
  });

  it('sends in the order of its own numbers, whatever the clock says, at most a batch at once', async () => {
    const { sent } = serve(takeAll);
    const back = new Date(1_900_000_000_000).toISOString();
    await fill(Array.from({ length: 450 }, (_, i) => rep(450 - i, i % 2 ? { at: back } : {})));
    await send(WHO);
    expect(sent.map((batch) => batch.length)).toEqual([100, 100, 100, 100, 50]);
    const numbers = sent.flat().map((one) => one.deviceNo);
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
  });

  it('sends nothing of its own keeping', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1)]);
    await send(WHO);
    expect(Object.keys(sent[0]![0]!).sort()).toEqual(Object.keys(rep(1)).sort());
  });

  it('sets a refused rep aside with its reason, and goes on with the others', async () => {
    const { sent } = serve((reps) =>
      json({
        stored: stored(reps.filter((rep) => rep.id !== 'rep-0002')),
        refused: [{ id: 'rep-0002', title: 'Its athlete is not there any more.' }],
      }),
    );
    await fill([rep(1), rep(2), rep(3)]);
    await send(WHO);
    expect(await queue.toArray()).toMatchObject([
      { id: 'rep-0002', refused: 'Its athlete is not there any more.' },
    ]);
    await fill([rep(4)]);
    await send(WHO);
    expect(sent.at(-1)!.map((one) => one.id)).toEqual(['rep-0004']);
  });

  it('asks to sign in when the session has run out, and does not hammer the server', async () => {
    const { sent } = serve(() =>
      json({ status: 401, title: 'Sign in to go on.' }, 401, 'application/problem+json'),
    );
    await fill([rep(1)]);
    await send(WHO);
    expect(useSending.getState().state).toBe('idle');
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
    await send(WHO);
    expect(useSending.getState().state).toBe('unreachable');
    expect(await queue.count()).toBe(1);
  });

  it('sends once though asked many times at once', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1), rep(2)]);
    await Promise.all([send(WHO), send(WHO), send(WHO)]);
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0001', 'rep-0002']);
  });

  it('leaves the reps of another club where they are', async () => {
    const { sent } = serve(takeAll);
    await fill([rep(1)], 'club-2');
    await fill([rep(2)]);
    await send(WHO);
    expect(sent.flat().map((one) => one.id)).toEqual(['rep-0002']);
    expect(await queue.count()).toBe(1);
  });
});

describe('a row that the server cannot take', () => {
  const refusing =
    (bad: string): Answer =>
    (reps) =>
      reps.some((rep) => rep.id === bad)
        ? json({ status: 422, title: 'A rep that cannot be.' }, 422, 'application/problem+json')
        : takeAll(reps);

  it('is found among those refused as a whole, set aside alone, and the others are stored', async () => {
    serve(refusing('rep-0005'));
    await fill(Array.from({ length: 9 }, (_, i) => rep(i + 1)));
    await send(WHO);
    expect(await queue.toArray()).toMatchObject([
      { id: 'rep-0005', refused: 'A rep that cannot be.' },
    ]);
    expect(await logOf('session-1')).toHaveLength(8);
    expect(useSending.getState().state).toBe('idle');
  });

  it('is not called offline: the server’s own word is kept', async () => {
    serve(() => json({ status: 403, title: 'Not for you.' }, 403, 'application/problem+json'));
    await fill([rep(1)]);
    await send(WHO);
    expect(useSending.getState()).toMatchObject({ state: 'held', why: 'Not for you.' });
    expect(await queue.count()).toBe(1);
  });
});

describe('the device’s own numbers', () => {
  it('go up by one, from several tabs at once', async () => {
    const { device: _device, deviceNo: _no, ...one } = rep(1);
    await Promise.all(
      Array.from({ length: 20 }, (_, i) => enqueue(WHO, [{ ...one, id: `many-${i}` }])),
    );
    const rows = await queue.toArray();
    const numbers = rows.map((row) => row.deviceNo).sort((a, b) => a - b);
    expect(new Set(numbers).size).toBe(20);
    expect(numbers.at(-1)! - numbers[0]!).toBe(19);
    expect(new Set(rows.map((row) => row.device))).toEqual(new Set([await deviceId()]));
  });
});

const bundleOf = (sessionId: string, athletes: string[], stamp = 'one') =>
  ({
    stamp,
    session: { id: sessionId },
    athletes: athletes.map((id) => ({ id })),
  }) as unknown as RunBundle;

/** A server of a session: its log and bundle, and which requests came. */
const serveSession = (
  log: StoredRep[],
  run: (known: string | null) => Response,
): { asked: string[] } => {
  const asked: string[] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn((url: string) => {
      asked.push(url);
      const { pathname, searchParams } = new URL(url, 'http://phone');
      if (pathname.endsWith('/run')) return Promise.resolve(run(searchParams.get('known')));
      const after = Number(searchParams.get('after'));
      const rows = log.filter((rep) => rep.arrival > after);
      return Promise.resolve(json({ items: rows.slice(0, 2), more: rows.length > 2 }));
    }),
  );
  return { asked };
};
const stand = (n: number): StoredRep => ({ ...rep(n), arrival: n });

describe('the phone’s own copy of a session', () => {
  it('holds a stored rep at once, though every fetch after it fails', async () => {
    serve(takeAll);
    await fill([rep(1)]);
    await send(WHO);
    serve(gone);
    await fetchLog('session-1');
    expect(await queue.count()).toBe(0);
    expect(await logOf('session-1')).toEqual([stand(1)]);
  });

  it('asks for what came since the last, page by page, and never again', async () => {
    const { asked } = serveSession([1, 2, 3, 4, 5].map(stand), () => json({}));
    await fetchLog('session-1');
    expect(await logOf('session-1')).toHaveLength(5);
    expect(await logEnd('session-1')).toBe(5);
    expect(asked.map((url) => url.split('after=')[1])).toEqual(['0', '2', '4']);
    await fetchLog('session-1');
    expect(asked.at(-1)).toContain('after=5');
  });

  it('keeps its parts until they change, and what waits when it is forgotten', async () => {
    let stamp = 'one';
    const { asked } = serveSession([], (known) =>
      known === stamp ? json({ unchanged: true }) : json(bundleOf('session-1', ['ana'], stamp)),
    );
    await fetchBundle('session-1', true);
    expect((await fetchBundle('session-1', true)).stamp).toBe('one');
    expect(asked.at(-1)).toContain('known=one');
    stamp = 'two';
    expect((await fetchBundle('session-1', true)).stamp).toBe('two');
    await fill([rep(1)]);
    serve(gone);
    expect((await fetchBundle('session-1', true)).stamp).toBe('two');
    await forgetSessions();
    expect(await keptBundle('session-1')).toBeUndefined();
    expect(await queue.count()).toBe(1);
  });

  it('lets go of an athlete who was deleted, and of a session that is gone, at the next contact', async () => {
    await keepBundle(bundleOf('session-1', ['ana', 'bo']), true);
    await keepBundle(bundleOf('session-2', ['bo']), true);
    serveSession([stand(1), { ...stand(2), athleteId: 'bo' }], () => json({}));
    await fetchLog('session-1');
    vi.stubGlobal(
      'fetch',
      vi.fn((url: string) =>
        Promise.resolve(
          url.includes('session-2')
            ? json({ status: 404, title: 'Gone.' }, 404, 'application/problem+json')
            : json(bundleOf('session-1', ['ana'], 'later')),
        ),
      ),
    );
    await refreshKept();
    expect(await keptSessions()).toEqual(['session-1']);
    expect((await keptBundle('session-1'))!.athletes.map((athlete) => athlete.id)).toEqual(['ana']);
    expect((await logOf('session-1')).map((rep) => rep.athleteId)).toEqual(['ana']);
  });

  it('takes no answer that was asked for before the one that is kept, unless a clock was set back', async () => {
    const now = Date.now();
    serveSession([stand(1), { ...stand(2), athleteId: 'bo' }], () => json({}));
    await keepBundle(bundleOf('session-1', ['ana', 'bo'], 'new'), true, now);
    await fetchLog('session-1');
    await keepBundle(bundleOf('session-1', ['ana'], 'stale'), true, now - 5_000);
    expect((await keptBundle('session-1'))!.stamp).toBe('new');
    expect(await logOf('session-1')).toHaveLength(2);
    await keepBundle(bundleOf('session-1', ['ana'], 'after'), true, now - 3_600_000);
    expect((await keptBundle('session-1'))!.stamp).toBe('after');
  });

  it('fetches again the rows of somebody who was not in it for a moment', async () => {
    serveSession([stand(1), { ...stand(2), athleteId: 'bo' }], () => json({}));
    await keepBundle(bundleOf('session-1', ['ana', 'bo']), true);
    await fetchLog('session-1');
    await keepBundle(bundleOf('session-1', ['ana'], 'without'), true);
    expect(await logOf('session-1')).toHaveLength(1);
    await keepBundle(bundleOf('session-1', ['ana', 'bo'], 'with'), true);
    await fetchLog('session-1');
    expect(await logOf('session-1')).toHaveLength(2);
  });

  it('makes room for the sessions opened last', async () => {
    for (let i = 0; i < 15; i += 1) await keepBundle(bundleOf(`s${i}`, []), true);
    expect(await keptSessions()).toHaveLength(12);
  });
});

it('reps that an older version left waiting say from then on what they were of', async () => {
  await Dexie.delete('gravek-older');
  const older = new Dexie('gravek-older');
  older.version(1).stores({ queue: 'id, clubId, sessionId', bundles: 'sessionId' });
  const { movement: _m, part: _p, turn: _t, device: _d, deviceNo: _n, ...before } = rep(3);
  await older.table('queue').put({ ...before, set: 2, clubId: CLUB });
  await older.table('bundles').put({
    sessionId: 'session-1',
    bundle: {
      session: { drillSets: [{ id: 'set-1', approachId: 'p', reps: 4, sides: ['own'] }] },
      approaches: [
        { id: 'p', movement: 'gaps', choices: { drill: 'one-each', speedFraction: 0.6 } },
      ],
    },
  });
  older.close();
  const { openStore } = await import('../src/phone/store');
  const now = openStore('gravek-older');
  expect(await now.queue.toArray()).toMatchObject([
    { id: 'rep-0003', movement: 'gaps', part: 'one-each', speedPct: 60, turn: 7, deviceNo: 1 },
  ]);
  expect(await now.bundles.count()).toBe(0);
  now.close();
});

it('a session kept by an older version goes on without network: its plans say what they lacked', async () => {
  await Dexie.delete('gravek-before');
  const before = new Dexie('gravek-before');
  before.version(1).stores({ queue: 'id, clubId, sessionId', bundles: 'sessionId' });
  before.version(2).stores({ log: 'id, sessionId', ends: 'sessionId', device: 'key' });
  const plan = { id: 'p', name: 'Close', movement: 'close-and-shorten', part: null, outlines: [] };
  await before.table('bundles').put({
    sessionId: 's',
    openedMs: 1,
    bundle: {
      session: {
        id: 's',
        drillSets: [
          { id: 'd', approachId: 'p', sets: 2, reps: 3, restS: 60, setRestS: 90 },
          { id: 'e', approachId: 'q', sides: ['other'], pace: 0.5 },
        ],
      },
      plans: [plan, { ...plan, id: 'q', pace: 0.5, movement: 'gone' }],
      movements: [],
      athletes: [{ id: 'ana', name: 'Ana' }],
    },
  });
  before.close();
  const { openStore } = await import('../src/phone/store');
  const now = openStore('gravek-before');
  const kept = await now.bundles.get('s');
  expect(kept!.bundle.session.drillSets).toMatchObject([
    { work: { approachId: 'p' }, vary: { sides: ['own'], paces: [1] }, reps: 3 },
    { work: { approachId: 'q' }, vary: { sides: ['other'], paces: [0.5] } },
  ]);
  expect(kept!.bundle.plans).toMatchObject([
    { drillSetId: 'd', movement: 'close-and-shorten', choices: { schools: {} }, cautions: [] },
    { drillSetId: 'e', movement: null, choices: null, cautions: [] },
  ]);
  expect(kept!.bundle.athletes).toMatchObject([{ id: 'ana', body: null }]);
  now.close();
});

it('a session kept from before sets had spots can be run, and begins where it is planned to', async () => {
  await Dexie.delete('gravek-spotless');
  const before = new Dexie('gravek-spotless');
  before.version(8).stores({
    ...{ queue: 'id, clubId, sessionId', bundles: 'sessionId', log: 'id, sessionId' },
    ...{ ends: 'sessionId', device: 'key', films: 'reviewId' },
  });
  const work = { kind: 'movement' as const, movement: 'gaps', drill: null };
  const { spots: _spots, ...vary } = freshDrillSet('d', work, ['ana']).vary;
  await before.table('bundles').put({
    sessionId: 's',
    openedMs: 1,
    bundle: {
      session: { id: 's', drillSets: [{ ...freshDrillSet('d', work, ['ana']), vary }] },
      ...{ plans: [], movements: [], athletes: [] },
    },
  });
  before.close();
  const { openStore } = await import('../src/phone/store');
  const now = openStore('gravek-spotless');
  const { bundle } = (await now.bundles.get('s'))!;
  expect(bundle.missed).toEqual([]);
  expect(bundle.session.drillSets[0]!.vary).toEqual({ ...vary, spots: [] });
  now.close();
});
