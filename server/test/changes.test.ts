import { createServer, connect, type Socket } from 'node:net';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listenForChanges, type Change, type Changes } from '../src/changes/listen';
import {
  anAthlete,
  coachIn,
  cookieOf,
  hear,
  openStage,
  PASSWORD,
  stranger,
  until,
  type Coach,
  type Stage,
} from './setup';

/** Word of changes: over connections that go silent, to pages that leave, to members who are removed. */

let stage: Stage;
let owner: Coach;
let listening = 0;
let real: Changes;
/** what is told to pages, by club */
const heard = new Map<string, Set<(change: Change) => void>>();
/** As the real one, and it counts who listens. */
const counted: Changes = {
  onChange: (clubId, tell) => {
    listening += 1;
    const stop = real.onChange(clubId, tell);
    const all = heard.get(clubId) ?? new Set();
    heard.set(clubId, all.add(tell));
    return () => {
      listening -= 1;
      all.delete(tell);
      stop();
    };
  },
  onAny: (tell) => real.onAny(tell),
  onLead: (begin) => real.onLead(begin),
  leads: () => real.leads(),
  close: () => real.close(),
};

beforeAll(async () => {
  stage = await openStage({ changes: counted });
  real = listenForChanges(stage.appUrl, pino({ level: 'silent' }));
  owner = await coachIn(stage);
});
afterAll(() => stage.close());

/** A way to the database that can go silent without closing, as a network does that drops everything. */
const silentWay = async (url: string) => {
  const to = new URL(url);
  let mute = false;
  const made: Socket[] = [];
  const way = createServer((near) => {
    const far = connect(Number(to.port), to.hostname);
    made.push(near, far);
    const silent = mute;
    const born = made.length;
    near.on('data', (part) => !(mute && !silent && born) && far.write(part));
    far.on('data', (part) => !(mute && !silent && born) && near.write(part));
    for (const socket of [near, far]) socket.on('error', () => undefined);
    near.on('close', () => far.destroy());
    far.on('close', () => near.destroy());
  }).listen(0, '127.0.0.1');
  await once(way, 'listening');
  const through = new URL(url);
  through.hostname = '127.0.0.1';
  through.port = String((way.address() as AddressInfo).port);
  return {
    url: through.toString(),
    /** what is connected now hears nothing more; what connects later does */
    silence: () => (mute = true),
    connections: () => made.length / 2,
    close: () => {
      for (const socket of made) socket.destroy();
      way.close();
    },
  };
};

it('a connection that has gone silent is noticed, replaced, and what was missed is told', async () => {
  const way = await silentWay(stage.appUrl);
  const told: Change[] = [];
  const changes = listenForChanges(way.url, pino({ level: 'silent' }), {
    everyMs: 200,
    answerMs: 400,
  });
  changes.onChange(owner.clubId, (change) => told.push(change));
  await until(async () => {
    await owner.post('/athletes', anAthlete()).expect(200);
    return told.length > 0;
  });
  way.silence();
  await owner.post('/athletes', anAthlete()).expect(200);
  await until(() => told.some((change) => change.topic === 'all'));
  expect(way.connections()).toBeGreaterThan(1);
  const before = told.length;
  await owner.post('/athletes', anAthlete()).expect(200);
  await until(() => told.length > before);
  await changes.close();
  way.close();
});

describe('a page that hears changes', () => {
  it('leaves nothing behind, however early it goes', async () => {
    for (let i = 0; i < 12; i += 1) {
      const page = hear(stage, owner);
      // Some before the server has looked who it is, some after.
      if (i % 2) await until(() => page.said().includes('alive'));
      page.stop();
    }
    const last = hear(stage, owner);
    await until(() => last.said().includes('alive'));
    await until(() => listening === 1);
    last.stop();
    await until(() => listening === 0);
  });

  it('hears nothing more once its member is removed', async () => {
    const helper = await coachIn(stage, 'assistant', owner.clubId);
    const page = hear(stage, helper);
    const kept = hear(stage, owner);
    await until(() => page.said().includes('alive') && kept.said().includes('alive'));
    const members = (await owner.get('/members')).body as { id: string; role: string }[];
    await owner
      .remove(`/members/${members.find((member) => member.role === 'assistant')!.id}`)
      .expect(200);
    await until(() => page.ended());
    const before = page.said();
    await owner.post('/athletes', anAthlete()).expect(200);
    await until(() => kept.said().includes('data: athletes'));
    expect(page.said()).toBe(before);
    expect(kept.ended()).toBe(false);
    kept.stop();
  });

  it('hears nothing more once it is signed out, here or from afar, or the password is another', async () => {
    const kept = hear(stage, owner);
    const signedIn = async () => {
      const device = stranger(stage);
      await device.post('/sign-in', { email: owner.email, password: PASSWORD }).expect(204);
      return device;
    };
    const [coach, two, three] = await Promise.all([signedIn(), signedIn(), signedIn()]);
    const pages = [coach, two, three].map((device) => hear(stage, device));
    await until(() => [kept, ...pages].every((page) => page.said().includes('alive')));
    await coach.post('/sign-out').expect(204);
    await until(() => pages[0]!.ended());
    expect(pages[1]!.ended()).toBe(false);
    const list = (await two.get('/devices')).body as { id: string; here: boolean }[];
    await owner.post('/devices/end', { id: list.find(({ here }) => here)!.id }).expect(200);
    await until(() => pages[1]!.ended());
    expect(pages[2]!.ended()).toBe(false);
    await owner.put('/password', { current: PASSWORD, next: 'wet grass at seven' }).expect(204);
    await until(() => pages[2]!.ended());
    expect(kept.ended()).toBe(false);
    expect(kept.said()).not.toContain('sign-ins');
    kept.stop();
  });

  it('is one of ten at most, and one that takes nothing is dropped', async () => {
    const coach = await coachIn(stage);
    const other = hear(stage, await coachIn(stage));
    await until(() => other.said().includes('alive'));
    const before = listening;
    const pages = Array.from({ length: 1_000 }, () => hear(stage, coach));
    await until(() => pages.every((page) => page.status() !== null || page.ended()));
    expect(pages.filter((page) => page.status() === 200)).toHaveLength(10);
    expect(pages.filter((page) => page.status() === 429)).toHaveLength(990);
    expect(listening - before).toBe(10);
    for (const page of pages) page.stop();
    await until(() => listening === before);

    const { hostname, port } = new URL(stage.address);
    const deaf = connect(Number(port), hostname);
    deaf.on('error', () => undefined);
    deaf.write(
      `GET /api/changes HTTP/1.1\r\nhost: ${hostname}\r\ncookie: ${cookieOf(coach)}\r\n\r\n`,
    );
    await until(() => listening === before + 1);
    deaf.pause();
    // Word of changes as fast as it can be given, until nothing more fits between here and there.
    for (const tell of heard.get(coach.clubId)!) {
      for (let i = 0; i < 2e6 && listening > before; i += 1) {
        tell({ club: coach.clubId, topic: 'athletes' });
        if (i % 5_000 === 0) await new Promise((resolve) => setImmediate(resolve));
      }
    }
    expect(listening).toBe(before);
    deaf.destroy();
    other.stop();
  });
});
