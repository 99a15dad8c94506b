import { type CompiledQuery, Kysely, PostgresDialect, sql } from 'kysely';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillClub } from '../bench/fill';
import { summaries } from '../src/approaches/queries';
import { type Db, inClub, type Tables, type Trx } from '../src/database/connect';
import { ledgerOf } from '../src/faults/ledger';
import { faultsOf } from '../src/faults/queries';
import { squadFaults } from '../src/faults/squad';
import { countNew } from '../src/reps/countNew';
import { measuredReps, repsOf } from '../src/reps/queries';
import { storeReps } from '../src/reps/store';
import { runBundle } from '../src/sessions/bundle';
import { cuesOn } from '../src/sessions/cues';
import { session, sessions } from '../src/sessions/queries';
import { aRep, type Coach, coachIn, openStage, type Stage } from './setup';

/**
 * What a page costs as a club grows, counted in rows that the database reads, not in time: the same club
 * after a short and after a long season, 50,000 reps in all.
 */

const LAST_DAY = '2031-05-14';
const SHORT = {
  squads: 2,
  athletesEach: 25,
  sessionsEach: 8,
  repsEach: 20,
  lastDay: LAST_DAY,
  counted: true,
};
const LONG = { ...SHORT, sessionsEach: 40 };

type Club = { coach: Coach; filled: { sessionId: string; athleteIds: string[] }[] };

let stage: Stage;
let short: Club;
let long: Club;
let asked: CompiledQuery[] = [];
let watched: Db;

const filledClub = async (volume: typeof SHORT): Promise<Club> => {
  const coach = await coachIn(stage);
  const filled = await inClub(stage.db, coach, (trx) => fillClub(trx, volume));
  return { coach, filled };
};

beforeAll(async () => {
  stage = await openStage();
  short = await filledClub(SHORT);
  long = await filledClub(LONG);
  // A pod has measured every fourth of them, and none of them was a steady run.
  const measured = {
    ...{ by: 'pod', simulated: false, perMinute: false, steps: [] },
    course: [0, 1, 2].map((atS) => ({
      ...{ atS, cadenceSpm: 231, speedMps: 7.1, plannedSpm: 240, plannedMps: null },
    })),
  };
  await sql`update rep set measured = ${JSON.stringify(measured)}::jsonb where turn % 4 = 0`.execute(
    stage.owner,
  );
  await sql`analyze`.execute(stage.owner);
  watched = new Kysely<Tables>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: stage.appUrl, max: 1 }) }),
    log: (event) => void asked.push(event.query),
  });
}, 300_000);
afterAll(async () => {
  await watched.destroy();
  await stage.close();
});

type Plan = {
  'Node Type': string;
  'Actual Rows': number;
  'Actual Loops': number;
  'Rows Removed by Filter'?: number;
  Plans?: Plan[];
};

/** Rows that a plan takes from tables, those it then throws away included. */
const rowsRead = (plan: Plan): number =>
  (plan.Plans ?? []).reduce((sum, part) => sum + rowsRead(part), 0) +
  (/Scan/.test(plan['Node Type']) && !/Bitmap Index/.test(plan['Node Type'])
    ? (plan['Actual Rows'] + (plan['Rows Removed by Filter'] ?? 0)) * plan['Actual Loops']
    : 0);

/** Queries that some work makes, and rows that they read, each explained where it ran. */
const cost = async (
  { coach }: Club,
  work: (trx: Trx) => Promise<unknown>,
): Promise<{ queries: number; rows: number; bytes: number }> => {
  let counted = { queries: 0, rows: 0, bytes: 0 };
  await expect(
    inClub(watched, coach, async (trx) => {
      // Explained before the work is done: what it writes would be written twice.
      await sql`savepoint before_work`.execute(trx);
      asked = [];
      const answer = await work(trx);
      const made = asked.filter(({ sql: text }) => /^\s*(select|insert|update|delete)/i.test(text));
      await sql`rollback to savepoint before_work`.execute(trx);
      let rows = 0;
      for (const query of made) {
        if (/^\s*insert/i.test(query.sql)) continue;
        const explained = await trx.executeQuery<{ 'QUERY PLAN': [{ Plan: Plan }] }>({
          ...query,
          sql: `explain (analyze, timing off, format json) ${query.sql}`,
        });
        rows += rowsRead(explained.rows[0]!['QUERY PLAN'][0].Plan);
      }
      counted = {
        queries: made.length,
        rows,
        bytes: Buffer.byteLength(JSON.stringify(answer) ?? ''),
      };
      throw new Error('nothing is kept');
    }),
  ).rejects.toThrow('nothing is kept');
  return counted;
};

const newest = (club: Club) => club.filled[0]!;
const grownBy = LONG.sessionsEach / SHORT.sessionsEach;

/** What each place asks for, and how it may grow while the season grows fivefold. */
const PLACES: [string, (club: Club) => (trx: Trx) => Promise<unknown>, 'flat' | 'linear'][] = [
  ['Today’s cues', () => (trx) => cuesOn(trx, LAST_DAY), 'flat'],
  ['the squad’s faults', () => (trx) => squadFaults(trx, undefined, LAST_DAY), 'flat'],
  ['an athlete’s faults', (club) => (trx) => faultsOf(trx, [newest(club).athleteIds[0]!]), 'flat'],
  [
    'an athlete’s ledger',
    (club) => (trx) =>
      ledgerOf(
        trx,
        { athleteId: newest(club).athleteIds[0]!, movement: 'straight-run-up', today: LAST_DAY },
        {},
      ),
    'linear',
  ],
  [
    'the parts of a session for the phone',
    (club) => (trx) => runBundle(trx, newest(club).sessionId),
    'flat',
  ],
  [
    'the log since the last row',
    (club) => (trx) =>
      repsOf(trx, newest(club).sessionId, {
        after: SHORT.athletesEach * SHORT.repsEach - 5,
        limit: 500,
      }),
    'flat',
  ],
  [
    'a week of sessions',
    () => (trx) => sessions(trx, { from: '2031-05-08', to: LAST_DAY }),
    'flat',
  ],
  [
    'what was measured of an athlete',
    (club) => (trx) => measuredReps(trx, newest(club).athleteIds[0]!),
    'flat',
  ],
  ['the list of approaches', () => (trx) => summaries(trx, { after: null, limit: 101 }), 'flat'],
  [
    'a tap',
    (club) => async (trx) => {
      const own = (await session(trx, newest(club).sessionId))!;
      const [athleteId] = newest(club).athleteIds;
      const rep = aRep(own, { athleteId: athleteId!, set: 2, rep: 1, turn: 21 });
      await storeReps(trx, [{ rows: [rep], accountId: club.coach.accountId }]);
    },
    'flat',
  ],
  ['counting that tap', () => countNew, 'linear'],
];

describe('a season five times as long', () => {
  it('holds fifty thousand reps with the short one', async () => {
    const { count } = await stage.owner
      .selectFrom('rep')
      .select((eb) => eb.fn.countAll<string>().as('count'))
      .executeTakeFirstOrThrow();
    expect(Number(count)).toBeGreaterThanOrEqual(48_000);
  });

  it('has reads and makes to add up, and something that was missed', async () => {
    await inClub(stage.db, long.coach, async (trx) => {
      const { items } = await squadFaults(trx, undefined, LAST_DAY);
      expect(items[0]!.results.map(({ spot }) => spot).sort()).toEqual(['left', 'right']);
      expect(items.some(({ reads }) => reads.length > 0)).toBe(true);
      const bundle = (await runBundle(trx, newest(long).sessionId))!;
      expect(bundle.missed).toHaveLength(LONG.athletesEach);
      expect(bundle.missed[0]!.variants).toEqual(['own spot=right']);
    });
  });

  it.each(PLACES)('costs %s no more than it should', async (_what, work, growth) => {
    const [before, after] = [await cost(short, work(short)), await cost(long, work(long))];
    expect(before.rows).toBeGreaterThan(0);
    expect(after.queries).toBe(before.queries);
    // A table or two may be read another way as they grow; a tenth of the smaller is allowed for it.
    const allowed = growth === 'flat' ? before.rows * 1.1 + 120 : before.rows * grownBy * 1.1;
    expect(after.rows).toBeLessThanOrEqual(allowed);
    expect(after.queries).toBeLessThan(40);
    expect(after.bytes).toBeLessThan(150_000);
    // Of more sessions there is more to tell, but not of each of them.
    if (growth === 'flat') expect(after.bytes).toBeLessThan(before.bytes * 2.5 + 500);
  });
});
