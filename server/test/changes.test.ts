import { createServer, connect, type Socket } from 'node:net';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listenForChanges, type Change, type Changes } from '../src/changes/listen';
import { anAthlete, coachIn, hear, openStage, until, type Coach, type Stage } from './setup';

/** Word of changes: over connections that go silent, to pages that leave, to members who are removed. */

let stage: Stage;
let owner: Coach;
let listening = 0;
let real: Changes;
/** As the real one, and it counts who listens. */
const counted: Changes = {
  onChange: (clubId, tell) => {
    listening += 1;
    const stop = real.onChange(clubId, tell);
    return () => {
      listening -= 1;
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
    for (const one of [near, far]) one.on('error', () => undefined);
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
      for (const one of made) one.destroy();
      way.close();
    },
  };
};

it('a connection that has gone silent is noticed, replaced, and what was missed is told', async () => {
  const way = await silentWay(stage.appUrl);
  const heard: Change[] = [];
  const changes = listenForChanges(way.url, pino({ level: 'silent' }), {
    everyMs: 200,
    answerMs: 400,
  });
  changes.onChange(owner.clubId, (change) => heard.push(change));
  await until(async () => {
    await owner.post('/athletes', anAthlete()).expect(200);
    return heard.length > 0;
  });
  way.silence();
  await owner.post('/athletes', anAthlete()).expect(200);
  await until(() => heard.some((change) => change.topic === 'all'));
  expect(way.connections()).toBeGreaterThan(1);
  const before = heard.length;
  await owner.post('/athletes', anAthlete()).expect(200);
  await until(() => heard.length > before);
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
      .remove(`/members/${members.find((one) => one.role === 'assistant')!.id}`)
      .expect(200);
    await until(() => page.ended());
    const before = page.said();
    await owner.post('/athletes', anAthlete()).expect(200);
    await until(() => kept.said().includes('data: athletes'));
    expect(page.said()).toBe(before);
    expect(kept.ended()).toBe(false);
    kept.stop();
  });
});
