import type { Athlete } from '@gravek/contract/athlete';
import type { Club } from '@gravek/contract/club';
import type { Approach } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anAthlete, type Coach, coachIn, furnish, openStage, type Stage } from './setup';

/** What happens when a write is done twice, or by two. */

let stage: Stage;
let coach: Coach;
let own: Awaited<ReturnType<typeof furnish>>;

beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
  own = await furnish(coach);
});
afterAll(() => stage.close());

type Versioned = { version: number };

/** Every thing that carries a version: how to change it, and what is changed. */
const things = (): Record<
  string,
  { path: string; body: (mark: string, version: number) => object; marked: (row: never) => string }
> => {
  const { id: athleteId, ...athlete } = own.athlete;
  const { id: approachId, ...approach } = own.approach;
  const { id: sessionId, ...session } = own.session;
  return {
    athlete: {
      path: `/athletes/${athleteId}`,
      body: (squad, version) => ({ ...athlete, squad, version }),
      marked: (row: Athlete) => row.squad,
    },
    approach: {
      path: `/approaches/${approachId}`,
      body: (name, version) => ({ ...approach, name, version }),
      marked: (row: Approach) => row.name,
    },
    session: {
      path: `/sessions/${sessionId}`,
      body: (place, version) => ({ ...session, place, version }),
      marked: (row: Session) => row.place,
    },
    club: {
      path: '/club',
      body: (name, version) => ({
        name,
        unit: 'yards',
        cueSchool: 'first-phase',
        timeZone: 'Asia/Tokyo',
        version,
      }),
      marked: (row: Club) => row.name,
    },
  };
};

describe.each(['athlete', 'approach', 'session', 'club'])('a change of the %s', (name) => {
  const thing = () => things()[name]!;
  const current = async (): Promise<Versioned> =>
    name === 'club'
      ? ((await coach.get('/me')).body as { club: Club }).club
      : ((await coach.get(thing().path)).body as Versioned);

  it('done again, its answer lost, is the same change', async () => {
    const { version } = await current();
    const body = thing().body('first', version);
    const response = await coach.put(thing().path, body).expect(200);
    const two = await coach.put(thing().path, body).expect(200);
    expect((two.body as Versioned).version).toBe(version + 1);
    expect(two.body).toEqual(response.body);
  });

  it('from an older version is refused with the row as it stands', async () => {
    const { version } = await current();
    await coach.put(thing().path, thing().body('second', version)).expect(200);
    const late = await coach.put(thing().path, thing().body('late', version));
    expect(late.status).toBe(409);
    expect(late.body.title).toMatch(/was changed in the meantime\. Nothing was overwritten\.$/);
    expect(thing().marked(late.body.current as never)).toBe('second');
    expect(thing().marked((await current()) as never)).toBe('second');
    const kept = await coach.put(
      thing().path,
      thing().body('kept', (late.body.current as Versioned).version),
    );
    expect(kept.status).toBe(200);
  });

  it('of two at once takes one, and tells the other', async () => {
    const { version } = await current();
    const answers = await Promise.all(
      ['left', 'right'].map((mark) => coach.put(thing().path, thing().body(mark, version))),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
    const won = answers.find((answer) => answer.status === 200)!;
    expect(thing().marked((await current()) as never)).toBe(thing().marked(won.body as never));
    expect((await current()).version).toBe(version + 1);
    const lost = answers.find((answer) => answer.status === 409)!.body.current as never;
    expect(thing().marked(lost)).toBe(thing().marked(won.body as never));
    expect((lost as Versioned).version).toBe(version + 1);
  });

  it('that is not whole changes nothing', async () => {
    const before = await current();
    const answer = await coach.put(thing().path, { version: before.version });
    expect(answer.status).toBe(422);
    expect(Object.keys(answer.body.fields as object).length).toBeGreaterThan(0);
    expect(await current()).toEqual(before);
  });
});

describe('putting away', () => {
  it.each([
    ['athletes', () => own.athlete.id],
    ['approaches', () => own.approach.id],
    ['sessions', () => own.session.id],
  ])('%s can be undone, and twice is once', async (list, id) => {
    const at = `/${list}/${id()}`;
    for (const away of [true, true, false, false]) {
      const answer = await coach.put(`${at}/away`, { away }).expect(200);
      expect(answer.body.archived).toBe(away);
    }
    expect((await coach.put(`${at}/away`, { away: 'yes' })).status).toBe(422);
    expect((await coach.put(`/${list}/${uuid()}/away`, { away: true })).status).toBe(404);
  });

  it('a measured run goes and comes back, of its own athlete only', async () => {
    const trial = {
      id: uuid(),
      athleteId: own.athlete.id,
      takenOn: '2031-05-01',
      source: 'self',
      note: '',
      steps: Array.from({ length: 6 }, (_, i) => ({ lengthM: 1.2 + i / 10, intervalS: 0.26 })),
    };
    const at = `/athletes/${own.athlete.id}`;
    await coach.post(`${at}/trials`, trial).expect(200);
    const trials = async (): Promise<string[]> =>
      ((await coach.get(at)).body as Athlete).trials.map((trial) => trial.id);
    await coach.put(`${at}/trials/${trial.id}/away`, { away: true }).expect(200);
    expect(await trials()).not.toContain(trial.id);
    await coach.put(`${at}/trials/${trial.id}/away`, { away: false }).expect(200);
    expect(await trials()).toContain(trial.id);
    const other = anAthlete({ name: 'Somebody Else' });
    await coach.post('/athletes', other).expect(200);
    await coach.put(`/athletes/${other.id}/trials/${trial.id}/away`, { away: true }).expect(200);
    expect(await trials()).toContain(trial.id);
  });
});
