import { bodyOf } from '@gravek/core/layout/body';
import { currentFigures } from '@gravek/core/measuring/measures';
import type { Athlete } from '@gravek/contract/athlete';
import type { AthleteFaults } from '@gravek/contract/faults';
import type { Approach } from '@gravek/contract/plan';
import type { RunBundle } from '@gravek/contract/run';
import type { RepReceipt, Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  anApproach,
  anAthlete,
  aRep,
  aSession,
  type Coach,
  coachIn,
  contentsOf,
  furnish,
  logOf,
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

const trial = (athleteId: string, lengths = [1.2, 1.48, 1.7, 1.85, 1.95, 2.04, 2.1, 2.14]) => ({
  id: uuid(),
  athleteId,
  takenOn: '2031-05-01',
  source: 'device',
  note: '',
  steps: lengths.map((lengthM, i) => ({ lengthM, intervalS: 0.29 - 0.006 * i })),
});

describe('athletes', () => {
  it('stores a retried creation once and a retried change once', async () => {
    const body = anAthlete();
    await coach.post('/athletes', body).expect(200);
    const again = await coach.post('/athletes', body).expect(200);
    expect(again.body).toMatchObject({ name: body.name, version: 1, trials: [] });
    const { id, ...fields } = body;
    const change = { ...fields, name: 'Ilse Marrow-Finch', version: 1 };
    const first = await coach.put(`/athletes/${id}`, change).expect(200);
    const second = await coach.put(`/athletes/${id}`, change).expect(200);
    expect(second.body).toEqual(first.body);
    expect(second.body.version).toBe(2);
  });

  it('tells the second of two who change the same athlete, and overwrites nothing', async () => {
    const { id, ...fields } = anAthlete();
    await coach.post('/athletes', { id, ...fields }).expect(200);
    await coach.put(`/athletes/${id}`, { ...fields, squad: 'Handball', version: 1 }).expect(200);
    const late = await coach.put(`/athletes/${id}`, { ...fields, squad: 'Cricket', version: 1 });
    expect(late.status).toBe(409);
    expect((late.body as { current: Athlete }).current).toMatchObject({
      squad: 'Handball',
      version: 2,
    });
    expect((await coach.get(`/athletes/${id}`)).body.squad).toBe('Handball');
  });

  it.each([
    [{ name: '' }, 'name'],
    [{ heightM: 17 }, 'heightM'],
    [{ shoeM: 26 }, 'shoeM'],
    [{ takeoffFoot: 'both' }, 'takeoffFoot'],
    [{ birthYear: 1066 }, 'birthYear'],
    [{ id: 'one' }, 'id'],
    [{ positions: ['wing', 'wing'] }, 'positions'],
  ])('refuses %o at its field', async (change, field) => {
    const answer = await coach.post('/athletes', { ...anAthlete(), ...change });
    expect(answer.status).toBe(422);
    expect(answer.type).toBe('application/problem+json');
    expect(Object.keys(answer.body.fields as object)).toEqual([field]);
  });

  it('refuses measured runs that nobody runs', async () => {
    const body = anAthlete();
    await coach.post('/athletes', body).expect(200);
    const at = `/athletes/${body.id}/trials`;
    expect((await coach.post(at, trial(body.id, [1.2, 9, 1.5, 1.6]))).body.fields).toHaveProperty(
      'steps[1].lengthM',
    );
    expect((await coach.post(at, trial(body.id, [1.2, 1.4]))).body.fields).toHaveProperty('steps');
    const long = trial(body.id, Array<number>(400).fill(1.5));
    expect((await coach.post(at, long)).status).toBe(422);
    const negative = trial(body.id);
    negative.steps[0]!.intervalS = -0.2;
    expect((await coach.post(at, negative)).body.fields).toHaveProperty('steps[0].intervalS');
    expect((await coach.get(`/athletes/${body.id}`)).body.trials).toEqual([]);

    const tests = `/athletes/${body.id}/readings`;
    const sprint = {
      id: uuid(),
      athleteId: body.id,
      takenOn: '2031-04-02',
      source: 'device',
      note: '',
      reading: {
        kind: 'sprint',
        splits: [
          { distanceM: 5, timeS: 1.4 },
          { distanceM: 10, timeS: 1.3 },
        ],
      },
    };
    const refused = await coach.post(tests, sprint).expect(422);
    expect(refused.body.fields).toHaveProperty('reading.splits[1]');
    expect((await coach.post(tests, { ...sprint, reading: { kind: 'luck' } })).body.fields).toEqual(
      {
        'reading.kind': 'Choose a test.',
      },
    );
    const [first] = sprint.reading.splits;
    const good = {
      ...sprint,
      reading: { kind: 'sprint', splits: [first, { distanceM: 10, timeS: 2.1 }] },
    };
    await coach.post(tests, good).expect(200);
    expect((await coach.post(tests, good).expect(200)).body.readings).toEqual([good]);
    const away = await coach.put(`${tests}/${good.id}/away`, { away: true }).expect(200);
    expect(away.body.readings).toEqual([]);
  });

  it('are listed with what plans are solved from, and alone with all that was measured', async () => {
    const long = await coachIn(stage);
    const athlete = anAthlete();
    await long.post('/athletes', athlete).expect(200);
    const tests = `/athletes/${athlete.id}/readings`;
    const reaction = (takenOn: string, source = 'device') => ({
      ...{ id: uuid(), athleteId: athlete.id, takenOn, source, note: '' },
      reading: { kind: 'reaction', timesS: [0.24, 0.26] },
    });
    for (const day of ['2022-03-01', '2023-02-02', '2023-05-01'])
      await long.post(tests, reaction(day)).expect(200);
    for (const takenOn of ['2021-06-01', '2024-01-10', '2024-06-01']) {
      const run = { ...trial(athlete.id), id: uuid(), takenOn };
      await long.post(`/athletes/${athlete.id}/trials`, run).expect(200);
    }
    const whole = (await long.get(`/athletes/${athlete.id}`).expect(200)).body as Athlete;
    const [listed] = (await long.get('/athletes').expect(200)).body.items as Athlete[];
    const days = (rows: readonly { takenOn: string }[]) => rows.map(({ takenOn }) => takenOn);
    expect(days(whole.trials)).toEqual(['2024-06-01', '2024-01-10', '2021-06-01']);
    expect(days(listed!.trials)).toEqual(['2024-06-01', '2024-01-10']);
    expect(days(listed!.readings)).toEqual(['2023-05-01', '2023-02-02']);
    expect(bodyOf(listed!)).toEqual(bodyOf(whole));
    expect(currentFigures(listed!.readings)).toEqual(currentFigures(whole.readings));
  });

  it('pages through a long roster without loss or repeat', async () => {
    const many = await coachIn(stage);
    for (let i = 0; i < 203; i += 1) {
      await many.post('/athletes', anAthlete({ name: `Runner ${String(i % 7)}` })).expect(200);
    }
    const first = await many.get('/athletes').expect(200);
    expect(first.body.items).toHaveLength(200);
    const rest = await many.get(`/athletes?after=${first.body.next as string}`).expect(200);
    expect(rest.body.items).toHaveLength(3);
    expect(rest.body.next).toBeNull();
    const ids = [...first.body.items, ...rest.body.items].map((athlete: Athlete) => athlete.id);
    expect(new Set(ids).size).toBe(203);
    expect((await many.get('/athletes?after=nonsense')).status).toBe(422);
  });

  it('exports one athlete and deletes them wholly', async () => {
    const other = await coachIn(stage);
    const own = await furnish(other);
    await other.post(`/athletes/${own.athlete.id}/trials`, trial(own.athlete.id)).expect(200);
    const held = await other.get(`/athletes/${own.athlete.id}/export`).expect(200);
    expect(held.body).toMatchObject({
      athlete: { name: own.athlete.name },
      reps: [{ id: own.rep.id, faults: ['reaches'] }],
      approaches: [{ name: own.approach.name }],
      sessions: [{ name: own.session.title }],
    });
    await other.remove(`/athletes/${own.athlete.id}`).expect(204);
    expect(await contentsOf(stage, other.clubId)).not.toContain(own.athlete.id);
  });
});

describe('a list of sessions', () => {
  it('comes in pages, the earliest first, without loss or repeat', async () => {
    const many = await coachIn(stage);
    const own = await furnish(many);
    for (let i = 0; i < 101; i += 1) {
      const session = aSession(own.approach.id, [own.athlete.id]);
      const date = `2033-05-0${1 + (i % 9)}`;
      await many.post('/sessions', { ...session, groundId: null, date }).expect(200);
    }
    const path = '/sessions?from=2033-05-01&to=2033-05-31';
    const first = (await many.get(path).expect(200)).body as { items: Session[]; next: string };
    expect(first.items).toHaveLength(100);
    const rest = (await many.get(`${path}&after=${first.next}`).expect(200)).body as typeof first;
    expect(rest).toMatchObject({ items: [{}], next: null });
    const all = [...first.items, ...rest.items];
    expect(new Set(all.map(({ id }) => id)).size).toBe(101);
    expect(all.map(({ date }) => date)).toEqual(all.map(({ date }) => date).sort());
    const noDay = Buffer.from(JSON.stringify({ date: 'soon', id: uuid() })).toString('base64url');
    expect((await many.get(`${path}&after=${noDay}`)).status).toBe(422);
  });
});

describe('approaches', () => {
  it('keeps what it was solved to: from an estimate first, from the measured run when saved again', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const plan = anApproach([athlete.id]);
    const made = (await coach.post('/approaches', plan).expect(200)).body as Approach;
    expect(made.solved).toHaveLength(1);
    expect(made.solved[0]).toMatchObject({ modelSource: 'estimate', solverVersion: 1 });
    const result = made.solved[0]!.straight;
    if (!result?.feasible) throw new Error('should fit');
    expect(result.steps).toHaveLength(12);
    expect(result.steps.at(-1)!.foot).toBe('left');

    await coach.post(`/athletes/${athlete.id}/trials`, trial(athlete.id)).expect(200);
    const still = (await coach.get(`/approaches/${plan.id}`)).body as Approach;
    expect(still.solved[0]!.straight).toEqual(result);
    expect(made.solved[0]!.layout!.footfalls.filter((fall) => fall.n > 0)).toHaveLength(12);
    const { id, ...fields } = plan;
    const again = (await coach.put(`/approaches/${id}`, { ...fields, version: 1 }).expect(200))
      .body as Approach;
    expect(again.solved[0]!.modelSource).toBe('measured');
    expect(again.version).toBe(2);
  });

  it('stores an ask that does not fit with its reason', async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const plan = anApproach([athlete.id]);
    Object.assign(plan.choices, { distanceM: 60 });
    const made = (await coach.post('/approaches', plan).expect(200)).body as Approach;
    expect(made.solved[0]).toMatchObject({
      layout: null,
      straight: { feasible: false, reason: 'too-long' },
    });
  });

  it.each([
    [{ steps: 400 }, 'choices.steps'],
    [{ tolerance: 3 }, 'choices.tolerance'],
    [{ distanceM: -4 }, 'choices.distanceM'],
    [
      { ending: { kind: 'short', count: 10, taperSteps: 4, lengthM: 0.1, cadenceSpm: 300 } },
      'choices.ending.count',
    ],
    [{ ending: { kind: 'hop' } }, 'choices.ending.kind'],
    [{ absorb: { stepsOut: 30 } }, 'choices.absorb.stepsOut'],
    [{ checkMarks: [0] }, 'choices.checkMarks[0]'],
  ])('refuses %o', async (change, field) => {
    const plan = anApproach([]);
    const answer = await coach.post('/approaches', {
      ...plan,
      choices: { ...plan.choices, ...change },
    });
    expect(answer.status).toBe(422);
    expect(answer.body.fields).toHaveProperty([field]);
  });
});

describe('sessions and the rep log', () => {
  it('refuses a session without athletes, with an archived one, and with a restricted one', async () => {
    const own = await furnish(coach);
    const none = aSession(own.approach.id, []);
    expect((await coach.post('/sessions', none)).body.fields).toEqual({
      'drillSets[0].athleteIds': 'Choose at least one athlete.',
    });
    const away = anAthlete({ name: 'Gone Away' });
    await coach.post('/athletes', away).expect(200);
    await coach.put(`/athletes/${away.id}/away`, { away: true }).expect(200);
    const archived = await coach.post('/sessions', aSession(own.approach.id, [away.id]));
    expect(archived.body.fields['drillSets[0].athleteIds']).toContain('Gone Away is archived');

    const hurt = anAthlete({ name: 'Sore Knee' });
    await coach.post('/athletes', hurt).expect(200);
    await coach
      .post(`/athletes/${hurt.id}/restrictions`, {
        id: uuid(),
        athleteId: hurt.id,
        kind: 'no-jumping',
        from: '2031-05-01',
        until: '2031-05-20',
        note: '',
      })
      .expect(200);
    const barred = await coach.post('/sessions', aSession(own.approach.id, [hurt.id]));
    expect(barred.body.fields['drillSets[0].athleteIds']).toContain(
      'Sore Knee may not jump, and this takes off and lands; until 2031-05-20',
    );
    const later = { ...aSession(own.approach.id, [hurt.id]), date: '2031-05-21' };
    await coach.post('/sessions', later).expect(200);
  });

  it('solves the approach for athletes who come in by the session', async () => {
    const own = await furnish(coach);
    const guest = anAthlete({ name: 'Late Guest' });
    await coach.post('/athletes', guest).expect(200);
    const session = aSession(own.approach.id, [own.athlete.id, guest.id]);
    await coach.post('/sessions', session).expect(200);
    const bundle = (await coach.get(`/sessions/${session.id}/run`)).body as RunBundle;
    expect(bundle.plans[0]!.outlines.map((outline) => outline.athleteId)).toContain(guest.id);
    expect(bundle.athletes).toHaveLength(2);
  });

  it('stores a batch sent three times at once exactly once', async () => {
    const { session } = await furnish(coach);
    const reps = [1, 2, 3].map((rep) =>
      aRep(session, { rep, outcome: 'fault', faults: ['reaches', 'slows-in'] }),
    );
    const answers = await Promise.all([1, 2, 3].map(() => coach.post('/reps', { reps })));
    for (const answer of answers) {
      expect(answer.status).toBe(200);
      expect((answer.body as RepReceipt).stored).toHaveLength(3);
    }
    const log = await logOf(coach, session.id);
    expect(log).toHaveLength(4);
    expect(log.map((rep) => rep.arrival)).toEqual([1, 2, 3, 4]);
    expect(log.filter((rep) => rep.faults.length === 2)).toHaveLength(3);
  });

  it('takes a rep back by a new row, and counts only what stands', async () => {
    const { session, athlete, rep } = await furnish(coach);
    const good = aRep(session, { rep: 2, cue: 'reaches' });
    const slip = aRep(session, { rep: 3, outcome: 'fault', faults: ['looks-down'] });
    const taken = aRep(session, { rep: 3, outcome: 'void', voids: slip.id });
    await coach.post('/reps', { reps: [good, slip, taken] }).expect(200);
    const [standing] = (await coach.get(`/athletes/${athlete.id}/faults`)).body
      .items as AthleteFaults[];
    expect(standing).toMatchObject({
      athleteId: athlete.id,
      movement: 'straight-run-up',
      reps: 2,
      sessions: 1,
      lastDay: session.date,
      faults: [{ code: 'reaches', seen: 1, state: 'new' }],
    });
    expect((await logOf(coach, session.id)).map((rep) => rep.id)).toEqual(
      [rep, good, slip, taken].map((one) => one.id),
    );
    expect(((await coach.get(`/sessions/${session.id}`)).body as Session).logged).toBe(2);
  });

  it('refuses a rep that points nowhere without holding up the others', async () => {
    const { session } = await furnish(coach);
    const lost = aRep(session, { drillSetId: uuid() });
    const nobody = aRep(session, { athleteId: uuid() });
    const empty = aRep(session, { outcome: 'void', voids: uuid() });
    const good = aRep(session, { rep: 2 });
    const receipt = (await coach.post('/reps', { reps: [lost, nobody, empty, good] }).expect(200))
      .body as RepReceipt;
    expect(receipt.stored).toEqual([{ id: good.id, arrival: 2 }]);
    expect(receipt.refused.map((one) => one.id)).toEqual([lost.id, nobody.id, empty.id]);
  });

  it('goes on for an athlete archived in mid session, and keeps drill sets that have reps', async () => {
    const { session, athlete } = await furnish(coach);
    await coach.put(`/athletes/${athlete.id}/away`, { away: true }).expect(200);
    const receipt = (await coach.post('/reps', { reps: [aRep(session, { rep: 2 })] }))
      .body as RepReceipt;
    expect(receipt.stored).toHaveLength(1);
    const { id, ...fields } = session;
    await coach.put(`/sessions/${id}`, { ...fields, title: 'Still on', version: 1 }).expect(200);
    const swapped = {
      ...fields,
      drillSets: [{ ...fields.drillSets[0]!, id: uuid() }],
      version: 2,
    };
    const answer = await coach.put(`/sessions/${id}`, swapped);
    expect(answer.status).toBe(422);
    expect(((await coach.get(`/sessions/${id}`)).body as Session).drillSets[0]!.id).toBe(
      session.drillSets[0]!.id,
    );
  });
});

describe('what cannot be read', () => {
  it('gets a problem and changes nothing', async () => {
    const before = await contentsOf(stage, coach.clubId);
    const broken = await coach.agent
      .post('/api/athletes')
      .set('origin', stage.origin)
      .set('content-type', 'application/json')
      .send('{"name":');
    expect(broken.status).toBe(400);
    expect(broken.body.title).toBe('That could not be read.');
    // Keys that every object has made the checks stumble once.
    for (const key of ['toString', 'constructor', '__proto__', 'hasOwnProperty']) {
      const odd = await coach.agent
        .post('/api/athletes')
        .set('origin', stage.origin)
        .set('content-type', 'application/json')
        .send(`{"${key}":{}}`);
      expect(odd.status, key).toBe(422);
    }
    const huge = await coach.post('/athletes', { ...anAthlete(), name: 'x'.repeat(2_000_000) });
    expect(huge.status).toBe(413);
    expect((await coach.get('/nowhere')).status).toBe(404);
    expect((await coach.get("/athletes/' or 1=1")).status).toBe(404);
    expect(await contentsOf(stage, coach.clubId)).toBe(before);
  });
});
