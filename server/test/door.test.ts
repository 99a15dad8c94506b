import { randomBytes } from 'node:crypto';
import { request, type IncomingMessage, type OutgoingHttpHeaders } from 'node:http';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inClub } from '../src/database/connect';
import { whatFailed } from '../src/log';
import {
  anAthlete,
  aRep,
  coachIn,
  inviteTo,
  cookieOf,
  furnish,
  logOf,
  openStage,
  PASSWORD,
  stranger,
  until,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let proxied: Stage;
beforeAll(async () => {
  stage = await openStage({ demo: true });
  proxied = await openStage({ demo: true, proxy: 'loopback' });
});
afterAll(() => Promise.all([stage.close(), proxied.close()]));

const club = { name: 'Tarn Valley', unit: 'metric', cueSchool: 'first-phase', timeZone: 'UTC' };
const founder = (n: number) => ({
  club,
  person: 'Edda Brook',
  email: `edda${n}@tarn.invalid`,
  password: PASSWORD,
});

type Raw = { status: number; headers: IncomingMessage['headers']; text: string };

/** A request as no browser would make it. */
const raw = (
  at: Stage,
  {
    method = 'GET',
    path,
    headers = {},
    body,
  }: { method?: string; path: string; headers?: OutgoingHttpHeaders; body?: string | undefined },
): Promise<Raw> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(at.address);
    const sent = request({ hostname, port, path, method, headers }, (answer) => {
      let text = '';
      answer.on('data', (part) => (text += String(part)));
      answer.on('end', () =>
        resolve({ status: answer.statusCode!, headers: answer.headers, text }),
      );
    });
    sent.on('error', reject);
    sent.end(body);
  });

const json = (at: Stage, more: OutgoingHttpHeaders = {}): OutgoingHttpHeaders => ({
  origin: at.origin,
  'content-type': 'application/json',
  ...more,
});

describe('the first club', () => {
  it('is made once, though six ask at once in two processes', async () => {
    const twin = await stage.twin();
    const all = await Promise.all(
      [1, 2, 3, 4, 5, 6].map((n) => stranger(n % 2 ? stage : twin).post('/first-club', founder(n))),
    );
    expect(all.map((answer) => answer.status).sort()).toEqual([204, 409, 409, 409, 409, 409]);
    expect(await stage.owner.selectFrom('club').select('id').execute()).toHaveLength(1);
    expect(await stage.owner.selectFrom('account').select('id').execute()).toHaveLength(1);
  });
});

describe('a name that is not this server’s', () => {
  it.each(['evil.invalid', 'evil.invalid:80', '127.0.0.1.evil.invalid', 'a b'])(
    '%s gets nothing, neither the demo nor the first club',
    async (host) => {
      const empty = await openStage({ demo: true });
      try {
        const origin = `http://${host}`;
        for (const [method, path] of [
          ['GET', '/api/door'],
          ['POST', '/api/demo-entry'],
          ['POST', '/api/first-club'],
          ['GET', '/'],
        ] as const) {
          const answer = await raw(empty, {
            method,
            path,
            headers: json(empty, { host, origin }),
            body: method === 'POST' ? JSON.stringify(founder(9)) : undefined,
          });
          expect([400, 421], `${method} ${path}`).toContain(answer.status);
        }
        expect(await empty.owner.selectFrom('club').select('id').execute()).toEqual([]);
      } finally {
        await empty.close();
      }
    },
  );
});

describe('the demo', () => {
  it('is offered at this machine, and to nobody whose request was passed on', async () => {
    expect(JSON.parse((await raw(stage, { path: '/api/door' })).text)).toMatchObject({
      demo: true,
    });
    for (const header of ['x-forwarded-for', 'forwarded', 'via', 'x-real-ip']) {
      const headers = json(stage, { [header]: 'for=127.0.0.1' });
      const door = await raw(stage, { path: '/api/door', headers });
      expect(JSON.parse(door.text)).toMatchObject({ demo: false });
      const entry = await raw(stage, { method: 'POST', path: '/api/demo-entry', headers });
      expect(entry.status).toBe(404);
      expect(entry.text).toContain('There is no demo here');
    }
  });
});

describe('guessing', () => {
  const guess = (at: Stage, email: string, from?: string) =>
    raw(at, {
      method: 'POST',
      path: '/api/sign-in',
      headers: json(at, from ? { 'x-forwarded-for': from } : {}),
      body: JSON.stringify({ email, password: `guess ${randomBytes(4).toString('hex')}` }),
    });

  it('ends from an address for an account, in all processes, and shuts nobody else out', async () => {
    const coach = await coachIn(proxied);
    const twin = await proxied.twin();
    const there = '198.51.100.7';
    const statuses: number[] = [];
    for (let i = 0; i < 14; i += 1) {
      statuses.push((await guess(i % 2 ? proxied : twin, coach.email, there)).status);
    }
    expect(statuses.slice(0, 12).every((status) => status === 401)).toBe(true);
    expect(statuses.slice(12)).toEqual([429, 429]);
    // The same account from elsewhere, and others from there.
    expect((await guess(proxied, coach.email, '198.51.100.8')).status).toBe(401);
    const signIn = (who: Coach, from: string, cookie?: string) =>
      raw(proxied, {
        method: 'POST',
        path: '/api/sign-in',
        headers: json(proxied, { 'x-forwarded-for': from, ...(cookie ? { cookie } : {}) }),
        body: JSON.stringify({ email: who.email, password: PASSWORD }),
      });
    const pupil = await coachIn(proxied);
    expect((await signIn(pupil, there)).status).toBe(204);
    // Who has signed in on this device before comes in from there too.
    expect((await signIn(coach, there)).status).toBe(429);
    const elsewhere = await signIn(coach, '203.0.113.5');
    const device = /gravek-device=[^;]+/.exec(String(elsewhere.headers['set-cookie']))![0];
    expect((await signIn(coach, there, device)).status).toBe(204);
    const { rows } = await sql<{ key: string }>`select key from attempt`.execute(proxied.owner);
    expect(rows.map((row) => row.key).join()).not.toContain('@');
    const kept = await sql<{ all: string }>`select string_agg(t::text, '') as all
      from known_device t`.execute(proxied.owner);
    expect(kept.rows[0]!.all).not.toContain(device.split('=')[1]);
  });

  it('of many accounts from one address shuts nobody there out; what an address says of itself counts only behind a proxy', async () => {
    const school = '203.0.113.7';
    const statuses = new Set<number>();
    for (let i = 0; i < 70; i += 1) {
      statuses.add((await guess(proxied, `${i}@nobody.invalid`, school)).status);
    }
    expect([...statuses]).toEqual([401]);
    for (let i = 0; i < 12; i += 1) await guess(stage, 'y@nobody.invalid', `192.0.2.${i}`);
    expect((await guess(stage, 'y@nobody.invalid', '192.0.2.99')).status).toBe(429);
  });

  it('a hundred at once from one address are done one by one, and keep nobody elsewhere waiting', async () => {
    const counted = async (): Promise<number> =>
      (
        await sql<{ n: number }>`select coalesce(sum(hits), 0)::int as n from attempt
          where key like 'from %'`.execute(proxied.owner)
      ).rows[0]!.n;
    const before = await counted();
    const all = Promise.all(
      Array.from({ length: 100 }, (_, i) => guess(proxied, `${i}@flood.invalid`, '203.0.113.9')),
    );
    let over = false;
    void all.then(() => (over = true));
    expect((await guess(proxied, 'z@nobody.invalid', '203.0.113.10')).status).toBe(401);
    expect(over).toBe(false);
    const statuses = (await all).map(({ status }) => status);
    expect(new Set(statuses)).toEqual(new Set([401, 503]));
    // Who was told to try again has not guessed wrong by that.
    const turnedAway = statuses.filter((status) => status === 503).length;
    expect(turnedAway).toBeGreaterThan(12);
    await expect.poll(counted, { timeout: 45_000 }).toBeLessThanOrEqual(before + 102 - turnedAway);
  });
});

describe('a sign-in', () => {
  const sessionOf = async (at: Stage, coach: Coach) =>
    (
      await sql<{ sid: string; expire: Date }>`select sid, expire from http_session
        where sess ->> 'accountId' = ${coach.accountId}`.execute(at.owner)
    ).rows;

  it('ends after its time, however much it is used', async () => {
    const coach = await coachIn(stage);
    const [before] = await sessionOf(stage, coach);
    await coach.get('/me').expect(200);
    expect((await sessionOf(stage, coach))[0]!.expire).toEqual(before!.expire);
    await sql`update http_session
      set sess = jsonb_set(sess::jsonb, '{until}', to_jsonb(1))::json
      where sid = ${before!.sid}`.execute(stage.owner);
    expect((await coach.get('/me')).status).toBe(401);
    expect((await coach.post('/switch', { clubId: coach.clubId })).status).toBe(401);
  });

  it('is told to keep to https when it came by https', async () => {
    const plain = await raw(proxied, { path: '/api/door' });
    expect(plain.headers['strict-transport-security']).toBeUndefined();
    const secure = await raw(proxied, {
      path: '/api/door',
      headers: { 'x-forwarded-proto': 'https' },
    });
    expect(secure.headers['strict-transport-security']).toContain('max-age=');
    const policy = String(plain.headers['content-security-policy']);
    expect(policy).toMatch(/font-src 'self'(;|$)/);
    expect(policy).toContain("frame-ancestors 'none'");
    const coach = await coachIn(proxied);
    const entry = await raw(proxied, {
      method: 'POST',
      path: '/api/sign-in',
      headers: json(proxied, { 'x-forwarded-proto': 'https' }),
      body: JSON.stringify({ email: coach.email, password: PASSWORD }),
    });
    expect(String(entry.headers['set-cookie'])).toContain('Secure');
  });
});

describe('a password', () => {
  it('is changed by who knows it, and every other sign-in ends', async () => {
    const coach = await coachIn(stage);
    const phone = stranger(stage);
    await phone.post('/sign-in', { email: coach.email, password: PASSWORD }).expect(204);
    const wrong = await coach.put('/password', { current: 'not it', next: 'wet grass at seven' });
    expect(wrong.body.fields).toHaveProperty('current');
    const common = await coach.put('/password', { current: PASSWORD, next: 'password1234' });
    expect(common.body.fields).toHaveProperty('next');
    await coach.put('/password', { current: PASSWORD, next: 'wet grass at seven' }).expect(204);
    expect((await coach.get('/me')).status).toBe(200);
    expect((await phone.get('/me')).status).toBe(401);
    await phone.post('/sign-in', { email: coach.email, password: PASSWORD }).expect(401);
    await phone
      .post('/sign-in', { email: coach.email, password: 'wet grass at seven' })
      .expect(204);
  });

  it('comes anew by a link that an owner makes, once, for a day', async () => {
    const owner = await coachIn(stage);
    const coach = await coachIn(stage, 'coach', owner.clubId);
    const list = (await owner.get('/members')).body as { id: string; email: string }[];
    const member = list.find((one) => one.email === coach.email)!;
    expect((await coach.post(`/members/${member.id}/link`)).status).toBe(403);
    const old = (await owner.post(`/members/${member.id}/link`)).body as { token: string };
    const { token, until } = (await owner.post(`/members/${member.id}/link`)).body as {
      token: string;
      until: string;
    };
    expect(Date.parse(until) - Date.now()).toBeLessThan(25 * 3600_000);
    const held = await sql<{ all: string }>`select string_agg(t::text, '') as all
      from password_link t`.execute(stage.owner);
    expect(held.rows[0]!.all).not.toContain(token);

    const anybody = stranger(stage);
    const take = (by: string, password: string) =>
      anybody.post('/new-password', { token: by, password });
    expect((await take(old.token, 'a hurdle in the rain')).status).toBe(404);
    expect((await take(token, '1234567890')).status).toBe(422);
    const both = await Promise.all([
      take(token, 'a hurdle in the rain'),
      take(token, 'b hurdle in the rain'),
    ]);
    expect(both.map((answer) => answer.status).sort()).toEqual([204, 404]);
    expect((await take(token, 'a hurdle in the rain')).status).toBe(404);
    expect((await coach.get('/me')).status).toBe(401);

    const late = (await owner.post(`/members/${member.id}/link`)).body as { token: string };
    await sql`update password_link set until = now() - interval '1 minute'`.execute(stage.owner);
    expect((await take(late.token, 'a hurdle in the sun')).status).toBe(404);
  });

  it('is none of those that everybody tries, nor one’s own name', async () => {
    const token = await inviteTo(await coachIn(stage), 'nils@farrow.invalid');
    for (const password of ['qwertyuiop', 'Passw0rd!!', 'iloveyou12345', 'nils@farrow.invalid']) {
      const answer = await stranger(stage).post('/invitation/new', {
        ...{ token, password },
        person: 'Nils Farrow',
      });
      expect(answer.body.fields, password).toHaveProperty('password');
    }
  });
});

describe('what nobody can read', () => {
  it('is refused before anything is done with it, in few words', async () => {
    const long = `a@${'.'.repeat(80_000)}`;
    const body = JSON.stringify({ email: long, password: PASSWORD });
    const big = await raw(stage, {
      method: 'POST',
      path: '/api/sign-in',
      headers: json(stage),
      body,
    });
    expect(big.status).toBe(413);
    const within = await raw(stage, {
      method: 'POST',
      path: '/api/sign-in',
      headers: json(stage),
      body: JSON.stringify({ email: `a@${'.'.repeat(9_000)}`, password: PASSWORD }),
    });
    expect(within.status).toBe(422);
    expect(within.text.length).toBeLessThan(500);
    // Nothing is read of who is not signed in, however long it is.
    const unknown = await raw(stage, {
      method: 'POST',
      path: '/api/reps',
      headers: json(stage),
      body: `{"reps":[${'{},'.repeat(50_000)}{}]}`,
    });
    expect(unknown.status).toBe(401);
  });

  it('never is the server’s fault', async () => {
    const coach = await coachIn(stage);
    const cookie = cookieOf(coach);
    const { athlete } = await furnish(coach);
    const asked: Parameters<typeof raw>[1][] = [
      { path: '/api/athletes/%E0%A4%A' },
      { path: '/%E0%A4%A' },
      { path: '/api/athletes/%00' },
      { path: `/api/athletes/${athlete.id}/ledger/%00` },
      { path: `/api/athletes/${athlete.id}/ledger/straight-run-up?side=__proto__` },
      { path: '/api/faults?movement=%00' },
      { path: '/api/faults?movement=%ED%A0%80' },
      { path: '/api/faults?movement=constructor' },
      { path: `/api/athletes/${athlete.id}/ledger/__proto__` },
      { path: '/api/cues?on=2031-02-31' },
      { path: '/api/cues?on=0000-01-01' },
      { path: '/api/sessions?from=0000-00-00&to=9999-99-99' },
      { path: `/api/athletes?after=${Buffer.from('{"name":"a","id":"x"}').toString('base64url')}` },
      { path: '/api/athletes?after=%00' },
      { path: '/api/athletes', method: 'POST', headers: { 'content-encoding': 'br' }, body: 'x' },
      { path: '/api/athletes', method: 'POST', headers: { 'content-encoding': 'gzip' }, body: 'x' },
      { path: '/api/athletes', method: 'POST', headers: { 'content-encoding': 'odd' }, body: 'x' },
      {
        path: '/api/athletes',
        method: 'POST',
        headers: { 'content-type': 'application/json; charset=odd' },
        body: '{}',
      },
      { path: '/api/athletes', method: 'POST', body: '{"name":' },
      { path: '/api/athletes', method: 'POST', body: '['.repeat(100_000) },
      { path: '/api/athletes', method: 'POST', body: `${'['.repeat(50_000)}${']'.repeat(50_000)}` },
      {
        path: '/api/athletes',
        method: 'POST',
        body: JSON.stringify(anAthlete()).replace('Ilse Marrow', 'Ilse \\ud800'),
      },
      {
        path: `/api/athletes/${athlete.id}`,
        method: 'PUT',
        body: JSON.stringify({ ...athlete, version: 2 ** 31 - 1 }),
      },
    ];
    for (const one of asked) {
      const { status, text } = await raw(stage, {
        ...one,
        headers: json(stage, { cookie, ...one.headers }),
      });
      const named = `${one.method ?? 'GET'} ${one.path} ${String(one.body ?? '').slice(0, 40)}`;
      expect(status, named).toBeLessThan(500);
      expect(text.length, named).toBeLessThan(2_000);
    }
    const broken = await raw(stage, { path: '/api/athletes/%E0%A4%A', headers: { cookie } });
    expect(broken.status).toBe(400);
  });

  it('is no trouble where codes are the names of what every object has', async () => {
    const coach = await coachIn(stage);
    const { athlete, session } = await furnish(coach);
    const faults = ['constructor', '__proto__', 'toString', 'hasOwnProperty'];
    const rep = aRep(session, { rep: 3, turn: 3, outcome: 'fault', faults, cue: 'constructor' });
    const { body: receipt } = await coach.post('/reps', { reps: [rep] }).expect(200);
    expect(receipt.refused).toEqual([]);
    for (const path of [
      '/faults',
      `/athletes/${athlete.id}/faults`,
      `/athletes/${athlete.id}/ledger/straight-run-up`,
      `/sessions/${session.id}/run`,
      `/sessions/${session.id}/reps`,
      `/cues?on=${session.date}`,
      `/athletes/${athlete.id}/export`,
    ])
      expect((await coach.get(path)).status, path).toBe(200);
    const kept = (await logOf(coach, session.id)).find((other) => other.id === rep.id);
    expect([...kept!.faults].sort()).toEqual([...faults].sort());
  });

  it('goes to the log as kind and place, without a word of it', () => {
    const { message } = new SyntaxError('Unexpected token in Ilse Marrow');
    const fault = whatFailed(
      Object.assign(new Error(`duplicate key (email)=(ilse@tarn.invalid) ${message}`), {
        code: '23505',
        detail: 'Key (email)=(ilse@tarn.invalid) already exists.',
      }),
    );
    expect(fault).toMatchObject({ kind: 'Error', code: '23505' });
    expect(fault.at[0]).toMatch(/^at .*door\.test/);
    expect(JSON.stringify(fault)).not.toMatch(/Ilse|ilse@/);
  });
});

describe('a database that has too much to do', () => {
  it('is called busy, not away, and nothing is changed', async () => {
    const coach = await coachIn(stage);
    const { athlete } = await furnish(coach);
    let letGo = (): void => undefined;
    let isHeld = false;
    const held = inClub(stage.db, coach, async (trx) => {
      await sql`select set_config('statement_timeout', '0', true)`.execute(trx);
      await sql`select from athlete where id = ${athlete.id} for update`.execute(trx);
      await new Promise<void>((resolve) => {
        letGo = resolve;
        isHeld = true;
      });
    });
    await until(() => isHeld);
    const answer = await coach.put(`/athletes/${athlete.id}`, {
      ...athlete,
      name: 'Late',
      version: 1,
    });
    letGo();
    await held;
    expect(answer.status).toBe(503);
    expect(answer.body.title).toContain('busy');
    expect((await coach.get(`/athletes/${athlete.id}`)).body.name).toBe(athlete.name);
  });
});
