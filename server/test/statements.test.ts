import { Readable } from 'node:stream';
import type { Me } from '@gravek/contract/club';
import type { Approach } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import { makeSeason } from '@gravek/demo/season';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDemo } from '../src/clubFile/load';
import { inClub } from '../src/database/connect';
import { aMovement, openStage, type Stage, statementsOf, stranger } from './setup';

/** How often the database is asked for one request: as many times as there are kinds of things in the answer. */

const MOST = { read: 8, session: 12 };
let stage: Stage;
let coach: ReturnType<typeof stranger>;
// As the demo is entered: there is training about today.
const now = new Date();
const dayIn = (days: number): string =>
  new Date(now.getTime() + days * 86_400_000).toISOString().slice(0, 10);
const today = dayIn(0);

beforeAll(async () => {
  stage = await openStage({ demo: true });
  const season = makeSeason(now, 'a password for tests');
  await loadDemo(stage.db, Readable.from([Buffer.from(JSON.stringify(season))]));
  coach = stranger(stage);
  await coach.post('/demo-entry').expect(204);
});
afterAll(() => stage.close());

const listed = async <T>(path: string): Promise<T[]> =>
  (await coach.get(path).expect(200)).body.items as T[];
const sessionsNear = () => listed<Session>(`/sessions?from=${dayIn(-40)}&to=${dayIn(10)}`);

describe('a page', () => {
  const paths = async (): Promise<string[]> => {
    const [athlete] = await listed<{ id: string }>('/athletes');
    const [approach] = await listed<Approach>('/approaches');
    const sessions = await sessionsNear();
    const movement = 'give-ground';
    return [
      ...['/approaches', `/approaches/${approach!.id}`, '/athletes', `/athletes/${athlete!.id}`],
      ...['approaches', 'faults', 'measured', 'own-link', 'export', `ledger/${movement}`].map(
        (part) => `/athletes/${athlete!.id}/${part}`,
      ),
      ...['/calendar', `/causes/${movement}`, `/cues?on=${today}`, '/deeds', '/faults', '/grounds'],
      ...['/invitations', '/me', '/members', '/movements', `/progress/${movement}`, '/reviews'],
      ...['/rule-sets', `/sessions?from=${dayIn(-14)}&to=${dayIn(10)}`, '/sessions/templates'],
      ...[`/sessions/history?day=${today}`, `/sessions/needs?day=${today}`, '/today'],
      `/ways/${movement}`,
      ...sessions.flatMap(({ id }) => [
        ...['', '/run', '/calendar', '/reps'].map((part) => `/sessions/${id}${part}`),
      ]),
    ];
  };

  it('asks at most eight things of the database, whatever it shows', async () => {
    const over: string[] = [];
    for (const path of await paths()) {
      const statements = await statementsOf(() => coach.get(path).expect(200));
      if (statements.length > MOST.read) over.push(`${path}: ${statements.length}`);
    }
    expect(over).toEqual([]);
  });
});

describe('a page that shows movements of the club', () => {
  it('asks for no more', async () => {
    const own = aMovement();
    await coach.post('/movements', own).expect(200);
    const { club, accountId } = (await coach.get('/me')).body as Me;
    await inClub(stage.db, { clubId: club.id, accountId }, async (trx) => {
      for (const table of ['rep_count', 'fault_standing'] as const) {
        await trx
          .updateTable(table)
          .set({ movement: own.id })
          .where('movement', '=', 'give-ground')
          .execute();
      }
    });
    const { items } = (await coach.get(`/faults?movement=${own.id}`)).body as {
      items: { athleteId: string }[];
    };
    expect(items.length).toBeGreaterThan(0);
    const over: string[] = [];
    for (const path of [
      ...[
        '/today',
        `/cues?on=${today}`,
        `/faults?movement=${own.id}`,
        `/sessions/needs?day=${today}`,
      ],
      `/athletes/${items[0]!.athleteId}/ledger/${own.id}`,
    ]) {
      const statements = await statementsOf(() => coach.get(path).expect(200));
      expect(statements.join()).toContain('movement');
      if (statements.length > MOST.read) over.push(`${path}: ${statements.length}`);
    }
    expect(over).toEqual([]);
  });
});

describe('a session', () => {
  it('is saved with at most twelve, however many drill sets it has', async () => {
    const [session] = (await sessionsNear()).filter(({ drillSets }) => drillSets.length >= 6);
    const { archived: _a, logged: _l, id, ...rest } = session!;
    const shifted = { ...rest, title: 'Said otherwise', drillSets: rest.drillSets.toReversed() };
    const statements = await statementsOf(() => coach.put(`/sessions/${id}`, shifted).expect(200));
    expect(statements.length, statements.join('\n')).toBeLessThanOrEqual(MOST.session);
    const stored = (await coach.get(`/sessions/${id}`)).body as Session;
    expect(stored.drillSets).toEqual(shifted.drillSets);
  });
});
