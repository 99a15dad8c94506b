import { v7 as uuid } from 'uuid';
import type { OwnView } from '@gravek/contract/ownView';
import type { MeasuredReps, MeasuredRun, RepReceipt } from '@gravek/contract/session';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  anApproach,
  anAthlete,
  aRep,
  aReview,
  coachIn,
  furnish,
  openStage,
  stranger,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let coach: Coach;
let own: Awaited<ReturnType<typeof furnish>>;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
  own = await furnish(coach);
});
afterAll(() => stage.close());

describe('a film held against a plan', () => {
  it('is one however often it is sent, and is not written over by another', async () => {
    const film = aReview(own.athlete.id);
    const first = (await coach.post('/reviews', film).expect(200)).body;
    expect((await coach.post('/reviews', film).expect(200)).body).toEqual(first);
    await coach.post('/reviews', { ...film, note: 'another' }).expect(409);
    expect((await coach.get(`/reviews/${film.id}`)).body).toMatchObject({ note: '', version: 1 });
  });

  it('goes to the first of two who change it; a change whose answer was lost finds itself', async () => {
    const film = aReview(own.athlete.id);
    await coach.post('/reviews', film).expect(200);
    const { id, ...fields } = film;
    const mine = { ...fields, contacts: [], version: 1 };
    const once = (await coach.put(`/reviews/${id}`, mine).expect(200)).body;
    expect((await coach.put(`/reviews/${id}`, mine).expect(200)).body).toEqual(once);
    const late = await coach.put(`/reviews/${id}`, { ...fields, note: 'late', version: 1 });
    expect(late.status).toBe(409);
    expect((late.body as { current: unknown }).current).toEqual(once);
  });

  it('names what is there, of one movement, and says what is not', async () => {
    const said = async (change: object): Promise<Record<string, string>> =>
      (
        (await coach.post('/reviews', { ...aReview(own.athlete.id), ...change }).expect(422))
          .body as { fields: Record<string, string> }
      ).fields;
    expect(await said({ athleteId: uuid() })).toEqual({
      athleteId: 'This athlete is not there any more.',
    });
    expect(await said({ approachId: uuid() })).toEqual({
      approachId: 'This plan is not there any more.',
    });
    expect(await said({ movement: 'give-ground', approachId: own.approach.id })).toEqual({
      approachId: 'This plan is of another movement.',
    });
    const long = { ...aReview(own.athlete.id).film, durationS: 7200 };
    expect(Object.keys(await said({ film: long }))).toEqual(['film.durationS']);
  });

  it('is in the list until it is put away, and goes with its athlete', async () => {
    const person = anAthlete();
    await coach.post('/athletes', person).expect(200);
    const film = aReview(person.id, { takenOn: '2031-06-01', faults: ['reaches', 'slows-in'] });
    await coach.post('/reviews', film).expect(200);
    const listed = async (): Promise<{ id: string }[]> =>
      (await coach.get('/reviews').expect(200)).body.items as { id: string }[];
    expect((await listed())[0]).toEqual({
      id: film.id,
      athleteId: person.id,
      movement: 'straight-run-up',
      takenOn: '2031-06-01',
      film: 'jump.mp4',
      contacts: 3,
      faults: ['reaches', 'slows-in'],
    });
    await coach.put(`/reviews/${film.id}/away`, { away: true }).expect(200);
    expect((await listed()).some(({ id }) => id === film.id)).toBe(false);
    await coach.put(`/reviews/${film.id}/away`, { away: false }).expect(200);
    const held = (await coach.get(`/athletes/${person.id}/export`).expect(200)).body as {
      reviews: unknown[];
    };
    expect(held.reviews).toHaveLength(1);
    await coach.remove(`/athletes/${person.id}`).expect(204);
    await coach.get(`/reviews/${film.id}`).expect(404);
  });

  it('is listed page by page', async () => {
    const people = await coachIn(stage);
    const { athlete } = await furnish(people);
    for (let i = 0; i < 105; i += 1) {
      await people
        .post('/reviews', aReview(athlete.id, { takenOn: `2031-03-${10 + (i % 20)}` }))
        .expect(200);
    }
    const first = (await people.get('/reviews').expect(200)).body as {
      items: { id: string }[];
      next: string;
    };
    const second = (await people.get(`/reviews?after=${encodeURIComponent(first.next)}`)).body as {
      items: { id: string }[];
      next: null;
    };
    expect(second.next).toBeNull();
    const ids = [...first.items, ...second.items].map(({ id }) => id);
    expect(new Set(ids).size).toBe(106);
    await people.get('/reviews?after=rubbish').expect(422);
  });
});

describe('what was measured of reps', () => {
  const course = (minutes: number, spm: number, plannedSpm: number | null = 174) =>
    Array.from({ length: minutes }, (_, i) => ({
      ...{ atS: 60 * i, cadenceSpm: spm, speedMps: 3, plannedSpm, plannedMps: null },
    }));
  const steady = (simulated: boolean, minutes = 10, spm = 172): MeasuredRun => ({
    ...{ by: 'pod', simulated, steps: [], perMinute: true, course: course(minutes, spm) },
  });
  const measuredOf = async (athleteId: string): Promise<MeasuredReps> =>
    (await coach.get(`/athletes/${athleteId}/measured`).expect(200)).body as MeasuredReps;

  it('is there newest first, beside its plan; what was taken back is not, and what was made up is no steady run', async () => {
    const { athlete, session } = await furnish(coach);
    // As a phone of the version before says it.
    const old = {
      by: 'taps',
      simulated: false,
      steps: [{ lengthM: null, intervalS: 0.3 }],
      course: [],
    };
    const rows = [
      aRep(session, { rep: 1, turn: 1, measured: old as never }),
      aRep(session, { rep: 2, turn: 2, measured: steady(false), at: '2031-05-14T10:01:00.000Z' }),
      aRep(session, { rep: 3, turn: 3, measured: steady(true), at: '2031-05-14T10:02:00.000Z' }),
      aRep(session, { rep: 4, turn: 4, measured: steady(false), at: '2031-05-14T10:03:00.000Z' }),
      aRep(session, { rep: 5, turn: 5 }),
    ];
    await coach.post('/reps', { reps: rows }).expect(200);
    const gone = aRep(session, { rep: 4, turn: 4, outcome: 'void', voids: rows[3]!.id });
    await coach.post('/reps', { reps: [gone] }).expect(200);
    const { items, steady: weeks } = await measuredOf(athlete.id);
    expect(items.map(({ rep }) => rep)).toEqual([3, 2, 1]);
    expect(items[2]).toMatchObject({
      date: session.date,
      measured: {
        perMinute: false,
        steps: [{ n: null, intervalS: 0.3, plannedM: null, plannedS: null }],
      },
    });
    expect(weeks).toEqual([
      {
        takenOn: session.date,
        targetSpm: 174,
        minutesSpm: Array<number>(10).fill(172),
        minutesMps: Array<number>(10).fill(3),
      },
    ]);
  });

  it('is thirty of them at most, and of steady runs a season, however many were measured', async () => {
    const { athlete, session } = await furnish(coach);
    const reps = Array.from({ length: 90 }, (_, i) =>
      aRep(session, {
        set: 1 + (i % 3),
        rep: 1 + Math.floor(i / 3),
        turn: i + 1,
        measured: steady(false, 3),
      }),
    );
    await coach.post('/reps', { reps }).expect(200);
    const { items, steady: weeks } = await measuredOf(athlete.id);
    expect([items.length, weeks.length]).toEqual([30, 90]);
    const nobody = anAthlete();
    await coach.post('/athletes', nobody).expect(200);
    expect(await measuredOf(nobody.id)).toEqual({ items: [], steady: [] });
    await coach.get(`/athletes/${uuid()}/measured`).expect(404);
  });

  it('is refused where it cannot be, rep by rep', async () => {
    const { session } = await furnish(coach);
    const bad = (measured: object) => aRep(session, { measured: measured as MeasuredRun });
    const sent = [
      bad({ ...steady(false), by: 'guess' }),
      bad({ ...steady(false), course: course(181, 172) }),
      bad({ ...steady(false), course: [{ ...course(1, 172)[0], plannedSpm: 'fast' }] }),
      bad({ ...steady(false), course: course(3, 172).reverse() }),
      bad({ ...steady(false), steps: [{ n: 0, lengthM: 1, intervalS: 0.3 }] }),
      aRep(session, { rep: 2, turn: 2, measured: steady(false, 180) }),
    ];
    const receipt = (await coach.post('/reps', { reps: sent }).expect(200)).body as RepReceipt;
    expect(receipt.stored.map(({ id }) => id)).toEqual([sent[5]!.id]);
    expect(receipt.refused).toHaveLength(5);
  });
});

describe('an athlete’s own page', () => {
  const see = (token: string) =>
    stranger(stage).agent.post('/api/own').set('origin', stage.origin).send({ token });
  const give = async (athleteId: string, body: object = { days: 30, guardian: false }) =>
    (await coach.post(`/athletes/${athleteId}/own-link`, body).expect(200)).body as {
      token: string;
      until: string;
    };

  it('holds the own plans, cue and curve, and nothing of others', async () => {
    const other = anAthlete({ name: 'Oda Kvist' });
    await coach.post('/athletes', other).expect(200);
    await coach.post('/approaches', anApproach([own.athlete.id, other.id])).expect(200);
    const { token } = await give(own.athlete.id, { days: 30, guardian: true });
    const view = (await see(token).expect(200)).body as OwnView;
    expect(view.name).toBe(own.athlete.name);
    expect(view.plans.length).toBeGreaterThan(1);
    expect(view.plans[0]!.outline.contacts.length).toBeGreaterThan(5);
    expect(view.standings).toHaveLength(1);
    const text = JSON.stringify(view);
    for (const secret of [other.name, other.id, own.athlete.id, coach.email, coach.clubId])
      expect(text).not.toContain(secret);
  });

  it('is taken back, ends with its day and with its athlete, and a new link ends the one before', async () => {
    const first = await give(own.athlete.id, { days: 30, guardian: true });
    const second = await give(own.athlete.id, { days: 30, guardian: true });
    await see(first.token).expect(404);
    await see(second.token).expect(200);
    const until = (await coach.get(`/athletes/${own.athlete.id}/own-link`)).body as unknown;
    expect(until).toEqual({ until: second.until });
    await coach.put(`/athletes/${own.athlete.id}/away`, { away: true }).expect(200);
    await see(second.token).expect(404);
    await coach.put(`/athletes/${own.athlete.id}/away`, { away: false }).expect(200);
    await sql`update own_link set until = now() - interval '1 second'
      where athlete_id = ${own.athlete.id}`.execute(stage.owner);
    await see(second.token).expect(404);
    expect((await coach.get(`/athletes/${own.athlete.id}/own-link`)).body).toEqual({ until: null });
    const third = await give(own.athlete.id, { days: 30, guardian: true });
    await coach.remove(`/athletes/${own.athlete.id}/own-link`).expect(204);
    await see(third.token).expect(404);
    await see('x'.repeat(43)).expect(404);
    await see('x'.repeat(400)).expect(422);
  });

  it('is not asked for without end, and one link holds up no other', async () => {
    const [one, two] = [
      await give(own.athlete.id, { days: 30, guardian: true }),
      { token: 'y'.repeat(43) },
    ];
    const statuses: number[] = [];
    for (let i = 0; i < 62; i += 1) statuses.push((await see(one.token)).status);
    expect(new Set(statuses.slice(0, 60))).toEqual(new Set([200]));
    expect(statuses.slice(60)).toEqual([429, 429]);
    await see(two.token).expect(404);
  });

  it('is for a minor, or somebody of unknown age, only with a guardian’s word', async () => {
    const now = new Date();
    const year = now.getUTCFullYear();
    /** A day eighteen years ago and some days after it. */
    const ago18 = (days: number): string =>
      new Date(Date.UTC(year - 18, now.getUTCMonth(), now.getUTCDate() + days))
        .toISOString()
        .slice(0, 10);
    for (const [birthYear, bornOn, needed] of [
      [year - 12, null, true],
      [null, null, true],
      [year - 30, null, false],
      // The year alone leaves doubt but on its last day.
      [year - 18, null, now.toISOString().slice(5, 10) !== '12-31'],
      [Number(ago18(-2).slice(0, 4)), ago18(-2), false],
      [Number(ago18(2).slice(0, 4)), ago18(2), true],
    ] as const) {
      const person = anAthlete({ birthYear, bornOn });
      await coach.post('/athletes', person).expect(200);
      const path = `/athletes/${person.id}/own-link`;
      const asked = await coach.post(path, { days: 30, guardian: false });
      expect(asked.status).toBe(needed ? 422 : 200);
      const { token } = await give(person.id, { days: 30, guardian: true });
      await see(token).expect(200);
    }
    const helper = await coachIn(stage, 'assistant', coach.clubId);
    await helper
      .post(`/athletes/${own.athlete.id}/own-link`, { days: 30, guardian: true })
      .expect(403);
  });

  it('ends when who gave it leaves the club', async () => {
    const leaving = await coachIn(stage, 'coach', coach.clubId);
    const { token } = (
      await leaving
        .post(`/athletes/${own.athlete.id}/own-link`, { days: 30, guardian: true })
        .expect(200)
    ).body as { token: string };
    await see(token).expect(200);
    const members = (await coach.get('/members')).body as { id: string; email: string }[];
    const { id } = members.find(({ email }) => email === leaving.email)!;
    await coach.remove(`/members/${id}`).expect(200);
    await see(token).expect(404);
  });

  it('ends when who gave it may give none any more, for good', async () => {
    const giver = await coachIn(stage, 'coach', coach.clubId);
    const { token } = (
      await giver
        .post(`/athletes/${own.athlete.id}/own-link`, { days: 30, guardian: true })
        .expect(200)
    ).body as { token: string };
    const members = (await coach.get('/members')).body as { id: string; email: string }[];
    const { id } = members.find(({ email }) => email === giver.email)!;
    for (const role of ['assistant', 'coach']) {
      await coach.put(`/members/${id}`, { role }).expect(200);
      await see(token).expect(404);
    }
  });
});
