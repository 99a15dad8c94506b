import type { Athlete } from '@gravek/contract/athlete';
import type { Approach, ApproachSummary } from '@gravek/contract/plan';
import type { RunBundle } from '@gravek/contract/run';
import type { Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  aGround,
  aMovement,
  anApproach,
  anAthlete,
  aRep,
  aRuleSet,
  aSession,
  type Coach,
  coachIn,
  furnish,
  openStage,
  type Stage,
} from './setup';

/** Plans and sessions, whose they are, and what two who write at once do to them. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const planOf = async (id: string): Promise<Approach> =>
  (await coach.get(`/approaches/${id}`).expect(200)).body as Approach;
const people = async (count: number): Promise<string[]> => {
  const ids: string[] = [];
  for (let i = 0; i < count; i += 1) {
    const one = anAthlete({ name: `Runner ${i}` });
    await coach.post('/athletes', one).expect(200);
    ids.push(one.id);
  }
  return ids;
};

describe('the athletes of a plan', () => {
  it('are those it was made for: a session has it solved for guests, and adds none', async () => {
    const own = await furnish(coach);
    const [guest] = await people(1);
    const session = aSession(own.approach.id, [guest!, own.athlete.id]);
    await coach.post('/sessions', session).expect(200);
    const plan = await planOf(own.approach.id);
    expect(plan.athleteIds).toEqual([own.athlete.id]);
    expect(plan.solved.map((approach) => approach.athleteId).sort()).toEqual(
      [own.athlete.id, guest].sort(),
    );
    const list = (await coach.get('/approaches')).body.items as ApproachSummary[];
    expect(list.find((approach) => approach.id === plan.id)!.athleteIds).toEqual([own.athlete.id]);
    // A save whose answer was lost, sent again after the session: it is the same save.
    const { id, ...fields } = own.approach;
    const change = { ...fields, name: 'Renamed', version: 1 };
    await coach.put(`/approaches/${id}`, change).expect(200);
    await coach
      .post('/sessions', aSession(id, [(await people(1))[0]!, own.athlete.id]))
      .expect(200);
    await coach.put(`/approaches/${id}`, change).expect(200);
  });

  it('can be taken off it while a session goes on running it, and put back in their order', async () => {
    const ids = await people(3);
    const plan = anApproach(ids);
    await coach.post('/approaches', plan).expect(200);
    const session = aSession(plan.id, ids);
    await coach.post('/sessions', session).expect(200);
    const { id, ...fields } = plan;
    await coach
      .put(`/approaches/${id}`, { ...fields, athleteIds: [ids[2]], version: 1 })
      .expect(200);
    expect((await planOf(id)).athleteIds).toEqual([ids[2]]);
    const bundle = (await coach.get(`/sessions/${session.id}/run`)).body as RunBundle;
    expect(bundle.plans[0]!.outlines.map((outline) => outline.athleteId).sort()).toEqual(
      [...ids].sort(),
    );
    const turned = [...ids].reverse();
    await coach.put(`/approaches/${id}`, { ...fields, athleteIds: turned, version: 2 }).expect(200);
    expect((await planOf(id)).athleteIds).toEqual(turned);
  });

  it('stay sixty at most, however many sessions run it, so that it can be saved again', async () => {
    const ids = await people(61);
    const plan = anApproach(ids.slice(0, 60));
    await coach.post('/approaches', plan).expect(200);
    await coach.post('/sessions', aSession(plan.id, [ids[60]!])).expect(200);
    const { athleteIds, version } = await planOf(plan.id);
    expect(athleteIds).toHaveLength(60);
    const { id, ...fields } = plan;
    await coach.put(`/approaches/${id}`, { ...fields, athleteIds, version }).expect(200);
  });

  it('are told on their own page with what it comes to for them', async () => {
    const own = await furnish(coach);
    const far = anApproach([own.athlete.id], { name: 'Too far' });
    Object.assign(far.choices, { distanceM: 60 });
    await coach.post('/approaches', far).expect(200);
    const plans = (await coach.get(`/athletes/${own.athlete.id}/approaches`)).body.items;
    expect(plans).toMatchObject([
      { name: 'Too far', modelSource: 'estimate', outline: null },
      { name: own.approach.name, outline: { steps: 12 } },
    ]);
    const summary = ((await coach.get('/approaches')).body.items as ApproachSummary[]).find(
      (approach) => approach.id === far.id,
    );
    expect(summary).toMatchObject({ misfits: [own.athlete.id], startM: null, runS: null });
  });
});

describe('the list of approaches', () => {
  it('holds no solved steps, and comes in pages without loss or repeat', async () => {
    const many = await coachIn(stage);
    const athlete = anAthlete();
    await many.post('/athletes', athlete).expect(200);
    for (let i = 0; i < 103; i += 1) {
      await many.post('/approaches', anApproach([athlete.id], { name: `Plan ${i}` })).expect(200);
    }
    const first = (await many.get('/approaches')).body;
    expect(JSON.stringify(first.items[0]).length).toBeLessThan(900);
    const rest = (await many.get(`/approaches?after=${first.next as string}`)).body;
    const ids = [...first.items, ...rest.items].map((approach: ApproachSummary) => approach.id);
    expect([first.items.length, ids.length, new Set(ids).size]).toEqual([100, 103, 103]);
    expect(rest.next).toBeNull();
    const cursor = (value: object): string =>
      Buffer.from(JSON.stringify(value)).toString('base64url');
    const id = uuid();
    for (const odd of [{ id: 1 }, { id }, { id, savedAt: 'soon' }, { id, savedAt: '2031-13-40' }]) {
      expect((await many.get(`/approaches?after=${cursor(odd)}`)).status).toBe(422);
    }
    expect((await many.get(`/athletes/${athlete.id}/ledger/${'%00'}`)).status).toBe(404);
  });
});

describe('a session', () => {
  it('that has lost its athletes can still be changed, but none is made without', async () => {
    const own = await furnish(coach);
    await coach.remove(`/athletes/${own.athlete.id}`).expect(204);
    const session = (await coach.get(`/sessions/${own.session.id}`)).body as Session;
    expect(session.drillSets[0]!.athleteIds).toEqual([]);
    const { id, logged: _logged, archived: _archived, ...fields } = session;
    await coach.put(`/sessions/${id}`, { ...fields, title: 'Without her' }).expect(200);
    const [other] = await people(1);
    const filled = fields.drillSets.map((set) => ({ ...set, athleteIds: [other] }));
    await coach.put(`/sessions/${id}`, { ...fields, drillSets: filled, version: 2 }).expect(200);
    const emptied = await coach.put(`/sessions/${id}`, { ...fields, version: 3 });
    expect(emptied.body.fields).toHaveProperty(['drillSets[0].athleteIds']);
  });

  it('leaves the drill sets of another session alone, whatever ids it is sent', async () => {
    const one = await furnish(coach);
    const two = await furnish(coach);
    const taken = {
      ...aSession(two.approach.id, [two.athlete.id]),
      drillSets: one.session.drillSets.map((set) => ({
        ...set,
        work: { kind: 'plan' as const, approachId: two.approach.id },
        athleteIds: [two.athlete.id],
      })),
    };
    const refused = await coach.post('/sessions', taken);
    expect(refused.status).toBe(422);
    expect(refused.body.fields['drillSets[0].id']).toContain('another session');
    const twice = aSession(two.approach.id, [two.athlete.id]);
    twice.drillSets.push(twice.drillSets[0]!);
    expect((await coach.post('/sessions', twice)).body.fields['drillSets[1].id']).toContain(
      'twice',
    );
    expect((await coach.get(`/sessions/${one.session.id}`)).body.drillSets).toEqual(
      one.session.drillSets,
    );
  });

  it('is listed for some weeks at a time', async () => {
    expect((await coach.get('/sessions?from=2031-01-01&to=2031-03-31')).status).toBe(200);
    for (const query of [
      '?from=2031-01-01&to=2031-12-31',
      '?from=2031-02-31&to=2031-03-02',
      '?from=0000-01-01&to=0000-01-02',
      '?from=2031-03-02&to=2031-03-01',
      '',
    ]) {
      expect((await coach.get(`/sessions${query}`)).status, query).toBe(422);
    }
  });
});

describe('made again under the same id', () => {
  const made = async (): Promise<Record<string, { path: string; body: object; other: object }>> => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const approach = anApproach([athlete.id]);
    await coach.post('/approaches', approach).expect(200);
    const session = aSession(approach.id, [athlete.id]);
    const movement = aMovement();
    const rules = aRuleSet();
    const ground = aGround();
    const at = `/athletes/${athlete.id}`;
    const common = { athleteId: athlete.id, takenOn: '2031-05-01', source: 'device', note: '' };
    const steps = Array.from({ length: 6 }, (_, i) => ({ lengthM: 1.2 + i / 10, intervalS: 0.26 }));
    const trial = { id: uuid(), ...common, steps };
    const reading = { id: uuid(), ...common, reading: { kind: 'reaction', timesS: [0.3] } };
    const held = {
      id: uuid(),
      athleteId: athlete.id,
      kind: 'reduced',
      from: '2031-05-01',
      until: '2031-05-09',
      note: '',
    };
    const member = {
      id: uuid(),
      person: 'New Helper',
      email: `${uuid()}@club.invalid`,
      role: 'assistant',
    };
    return {
      'an athlete': { path: '/athletes', body: athlete, other: { ...athlete, name: 'Else' } },
      'an approach': { path: '/approaches', body: approach, other: { ...approach, name: 'Else' } },
      'a session': { path: '/sessions', body: session, other: { ...session, title: 'Else' } },
      'a movement': {
        path: '/movements',
        body: movement,
        other: { ...movement, movement: { ...movement.movement, name: 'Else' } },
      },
      'a rule set': { path: '/rule-sets', body: rules, other: { ...rules, name: 'Else' } },
      'a ground': { path: '/grounds', body: ground, other: { ...ground, lanes: 5 } },
      'a measured run': {
        path: `${at}/trials`,
        body: trial,
        other: { ...trial, steps: [...steps].reverse() },
      },
      'a test': {
        path: `${at}/readings`,
        body: reading,
        other: { ...reading, reading: { kind: 'reaction', timesS: [0.4] } },
      },
      'a restriction': {
        path: `${at}/restrictions`,
        body: held,
        other: { ...held, until: '2031-06-01' },
      },
      'an invitation': { path: '/invitations', body: member, other: { ...member, role: 'owner' } },
    };
  };

  it('is the same thing when it is the same, and told when it is another', async () => {
    for (const [what, { path, body, other }] of Object.entries(await made())) {
      await coach.post(path, body).expect(200);
      expect((await coach.post(path, body)).status, what).toBe(200);
      const answer = await coach.post(path, other);
      expect(answer.status, what).toBe(409);
      expect(answer.body.title, what).toContain('Nothing was overwritten');
      expect(answer.body.current, what).toBeTruthy();
    }
  });
});

describe('a conflict', () => {
  it('shows the row as it stands after it, so that “keep mine” holds', async () => {
    const own = await furnish(coach);
    const { id, ...fields } = own.session;
    for (let round = 1; round <= 5; round += 1) {
      const { version } = (await coach.get(`/sessions/${id}`)).body as Session;
      const answers = await Promise.all(
        ['a', 'b', 'c'].map((place) => coach.put(`/sessions/${id}`, { ...fields, place, version })),
      );
      const stands = (await coach.get(`/sessions/${id}`)).body as Session;
      for (const answer of answers.filter((answer) => answer.status === 409)) {
        const current = answer.body.current as Session;
        expect(current).toMatchObject({ version: version + 1, place: stands.place });
      }
      const lost = answers.find((answer) => answer.status === 409)!.body.current as Session;
      const kept = { ...fields, place: `kept ${round}`, version: lost.version };
      await coach.put(`/sessions/${id}`, kept).expect(200);
    }
  });
});

describe('everything held of an athlete', () => {
  it('is in the export, put away or not, with names and faults', async () => {
    const own = await furnish(coach);
    const at = `/athletes/${own.athlete.id}`;
    const trial = {
      id: uuid(),
      athleteId: own.athlete.id,
      takenOn: '2031-05-01',
      source: 'device',
      note: '',
      steps: Array.from({ length: 6 }, (_, i) => ({ lengthM: 1.2 + i / 10, intervalS: 0.26 })),
    };
    await coach.post(`${at}/trials`, trial).expect(200);
    await coach.put(`${at}/trials/${trial.id}/away`, { away: true }).expect(200);
    const { id: _id, ...held } = {
      id: '',
      athleteId: own.athlete.id,
      kind: 'reduced',
      from: '2031-05-01',
      until: '2031-05-09',
      note: 'sore',
    };
    const restriction = { id: uuid(), ...held };
    await coach.post(`${at}/restrictions`, restriction).expect(200);
    await coach.put(`${at}/restrictions/${restriction.id}/away`, { away: true }).expect(200);
    await coach
      .post('/reps', {
        reps: [aRep(own.session, { rep: 2, outcome: 'fault', faults: ['sits-low'] })],
      })
      .expect(200);
    await coach
      .post(`${at}/cues`, {
        id: uuid(),
        movement: 'straight-run-up',
        fault: 'reaches',
        drill: null,
        reason: 'seen from the side',
      })
      .expect(204);
    const all = (await coach.get(`${at}/export`)).body;
    expect(all).toMatchObject({
      athlete: { name: own.athlete.name } satisfies Partial<Athlete>,
      trials: [{ id: trial.id, takenOut: true }],
      restrictions: [{ id: restriction.id, note: 'sore', takenOut: true }],
      approaches: [{ name: own.approach.name }],
      sessions: [{ name: own.session.title, day: own.session.date }],
      reps: [{ faults: ['reaches'] }, { faults: ['sits-low'] }],
      counts: [{ faults: [{ fault: 'reaches' }] }, { faults: [{ fault: 'sits-low' }] }],
      cues: [{ fault: 'reaches', reason: 'seen from the side' }],
    });
  });
});
