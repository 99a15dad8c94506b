import { countReps, type CountedRow } from '@gravek/core';
import type {
  Athlete,
  AthleteFaults,
  Ledger,
  LoadHistory,
  Rep,
  SessionInput,
  SquadFaults,
} from '@gravek/contract';
import { freshDrillSet, sequenceStart } from '@gravek/library';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { anAthlete, aRep, coachIn, logOf, openStage, type Coach, type Stage } from './setup';

/** Rates rest on reps that could show a fault and that somebody watched. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const MOVEMENT = 'give-ground';
type Furnished = { athlete: Athlete; session: SessionInput };

/** An athlete in a set of giving ground, its reads called unless it is said otherwise. */
const furnished = async (
  set: Partial<SessionInput['drillSets'][number]> = { call: { kind: 'reads' } },
): Promise<Furnished> => {
  const athlete = (await coach.post('/athletes', anAthlete()).expect(200)).body as Athlete;
  const plan = {
    id: uuid(),
    name: 'Mirror',
    movement: MOVEMENT,
    choices: sequenceStart(),
    athleteIds: [athlete.id],
  };
  await coach.post('/approaches', plan).expect(200);
  const work = { kind: 'plan' as const, approachId: plan.id };
  const session: SessionInput = {
    ...{ id: uuid(), date: '2031-05-14', title: 'Mirrors', groundId: null, place: 'Hall' },
    template: false,
    drillSets: [{ ...freshDrillSet(uuid(), work, [athlete.id]), sets: 1, reps: 20, ...set }],
  };
  await coach.post('/sessions', session).expect(200);
  return { athlete, session };
};
/** Twenty reps, the n-th changed. */
const run = async (session: SessionInput, change: (n: number) => Partial<Rep>): Promise<Rep[]> => {
  const reps = Array.from({ length: 20 }, (_, n) =>
    aRep(session, { movement: MOVEMENT, rep: n + 1, turn: n + 1, could: null, ...change(n) }),
  );
  const { refused } = (await coach.post('/reps', { reps }).expect(200)).body;
  expect(refused).toEqual([]);
  return reps;
};
const ledgerOf = async ({ athlete }: Furnished): Promise<Ledger> =>
  (await coach.get(`/athletes/${athlete.id}/ledger/${MOVEMENT}`).expect(200)).body;
const rowOf = ({ rows }: Ledger, fault: string) => rows.find(({ code }) => code === fault);

it('counts a row of before for what it could show, and its wrong answer as a fault', async () => {
  const own = await furnished();
  const asked = ['give:left', 'give:right', 'give:stops'];
  // Of each three one is asked of each exit; the last six of those to the left go right.
  const reps = await run(own.session, (n) => {
    const exit = asked[n % 3]!;
    const taken = exit === 'give:left' && n > 2 ? 'give:right' : exit;
    return {
      ...{ exit, taken },
      ...(n === 0 ? { outcome: 'fault', faults: ['slides-too-far'] } : {}),
    };
  });
  const ledger = await ledgerOf(own);
  // Whoever sits does not slide: 6 of 20 could not show it.
  expect(rowOf(ledger, 'slides-too-far')).toMatchObject({ reps: 14, seen: 1, exposed: [14] });
  expect(rowOf(ledger, 'wrong-side')).toMatchObject({ reps: 20, seen: 6 });
  expect(ledger.cue?.fault).toBe('wrong-side');
  const left = ledger.reads.find(({ exit }) => exit === 'give:left')!;
  expect(left).toMatchObject({ reps: 7, right: 1 });
  expect(left.taken).toEqual([
    { exit: 'give:left', reps: 1 },
    { exit: 'give:right', reps: 6 },
  ]);
  const squad = (await coach.get(`/faults?movement=${MOVEMENT}`).expect(200)).body as SquadFaults;
  expect(squad.items.find(({ athleteId }) => athleteId === own.athlete.id)!.reads).toEqual(
    ledger.reads,
  );
  // The row itself stays as it was logged, and sent again it is the same.
  const log = await logOf(coach, own.session.id);
  expect(log.every(({ could, faults }) => could === null && !faults.includes('wrong-side'))).toBe(
    true,
  );
  const again = (await coach.post('/reps', { reps: [reps[3]] }).expect(200)).body;
  expect(again.refused).toEqual([]);
});

it('counts who was not watched for load and for nothing else, also when something was tapped', async () => {
  const own = await furnished({ stand: 'row' });
  const load = { contacts: 4, jumps: 0, throws: 0, sprintM: 0 };
  await run(own.session, (n) => ({
    ...{ load, could: ['on-heels', 'shaded'], watched: n % 2 === 0 },
    ...(n < 6 ? { outcome: 'fault', faults: ['on-heels'] } : {}),
  }));
  const stands = (
    (await coach.get(`/athletes/${own.athlete.id}/faults`)).body.items as AthleteFaults[]
  )[0]!;
  expect(stands.reps).toBe(10);
  expect(stands.faults).toMatchObject([{ code: 'on-heels', reps: 10, seen: 3 }]);
  const history = (await coach.get('/sessions/history?day=2031-05-14').expect(200))
    .body as LoadHistory;
  const week = history.weeks.filter(({ athleteId }) => athleteId === own.athlete.id);
  expect(week.map((one) => one.load.contacts)).toEqual([80]);
  const log = await logOf(coach, own.session.id);
  expect(log.filter(({ watched, faults }) => !watched && faults.length > 0)).toHaveLength(3);
  const csv = (await coach.get('/csv/reps').expect(200)).text;
  expect(csv).toContain('watched');
});

it('counts nobody of a row that was logged before as watched', async () => {
  const own = await furnished({ stand: 'row' });
  await run(own.session, () => ({ outcome: 'fault', faults: ['on-heels'] }));
  expect((await coach.get(`/athletes/${own.athlete.id}/faults`)).body.items).toEqual([]);
});

it('has what was made and held, by session and side, for the athlete, the squad and as a table', async () => {
  const own = await furnished({ target: 'seconds', amount: 3, call: null });
  await run(own.session, (n) => ({
    ...{ side: n < 8 ? 'own' : 'other', heldS: n < 8 ? 4 : 2 },
    // A row of before said clean of a hold that was too short.
    ...{ could: null, outcome: 'clean' },
  }));
  const ledger = await ledgerOf(own);
  const results = [
    { side: 'other', tried: 0, made: 0, held: 12, meanHeldS: 2, bestHeldS: 2 },
    { side: 'own', tried: 0, made: 0, held: 8, meanHeldS: 4, bestHeldS: 4 },
  ];
  expect(ledger.results).toEqual(results.map((one) => ({ ...one, date: '2031-05-14' })));
  const squad = (await coach.get(`/faults?movement=${MOVEMENT}`).expect(200)).body as SquadFaults;
  const line = squad.items.find(({ athleteId }) => athleteId === own.athlete.id)!;
  expect(line.results).toEqual(results);
  const { rows } = await stage.db.transaction().execute(async (trx) => {
    await sql`select gravek_enter_as_server(${coach.clubId})`.execute(trx);
    return sql<{ clean: number }>`
      select sum(clean)::int as clean from rep_count where session_id = ${own.session.id}`.execute(
      trx,
    );
  });
  expect(rows).toEqual([{ clean: 8 }]);
  const csv = (await coach.get('/csv/results').expect(200)).text;
  expect(csv).toContain('longest held s');
  expect(csv).toMatch(/other,0,0,12,2,2/);
});

it('keeps what a row could show, and counts the same as core does', async () => {
  const own = await furnished();
  await run(own.session, (n) => ({
    could: n % 2 ? ['on-heels', '__proto__', 'constructor'] : ['on-heels'],
    ...{ exit: 'give:left', taken: n % 4 ? 'give:left' : 'give:right', right: n % 4 > 0 },
  }));
  await coach.get(`/athletes/${own.athlete.id}/faults`);
  const log = await logOf(coach, own.session.id);
  const rows = log.map((rep): CountedRow => ({
    ...rep,
    could: rep.could!,
    loggedBy: coach.accountId,
  }));
  const expected = countReps(rows).map((count) => [count.could.join(), count.reps, count.right]);
  const { rows: kept } = await stage.db.transaction().execute(async (trx) => {
    await sql`select gravek_enter_as_server(${coach.clubId})`.execute(trx);
    return sql<{ could: string[]; reps: number; right: number }>`
      select could, reps, was_right as right from rep_count where session_id = ${own.session.id}`.execute(
      trx,
    );
  });
  expect(kept.map(({ could, reps, right }) => [could.join(), reps, right]).sort()).toEqual(
    expected.sort(),
  );
});
