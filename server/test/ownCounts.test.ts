import type { OwnCount, OwnCounted, OwnLink, OwnView } from '@gravek/contract/ownView';
import type { Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  anApproach,
  anAthlete,
  aSession,
  coachIn,
  openStage,
  stranger,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let coach: Coach;
const today = new Date().toISOString().slice(0, 10);
const grown = anAthlete({ birthYear: 1995 });
const child = anAthlete({ name: 'Tilde Oakholt', birthYear: new Date().getUTCFullYear() - 11 });
let session: Session;

const send = (path: string, body: object) =>
  stranger(stage).agent.post(`/api${path}`).set('origin', stage.origin).send(body);
const linkFor = async (athleteId: string): Promise<string> =>
  (
    (await coach.post(`/athletes/${athleteId}/own-link`, { days: 30, guardian: true }).expect(200))
      .body as OwnLink
  ).token;
const viewOf = async (token: string): Promise<OwnView> =>
  (await send('/own', { token }).expect(200)).body as OwnView;
const aTry = (change: Partial<OwnCount> = {}): OwnCount => ({
  ...{ id: uuid(), sessionId: session.id, drillSetId: session.drillSets[0]!.id },
  ...{ side: 'own', variant: '', made: true, heldS: null, voids: null },
  at: new Date().toISOString(),
  ...change,
});

beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
  for (const person of [grown, child]) await coach.post('/athletes', person).expect(200);
  const plan = anApproach([grown.id, child.id]);
  await coach.post('/approaches', plan).expect(200);
  const planned = aSession(plan.id, [grown.id, child.id]);
  const drillSets = planned.drillSets.map((set) => ({
    ...{ ...set, target: 'makes' as const, amount: 5, reps: 8 },
  }));
  session = (await coach.post('/sessions', { ...planned, date: today, drillSets }).expect(200))
    .body as Session;
});
afterAll(() => stage.close());

describe('a list worked off alone', () => {
  it('is on the own page in the order of the coach, with fewer tries for the young', async () => {
    const view = await viewOf(await linkFor(grown.id));
    expect(view.lists).toHaveLength(session.drillSets.length);
    expect(view.lists[0]).toMatchObject({
      ...{ drillSetId: session.drillSets[0]!.id, date: today, counts: 'makes' },
      rules: { makes: 5, tries: 8 },
    });
    expect(view.lists[0]!.items[0]!.outline!.steps).toBeGreaterThan(3);
    const young = await viewOf(await linkFor(child.id));
    expect(young.lists[0]!.rules).toMatchObject({ makes: 2, tries: 4 });
  });

  it('keeps each try once, whatever is sent again, and takes one back', async () => {
    const token = await linkFor(grown.id);
    const tries = [aTry(), aTry({ made: false }), aTry()];
    const undo = aTry({ made: null, voids: tries[2]!.id });
    await send('/own/counts', { token, counts: tries }).expect(200, { refused: [] });
    // The answer was lost; meanwhile one was taken back.
    await send('/own/counts', { token, counts: [...tries, undo] }).expect(200, { refused: [] });
    const { counts } = await viewOf(token);
    expect(counts.map(({ id }) => id).sort()).toEqual([...tries, undo].map(({ id }) => id).sort());
    const seen = (await coach.get(`/athletes/${grown.id}/own-counts`).expect(200)).body as {
      items: OwnCounted[];
    };
    expect(seen.items).toMatchObject([{ date: today, made: 1, tried: 2, bestHeldS: null }]);
  });

  it('refuses by itself what is of no list, and keeps the rest', async () => {
    const token = await linkFor(child.id);
    const [good, bad] = [aTry({ made: false }), aTry({ drillSetId: uuid() })];
    await send('/own/counts', { token, counts: [bad, good] }).expect(200, { refused: [bad.id] });
    expect((await viewOf(token)).counts.map(({ id }) => id)).toEqual([good.id]);
    await send('/own/counts', { token, counts: [] }).expect(422);
    await send('/own/counts', { token, counts: [aTry({ heldS: -1 })] }).expect(422);
    await send('/own/counts', { token: 'x'.repeat(43), counts: [aTry()] }).expect(404);
  });

  it('is of the athlete of the link, and never of what a coach has seen', async () => {
    const [one, other] = [await linkFor(grown.id), await linkFor(child.id)];
    const mine = aTry();
    await send('/own/counts', { token: one, counts: [mine] }).expect(200);
    // Somebody else's try is not taken back, nor taken over.
    const undo = aTry({ voids: mine.id, made: null });
    await send('/own/counts', { token: other, counts: [undo, mine] }).expect(200);
    expect((await viewOf(other)).counts.map(({ id }) => id)).not.toContain(mine.id);
    const { items } = (await coach.get(`/athletes/${grown.id}/own-counts`)).body as {
      items: OwnCounted[];
    };
    expect(items).toMatchObject([{ made: 2, tried: 3 }]);
    expect((await coach.get(`/sessions/${session.id}`)).body).toMatchObject({ logged: 0 });
    const history = await coach.get(`/sessions/history?day=${today}`);
    expect(history.body).toMatchObject({ makes: [] });
  });

  it('ends with the link, and keeps what a phone says it did in the future at now', async () => {
    const token = await linkFor(grown.id);
    const ahead = aTry({ at: new Date(Date.now() + 600_000).toISOString() });
    await send('/own/counts', { token, counts: [ahead] }).expect(200);
    const kept = (await viewOf(token)).counts.find(({ id }) => id === ahead.id)!;
    expect(Date.parse(kept.at)).toBeLessThanOrEqual(Date.now());
    await coach.remove(`/athletes/${grown.id}/own-link`).expect(204);
    await send('/own/counts', { token, counts: [aTry()] }).expect(404);
  });
});
