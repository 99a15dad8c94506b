import { type DrillSet, WARM_UP } from '@gravek/contract/drillSet';
import type { Problem } from '@gravek/contract/problem';
import type { LoadHistory, RunBundle } from '@gravek/contract/run';
import type { Rep, RepReceipt } from '@gravek/contract/session';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inClub } from '../src/database/connect';
import { countNew } from '../src/reps/countNew';
import {
  anApproach,
  anAthlete,
  aRep,
  aSession,
  coachIn,
  hear,
  logOf,
  openStage,
  until,
  type Coach,
  type Stage,
} from './setup';

/** Drill sets that vary, what reps of them say, and what weeks put on athletes. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

/** A session of one set that is changed as the test has it. */
const session = async (change: Partial<DrillSet> = {}, date = '2031-05-14') => {
  const people = [anAthlete({ name: 'Ana Roe' }), anAthlete({ name: 'Bo Hale' })];
  for (const person of people) await coach.post('/athletes', person).expect(200);
  const made = {
    ...aSession(
      uuid(),
      people.map((other) => other.id),
    ),
    date,
  };
  const [set] = made.drillSets;
  const work = { kind: 'movement' as const, movement: 'wall-switches', drill: null };
  made.drillSets = [{ ...set!, work, ...change }];
  return { made, people };
};

const send = async (...reps: Rep[]): Promise<RepReceipt> =>
  (await coach.post('/reps', { reps }).expect(200)).body as RepReceipt;

describe('a drill set', () => {
  it('is kept as it was asked, of whatever kind, and comes to the phone with bodies and names', async () => {
    const vary = { ...freshDrillSet('', { kind: 'warm-up', name: 'x' }, []).vary };
    const { made, people } = await session({
      vary: { ...vary, leadFeet: ['left', 'right'], paces: [0.5, 1], sides: ['own'] },
      struck: ['own lead=left pace=0.5'],
      order: 'mixed',
      seed: 77,
      target: 'seconds',
      amount: 3,
      stand: 'pairs',
      helpers: ['opponent'],
      apartPaces: 4,
      freeze: true,
      call: { kind: 'steps', steps: 5, leastS: 0.5, mostS: 1.5 },
    });
    const [set] = made.drillSets;
    made.drillSets.push({
      ...freshDrillSet(
        uuid(),
        { kind: 'warm-up', name: 'Squats' },
        people.map((person) => person.id),
      ),
      stand: 'row',
    });
    await coach.post('/sessions', made).expect(200);
    // The answer was lost: the same again is done already.
    await coach.post('/sessions', made).expect(200);
    const late = anAthlete({ name: 'Cy Late' });
    await coach.post('/athletes', late).expect(200);
    const stored = (await coach.get(`/sessions/${made.id}`)).body as { drillSets: DrillSet[] };
    expect(stored.drillSets).toEqual(made.drillSets);
    expect(stored.drillSets[0]).toEqual(set);
    const bundle = (await coach.get(`/sessions/${made.id}/run`)).body as RunBundle;
    expect(bundle.plans).toMatchObject([
      { drillSetId: set!.id, movement: 'wall-switches' },
      { name: 'Squats', movement: null, choices: null, cautions: [] },
    ]);
    expect(bundle.athletes.every((athlete) => athlete.body!.heightM === 1.74)).toBe(true);
    expect(bundle.latecomers).toContainEqual({ id: late.id, name: 'Cy Late' });
    expect(bundle.latecomers.some((latecomer) => latecomer.id === people[0]!.id)).toBe(false);
  });

  it.each<[string, Partial<DrillSet>, string, string]>([
    ['more makes than tries', { target: 'makes', amount: 9, reps: 7 }, 'amount', 'No more makes'],
    [
      'a call whose bounds are turned round',
      { call: { kind: 'start', leastS: 3, mostS: 1 } },
      'call.mostS',
      'no shorter',
    ],
    [
      'a movement that is not there',
      { work: { kind: 'movement', movement: 'gone', drill: null } },
      'work',
      'not there',
    ],
    [
      'a drill that its movement has not',
      { work: { kind: 'movement', movement: 'gaps', drill: 'gone' } },
      'work',
      'not there',
    ],
    [
      'an approach that is not there',
      { work: { kind: 'plan', approachId: uuid() } },
      'work',
      'not there',
    ],
    ['all of it struck out', { struck: ['own '] }, 'struck', 'leave at least one'],
    ['a warm-up without a name', { work: { kind: 'warm-up', name: ' ' } }, 'work.name', 'Give'],
    ['a way to stand that nobody knows', { stand: 'heap' as never }, 'stand', 'how people stand'],
  ])('with %s is refused, the field named', async (_what, change, field, said) => {
    const { made } = await session(change);
    const refused = await coach.post('/sessions', made);
    expect(refused.status).toBe(422);
    expect((refused.body as Problem).fields![`drillSets[0].${field}`]).toContain(said);
    await coach.get(`/sessions/${made.id}`).expect(404);
  });

  it('of moves and endings that cannot be joined is refused, with which and why', async () => {
    const vary = {
      ...freshDrillSet('', { kind: 'warm-up', name: 'x' }, []).vary,
      moves: ['jab-rise', 'jab-cross'],
      endings: ['near-side', 'floater'],
    };
    const work = { kind: 'movement' as const, movement: 'jab-cross--floater', drill: null };
    const { made } = await session({ work, vary });
    const refused = await coach.post('/sessions', made);
    if (refused.status === 200) return expect(refused.body.drillSets[0].vary.moves).toHaveLength(2);
    expect((refused.body as Problem).fields!['drillSets[0].struck']).toContain('Strike it out.');
  });

  it('keeps its work once reps of it are logged', async () => {
    const { made } = await session();
    await coach.post('/sessions', made).expect(200);
    await send(aRep(made, { movement: 'wall-switches' }));
    const { id, ...body } = made;
    const drillSets = made.drillSets.map((set) => ({
      ...set,
      work: { kind: 'movement', movement: 'gaps', drill: null },
    }));
    const refused = await coach.put(`/sessions/${id}`, { ...body, drillSets, version: 1 });
    expect((refused.body as Problem).fields!['drillSets[0].work']).toContain('Add another');
    const varied = made.drillSets.map((set) => ({ ...set, reps: 9, order: 'mixed' }));
    await coach.put(`/sessions/${id}`, { ...body, drillSets: varied, version: 1 }).expect(200);
  });
});

describe('a rep', () => {
  it('says what it was and what came of it, and is counted by it', async () => {
    const { made, people } = await session();
    await coach.post('/sessions', made).expect(200);
    const own = {
      movement: 'wall-switches',
      load: { contacts: 4, jumps: 1, throws: 0, sprintM: 2.5 },
    };
    const reps = [
      aRep(made, { ...own, variant: 'rung=walk', rung: 'walk', made: true }),
      aRep(made, { ...own, variant: 'rung=full', rung: 'full', made: false, note: 'looked down' }),
      aRep(made, { ...own, rep: 2, exit: 'see:left', taken: 'see:right', lateS: 0.4, heldS: 2.1 }),
    ];
    expect((await send(...reps)).refused).toEqual([]);
    // Sent twice it is one; with other contents under its id it is refused.
    expect((await send(reps[0]!)).stored).toHaveLength(1);
    expect((await send({ ...reps[0]!, made: false })).refused).toHaveLength(1);
    const log = await logOf(coach, made.id);
    expect(log).toHaveLength(3);
    expect(log.map(({ arrival: _, ...row }) => row)).toEqual(reps);
    await inClub(stage.db, coach, (trx) => countNew(trx));
    const counts = await stage.owner
      .selectFrom('rep_count')
      .select(['rung', 'exit', 'reps', 'tried', 'made', 'contacts', 'jumps', 'sprint_m'])
      .where('session_id', '=', made.id)
      .orderBy('rung')
      .execute();
    expect(counts).toEqual([
      {
        rung: '',
        exit: 'see:left',
        reps: 1,
        tried: 0,
        made: 0,
        contacts: 4,
        jumps: 1,
        sprint_m: 2.5,
      },
      { rung: 'full', exit: '', reps: 1, tried: 1, made: 0, contacts: 4, jumps: 1, sprint_m: 2.5 },
      { rung: 'walk', exit: '', reps: 1, tried: 1, made: 1, contacts: 4, jumps: 1, sprint_m: 2.5 },
    ]);
    const history = (await coach.get('/sessions/history?day=2031-05-14')).body as LoadHistory;
    expect(history.makes).toContainEqual({
      athleteId: people[0]!.id,
      movement: 'wall-switches',
      tried: 2,
      made: 1,
    });
  });

  it('of a warm-up counts for nothing, and one that would is refused by itself', async () => {
    const { made } = await session({ work: { kind: 'warm-up', name: 'Squats' } });
    await coach.post('/sessions', made).expect(200);
    const done = aRep(made, { movement: WARM_UP, outcome: 'done' });
    const odd = aRep(made, { movement: WARM_UP, rep: 2 });
    const receipt = await send(done, odd);
    expect(receipt.stored.map((one) => one.id)).toEqual([done.id]);
    expect(receipt.refused).toMatchObject([{ id: odd.id }]);
    expect((await coach.get(`/sessions/${made.id}`)).body.logged).toBe(0);
  });

  it('of somebody who came late is taken, and the phone learns the measures', async () => {
    const { made } = await session();
    await coach.post('/sessions', made).expect(200);
    const late = anAthlete({ name: 'Cy Late' });
    await coach.post('/athletes', late).expect(200);
    const own = { movement: 'wall-switches', athleteId: late.id };
    const came = aRep(made, { ...own, outcome: 'in' });
    expect((await send(came, aRep(made, own))).refused).toEqual([]);
    const bundle = (await coach.get(`/sessions/${made.id}/run`)).body as RunBundle;
    expect(bundle.athletes.find((athlete) => athlete.id === late.id)?.body).toBeTruthy();
    expect((await coach.get(`/sessions/${made.id}`)).body.logged).toBe(1);
  });
});

it('weeks add up by athlete, the week of the day by session, the weeks before as they were', async () => {
  const days = ['2032-03-01', '2032-03-04', '2032-03-10', '2032-03-15', '2032-03-17'];
  const load = { contacts: 10, jumps: 2, throws: 1, sprintM: 7.5 };
  const person = anAthlete();
  await coach.post('/athletes', person).expect(200);
  const approach = anApproach([person.id]);
  await coach.post('/approaches', approach).expect(200);
  for (const date of days) {
    const made = { ...aSession(approach.id, [person.id]), date };
    await coach.post('/sessions', made).expect(200);
    await send(aRep(made, { load }), aRep(made, { rep: 2, load, outcome: 'skip' }));
  }
  const { weeks } = (await coach.get('/sessions/history?day=2032-03-16')).body as LoadHistory;
  const own = weeks.filter((week) => week.athleteId === person.id);
  expect(own.map(({ weeksAgo, load: sum }) => [weeksAgo, sum.contacts, sum.sprintM])).toEqual([
    [0, 10, 7.5],
    [0, 10, 7.5],
    [1, 10, 7.5],
    [2, 20, 15],
  ]);
  expect(own.filter((week) => week.sessionId !== null)).toHaveLength(2);
  await coach.get('/sessions/history?day=someday').expect(422);
});

it('a tap at one server process is heard at another, whose log has it', async () => {
  const { made, people } = await session();
  await coach.post('/sessions', made).expect(200);
  const twin = await stage.twin();
  const heard = hear(twin, coach);
  await until(() => heard.said().includes('alive'));
  const before = heard.said().length;
  await send(aRep(made, { movement: 'wall-switches', device: uuid(), deviceNo: 1 }));
  await until(() => heard.said().length > before);
  const answer = await fetch(`${twin.address}/api/sessions/${made.id}/reps?after=0`, {
    headers: { cookie: (await import('./setup')).cookieOf(coach) },
  });
  const { items } = (await answer.json()) as { items: Rep[] };
  expect(items.map((row) => row.athleteId)).toEqual([people[0]!.id]);
  heard.stop();
});
