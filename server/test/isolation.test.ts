import type { Router } from 'express';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clubRouter, type Route } from '../src/http/route';
import { ROUTES } from '../src/routes';
import { CLUB_TABLES } from '../src/database/clubTables';
import { inClub } from '../src/database/connect';
import {
  aRep,
  anApproach,
  aMovement,
  anAthlete,
  aReview,
  aGround,
  aRuleSet,
  aSession,
  coachIn,
  contentsOf,
  furnish,
  hear,
  openStage,
  stranger,
  until,
  type Coach,
  type Stage,
} from './setup';

let stage: Stage;
let home: Coach;
let other: Coach;
let nobody: Coach;
let own: Awaited<ReturnType<typeof furnish>>;
let memberId: string;
let invitationId: string;
let trialId: string;
let readingId: string;
let restrictionId: string;

beforeAll(async () => {
  stage = await openStage();
  home = await coachIn(stage);
  other = await coachIn(stage);
  nobody = stranger(stage);
  own = await furnish(home);
  memberId = (await home.get('/members')).body[0].id as string;
  invitationId = uuid();
  await home
    .post('/invitations', {
      ...{ id: invitationId, person: 'Gunhild', role: 'coach' },
      email: 'gunhild@elsewhere.invalid',
    })
    .expect(200);
  trialId = uuid();
  readingId = uuid();
  restrictionId = uuid();
  await home.post(`/athletes/${own.athlete.id}/trials`, trial()).expect(200);
  await home.post(`/athletes/${own.athlete.id}/readings`, reading()).expect(200);
  await home.post(`/athletes/${own.athlete.id}/restrictions`, restriction()).expect(200);
});

afterAll(() => stage.close());

const trial = () => ({
  id: trialId,
  athleteId: own.athlete.id,
  takenOn: '2031-05-01',
  source: 'other',
  note: '',
  steps: [1.2, 1.5, 1.7, 1.8, 1.9, 2].map((lengthM) => ({ lengthM, intervalS: 0.25 })),
});
const reading = () => ({
  id: readingId,
  athleteId: own.athlete.id,
  takenOn: '2031-05-01',
  source: 'device',
  note: '',
  reading: { kind: 'stop', speedMps: 6, distancesM: [4] },
});
const restriction = () => ({
  id: restrictionId,
  athleteId: own.athlete.id,
  kind: 'reduced',
  from: '2031-05-01',
  until: '2031-06-01',
  note: '',
});

type Try = { path: string; body?: object };

/**
 * For every route, a request that would reach into the home club. A route that is added must be added
 * here; the test below fails until it is.
 */
const reaching = (): Record<string, Try> => ({
  'get /me': { path: '/me' },
  'put /club': {
    path: '/club',
    body: { name: 'Taken', unit: 'metric', cueSchool: 'root-cause', timeZone: 'UTC', version: 7 },
  },
  'get /members': { path: '/members' },
  'put /club/two-steps': { path: '/club/two-steps', body: { asked: false } },
  'get /invitations': { path: '/invitations' },
  'post /invitations': {
    path: '/invitations',
    body: { id: memberId, person: 'X', email: home.email, role: 'owner' },
  },
  'post /invitations/:id/link': { path: `/invitations/${invitationId}/link` },
  'delete /invitations/:id': { path: `/invitations/${invitationId}` },
  'get /deeds': { path: '/deeds' },
  'get /archive/restoring': { path: '/archive/restoring' },
  'put /members/:id': { path: `/members/${memberId}`, body: { role: 'assistant' } },
  'delete /members/:id': { path: `/members/${memberId}` },
  'post /members/:id/link': { path: `/members/${memberId}/link` },
  'get /athletes': { path: '/athletes' },
  'post /athletes': {
    path: '/athletes',
    body: { ...anAthlete({ id: own.athlete.id }), name: 'Mine' },
  },
  'get /athletes/:id': { path: `/athletes/${own.athlete.id}` },
  'put /athletes/:id': {
    path: `/athletes/${own.athlete.id}`,
    body: { ...own.athlete, name: 'Mine', version: 1 },
  },
  'put /athletes/:id/away': {
    path: `/athletes/${own.athlete.id}/away`,
    body: { away: true },
  },
  'get /athletes/:id/export': { path: `/athletes/${own.athlete.id}/export` },
  'delete /athletes/:id': { path: `/athletes/${own.athlete.id}` },
  'post /athletes/:id/trials': {
    path: `/athletes/${own.athlete.id}/trials`,
    body: { ...trial(), id: uuid() },
  },
  'put /athletes/:id/trials/:trialId/away': {
    path: `/athletes/${own.athlete.id}/trials/${trialId}/away`,
    body: { away: true },
  },
  'post /athletes/:id/readings': {
    path: `/athletes/${own.athlete.id}/readings`,
    body: { ...reading(), id: uuid() },
  },
  'put /athletes/:id/readings/:readingId/away': {
    path: `/athletes/${own.athlete.id}/readings/${readingId}/away`,
    body: { away: true },
  },
  'post /athletes/:id/restrictions': {
    path: `/athletes/${own.athlete.id}/restrictions`,
    body: { ...restriction(), id: uuid() },
  },
  'put /athletes/:id/restrictions/:restrictionId/away': {
    path: `/athletes/${own.athlete.id}/restrictions/${restrictionId}/away`,
    body: { away: true },
  },
  'get /athletes/:id/faults': { path: `/athletes/${own.athlete.id}/faults` },
  'get /movements': { path: '/movements' },
  'post /movements': { path: '/movements', body: { ...aMovement(), id: own.movement.id } },
  'put /movements/:id': {
    path: `/movements/${own.movement.id}`,
    body: { ...aMovement(), version: 1 },
  },
  'put /movements/:id/away': { path: `/movements/${own.movement.id}/away`, body: { away: true } },
  'get /rule-sets': { path: '/rule-sets' },
  'post /rule-sets': { path: '/rule-sets', body: { ...aRuleSet(), id: own.rules.id } },
  'put /rule-sets/:id': {
    path: `/rule-sets/${own.rules.id}`,
    body: { ...aRuleSet(), version: 1 },
  },
  'put /rule-sets/:id/away': { path: `/rule-sets/${own.rules.id}/away`, body: { away: true } },
  'get /grounds': { path: '/grounds' },
  'post /grounds': { path: '/grounds', body: aGround({ id: own.ground.id }) },
  'put /grounds/:id': { path: `/grounds/${own.ground.id}`, body: { ...aGround(), version: 1 } },
  'put /grounds/:id/away': { path: `/grounds/${own.ground.id}/away`, body: { away: true } },
  'get /approaches': { path: '/approaches' },
  'post /approaches': { path: '/approaches', body: anApproach([own.athlete.id]) },
  'get /approaches/:id': { path: `/approaches/${own.approach.id}` },
  'put /approaches/:id': {
    path: `/approaches/${own.approach.id}`,
    body: { ...own.approach, name: 'Mine', version: 1 },
  },
  'put /approaches/:id/away': {
    path: `/approaches/${own.approach.id}/away`,
    body: { away: true },
  },
  'get /sessions': { path: '/sessions?from=2031-04-01&to=2031-06-30' },
  'get /sessions/templates': { path: '/sessions/templates' },
  'get /sessions/needs': { path: '/sessions/needs?day=2031-05-14' },
  'get /sessions/:id/calendar': { path: `/sessions/${own.session.id}/calendar` },
  'get /calendar': { path: '/calendar' },
  'post /calendar': { path: '/calendar' },
  'delete /calendar': { path: '/calendar' },
  'get /sessions/history': { path: '/sessions/history?day=2031-05-14' },
  'post /sessions': { path: '/sessions', body: aSession(own.approach.id, [own.athlete.id]) },
  'get /sessions/:id': { path: `/sessions/${own.session.id}` },
  'put /sessions/:id': {
    path: `/sessions/${own.session.id}`,
    body: { ...own.session, title: 'Mine', version: 1 },
  },
  'get /sessions/:id/clock': { path: `/sessions/${own.session.id}/clock` },
  'post /sessions/:id/clock': {
    path: `/sessions/${own.session.id}/clock`,
    body: { id: uuid(), kind: 'start', atMs: 1_700_000_000_000 },
  },
  'put /sessions/:id/away': {
    path: `/sessions/${own.session.id}/away`,
    body: { away: true },
  },
  'get /sessions/:id/run': { path: `/sessions/${own.session.id}/run` },
  'post /reps': { path: '/reps', body: { reps: [aRep(own.session, { rep: 2 })] } },
  'get /sessions/:id/reps': { path: `/sessions/${own.session.id}/reps` },
  'get /faults': { path: '/faults' },
  'get /causes/:movement': { path: `/causes/${own.movement.id}` },
  'get /progress/:movement': { path: `/progress/${own.movement.id}` },
  'get /ways/:movement': { path: `/ways/${own.movement.id}` },
  'get /today': { path: '/today' },
  'get /cues': { path: `/cues?on=${own.session.date}` },
  'get /athletes/:id/ledger/:movement': {
    path: `/athletes/${own.athlete.id}/ledger/straight-run-up`,
  },
  'post /athletes/:id/rungs': {
    path: `/athletes/${own.athlete.id}/rungs`,
    body: { id: uuid(), movement: 'straight-run-up', rung: 'walk', reason: 'mine' },
  },
  'post /athletes/:id/drills': {
    path: `/athletes/${own.athlete.id}/drills`,
    body: { id: uuid(), movement: 'wall-switches', drill: 'one-freeze' },
  },
  'post /athletes/:id/cues': {
    path: `/athletes/${own.athlete.id}/cues`,
    body: {
      id: uuid(),
      movement: 'straight-run-up',
      fault: 'reaches',
      drill: null,
      reason: 'seen',
    },
  },
  'get /athletes/:id/measured': { path: `/athletes/${own.athlete.id}/measured` },
  'get /athletes/:id/own-counts': { path: `/athletes/${own.athlete.id}/own-counts` },
  'get /athletes/:id/own-link': { path: `/athletes/${own.athlete.id}/own-link` },
  'post /athletes/:id/own-link': {
    path: `/athletes/${own.athlete.id}/own-link`,
    body: { days: 30, guardian: true },
  },
  'delete /athletes/:id/own-link': { path: `/athletes/${own.athlete.id}/own-link` },
  'get /reviews': { path: '/reviews' },
  'post /reviews': { path: '/reviews', body: aReview(own.athlete.id, { id: own.review.id }) },
  'get /reviews/:id': { path: `/reviews/${own.review.id}` },
  'put /reviews/:id': {
    path: `/reviews/${own.review.id}`,
    body: { ...aReview(own.athlete.id), version: 1 },
  },
  'put /reviews/:id/away': { path: `/reviews/${own.review.id}/away`, body: { away: true } },
  'get /athletes/:id/approaches': { path: `/athletes/${own.athlete.id}/approaches` },
});

const nameOf = (route: Route): string => `${route.method} ${route.path}`;

const ask = (who: Coach, { method, path, body }: Try & { method: Route['method'] }) =>
  ({
    get: () => who.get(path),
    post: () => who.post(path, body),
    put: () => who.put(path, body ?? {}),
    delete: () => who.remove(path),
  })[method]();

describe('every route of the API', () => {
  it('is tried here, and none is served that is not declared', () => {
    expect(Object.keys(reaching()).sort()).toEqual(ROUTES.map(nameOf).sort());
    const stack = (
      clubRouter(
        {
          ...{ db: stage.db, tell: () => undefined, stored: () => undefined },
          countNow: () => Promise.resolve(),
        },
        ROUTES,
      ) as Router
    ).stack;
    expect(stack.filter((layer) => layer.route)).toHaveLength(ROUTES.length);
  });

  it.each(ROUTES.map((route) => [nameOf(route), route] as const))(
    '%s: nobody gets in, another club finds and changes nothing',
    async (name, { method }) => {
      const attempt = { ...reaching()[name]!, method };
      const before = await contentsOf(stage, home.clubId);

      const shut = await ask(nobody, attempt);
      expect(shut.status).toBe(401);
      expect(shut.type).toBe('application/problem+json');

      // A club of its own for every try, so that what one try made is not found by the next.
      const answer = await ask(await coachIn(stage), attempt);
      expect(answer.status).not.toBe(500);
      const said = JSON.stringify(answer.body);
      for (const secret of [
        own.athlete.name,
        own.approach.name,
        own.session.title,
        own.movement.movement.name,
        home.clubId,
        home.email,
      ]) {
        // What was sent along may come back; what is stored may not.
        if (!JSON.stringify(attempt.body ?? {}).includes(secret))
          expect(said).not.toContain(secret);
      }
      if (
        !['get /me', 'post /athletes', 'get /members'].includes(name) &&
        /:/.test(name) &&
        method === 'get'
      ) {
        expect(said === '{"items":[],"next":null}' || answer.status === 404).toBe(true);
      }
      expect(await contentsOf(stage, home.clubId)).toBe(before);
    },
  );

  it('reports changes to members of the club only', async () => {
    const [athome, elsewhere, shut] = [home, other, nobody].map((who) => hear(stage, who));
    const all = [athome!, elsewhere!];
    await until(() => all.every((one) => one.said().includes('data: alive')));
    await home.put(`/athletes/${own.athlete.id}/away`, { away: false }).expect(200);
    await until(() => athome!.said().includes('data: athletes'));
    // What the other club hears comes over the same connection, so it would be here by now.
    await other.post('/athletes', anAthlete()).expect(200);
    await until(() => elsewhere!.said().includes('data: athletes'));
    expect(elsewhere!.said().match(/data: athletes/g)).toHaveLength(1);
    expect(shut!.status()).toBe(401);
    for (const one of all) one.stop();
  });
});

describe('row-level security', () => {
  it('shows nothing to a query that forgot the club', async () => {
    for (const table of [...CLUB_TABLES, 'club', 'account'] as const) {
      const rows = await stage.db.selectFrom(table).selectAll().execute();
      expect(rows, table).toEqual([]);
    }
  });

  it('covers every table that has a club', async () => {
    const { rows } = await sql<{ name: string; secured: boolean }>`
      select c.relname as name, c.relrowsecurity as secured from pg_class c
      join pg_attribute a on a.attrelid = c.oid and a.attname = 'club_id'
      where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace`.execute(stage.owner);
    expect(rows.length).toBe(CLUB_TABLES.length);
    expect(rows.filter((row) => !row.secured)).toEqual([]);
  });

  it('lets no row be written into or pointed at another club', async () => {
    const into = inClub(stage.db, other, (trx) =>
      trx
        .insertInto('athlete')
        .values({
          club_id: home.clubId,
          id: uuid(),
          name: 'Planted',
          squad: 'X',
          hand: 'left',
          takeoff_foot: 'left',
          shoe_m: null,
          height_m: null,
          birth_year: null,
          positions: [],
        })
        .execute(),
    );
    await expect(into).rejects.toThrow(/row-level security/);
    const across = inClub(stage.db, other, (trx) =>
      trx
        .insertInto('measurement')
        .values({
          id: uuid(),
          athlete_id: own.athlete.id,
          kind: 'trial',
          taken_on: '2031-01-01',
          source: 'self',
          note: '',
          payload: '{"steps":[]}',
        })
        .execute(),
    );
    await expect(across).rejects.toThrow(/foreign key/);
  });
});
