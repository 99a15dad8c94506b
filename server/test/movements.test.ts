import { keptVariants } from '@gravek/core/session/variants';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { Approach } from '@gravek/contract/plan';
import type { Problem } from '@gravek/contract/problem';
import type { RunBundle } from '@gravek/contract/run';
import { movementOf } from '@gravek/library/movement/movements';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { fieldBase, fieldRun } from '@gravek/library/session/fieldRun';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  aMovement,
  anApproach,
  anAthlete,
  aRep,
  aRuleSet,
  aSession,
  type Coach,
  coachIn,
  contentsOf,
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

describe('movements of the club', () => {
  it('keeps a copy beside the built-in one, and changes it by version', async () => {
    const own = aMovement();
    const made = (await coach.post('/movements', own).expect(200)).body as ClubMovement;
    expect(made.movement.code).toBe(own.id);
    expect(made.basedOn).toEqual({
      code: 'give-ground',
      revision: movementOf('give-ground').revision,
    });
    expect((await coach.post('/movements', own).expect(200)).body).toEqual(made);

    const changed = { ...made.movement, name: 'Our mirror' };
    const body = { basedOn: made.basedOn, movement: changed, version: 1 };
    const saved = (await coach.put(`/movements/${own.id}`, body).expect(200)).body as ClubMovement;
    expect(saved).toMatchObject({ version: 2, movement: { name: 'Our mirror' } });
    // the answer was lost: the same write again finds its own result
    expect((await coach.put(`/movements/${own.id}`, body).expect(200)).body).toEqual(saved);
    const late = { ...body, movement: { ...changed, name: 'Another' } };
    const refused = await coach.put(`/movements/${own.id}`, late).expect(409);
    expect((refused.body as Problem).current).toEqual(saved);

    await coach.put(`/movements/${own.id}/away`, { away: true }).expect(200);
    const list = (await coach.get('/movements')).body as { items: ClubMovement[] };
    expect(list.items.find((movement) => movement.id === own.id)!.archived).toBe(true);
  });

  it.each<[string, (movement: ReturnType<typeof aMovement>['movement']) => void, string, RegExp]>([
    [
      'a circle of causes',
      (one) => one.faults.find((fault) => fault.code === 'wrong-side')!.leadsTo.push('eyes-high'),
      'leadsTo',
      /circle: .*Watches head or ball/,
    ],
    [
      'a phase that is never reached',
      (one) => {
        one.phases.find((phase) => phase.code === 'give')!.read!.options.pop();
      },
      'phases[9].name',
      /Sit in front is never reached/,
    ],
    [
      'an impossible length',
      (one) => {
        Object.assign(one.phases[1]!.steps, { step: { value: 9, of: 'leg' } });
      },
      'phases[1].steps.step.value',
      /9 × leg cannot be/,
    ],
    [
      'a read without exits',
      (one) => {
        one.phases.find((phase) => phase.code === 'give')!.read!.options = [];
      },
      'phases[2].read',
      /read without exits/,
    ],
    [
      'a kind of step that is none',
      (one) => {
        Object.assign(one.phases[1]!, { steps: { kind: 'toString' } });
      },
      'phases[1].steps.kind',
      /Choose a kind of step/,
    ],
  ])('refuses %s at the spot, with nothing changed', async (_what, spoil, path, why) => {
    const own = structuredClone(aMovement());
    spoil(own.movement);
    const before = await contentsOf(stage, coach.clubId);
    const { fields } = (await coach.post('/movements', own).expect(422)).body as Problem;
    const found = Object.entries(fields!).find(([key]) => key.includes(path));
    expect(found, JSON.stringify(fields)).toBeDefined();
    expect(found![1]).toMatch(why);
    expect(await contentsOf(stage, coach.clubId)).toBe(before);
  });

  it('lets an assistant look and not change', async () => {
    const assistant = await coachIn(stage, 'assistant', coach.clubId);
    await assistant.get('/movements').expect(200);
    await assistant.post('/movements', aMovement()).expect(403);
    await assistant.post('/rule-sets', aRuleSet()).expect(403);
  });
});

describe('plans of any movement', () => {
  const plan = (athleteIds: string[], movement: string, change = {}) =>
    anApproach(athleteIds, {
      name: 'Mirror',
      movement,
      choices: { ...sequenceStart(), ...change },
    });

  it('lays it out for each athlete, the left-hander in the mirror, and stores what came out', async () => {
    const right = anAthlete({ name: 'Right' });
    const left = anAthlete({ name: 'Left', hand: 'left' });
    for (const one of [right, left]) await coach.post('/athletes', one).expect(200);
    const body = plan([right.id, left.id], 'stutter-read-go', { reads: { fake: 'inside' } });
    const made = (await coach.post('/approaches', body).expect(200)).body as Approach;
    const [layout, two] = made.solved.map((it) => it.layout);
    expect(made.solved[0]!.straight).toBeNull();
    expect(layout!.mirrored).toBe(false);
    expect(two!.mirrored).toBe(true);
    expect(layout!.phases.map((phase) => phase.code)).toContain('away-left');
    const [last, mirrored] = [layout!.footfalls.at(-1)!, two!.footfalls.at(-1)!];
    expect(mirrored.besideM).toBeCloseTo(-last.besideM, 9);
    expect(mirrored.foot).not.toBe(last.foot);
  });

  it('flows into a session, its run and its fault counts, for a movement of the club too', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const own = aMovement();
    await coach.post('/movements', own).expect(200);
    const body = plan([athlete.id], own.id);
    await coach.post('/approaches', body).expect(200);
    const session = aSession(body.id, [athlete.id]);
    await coach.post('/sessions', session).expect(200);
    await coach
      .post('/reps', {
        reps: [aRep(session, { movement: own.id, outcome: 'fault', faults: ['stands-up'] })],
      })
      .expect(200);
    const bundle = (await coach.get(`/sessions/${session.id}/run`)).body as RunBundle;
    expect(bundle.movements.find((movement) => movement.code === own.id)!.name).toBe(
      own.movement.name,
    );
    expect((await coach.get(`/faults?movement=${own.id}`)).body).toMatchObject({
      movement: own.id,
      items: [{ athleteId: athlete.id, reps: 1, faults: [{ code: 'stands-up', seen: 1 }] }],
    });
  });

  it('refuses a movement that is not there, and a run-up for one that has none', async () => {
    const missing = await coach.post('/approaches', plan([], uuid())).expect(422);
    expect((missing.body as Problem).fields!.movement).toContain('not there');
    const bare = await coach
      .post('/approaches', anApproach([], { movement: 'give-ground' }))
      .expect(422);
    expect((bare.body as Problem).fields!.movement).toContain('no run-up');
    await coach.post('/approaches', anApproach([], { movement: 'close-and-shorten' })).expect(200);
  });

  it('plans a chain as any movement, and knows none that cannot be joined', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const body = plan([athlete.id], 'jab-cross--floater');
    const made = (await coach.post('/approaches', body).expect(200)).body as Approach;
    expect(made.solved[0]!.layout!.phases.map((phase) => phase.code)).toContain('jc-cross');
    await coach.post('/approaches', plan([], 'jab-cross--jab-rise--floater')).expect(422);
  });

  it('sends call, caution and faults of the way it is taught to the field', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const body = plan([athlete.id], 'close-and-shorten', {
      drill: 'pad-and-belt',
      rung: 'object',
      schools: { end: 'balance' },
    });
    await coach.post('/approaches', body).expect(200);
    const session = aSession(body.id, [athlete.id]);
    await coach.post('/sessions', session).expect(200);
    const bundle = (await coach.get(`/sessions/${session.id}/run`)).body as RunBundle;
    expect(bundle.plans[0]).toMatchObject({
      choices: { drill: 'pad-and-belt', schools: { end: 'balance' } },
      cautions: ['Chest to the pad; head to the side of it.'],
    });
  });

  it('runs the way in slower in one set than in the next, short steps alike, as sprint or not', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const body = plan([athlete.id], 'close-and-shorten', { drill: 'clap-to-short' });
    await coach.post('/approaches', body).expect(200);
    const session = aSession(body.id, [athlete.id]);
    const [set] = session.drillSets;
    const at = (pace: number): DrillSet => ({
      ...set!,
      id: uuid(),
      vary: { ...set!.vary, paces: [pace] },
    });
    session.drillSets.push(at(0.25));
    await coach.post('/sessions', session).expect(200);
    const bundle = (await coach.get(`/sessions/${session.id}/run`)).body as RunBundle;
    const [full, quarter] = bundle.plans.map((plan, i) => {
      const [variant] = keptVariants(session.drillSets[i]!);
      return {
        run: fieldRun(plan, fieldBase(plan, movementOf), variant!, bundle.athletes[0]!).outline!,
      };
    });
    expect(full!.run).toEqual(bundle.plans[0]!.outlines[0]!.own);
    expect(quarter!.run.totalTimeS).toBeGreaterThan(full!.run.totalTimeS);
    expect(quarter!.run.contacts).toHaveLength(full!.run.contacts.length);
    const lastTwo = (run: typeof full) =>
      run!.run.contacts.at(-1)!.timeS - run!.run.contacts.at(-2)!.timeS;
    expect(lastTwo(quarter)).toBeCloseTo(lastTwo(full), 6);

    await coach
      .post('/sessions', {
        ...session,
        id: uuid(),
        drillSets: [at(0.3)],
      })
      .expect(422);
    await coach
      .post(`/athletes/${athlete.id}/restrictions`, {
        id: uuid(),
        athleteId: athlete.id,
        kind: 'no-sprinting',
        from: '2031-01-01',
        until: '2031-12-31',
        note: '',
      })
      .expect(200);
    const run = (pace: number) => ({ ...session, id: uuid(), drillSets: [at(pace)] });
    await coach.post('/sessions', run(1)).expect(422);
    await coach.post('/sessions', run(0.5)).expect(200);
  });

  it('reckons a child by age and height', async () => {
    const birthYear = new Date().getFullYear() - 10;
    const grown = anAthlete({ heightM: 1.4, birthYear: null });
    const child = anAthlete({ heightM: 1.4, birthYear });
    for (const one of [grown, child]) await coach.post('/athletes', one).expect(200);
    const body = plan([grown.id, child.id], 'first-two-steps');
    const made = (await coach.post('/approaches', body).expect(200)).body as Approach;
    const last = (id: string) =>
      made.solved.find((approach) => approach.athleteId === id)!.layout!.footfalls.at(-1)!.aheadM;
    expect(last(child.id) / last(grown.id)).toBeCloseTo(0.92, 2);
  });

  it('keeps restricted athletes out and says why', async () => {
    const athlete = anAthlete({ name: 'Mina Roe' });
    await coach.post('/athletes', athlete).expect(200);
    await coach
      .post(`/athletes/${athlete.id}/restrictions`, {
        id: uuid(),
        athleteId: athlete.id,
        kind: 'no-contact',
        from: '2031-05-01',
        until: '2031-06-01',
        note: '',
      })
      .expect(200);
    const air = plan([], 'close-and-shorten');
    await coach.post('/approaches', air).expect(200);
    await coach.post('/sessions', aSession(air.id, [athlete.id])).expect(200);
    const body = plan([], 'close-and-shorten', { rung: 'opponent' });
    await coach.post('/approaches', body).expect(200);
    const refused = await coach.post('/sessions', aSession(body.id, [athlete.id])).expect(422);
    expect((refused.body as Problem).fields!['drillSets[0].athleteIds']).toBe(
      'Mina Roe may not have contact, and this meets a pad or a partner; until 2031-06-01.',
    );
  });
});

describe('rule sets of the club', () => {
  it('are added, changed by version and put away', async () => {
    const own = aRuleSet();
    await coach.post('/rule-sets', own).expect(200);
    const { id, ...fields } = own;
    const body = { ...fields, rules: [{ kind: 'take-off-feet', feet: 2 }], version: 1 };
    const saved = await coach.put(`/rule-sets/${id}`, body).expect(200);
    expect(saved.body).toMatchObject({ version: 2, rules: [{ kind: 'take-off-feet', feet: 2 }] });
    await coach.put(`/rule-sets/${id}`, { ...body, name: 'Late' }).expect(409);
    const bad = { ...own, id: uuid(), rules: [{ kind: 'take-off-feet', feet: 3 }] };
    const refused = await coach.post('/rule-sets', bad).expect(422);
    expect((refused.body as Problem).fields!['rules[0].feet']).toBeDefined();
    await coach.put(`/rule-sets/${id}/away`, { away: true }).expect(200);
  });
});
