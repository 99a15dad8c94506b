import type { Today } from '@gravek/contract/today';
import { dayIn } from '@gravek/core/days';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  aGround,
  aRep,
  aSession,
  anApproach,
  anAthlete,
  coachIn,
  openStage,
  type Coach,
  type Stage,
} from './setup';

/** What a coach sees first, worked out at the server. */

let stage: Stage;
let coach: Coach;
const today = dayIn('UTC', new Date());
const asked = async (): Promise<Today> => (await coach.get('/today').expect(200)).body as Today;

beforeAll(async () => {
  stage = await openStage();
});
afterAll(() => stage.close());

describe('today', () => {
  it('leads an empty club from step to step', async () => {
    coach = await coachIn(stage);
    expect(await asked()).toEqual({
      sessions: [],
      cues: [],
      due: [],
      restricted: [],
      outdated: [],
      firstSteps: {
        ...{ athletes: false, measured: false, planned: false, session: false, logged: false },
        ...{ athleteId: null, sessionId: null },
      },
    });
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const approach = anApproach([athlete.id]);
    await coach.post('/approaches', approach).expect(200);
    expect((await asked()).firstSteps).toMatchObject({
      ...{ athletes: true, measured: false, planned: true, session: false },
      ...{ athleteId: athlete.id, sessionId: null },
    });
    const session = { ...aSession(approach.id, [athlete.id]), date: today };
    await coach.post('/sessions', session).expect(200);
    const before = await asked();
    expect(before.firstSteps).toMatchObject({ session: true, logged: false });
    expect(before.firstSteps.sessionId).toBe(session.id);
    // Who is there for the first time is watched before anything is said.
    expect(before.cues).toMatchObject([{ name: athlete.name, cue: null, reps: 0 }]);
    expect(before.due).toMatchObject([
      { kind: 'check', athletes: [{ name: athlete.name, words: 'never measured' }] },
    ]);
    await coach.post('/reps', { reps: [aRep(session)] }).expect(200);
    expect((await asked()).firstSteps.logged).toBe(true);
  });

  it('has a session in a few lines, on its ground, with fewer reps for who is on reduced volume', async () => {
    coach = await coachIn(stage);
    const [whole, part] = [anAthlete(), anAthlete({ name: 'Odran Vask' })];
    for (const athlete of [whole, part]) await coach.post('/athletes', athlete).expect(200);
    const approach = anApproach([whole.id, part.id]);
    await coach.post('/approaches', approach).expect(200);
    const weekday = new Intl.DateTimeFormat('en', { weekday: 'long', timeZone: 'UTC' }).format(
      new Date(today),
    );
    const ground = aGround({
      slots: [{ day: weekday as 'Monday', from: '17:00', to: '18:30' }],
    });
    await coach.post('/grounds', ground).expect(200);
    const session = {
      ...aSession(approach.id, [whole.id, part.id]),
      ...{ date: today, groundId: ground.id },
    };
    await coach.post('/sessions', session).expect(200);
    const [plain] = (await asked()).sessions;
    expect(plain).toMatchObject({
      ...{ id: session.id, title: 'Run-ups', where: 'Old quay hall, 17:00–18:30' },
      ...{ reps: 12, logged: 0 },
      sets: [{ name: 'Board, 12 steps', approachId: approach.id, athletes: 2 }],
    });
    expect(plain!.seconds).toBeGreaterThan(0);
    await coach
      .post(`/athletes/${part.id}/restrictions`, {
        ...{ id: uuid(), athleteId: part.id, kind: 'reduced', from: today, until: null },
        ...{ share: 0.5, note: 'back from a cold' },
      })
      .expect(200);
    const after = await asked();
    expect(after.sessions[0]!.reps).toBeLessThan(12);
    expect(after.restricted).toMatchObject([
      { name: 'Odran Vask', kind: 'reduced', until: null, note: 'back from a cold' },
    ]);
  });

  it('tells cues in the words that hold for a left-hander, and passes over who is put away', async () => {
    coach = await coachIn(stage);
    const [left, away] = [anAthlete({ takeoffFoot: 'right' }), anAthlete({ name: 'Somebody' })];
    for (const athlete of [left, away]) await coach.post('/athletes', athlete).expect(200);
    const approach = anApproach([left.id, away.id]);
    await coach.post('/approaches', approach).expect(200);
    const session = { ...aSession(approach.id, [left.id, away.id]), date: '2026-01-07' };
    session.drillSets[0]!.reps = 12;
    await coach.post('/sessions', session).expect(200);
    const reps = [left, away].flatMap(({ id: athleteId }, person) =>
      Array.from({ length: 12 }, (_, i) =>
        aRep(session, {
          ...{ athleteId, rep: i + 1, turn: 12 * person + i + 1 },
          ...{ outcome: 'fault', faults: ['reaches'] },
        }),
      ),
    );
    await coach.post('/reps', { reps }).expect(200);
    await coach.put(`/athletes/${away.id}/away`, { away: true }).expect(200);
    const { cues } = await asked();
    expect(cues.map((line) => line.athleteId)).toEqual([left.id]);
    expect(cues[0]!.cue).toBeTruthy();
    expect(cues[0]!.movementName).toBeNull();
  });
});
