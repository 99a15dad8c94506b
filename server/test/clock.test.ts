import type { SessionClock } from '@gravek/contract/circuit';
import type { Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Coach, coachIn, furnish, openStage, type Stage } from './setup';

let stage: Stage;
let owner: Coach;
let own: Awaited<ReturnType<typeof furnish>>;
beforeAll(async () => {
  stage = await openStage();
  owner = await coachIn(stage);
  own = await furnish(owner);
});
afterAll(() => stage.close());

const act = (kind: string, atMs: number, of: string | null = null) => ({
  ...{ id: uuid(), kind, atMs, of },
});
const clock = (): string => `/sessions/${own.session.id}/clock`;

/** The session of the stage with its one set as two stations, gone round by these groups. */
const grouped = (groups: object[], athleteIds: string[]): object => {
  const [set] = own.session.drillSets;
  const station = { ...set!, athleteIds, station: true, coach: 'Runa' };
  return {
    ...own.session,
    version: 1,
    drillSets: [station, { ...station, id: uuid() }],
    circuit: { minutes: 8, changeS: 60, groups },
  };
};

describe('the clock of groups', () => {
  it('keeps every press once, however often it is sent, and tells the time', async () => {
    const before = Date.now();
    const start = act('start', before);
    const first = await owner.post(clock(), start);
    expect(first.status).toBe(200);
    await owner.post(clock(), start);
    const hold = act('hold', before + 1000);
    await Promise.all([owner.post(clock(), hold), owner.post(clock(), act('more', before + 2000))]);
    const { acts, nowMs } = (await owner.get(clock())).body as SessionClock;
    expect(acts.map(({ kind }) => kind).sort()).toEqual(['hold', 'more', 'start']);
    expect(Math.abs(nowMs - Date.now())).toBeLessThan(60_000);
  });

  it('refuses another press under the same id, and does not change the session', async () => {
    const more = act('more', Date.now());
    await owner.post(clock(), more);
    expect((await owner.post(clock(), { ...more, kind: 'end' })).status).toBe(409);
    const { version } = (await owner.get(`/sessions/${own.session.id}`)).body as Session;
    expect(version).toBe(1);
  });

  it('puts no press into the future, whatever the phone’s clock says', async () => {
    const ahead = act('resume', Date.now() + 600_000);
    await owner.post(clock(), ahead);
    const { acts, nowMs } = (await owner.post(clock(), ahead)).body as SessionClock;
    expect(acts.filter(({ id }) => id === ahead.id)).toHaveLength(1);
    expect(acts.find(({ id }) => id === ahead.id)!.atMs).toBeLessThanOrEqual(nowMs);
  });

  it('lets an assistant press it, and ends at so many presses with a word', async () => {
    const assistant = await coachIn(stage, 'assistant', owner.clubId);
    const { acts } = (await owner.get(clock())).body as SessionClock;
    for (let i = acts.length; i < 200; i += 1) {
      expect((await assistant.post(clock(), act('more', Date.now()))).status).toBe(200);
    }
    const refused = await assistant.post(clock(), act('end', Date.now()));
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain('too often');
  });
});

describe('groups of a session', () => {
  it('must be as many as its stations at most, nobody in two, nobody without a station', async () => {
    const { id } = own.athlete;
    const put = (groups: object[]) =>
      owner.put(`/sessions/${own.session.id}`, grouped(groups, [id]));
    const named = (name: string, athleteIds: string[]) => ({ name, athleteIds });
    for (const [groups, why] of [
      [[named('Gulls', [id]), named('Terns', [id])], 'two groups'],
      [[named('Gulls', [id]), named('Terns', []), named('Knots', [])], 'more groups than stations'],
      [[named('Gulls', [uuid()])], 'none of its stations'],
      [[named('', [id])], 'name'],
    ] as const) {
      const refused = await put([...groups]);
      expect(refused.status).toBe(422);
      expect(JSON.stringify(refused.body)).toContain(why);
    }
    const stored = await put([named('Gulls', [id])]);
    expect(stored.status).toBe(200);
    const session = (await owner.get(`/sessions/${own.session.id}`)).body as Session;
    expect(session.circuit).toEqual({ minutes: 8, changeS: 60, groups: [named('Gulls', [id])] });
    expect(session.drillSets.map(({ station, coach }) => [station, coach])).toEqual([
      [true, 'Runa'],
      [true, 'Runa'],
    ]);
  });

  it('go into the club’s file', async () => {
    const { text } = await owner.get('/archive');
    const file = JSON.parse(text) as { sessions: Session[] };
    expect(file.sessions.find(({ id }) => id === own.session.id)?.circuit?.minutes).toBe(8);
  });

  it('lose whoever is deleted', async () => {
    const deleted = await owner.remove(`/athletes/${own.athlete.id}`);
    expect(deleted.status).toBeLessThan(300);
    const session = (await owner.get(`/sessions/${own.session.id}`)).body as Session;
    expect(session.circuit?.groups).toEqual([{ name: 'Gulls', athleteIds: [] }]);
  });
});
