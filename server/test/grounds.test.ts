import { keptVariants } from '@gravek/core/session/variants';
import type { Ground, GroundInput } from '@gravek/contract/ground';
import type { Problem } from '@gravek/contract/problem';
import type { RunBundle } from '@gravek/contract/run';
import type { Session } from '@gravek/contract/session';
import { movementOf } from '@gravek/library/movement/movements';
import { takenFrom } from '@gravek/library/planning/onGround';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { fieldBase, fieldRun } from '@gravek/library/session/fieldRun';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import {
  aGround,
  anApproach,
  anAthlete,
  aSession,
  type Coach,
  coachIn,
  openStage,
  type Stage,
} from './setup';

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const added = async (change: Partial<GroundInput> = {}): Promise<GroundInput> => {
  const ground = aGround(change);
  await coach.post('/grounds', ground).expect(200);
  return ground;
};

/** Two keepers on one plan and in one session. */
const keepersOn = async (plan: GroundInput | null, groundId: string | null) => {
  const people = [anAthlete(), anAthlete({ hand: 'left' })];
  for (const person of people) await coach.post('/athletes', person).expect(200);
  const ids = people.map((other) => other.id);
  const approach = anApproach(ids, {
    movement: 'goal-arc',
    choices: { ...sequenceStart(), ground: plan && takenFrom(plan) },
  });
  await coach.post('/approaches', approach).expect(200);
  const session = { ...aSession(approach.id, ids), groundId };
  await coach.post('/sessions', session).expect(200);
  return session;
};

const runOf = async ({ id }: { id: string }): Promise<RunBundle> =>
  (await coach.get(`/sessions/${id}/run`).expect(200)).body as RunBundle;

/** How long each needs, as the phone has it. */
const secondsOf = ({ plans, athletes, session }: RunBundle): number[] => {
  const [plan] = plans;
  const [variant] = keptVariants(session.drillSets[0]!);
  return athletes.map(
    (athlete) =>
      fieldRun(plan!, fieldBase(plan!, movementOf), variant!, athlete).outline!.totalTimeS,
  );
};

it('are added, changed by version and put away', async () => {
  const own = await added();
  const { id, ...fields } = own;
  const body = { ...fields, lanes: 4, laneM: null, version: 1 };
  const saved = (await coach.put(`/grounds/${id}`, body).expect(200)).body as Ground;
  expect(saved).toMatchObject({ version: 2, lanes: 4, laneM: null, marks: own.marks });
  // the answer was lost: the same write again finds its own result
  expect((await coach.put(`/grounds/${id}`, body).expect(200)).body).toEqual(saved);
  const late = await coach.put(`/grounds/${id}`, { ...body, lanes: 5 }).expect(409);
  expect((late.body as Problem).current).toEqual(saved);
  await coach.put(`/grounds/${id}/away`, { away: true }).expect(200);
  const { items } = (await coach.get('/grounds')).body as { items: Ground[] };
  expect(items.find((ground) => ground.id === id)!.archived).toBe(true);
  const assistant = await coachIn(stage, 'assistant', coach.clubId);
  await assistant.post('/grounds', aGround()).expect(403);
});

it.each<[string, object, string]>([
  ['no name', { name: '  ' }, 'name'],
  ['no lane at all', { lanes: 0 }, 'lanes'],
  ['a goal of a kilometre', { goalM: 1000 }, 'goalM'],
  [
    'a slot that ends before it begins',
    { slots: [{ day: 'Monday', from: '19:00', to: '18:00' }] },
    'slots[0].to',
  ],
  [
    'a time that no clock shows',
    { slots: [{ day: 'Monday', from: '25:00', to: '26:00' }] },
    'slots[0].from',
  ],
  ['a mark without a name', { marks: [{ name: '', of: 'goal', fromM: 3 }] }, 'marks[0].name'],
])('refuses %s', async (_what, change, field) => {
  const refused = await coach.post('/grounds', { ...aGround(), ...change }).expect(422);
  expect(Object.keys((refused.body as Problem).fields!)).toContain(field);
});

it('of a session decides where the feet go, and stays what the plan was solved for otherwise', async () => {
  const small = await added();
  const wide = await added({ goalM: 6 });
  const here = secondsOf(await runOf(await keepersOn(small, small.id)));
  const planned = secondsOf(await runOf(await keepersOn(small, null)));
  expect(planned).toEqual(here);
  const there = await runOf(await keepersOn(small, wide.id));
  // Round a goal of twice the width the way is longer for each.
  secondsOf(there).forEach((seconds, i) => expect(seconds).toBeGreaterThan(here[i]! + 0.5));
  expect(there.plans[0]!.cautions.join()).toContain('Hall floor');
  // What was solved with the plan holds nothing here.
  expect(there.plans[0]!.outlines).toEqual([]);
});

it('changes what the field screen of its sessions shows, and no plan', async () => {
  const ground = await added();
  const session = await keepersOn(ground, ground.id);
  const before = await runOf(session);
  const { id, ...fields } = ground;
  await coach.put(`/grounds/${id}`, { ...fields, goalM: 6, version: 1 }).expect(200);
  const after = await runOf(session);
  expect(after.stamp).not.toBe(before.stamp);
  expect(secondsOf(after)[0]).toBeGreaterThan(secondsOf(before)[0]!);
  const { work } = session.drillSets[0]!;
  const approachId = work.kind === 'plan' ? work.approachId : '';
  const plan = (await coach.get(`/approaches/${approachId}`)).body as {
    choices: { ground: { goalM: number } };
  };
  expect(plan.choices.ground.goalM).toBe(3);
});

it('must be there when a session goes to it', async () => {
  const session = await keepersOn(null, null);
  const refused = await coach
    .post('/sessions', { ...session, id: uuid(), groundId: uuid() })
    .expect(422);
  expect((refused.body as Problem).fields!.groundId).toContain('not there any more');
  const ground = await added();
  const { id, ...fields } = session;
  const moved = await coach
    .put(`/sessions/${id}`, { ...fields, groundId: ground.id, version: 1 })
    .expect(200);
  expect((moved.body as Session).groundId).toBe(ground.id);
  await coach.put(`/sessions/${id}`, { ...fields, groundId: uuid(), version: 2 }).expect(422);
});

it('may be left out, as everybody did before there were grounds, also when the request is sent twice', async () => {
  const { groundId: _none, ...before } = await keepersOn(null, null);
  const body = {
    ...before,
    id: uuid(),
    drillSets: before.drillSets.map((set) => ({ ...set, id: uuid() })),
  };
  for (let i = 0; i < 2; i += 1) {
    const made = await coach.post('/sessions', body).expect(200);
    expect((made.body as Session).groundId).toBeNull();
  }
});
