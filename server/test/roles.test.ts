import { afterAll, beforeAll, expect, it } from 'vitest';
import { ROUTES } from '../src/routes';
import {
  aRep,
  anAthlete,
  coachIn,
  furnish,
  invited,
  openStage,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let owner: Coach;
let coach: Coach;
let assistant: Coach;
let own: Awaited<ReturnType<typeof furnish>>;

beforeAll(async () => {
  stage = await openStage();
  owner = await coachIn(stage);
  coach = await coachIn(stage, 'coach', owner.clubId);
  assistant = await coachIn(stage, 'assistant', owner.clubId);
  own = await furnish(owner);
});
afterAll(() => stage.close());

it('lets an assistant log reps and see, not change plans, people or settings', async () => {
  await assistant.post('/reps', { reps: [aRep(own.session, { rep: 2 })] }).expect(200);
  await assistant.get(`/sessions/${own.session.id}/run`).expect(200);
  // Somebody has to press the clock where groups go round; an address for the own calendar is everybody's own.
  const open = ['/reps', '/sessions/:id/clock', '/calendar'];
  const writes = ROUTES.filter((route) => route.method !== 'get' && !open.includes(route.path));
  expect(writes.length).toBeGreaterThan(10);
  for (const { method, path } of writes) {
    const at = path.replace(/:\w+/g, own.athlete.id);
    const answer =
      method === 'post'
        ? await assistant.post(at)
        : method === 'put'
          ? await assistant.put(at, {})
          : await assistant.remove(at);
    expect(answer.status, `${method} ${path}`).toBe(403);
  }
});

it('keeps people and settings for the owner', async () => {
  await coach.post('/athletes', anAthlete()).expect(200);
  await coach.remove(`/athletes/${own.athlete.id}`).expect(403);
  await coach.put('/club', {}).expect(403);
  for (const path of ['/members', '/deeds', '/invitations']) {
    expect((await coach.get(path)).status, path).toBe(path === '/members' ? 200 : 403);
  }
  await coach.post('/invitations', {}).expect(403);
});

it('never leaves a club without an owner', async () => {
  const nils = await invited(stage, owner);
  expect((await nils.get('/me')).body.role).toBe('coach');
  const members = (await owner.get('/members')).body as { id: string; you: boolean }[];
  const self = members.find((member) => member.you)!;
  expect((await owner.put(`/members/${self.id}`, { role: 'coach' })).status).toBe(422);
  expect((await owner.remove(`/members/${self.id}`)).status).toBe(422);

  await owner.remove(`/members/${nils.memberId}`).expect(200);
  // An answer that was lost.
  await owner.remove(`/members/${nils.memberId}`).expect(200);
  expect((await nils.get('/me')).status).toBe(403);
});
