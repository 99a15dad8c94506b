import type { Club, LoadLimit } from '@gravek/contract/club';
import type { Needs } from '@gravek/contract/run';
import type { Session } from '@gravek/contract/session';
import supertest from 'supertest';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  aGround,
  aRep,
  anApproach,
  anAthlete,
  aSession,
  coachIn,
  furnish,
  openStage,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

describe('limits of load', () => {
  it('are kept by age, once for each age, and by the owner alone', async () => {
    const club = ((await coach.get('/me')).body as { club: Club }).club;
    expect(club.limits).toEqual([]);
    const limits: LoadLimit[] = [
      { kind: 'jumps', upToAge: 12, week: 40 },
      { kind: 'jumps', upToAge: 17, week: 80 },
    ];
    const saved = await coach.put('/club', { ...club, limits }).expect(200);
    expect((saved.body as Club).limits).toEqual(limits);
    const twice = [...limits, { kind: 'jumps', upToAge: 17, week: 90 }];
    const refused = await coach.put('/club', { ...club, version: 2, limits: twice }).expect(422);
    expect(refused.body.title).toContain('two limits');
    // A page from before knew of none.
    const { limits: _none, ...before } = { ...club, version: 2 };
    await coach.put('/club', before).expect(200);
  });
});

describe('a template', () => {
  it('is a session that is kept to begin others from, until it is put away', async () => {
    const { approach, athlete } = await furnish(coach);
    const session = { ...aSession(approach.id, [athlete.id]), template: true };
    await coach.post('/sessions', session).expect(200);
    const all = async () =>
      ((await coach.get('/sessions/templates').expect(200)).body.items as Session[]).map(
        (session) => session.id,
      );
    expect(await all()).toEqual([session.id]);
    await coach.put(`/sessions/${session.id}/away`, { away: true }).expect(200);
    expect(await all()).toEqual([]);
  });
});

describe('the needs of a club', () => {
  it('tell cues and reps on a ladder, by side, and nobody who is archived', async () => {
    const own = await coachIn(stage);
    const [athlete, gone] = [anAthlete(), anAthlete()];
    for (const one of [athlete, gone]) await own.post('/athletes', one).expect(200);
    const plan = anApproach([athlete.id, gone.id]);
    await own.post('/approaches', plan).expect(200);
    const session = aSession(plan.id, [athlete.id, gone.id]);
    await own.post('/sessions', session).expect(200);
    const reps = Array.from({ length: 12 }, (_, i) => [
      aRep(session, {
        ...{ athleteId: athlete.id, rep: 1 + i, turn: 1 + i, rung: 'half', device: uuid() },
        ...(i < 9 ? { outcome: 'fault', faults: ['reaches'] } : { outcome: 'clean', faults: [] }),
      }),
      aRep(session, { athleteId: gone.id, rep: 1 + i, turn: 1 + i, rung: 'half', device: uuid() }),
    ]).flat();
    await own.post('/reps', { reps }).expect(200);
    await own.put(`/athletes/${gone.id}/away`, { away: true }).expect(200);
    const needs = (await own.get('/sessions/needs?day=2031-05-20').expect(200)).body as Needs;
    expect(needs.cues).toMatchObject([
      { athleteId: athlete.id, movement: 'straight-run-up', fault: 'reaches' },
    ]);
    expect(needs.rungs).toEqual([
      {
        athleteId: athlete.id,
        movement: 'straight-run-up',
        sessionId: session.id,
        date: session.date,
        ...{ rung: 'half', side: 'own', reps: 12, clean: 3 },
      },
    ]);
    // What was run later than a day is not known on it.
    const before = (await own.get('/sessions/needs?day=2031-05-10').expect(200)).body as Needs;
    expect(before.rungs).toEqual([]);
    await own.get('/sessions/needs?day=soon').expect(422);
  });
});

/** Lines of a calendar, those that were folded put together. */
const linesOf = (text: string): string[] => text.replace(/\r\n[ \t]/g, '').split('\r\n');

describe('a calendar', () => {
  it('of a session says when, where and what, and names nobody', async () => {
    const own = await coachIn(stage);
    const ground = aGround({
      name: 'Quay hall; new',
      slots: [{ day: 'Wednesday', from: '18:00', to: '19:30' }],
    });
    await own.post('/grounds', ground).expect(200);
    const { approach, athlete } = await furnish(own);
    const session = {
      ...aSession(approach.id, [athlete.id]),
      title: 'Marks,\tand more',
      groundId: ground.id,
    };
    await own.post('/sessions', session).expect(200);
    const { text } = (await own.get(`/sessions/${session.id}/calendar`).expect(200)).body as {
      text: string;
    };
    const lines = linesOf(text);
    expect(lines).toContain('DTSTART:20310514T180000Z');
    expect(lines).toContain('DTEND:20310514T193000Z');
    expect(lines).toContain('SUMMARY:Marks\\, and more');
    expect(lines).toContain('LOCATION:Quay hall\\; new');
    expect(lines.find((line) => line.startsWith('DESCRIPTION'))).toContain(
      'DESCRIPTION:Board\\, 12 steps: 3 reps',
    );
    expect(text).not.toContain(athlete.name);
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  });

  it('is followed at an address that nobody guesses, until it is made anew or taken back', async () => {
    const own = await coachIn(stage);
    const other = await coachIn(stage, 'assistant', own.clubId);
    const today = new Date().toISOString().slice(0, 10);
    const { approach, athlete } = await furnish(own);
    const session = { ...aSession(approach.id, [athlete.id]), date: today, title: 'Followed' };
    await own.post('/sessions', session).expect(200);
    const feed = (token: string) => supertest(stage.address).get(`/calendar/${token}.ics`);
    expect((await own.get('/calendar')).body).toEqual({ madeAt: null });
    const make = async (who: Coach): Promise<string> =>
      ((await who.post('/calendar').expect(200)).body as { token: string }).token;
    const first = await make(own);
    const theirs = await make(other);
    expect(first).toMatch(/^[\w-]{43}$/);
    const answer = await feed(first)
      .expect(200)
      .expect('content-type', /text\/calendar/);
    expect(answer.text).toContain('SUMMARY:Followed');
    expect(answer.text).toContain(`DTSTART;VALUE=DATE:${today.replaceAll('-', '')}`);
    const second = await make(own);
    await feed(first).expect(404);
    await feed(second).expect(200);
    await own.put(`/sessions/${session.id}/away`, { away: true }).expect(200);
    expect((await feed(second)).text).not.toContain('Followed');
    await own.remove('/calendar').expect(204);
    await own.remove('/calendar').expect(204);
    await feed(second).expect(404);
    await feed(theirs).expect(200);
    // Who leaves the club takes no calendar along.
    const members = (await own.get('/members')).body as { id: string; you: boolean }[];
    await own.remove(`/members/${members.find((member) => !member.you)!.id}`).expect(200);
    await feed(theirs).expect(404);
    await feed('').expect(404);
    await feed(`${'x'.repeat(5000)}`).expect(404);
  });
});
