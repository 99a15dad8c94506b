import type { SquadFaults } from '@gravek/contract/faults';
import { UNCOUNTED_HEADER } from '@gravek/contract/header';
import { sql } from 'kysely';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillClub } from '../bench/fill';
import { listenForChanges, type Changes } from '../src/changes/listen';
import { teller } from '../src/changes/tell';
import { inClub, inClubReading } from '../src/database/connect';
import { countNew } from '../src/reps/countNew';
import { keepCounting } from '../src/reps/counter';
import { ROUTES } from '../src/routes';
import {
  aRep,
  aSession,
  anApproach,
  anAthlete,
  coachIn,
  furnish,
  openStage,
  until,
  type Coach,
  type Stage,
} from './setup';

/** Counts are made by whichever process leads, and never by a read. */

let stage: Stage;
let coach: Coach;
const silent = pino({ level: 'silent' });

/** A process that counts, as `serve` starts it. */
const aProcess = (): { changes: Changes; stop: () => Promise<void> } => {
  const changes = listenForChanges(stage.appUrl, silent);
  const tell = teller(stage.db, stage.stopping.signal);
  const counting = keepCounting({ db: stage.db, changes, tell, log: silent });
  return {
    changes,
    stop: async () => {
      await counting.stop();
      await changes.close();
    },
  };
};

/** Logs past the helper that waits until it is counted. */
const logOnly = (reps: object[]) =>
  coach.agent.post('/api/reps').set('origin', stage.origin).send({ reps }).expect(200);

const squad = async (): Promise<{ reps: number; newer: string | undefined }> => {
  const { body, headers } = await coach.get('/faults').expect(200);
  const { items } = body as SquadFaults;
  return {
    reps: items.reduce((sum, item) => sum + item.reps, 0),
    newer: (headers as Record<string, string>)[UNCOUNTED_HEADER],
  };
};

/** A session with somebody in it. */
const aRunSession = async () => {
  const athlete = anAthlete();
  await coach.post('/athletes', athlete).expect(200);
  const approach = anApproach([athlete.id]);
  await coach.post('/approaches', approach).expect(200);
  const session = aSession(approach.id, [athlete.id]);
  await coach.post('/sessions', session).expect(200);
  return session;
};

beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

describe('a read', () => {
  it('shows what was counted, says how much is newer, and leaves it so', async () => {
    const session = await aRunSession();
    await logOnly([aRep(session), aRep(session, { rep: 2, turn: 2 })]);
    const before = await squad();
    expect(before).toEqual({ reps: 0, newer: '2' });
    expect(await squad()).toEqual(before);
    const one = aProcess();
    try {
      await until(async () => (await squad()).newer === '0');
      expect((await squad()).reps).toBe(2);
    } finally {
      await one.stop();
    }
  });

  it('that would write is refused by the database', async () => {
    await expect(
      inClubReading(stage.db, coach, (trx) =>
        trx.updateTable('club').set({ name: 'Another' }).execute(),
      ),
    ).rejects.toThrow(/read-only transaction/);
    await expect(
      inClubReading(stage.db, coach, (trx) =>
        trx.selectFrom('session').select('id').forUpdate().execute(),
      ),
    ).rejects.toThrow(/read-only transaction/);
  });

  it('locks no row: every one answers while somebody holds all sessions', async () => {
    const { athlete, approach, session, movement, ground, review } = await furnish(coach);
    await logOnly([aRep(session, { rep: 3, turn: 3 })]);
    const ids: Record<string, string> = {
      athletes: athlete.id,
      approaches: approach.id,
      sessions: session.id,
      movements: movement.id,
      grounds: ground.id,
      reviews: review.id,
    };
    const paths = ROUTES.filter(({ method }) => method === 'get').map(({ path }) =>
      path
        .replace(/^\/(\w+)\/:id/, (_, list: string) => `/${list}/${ids[list]}`)
        .replace(':movement', 'straight-run-up')
        .replace(':code', 'straight-run-up'),
    );
    await stage.owner.transaction().execute(async (trx) => {
      await sql`select id from session for update`.execute(trx);
      await sql`select id from athlete for update`.execute(trx);
      for (const path of paths) {
        const query = `?day=2031-05-14&on=2031-05-14&from=2031-05-01&to=2031-05-31`;
        const { status } = await coach.get(`${path}${query}`);
        expect([200, 404], `${path} answered ${status}`).toContain(status);
      }
    });
    expect(paths.length).toBeGreaterThan(20);
  });
});

describe('of several processes', () => {
  it('one leads, and another takes over when its connection is gone', async () => {
    const [one, other] = [aProcess(), aProcess()];
    try {
      await until(() => one.changes.leads() !== other.changes.leads());
      const [first, second] = one.changes.leads() ? [one, other] : [other, one];
      await first.stop();
      await until(() => second.changes.leads());
      const session = await aRunSession();
      const before = (await squad()).reps;
      await logOnly([aRep(session)]);
      await until(async () => (await squad()).reps === before + 1);
    } finally {
      await Promise.all([one.stop(), other.stop()]);
    }
  });

  it('whoever begins to lead counts what came while nobody did', async () => {
    const session = await aRunSession();
    const before = (await squad()).reps;
    await logOnly([aRep(session), aRep(session, { rep: 2, turn: 2 })]);
    const one = aProcess();
    try {
      await until(async () => (await squad()).reps === before + 2);
    } finally {
      await one.stop();
    }
  });

  it('pages hear that it is counted', async () => {
    const one = aProcess();
    const heard: string[] = [];
    const stop = one.changes.onChange(coach.clubId, ({ topic }) => void heard.push(topic));
    try {
      await until(() => one.changes.leads());
      const session = await aRunSession();
      await logOnly([aRep(session)]);
      await until(() => heard.includes('counts'));
      expect((await squad()).newer).toBe('0');
    } finally {
      stop();
      await one.stop();
    }
  });
});

describe('counting a long log', () => {
  it('a little of it at once comes to the same', async () => {
    const who = await coachIn(stage);
    const counts = (most?: number) =>
      inClub(stage.db, who, async (trx) => {
        await sql`update session set counted = 0`.execute(trx);
        await trx.deleteFrom('rep_count').execute();
        await countNew(trx, most);
        const { rows } = await sql<{ row: string }>`
          select to_jsonb(c)::text as row from rep_count c order by 1`.execute(trx);
        const standings = await sql<{ row: string }>`
          select to_jsonb(f)::text as row from fault_standing f order by 1`.execute(trx);
        return [...rows, ...standings.rows];
      });
    await inClub(stage.db, who, (trx) =>
      fillClub(trx, {
        ...{ squads: 2, athletesEach: 6, sessionsEach: 4, repsEach: 10, lastDay: '2031-05-14' },
      }),
    );
    const all = await counts();
    expect(all.length).toBeGreaterThan(40);
    for (const most of [1, 25, 60, 130]) expect(await counts(most)).toEqual(all);
  });
});
