import { approachInput } from '@gravek/contract/approach';
import { type Athlete, athleteInput, restrictionInput, trialInput } from '@gravek/contract/athlete';
import { clubUpdate, memberRole } from '@gravek/contract/club';
import { groundInput } from '@gravek/contract/ground';
import { movementInput } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import { readingInput, type ReadingRow } from '@gravek/contract/reading';
import { repInput } from '@gravek/contract/repSchema';
import { ruleSetInput } from '@gravek/contract/ruleSet';
import { sessionInput } from '@gravek/contract/sessionSchema';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { AnyObjectSchema } from 'yup';
import { ROUTES } from '../src/routes';
import {
  aGround,
  aMovement,
  anApproach,
  anAthlete,
  aRep,
  aReview,
  aRuleSet,
  aSession,
  type Coach,
  coachIn,
  contentsOf,
  furnish,
  logOf,
  openStage,
  PASSWORD,
  type Stage,
  stranger,
} from './setup';

let stage: Stage;
let owner: Coach;
let own: Awaited<ReturnType<typeof furnish>>;
let second: string;
beforeAll(async () => {
  stage = await openStage();
  owner = await coachIn(stage);
  own = await furnish(owner);
  await coachIn(stage, 'coach', owner.clubId);
  second = ((await owner.get('/members')).body as { id: string; you: boolean }[]).find(
    (one) => !one.you,
  )!.id;
});
afterAll(() => stage.close());

/** How often each row has been changed, so that the next change is taken too. */
const versions = new Map<string, number>();

/** A body that each write route takes, with which the mutations begin. */
const bodies = (): Record<string, { path: string; body: object }> => {
  const athleteId = own.athlete.id;
  const base = { athleteId, note: 'wind' };
  return {
    'put /club': {
      path: '/club',
      body: { name: 'Tarn', unit: 'metric', cueSchool: 'root-cause', timeZone: 'UTC', version: 1 },
    },
    'put /club/two-steps': { path: '/club/two-steps', body: { asked: false } },
    'post /invitations': {
      path: '/invitations',
      body: {
        id: uuid(),
        person: 'Nils Farrow',
        email: `${uuid()}@farrow.invalid`,
        role: 'coach',
      },
    },
    'put /members/:id': { path: `/members/${second}`, body: { role: 'assistant' } },
    'post /athletes': { path: '/athletes', body: anAthlete() },
    'put /athletes/:id': { path: `/athletes/${athleteId}`, body: { ...own.athlete, version: 1 } },
    'put /athletes/:id/away': { path: `/athletes/${athleteId}/away`, body: { away: false } },
    'post /athletes/:id/trials': {
      path: `/athletes/${athleteId}/trials`,
      body: {
        ...base,
        id: uuid(),
        takenOn: '2031-05-01',
        source: 'other',
        steps: [1.2, 1.5, 1.7, 1.8, 1.9, 2].map((lengthM) => ({ lengthM, intervalS: 0.25 })),
      },
    },
    'post /athletes/:id/readings': {
      path: `/athletes/${athleteId}/readings`,
      body: {
        ...base,
        id: uuid(),
        takenOn: '2031-05-01',
        source: 'device',
        reading: {
          kind: 'sprint',
          splits: [
            { distanceM: 10, timeS: 2.1 },
            { distanceM: 20, timeS: 3.4 },
            { distanceM: 30, timeS: 4.6 },
          ],
        },
      },
    },
    'post /athletes/:id/restrictions': {
      path: `/athletes/${athleteId}/restrictions`,
      body: { ...base, id: uuid(), kind: 'reduced', from: '2031-05-01', until: '2031-06-01' },
    },
    'post /reviews': {
      path: '/reviews',
      body: aReview(athleteId, { approachId: own.approach.id }),
    },
    'put /reviews/:id': {
      path: `/reviews/${own.review.id}`,
      body: { ...aReview(athleteId), version: 1 },
    },
    'put /reviews/:id/away': { path: `/reviews/${own.review.id}/away`, body: { away: false } },
    'post /athletes/:id/own-link': {
      path: `/athletes/${athleteId}/own-link`,
      body: { days: 30, guardian: true },
    },
    'post /athletes/:id/rungs': {
      path: `/athletes/${athleteId}/rungs`,
      body: { id: uuid(), movement: 'straight-run-up', rung: 'walk', reason: 'shy of contact' },
    },
    'post /athletes/:id/drills': {
      path: `/athletes/${athleteId}/drills`,
      body: { id: uuid(), movement: 'wall-switches', drill: 'one-freeze' },
    },
    'post /athletes/:id/cues': {
      path: `/athletes/${athleteId}/cues`,
      body: {
        id: uuid(),
        movement: 'straight-run-up',
        fault: 'reaches',
        drill: null,
        reason: 'seen from the side',
      },
    },
    'post /movements': { path: '/movements', body: aMovement() },
    'put /movements/:id': {
      path: `/movements/${own.movement.id}`,
      body: { ...aMovement(), version: 1 },
    },
    'put /movements/:id/away': {
      path: `/movements/${own.movement.id}/away`,
      body: { away: false },
    },
    'post /rule-sets': { path: '/rule-sets', body: aRuleSet() },
    'put /rule-sets/:id': {
      path: `/rule-sets/${own.rules.id}`,
      body: { ...aRuleSet(), version: 1 },
    },
    'put /rule-sets/:id/away': { path: `/rule-sets/${own.rules.id}/away`, body: { away: false } },
    'post /grounds': { path: '/grounds', body: aGround({ apron: { besideM: 9, outM: 12 } }) },
    'put /grounds/:id': {
      path: `/grounds/${own.ground.id}`,
      body: { ...aGround(), version: 1 },
    },
    'post /calendar': { path: '/calendar', body: {} },
    'put /grounds/:id/away': { path: `/grounds/${own.ground.id}/away`, body: { away: false } },
    'post /approaches': { path: '/approaches', body: anApproach([athleteId]) },
    'put /approaches/:id': {
      path: `/approaches/${own.approach.id}`,
      body: { ...own.approach, version: 1 },
    },
    'put /approaches/:id/away': {
      path: `/approaches/${own.approach.id}/away`,
      body: { away: false },
    },
    'post /sessions': { path: '/sessions', body: aSession(own.approach.id, [athleteId]) },
    'put /sessions/:id': {
      path: `/sessions/${own.session.id}`,
      body: { ...own.session, version: 1 },
    },
    'post /sessions/:id/clock': {
      path: `/sessions/${own.session.id}/clock`,
      body: { id: uuid(), kind: 'start', atMs: 1_700_000_000_000, of: null },
    },
    'put /sessions/:id/away': { path: `/sessions/${own.session.id}/away`, body: { away: false } },
    'post /reps': {
      path: '/reps',
      body: { reps: [aRep(own.session, { rep: 2 }), aRep(own.session, { rep: 3 })] },
    },
  };
};

/** Writes without a body, or whose body says nothing: there is nothing to mutate. */
const WITHOUT_BODY = [
  'post /members/:id/link',
  'post /invitations/:id/link',
  'put /athletes/:id/readings/:readingId/away',
  'put /athletes/:id/trials/:trialId/away',
  'put /athletes/:id/restrictions/:restrictionId/away',
];

const ODD: readonly unknown[] = [
  null,
  '',
  ' ',
  0,
  -1,
  1e308,
  -0.5,
  2 ** 31 - 1,
  2 ** 31,
  2 ** 53,
  true,
  [],
  {},
  [[]],
  'a\0b',
  '\ud800',
  '\u202e\u200b',
  'constructor',
  '__proto__',
  'x'.repeat(3_000),
  'ÅÄ\u0301 太田 🤸🏽',
  "'; drop table rep; --",
  '0000-01-01',
  '2031-02-31',
  '9999-12-31T24:00:00Z',
  '2031-05-14T10:00:00+02:00',
  'NaN',
  '00000000-0000-0000-0000-000000000000',
  { toString: 1 },
  { kind: 'constructor' },
  Array.from({ length: 500 }, () => ({})),
];

/** Numbers in [0, 1), the same for the same seed. */
const seeded = (seed: number): (() => number) => {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
};

/** One or more changes anywhere in a body. */
const mutated = (body: unknown, random: () => number): unknown => {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const change = (value: unknown, depth: number): unknown => {
    const isBranch = typeof value === 'object' && value !== null && Object.keys(value).length > 0;
    if (!isBranch || (depth > 0 && random() < 0.25)) {
      if (typeof value === 'number' && random() < 0.4)
        return value * pick([0, -1, 1.01, 2, 10, 1e6]);
      if (typeof value === 'string' && random() < 0.3)
        return value + pick(['x', ' ', '\u0301', '0']);
      return pick(ODD);
    }
    const copy: unknown[] | Record<string, unknown> = Array.isArray(value)
      ? [...(value as unknown[])]
      : { ...(value as Record<string, unknown>) };
    const key = pick(Object.keys(copy));
    const roll = random();
    if (roll < 0.1) {
      if (Array.isArray(copy)) copy.splice(Number(key), 1);
      else delete copy[key];
    } else if (roll < 0.15 && Array.isArray(copy)) copy.push(copy[Number(key)]);
    else
      (copy as Record<string, unknown>)[key] = change(
        (copy as Record<string, unknown>)[key],
        depth + 1,
      );
    return copy;
  };
  let changed = body;
  for (let many = 1 + Math.floor(random() * 2); many > 0; many -= 1) changed = change(changed, 0);
  return changed;
};

/** Everything of the club as it is read back, each against what a form or file may hold. */
const readBack = async (): Promise<[string, AnyObjectSchema, unknown][]> => {
  const items = async (path: string): Promise<unknown[]> =>
    ((await owner.get(path).expect(200)).body as { items: unknown[] }).items;
  const athletes = (await items('/athletes')) as Athlete[];
  const { body: club } = await owner.get('/me').expect(200);
  const { body: members } = await owner.get('/members').expect(200);
  const sessions = (await items('/sessions?from=2031-04-20&to=2031-06-20')) as { id: string }[];
  const logs = await Promise.all(sessions.map(({ id }) => logOf(owner, id)));
  const each = (what: string, schema: AnyObjectSchema, list: readonly unknown[]) =>
    list.map((one): [string, AnyObjectSchema, unknown] => [what, schema, one]);
  return [
    ['club', clubUpdate, club.club],
    ...each('member', memberRole, members as unknown[]),
    ...each('athlete', athleteInput, athletes),
    ...each(
      'trial',
      trialInput,
      athletes.flatMap((athlete) => athlete.trials),
    ),
    ...each(
      'reading',
      readingInput,
      athletes.flatMap((athlete): ReadingRow[] => athlete.readings),
    ),
    ...each(
      'restriction',
      restrictionInput,
      athletes.flatMap((athlete) => athlete.restrictions),
    ),
    ...each('movement', movementInput, await items('/movements')),
    ...each('rule set', ruleSetInput, await items('/rule-sets')),
    ...each('ground', groundInput, await items('/grounds')),
    ...each('approach', approachInput, await items('/approaches')),
    ...each('session', sessionInput, sessions),
    ...each('rep', repInput, logs.flat()),
  ];
};

it('knows every write route', () => {
  const writes = ROUTES.filter(({ method }) => method !== 'get' && method !== 'delete').map(
    ({ method, path }) => `${method} ${path}`,
  );
  expect([...Object.keys(bodies()), ...WITHOUT_BODY].sort()).toEqual(writes.sort());
});

/** What the door takes; bodies as a stranger or a member sends them. */
const doorBodies = () => ({
  'post /sign-in': { email: owner.email, password: PASSWORD },
  'post /first-club': {
    club: { name: 'Tarn', unit: 'metric', cueSchool: 'root-cause', timeZone: 'UTC' },
    person: 'Edda Brook',
    email: `${uuid()}@tarn.invalid`,
    password: 'wet grass at seven',
  },
  'put /password': { current: PASSWORD, next: PASSWORD },
  'post /new-password': { token: 'x'.repeat(43), password: 'wet grass at seven' },
  'post /switch': { clubId: owner.clubId },
});

const TRIES = Number(process.env.GRAVEK_FUZZ ?? 15);

it('hundreds of bodies that are not quite right: no fault of the server, nothing changed by a refusal, and what is kept can be read', async () => {
  const random = seeded(Number(process.env.GRAVEK_FUZZ_SEED ?? 61));
  let refused = 0;
  let taken = 0;
  let before = await contentsOf(stage, owner.clubId);
  for (const name of Object.keys(bodies())) {
    for (let i = 0; i < TRIES; i += 1) {
      const { path, body } = bodies()[name]!;
      const version = versions.get(path);
      const sent = mutated(version === undefined ? body : { ...body, version }, random);
      const write = name.startsWith('post') ? owner.agent.post : owner.agent.put;
      const answer = await write
        .call(owner.agent, `/api${path}`)
        .set({ origin: stage.origin, 'content-type': 'application/json' })
        .send(JSON.stringify(sent));
      const told = `${name} ${JSON.stringify(sent).slice(0, 300)} → ${answer.text.slice(0, 200)}`;
      expect(answer.status, told).toBeLessThan(500);
      if (answer.status >= 400) {
        refused += 1;
        expect(answer.status === 409 ? 0 : answer.text.length, told).toBeLessThan(20_000);
        expect(await contentsOf(stage, owner.clubId), told).toBe(before);
      } else {
        taken += 1;
        const { version } = (answer.body ?? {}) as { version?: number };
        if (version !== undefined) versions.set(path, version);
        before = await contentsOf(stage, owner.clubId);
      }
    }
  }
  // Both ways are gone often, or the mutations are too mild or too wild to try anything.
  expect(refused).toBeGreaterThan(TRIES * 8);
  expect(taken).toBeGreaterThan(TRIES * 2);
  for (const [what, schema, row] of await readBack()) {
    const checked = check(schema, row);
    expect(
      checked.ok ? null : checked.fields,
      `${what} ${JSON.stringify(row).slice(0, 300)}`,
    ).toBeNull();
  }
}, 1_200_000);

it('the door takes rubbish without a fault, and makes no club and no password of it', async () => {
  const random = seeded(17);
  for (const [name, body] of Object.entries(doorBodies())) {
    for (let i = 0; i < TRIES * 2; i += 1) {
      await sql`delete from attempt`.execute(stage.owner);
      const sent = JSON.stringify(mutated(body, random));
      const [method, path] = name.split(' ') as ['post' | 'put', string];
      const agent =
        name === 'put /password' || name === 'post /switch' ? owner.agent : stranger(stage).agent;
      const answer = await agent[method](`/api${path}`)
        .set({ origin: stage.origin, 'content-type': 'application/json' })
        .send(sent);
      const told = `${name} ${sent.slice(0, 300)} → ${answer.status} ${answer.text.slice(0, 200)}`;
      expect(answer.status, told).toBeLessThan(500);
      expect(answer.text.length, told).toBeLessThan(20_000);
      if (name === 'post /first-club' || name === 'post /new-password')
        expect(answer.status, told).toBeGreaterThanOrEqual(400);
    }
  }
  expect(await stage.owner.selectFrom('club').select('id').execute()).toHaveLength(1);
}, 1_200_000);
