import { dayIn } from '@gravek/core/days';
import type { Athlete } from '@gravek/contract/athlete';
import type {
  AthleteFaults,
  CauseCheck,
  CueLine,
  Ledger,
  ProgressStand,
  WayCheck,
} from '@gravek/contract/faults';
import type { OutdatedPlan } from '@gravek/contract/plan';
import type { Needs, RunBundle } from '@gravek/contract/run';
import type { Rep, SessionInput } from '@gravek/contract/session';
import { drillOf } from '@gravek/library/movement/byCode';
import { movementOf } from '@gravek/library/movement/movements';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  anApproach,
  anAthlete,
  aRep,
  aSession,
  type Coach,
  coachIn,
  openStage,
  type Stage,
} from './setup';

/** Cues as things that begin, hold and end, and the ledger that tells whether they work. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const MOVEMENT = 'straight-run-up';
type Own = { athlete: Athlete; approach: { id: string } };

/** An athlete with a plan, who has run nothing yet. */
const fresh = async (): Promise<Own> => {
  const athlete = (await coach.post('/athletes', anAthlete()).expect(200)).body as Athlete;
  const approach = anApproach([athlete.id]);
  await coach.post('/approaches', approach).expect(200);
  return { athlete, approach };
};

/** A session of twelve reps of which some show a fault, run with a cue. */
const ran = async (
  own: Own,
  date: string,
  shown: Record<string, number>,
  cue: string | null = null,
  change: (i: number) => Partial<Rep> = () => ({}),
): Promise<SessionInput> => {
  const session = { ...aSession(own.approach.id, [own.athlete.id]), date };
  await coach.post('/sessions', session).expect(200);
  const reps = Array.from({ length: 12 }, (_, i) => {
    const faults = Object.keys(shown).filter((fault) => i < shown[fault]!);
    return aRep(session, {
      set: 1 + Math.floor(i / 6),
      rep: 1 + (i % 6),
      turn: i + 1,
      outcome: faults.length > 0 ? 'fault' : 'clean',
      faults,
      cue,
      at: `${date}T10:${String(10 + i)}:00.000Z`,
      ...change(i),
    });
  });
  const { refused } = (await coach.post('/reps', { reps }).expect(200)).body;
  expect(refused).toEqual([]);
  return session;
};
/** A movement of the club's own, a copy of the built-in one. */
const ownMovement = async () => {
  const id = uuid();
  const document = {
    id,
    basedOn: null,
    movement: { ...structuredClone(movementOf(MOVEMENT)), code: id },
  };
  await coach.post('/movements', document).expect(200);
  return { document };
};
const standOf = async (own: Own): Promise<AthleteFaults> =>
  ((await coach.get(`/athletes/${own.athlete.id}/faults`)).body.items as AthleteFaults[])[0]!;
const ledgerOf = async (own: Own, query = ''): Promise<Ledger> =>
  (await coach.get(`/athletes/${own.athlete.id}/ledger/${MOVEMENT}?${query}`).expect(200)).body;
const day = (n: number): string => `2021-06-${String(n).padStart(2, '0')}`;

describe('a cue', () => {
  it('holds from session to session though another fault shows more, and ends when its own has cleared', async () => {
    const own = await fresh();
    await ran(own, day(1), { 'slows-in': 7, 'looks-down': 3 });
    const given = (await standOf(own)).cue!;
    expect(given).toMatchObject({ fault: 'slows-in', since: null, sessions: 0, by: null });
    // What was given stays the cue, though the other one is now the more frequent.
    await ran(own, day(3), { 'slows-in': 2, 'looks-down': 9 }, 'slows-in');
    await ran(own, day(5), { 'slows-in': 1, 'looks-down': 9 }, 'slows-in');
    expect((await standOf(own)).cue).toMatchObject({
      fault: 'slows-in',
      since: day(3),
      sessions: 2,
    });
    for (const n of [7, 12, 17, 22]) await ran(own, day(n), { 'looks-down': 9 }, 'slows-in');
    const stands = await standOf(own);
    expect(stands.faults.find((fault) => fault.code === 'slows-in')!.state).toBe('cleared');
    expect(stands.cue).toMatchObject({ fault: 'looks-down', since: null });
  });

  it('is what a coach has chosen, with who and why, on every screen, until it is handed back', async () => {
    const own = await fresh();
    await ran(own, day(1), { 'slows-in': 7, 'looks-down': 3 });
    await ran(own, day(3), { 'slows-in': 7, 'looks-down': 3 }, 'slows-in');
    const choice = {
      id: uuid(),
      movement: MOVEMENT,
      fault: 'looks-down',
      drill: null,
      reason: 'the eyes come first here',
    };
    const at = `/athletes/${own.athlete.id}/cues`;
    await coach.post(at, choice).expect(204);
    const { cue } = await standOf(own);
    expect(cue).toMatchObject({
      fault: 'looks-down',
      since: null,
      by: { person: 'A owner', reason: 'the eyes come first here' },
    });
    // The field screen of a session to come, and Today.
    const today = new Date().toISOString().slice(0, 10);
    const next = { ...aSession(own.approach.id, [own.athlete.id]), date: '2099-01-01' };
    await coach.post('/sessions', next).expect(200);
    const { cues } = (await coach.get(`/sessions/${next.id}/run`)).body as RunBundle;
    expect(cues).toMatchObject([{ fault: 'looks-down' }]);
    const lines = (await coach.get(`/cues?on=${today}`)).body.items as CueLine[];
    expect(lines.find((line) => line.athleteId === own.athlete.id)!.cue).toEqual(cue);

    // The same again is the same; another one under its id is not dropped without a word.
    await coach.post(at, choice).expect(204);
    expect((await coach.post(at, { ...choice, fault: 'reaches' })).status).toBe(409);
    await coach.post(at, { ...choice, id: uuid(), fault: null, reason: '' }).expect(204);
    expect((await standOf(own)).cue).toMatchObject({ fault: 'slows-in', by: null });
    const kept = await sql<{ n: number }>`select count(*)::int as n from cue_choice
      where athlete_id = ${own.athlete.id}`.execute(stage.owner);
    expect(kept.rows[0]!.n).toBe(2);
  });

  it('is chosen though the phone that gave the one before has a clock that goes ahead', async () => {
    const own = await fresh();
    const ahead = new Date(Date.now() + 180_000);
    await ran(own, ahead.toISOString().slice(0, 10), { 'slows-in': 7 }, 'slows-in', () => ({
      at: ahead.toISOString(),
    }));
    await coach
      .post(`/athletes/${own.athlete.id}/cues`, {
        id: uuid(),
        movement: MOVEMENT,
        fault: 'reaches',
        drill: null,
        reason: 'seen',
      })
      .expect(204);
    expect((await standOf(own)).cue!.fault).toBe('reaches');
  });

  it('is refused in words: without a reason, of a fault or drill that is not there, by an assistant', async () => {
    const own = await fresh();
    const at = `/athletes/${own.athlete.id}/cues`;
    const choice = {
      id: uuid(),
      movement: MOVEMENT,
      fault: 'reaches',
      drill: null,
      reason: 'seen',
    };
    for (const [change, field] of [
      [{ reason: ' ' }, 'reason'],
      [{ fault: 'no-such' }, 'fault'],
      [{ drill: 'no-such' }, 'drill'],
    ] as const) {
      const answer = await coach.post(at, { ...choice, ...change });
      expect(answer.status).toBe(422);
      expect(Object.keys(answer.body.fields)).toEqual([field]);
    }
    const helper = await coachIn(stage, 'assistant', coach.clubId);
    expect((await helper.post(at, choice)).status).toBe(403);
    expect((await coach.post(`/athletes/${uuid()}/cues`, choice)).status).toBe(404);
  });

  it('is chosen by the school of the club that is open, for who is in two', async () => {
    const own = await fresh();
    await ran(own, day(1), { 'slows-in': 9, 'looks-down': 5 });
    const before = await standOf(own);
    const second = await coachIn(stage);
    await sql`insert into membership (club_id, id, account_id, role)
      values (${second.clubId}, ${uuid()}, ${coach.accountId}, 'coach')`.execute(stage.owner);
    await sql`update club set cue_school = 'first-phase' where id = ${second.clubId}`.execute(
      stage.owner,
    );
    expect(await standOf(own)).toEqual(before);
  });
});

describe('the ledger', () => {
  it('has a column a session and a row a fault, of all reps or of those that are asked for', async () => {
    const own = await fresh();
    const helper = await coachIn(stage, 'assistant', coach.clubId);
    for (const n of [1, 4, 8]) {
      await ran(own, day(n), { 'slows-in': 6 }, 'slows-in', (i) => ({
        side: i % 2 ? 'other' : 'own',
        faults: i % 2 === 0 ? ['slows-in'] : [],
        outcome: i % 2 === 0 ? 'fault' : 'clean',
      }));
    }
    const all = await ledgerOf(own);
    expect(all.log.map((one) => [one.date, one.reps])).toEqual([1, 4, 8].map((n) => [day(n), 12]));
    expect(all.rows).toMatchObject([{ code: 'slows-in', shown: [6, 6, 6], cuedRun: 3 }]);
    expect(all.spans).toEqual([{ fault: 'slows-in', from: 0, to: 2 }]);
    expect(all.contrasts.slice(0, 1)).toMatchObject([
      { axis: 'side', fault: 'slows-in', a: { reps: 18, faults: 18 }, b: { reps: 18, faults: 0 } },
    ]);
    const other = await ledgerOf(own, 'side=other');
    expect(other.log.map((one) => one.reps)).toEqual([6, 6, 6]);
    expect(other.rows[0]).toMatchObject({ shown: [0, 0, 0], state: all.rows[0]!.state });
    expect(other.rows[0]!.high).toBeLessThan(0.15);
    const late = await ledgerOf(own, 'late=true&side=own');
    expect(late.log.every(({ reps }) => reps > 0 && reps < 6)).toBe(true);
    const odd = await coach.get(`/athletes/${own.athlete.id}/ledger/${MOVEMENT}?side=up`);
    expect([odd.status, odd.body.fields.side]).toEqual([422, 'No rep was run like that.']);
    // An assistant may look.
    expect((await helper.get(`/athletes/${own.athlete.id}/ledger/${MOVEMENT}`)).status).toBe(200);
    expect((await coach.get(`/athletes/${own.athlete.id}/ledger/no-such`)).status).toBe(404);
  });

  it('says what the same cue has done for others, and takes what the club knows into account', async () => {
    const people: Own[] = [];
    for (let i = 0; i < 6; i += 1) {
      const own = await fresh();
      people.push(own);
      for (const n of [1, 3, 5]) await ran(own, day(n), { 'over-line': 8 });
      for (const n of [8, 11, 14])
        await ran(own, day(n), { 'over-line': i === 0 ? 8 : 1 }, 'over-line');
    }
    const { others, rows } = await ledgerOf(people.at(-1)!);
    expect(others.find((other) => other.fault === 'over-line')).toEqual({
      fault: 'over-line',
      athletes: 5,
      better: 4,
      before: { reps: 180, faults: 120 },
      since: { reps: 180, faults: 36 },
    });
    const row = rows.find((row) => row.code === 'over-line')!;
    expect(row.state).toBe('clearing');
    expect(row.prior.alpha + row.prior.beta).toBeGreaterThan(1);
    expect(row.span).toEqual({ before: { reps: 36, faults: 24 }, since: { reps: 36, faults: 3 } });
  });

  it('tells how far two who logged the same reps agree, and what was made of reads', async () => {
    const own = await fresh();
    const helper = await coachIn(stage, 'assistant', coach.clubId);
    const session = await ran(own, day(3), { 'slows-in': 6 }, null, (i) => ({
      exit: i < 8 ? 'go:left' : null,
      taken: i < 6 ? 'go:left' : i < 8 ? 'go:right' : null,
      right: i < 8 ? i < 6 : null,
      // A tap after more than three seconds says nothing.
      lateS: i < 4 ? 0.5 : i < 5 ? 8 : null,
    }));
    const mine = (await coach.get(`/sessions/${session.id}/reps`)).body.items as Rep[];
    // The other one saw it in three of the six, and nowhere else.
    const theirs = mine.map((rep, i) => {
      const seen = i < 3;
      return {
        ...rep,
        id: uuid(),
        device: helper.accountId,
        deviceNo: i + 1,
        outcome: seen ? 'fault' : 'clean',
        faults: seen ? ['slows-in'] : [],
      };
    });
    const { refused } = (await helper.post('/reps', { reps: theirs }).expect(200)).body;
    expect(refused).toEqual([]);
    const ledger = await ledgerOf(own);
    expect(ledger.reps).toBe(12);
    expect(ledger.agreement).toEqual([
      { fault: 'slows-in', reps: 12, agreement: 0.75, kappa: 0.5 },
    ]);
    const taken = [
      { exit: 'go:left', reps: 6 },
      { exit: 'go:right', reps: 2 },
    ];
    expect(ledger.reads).toMatchObject([{ exit: 'go:left', reps: 8, right: 6, lateS: 0.5, taken }]);
    // What was taken back is no second look.
    const [gone] = theirs;
    const { faults: _, ...rest } = gone!;
    await helper
      .post('/reps', {
        reps: [{ ...rest, id: uuid(), outcome: 'void', voids: gone!.id, faults: [], deviceNo: 99 }],
      })
      .expect(200);
    expect((await ledgerOf(own)).agreement[0]!.reps).toBe(11);
  });

  it('is right after a correction, a late session and a move to another day', async () => {
    const own = await fresh();
    await ran(own, day(10), { reaches: 6 }, 'reaches');
    const early = await ran(own, day(2), { reaches: 12 });
    expect((await ledgerOf(own)).log.map((one) => one.date)).toEqual([day(2), day(10)]);
    expect((await standOf(own)).cue).toMatchObject({ fault: 'reaches', since: day(10) });
    const { id, ...fields } = early;
    await coach.put(`/sessions/${id}`, { ...fields, date: day(12), version: 1 }).expect(200);
    const moved = await ledgerOf(own);
    expect(moved.rows[0]!.shown).toEqual([6, 12]);
    const reps = (await coach.get(`/sessions/${id}/reps`)).body.items as Rep[];
    await coach
      .post('/reps', {
        reps: reps.map((rep) => ({
          ...rep,
          id: uuid(),
          faults: [],
          outcome: 'void',
          voids: rep.id,
          deviceNo: rep.deviceNo + 10_000,
        })),
      })
      .expect(200);
    expect((await ledgerOf(own)).log.map((one) => one.date)).toEqual([day(10)]);
  });
});

describe('causes', () => {
  const causes = async (): Promise<CauseCheck> =>
    (await coach.get(`/causes/${MOVEMENT}`).expect(200)).body;
  const today = new Date().toISOString().slice(0, 10);

  it('are held against the reps of the last year, and follow a correction', async () => {
    const before = await causes();
    const own = await fresh();
    // One after another and never apart, the later one alone in no rep.
    const session = await ran(own, today, { 'looks-down': 6, 'over-line': 6 });
    await ran(own, '2021-07-01', { 'looks-down': 6 });
    const after = await causes();
    expect(after.reps - before.reps).toBe(12);
    const own12 = await ran(await fresh(), today, { 'looks-down': 6, 'over-line': 6 });
    const third = await ran(await fresh(), today, { 'looks-down': 6, 'over-line': 6 });
    const fourth = await ran(await fresh(), today, { 'looks-down': 6, 'over-line': 6 });
    const missing = ({ links }: CauseCheck) =>
      links.filter((link) => link.verdict === 'missing').map(({ from, to }) => [from, to]);
    expect(missing(await causes())).toEqual([['looks-down', 'over-line']]);
    for (const { id } of [session, own12, third, fourth]) {
      const reps = (await coach.get(`/sessions/${id}/reps`)).body.items as Rep[];
      await coach
        .post('/reps', {
          reps: reps.map((rep) => ({
            ...rep,
            ...{ id: uuid(), faults: [], outcome: 'void', voids: rep.id },
            deviceNo: rep.deviceNo + 20_000,
          })),
        })
        .expect(200);
    }
    const corrected = await causes();
    expect(corrected.reps).toBe(before.reps);
    expect(missing(corrected)).toEqual([]);
    await coach.get('/causes/no-such-movement').expect(404);
  });
});

describe('ways of teaching', () => {
  const [school] = movementOf(MOVEMENT).schools;
  const ways = school!.options.map(({ code }) => `${school!.code}:${code}`);
  const waysSaid = async (): Promise<WayCheck> =>
    (await coach.get(`/ways/${MOVEMENT}`).expect(200)).body;

  it('are held against each other by reps that say how they were taught, and follow a correction', async () => {
    const today = new Date().toISOString().slice(0, 10);
    const before = await waysSaid();
    const clean = (check: WayCheck) => check.pairs[0]!.looks[0]!;
    expect(clean(before)).toMatchObject({ measure: 'clean', athletes: 0, chance: null });
    // Every other rep by each way; the first seven of the one way show a fault.
    const taught = (way: string, i: number): Partial<Rep> => {
      const isFault = way === ways[0] && i < 14;
      return {
        ...{ variant: `way=${way}`, ways: [way] },
        ...{ outcome: isFault ? 'fault' : 'clean', faults: isFault ? ['reaches'] : [] },
      };
    };
    const sessions: SessionInput[] = [];
    for (let person = 0; person < 5; person += 1) {
      const own = await fresh();
      sessions.push(await ran(own, today, {}, null, (i) => taught(ways[i % 2]!, i)));
    }
    // How they were taught, these do not say.
    await ran(await fresh(), today, { reaches: 12 });
    const after = await waysSaid();
    expect(after.reps - before.reps).toBe(60);
    expect(clean(after)).toMatchObject({
      ...{ athletes: 5, better: 'b' },
      a: { reps: 30, value: 0 },
      b: { reps: 30, value: 1 },
    });
    const table = (await coach.get('/csv/reps').expect(200)).text;
    expect(table).toContain(school!.options[1]!.name);
    for (const { id } of sessions) {
      const reps = (await coach.get(`/sessions/${id}/reps`)).body.items as Rep[];
      expect(reps[0]!.ways).toEqual([ways[0]]);
      await coach
        .post('/reps', {
          reps: reps.map((rep) => ({
            ...rep,
            ...{ id: uuid(), faults: [], outcome: 'void', voids: rep.id },
            deviceNo: rep.deviceNo + 40_000,
          })),
        })
        .expect(200);
    }
    expect((await waysSaid()).reps).toBe(before.reps);
    await coach.get('/ways/no-such-movement').expect(404);
  });
});

it('who may go on to the next drill of a progression follows from its reps', async () => {
  const progression = movementOf(MOVEMENT).progression!.map(({ drill }) => drill);
  const standsOf = async (own: Own): Promise<ProgressStand[]> =>
    (
      (await coach.get(`/progress/${MOVEMENT}`).expect(200)).body as { items: ProgressStand[] }
    ).items.filter(({ athleteId }) => athleteId === own.athlete.id);
  const today = new Date().toISOString().slice(0, 10);
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  const sides = drillOf(movementOf(MOVEMENT), progression[0]!)?.setUp?.sides ?? ['own'];
  const ofFirst = (i: number): Partial<Rep> => ({
    ...{ part: progression[0]!, side: sides[i % sides.length]! },
  });
  const own = await fresh();
  expect(await standsOf(own)).toEqual([]);
  await ran(own, yesterday, { reaches: 1 }, null, ofFirst);
  expect(await standsOf(own)).toMatchObject([{ drill: progression[0], step: 'stay', reps: 12 }]);
  await ran(own, today, {}, null, ofFirst);
  expect(await standsOf(own)).toMatchObject([
    { drill: progression[0], step: 'up', reps: 24, clean: 23 },
  ]);
  await coach.get('/progress/no-such-movement').expect(404);

  // A coach's word stands before the reps of the days until then; sent twice it is the same one.
  const word = { id: uuid(), movement: MOVEMENT, drill: progression[2]! };
  const say = (body: object) => coach.post(`/athletes/${own.athlete.id}/drills`, body);
  await say(word).expect(204);
  await say(word).expect(204);
  await say({ ...word, drill: progression[1]! }).expect(409);
  expect(await standsOf(own)).toMatchObject([{ drill: progression[2], step: 'stay', reps: 0 }]);
  expect((await standsOf(own))[0]!.by).not.toBeNull();
  await say({ ...word, id: uuid(), drill: 'no-such-drill' }).expect(404);
  await say({ ...word, id: uuid(), drill: '' }).expect(422);
});

describe('a ladder', () => {
  it('goes by the rule, by a coach’s own choice with who and why, and by the rule again', async () => {
    const own = await fresh();
    const at = `/athletes/${own.athlete.id}/rungs`;
    const walked = (i: number): Partial<Rep> => ({
      rung: 'walk',
      side: i % 2 ? 'other' : 'own',
      rep: 1 + (i % 12),
    });
    const dayAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
    await ran(own, dayAgo(9), {}, null, walked);
    expect((await ledgerOf(own)).ladder).toMatchObject({
      rung: 'walk',
      step: 'stay',
      choice: null,
    });
    await ran(own, dayAgo(5), {}, null, walked);
    expect((await ledgerOf(own)).ladder).toMatchObject({
      ...{ rung: 'walk', step: 'up', next: 'half', reps: 24, clean: 24 },
    });
    const choice = { id: uuid(), movement: MOVEMENT, rung: 'stand', reason: 'fears the board' };
    await coach.post(at, { ...choice, reason: '' }).expect(422);
    await coach.post(at, choice).expect(204);
    await coach.post(at, choice).expect(204);
    await coach.post(at, { ...choice, reason: 'another' }).expect(409);
    const { ladder } = await ledgerOf(own);
    expect(ladder).toMatchObject({
      ...{ rung: 'stand', step: 'stay', reps: 0 },
      choice: { reason: 'fears the board', person: 'A owner' },
    });
    const today = dayAgo(0);
    const needs = (await coach.get(`/sessions/needs?day=${today}`).expect(200)).body as Needs;
    expect(needs.rungChoices).toMatchObject([{ athleteId: own.athlete.id, rung: 'stand' }]);
    await coach.post(at, { id: uuid(), movement: MOVEMENT, rung: null, reason: '' }).expect(204);
    expect((await ledgerOf(own)).ladder).toMatchObject({ rung: 'walk', step: 'up', choice: null });
  });
});

it('a plan is out of date when the measures that it was solved by have changed, until it is saved again', async () => {
  const own = await fresh();
  const outdated = async () =>
    ((await coach.get('/today').expect(200)).body.outdated as OutdatedPlan[]).filter(
      (plan) => plan.approachId === own.approach.id,
    );
  expect(await outdated()).toEqual([]);
  const trial = {
    ...{ id: uuid(), athleteId: own.athlete.id, takenOn: '2031-05-01', source: 'other', note: '' },
    steps: Array.from({ length: 10 }, (_, i) => ({
      lengthM: 1.1 + 0.1 * i,
      intervalS: 0.26 - 0.002 * i,
    })),
  };
  await coach.post(`/athletes/${own.athlete.id}/trials`, trial).expect(200);
  expect(await outdated()).toMatchObject([{ athletes: [{ id: own.athlete.id }] }]);
  const plan = (await coach.get(`/approaches/${own.approach.id}`).expect(200)).body;
  const { name, movement, choices, athleteIds, version } = plan;
  await coach
    .put(`/approaches/${own.approach.id}`, { name, movement, choices, athleteIds, version })
    .expect(200);
  expect(await outdated()).toEqual([]);
});

it('a fault that was taken out of a movement with reps in it is told, and moves no other figure', async () => {
  const { document } = await ownMovement();
  const athlete = anAthlete();
  await coach.post('/athletes', athlete).expect(200);
  const plan = { ...anApproach([athlete.id]), movement: document.id };
  await coach.post('/approaches', plan).expect(200);
  const session = { ...aSession(plan.id, [athlete.id]), date: day(1) };
  await coach.post('/sessions', session).expect(200);
  const reps = Array.from({ length: 12 }, (_, i) =>
    aRep(session, {
      ...{ set: 1 + Math.floor(i / 6), rep: 1 + (i % 6), turn: i + 1, movement: document.id },
      ...{ outcome: 'fault', faults: i < 5 ? ['reaches'] : ['looks-down'] },
      ...{ cue: 'reaches', at: `${day(1)}T10:${String(10 + i)}:00.000Z` },
    }),
  );
  await coach.post('/reps', { reps }).expect(200);
  const at = `/athletes/${athlete.id}/ledger/${document.id}`;
  const before = (await coach.get(at).expect(200)).body as Ledger;
  expect(before.gone).toEqual([]);
  const { movement } = document;
  const faults = movement.faults
    .filter(({ code }) => code !== 'reaches')
    .map((fault) => ({ ...fault, leadsTo: fault.leadsTo.filter((to) => to !== 'reaches') }));
  await coach
    .put(`/movements/${document.id}`, {
      basedOn: document.basedOn,
      movement: { ...movement, name: 'Another name', faults, schools: [] },
      version: 1,
    })
    .expect(200);
  const after = (await coach.get(at).expect(200)).body as Ledger;
  expect(after.gone).toEqual([{ code: 'reaches', reps: 5 }]);
  expect(after.rows.map((row) => row.code)).toEqual(['looks-down']);
  const rateOf = (ledger: Ledger) => ledger.rows.find((row) => row.code === 'looks-down')!.rate;
  expect(rateOf(after)).toBe(rateOf(before));
  // The cue was for it; another takes its place.
  expect(before.cue!.fault).toBe('reaches');
  expect(after.cue?.fault).toBe('looks-down');
  for (const place of ['/faults', `/cues?on=${day(1)}`, `/causes/${document.id}`]) {
    await coach.get(place).expect(200);
  }
});

it('a day is the club’s own: what a coach chose there holds for a session of that day, wherever the server is', async () => {
  // Of these two the calendar shows different days, whatever the hour.
  for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago']) {
    const far = await coachIn(stage);
    const { version, ...club } = (await far.get('/me').expect(200)).body.club;
    await far.put('/club', { ...club, timeZone: zone, version }).expect(200);
    const today = dayIn(zone, new Date());
    const athlete = anAthlete();
    await far.post('/athletes', athlete).expect(200);
    const plan = anApproach([athlete.id]);
    await far.post('/approaches', plan).expect(200);
    const before = { ...aSession(plan.id, [athlete.id]), date: day(1) };
    const now = { ...aSession(plan.id, [athlete.id]), date: today };
    for (const one of [before, now]) await far.post('/sessions', one).expect(200);
    const reps = Array.from({ length: 6 }, (_, i) =>
      aRep(before, {
        ...{ rep: 1 + i, turn: 1 + i, outcome: 'fault', faults: ['slows-in'] },
        // Logged on the evening of the day before, as a clock in London has it.
        at: `${day(1)}T23:${String(10 + i)}:00.000Z`,
      }),
    );
    await far.post('/reps', { reps }).expect(200);
    const choice = { movement: MOVEMENT, fault: 'looks-down', drill: null, reason: 'seen' };
    await far.post(`/athletes/${athlete.id}/cues`, { ...choice, id: uuid() }).expect(204);
    const cues = (await far.get(`/cues?on=${today}`).expect(200)).body.items as CueLine[];
    expect(cues.map(({ cue }) => cue?.fault)).toEqual(['looks-down']);
    expect(cues[0]!.cue!.by!.day).toBe(today);
    const ledger = (await far.get(`/athletes/${athlete.id}/ledger/${MOVEMENT}`)).body as Ledger;
    expect(ledger.log.map((one) => one.date)).toEqual([day(1)]);
  }
});
