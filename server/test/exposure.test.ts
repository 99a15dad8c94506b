import { countReps } from '@gravek/core/session/repCounts';
import type { CountedRow } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { AthleteFaults, Ledger, SquadFaults } from '@gravek/contract/faults';
import type { LoadHistory, RunBundle } from '@gravek/contract/run';
import type { Rep, SessionInput } from '@gravek/contract/session';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { anAthlete, aRep, type Coach, coachIn, logOf, openStage, type Stage } from './setup';

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
    { side: 'other', exit: null, spot: null, tried: 0, held: 12, heldS: 24, bestHeldS: 2 },
    { side: 'own', exit: null, spot: null, tried: 0, held: 8, heldS: 32, bestHeldS: 4 },
  ];
  expect(ledger.results).toMatchObject(
    results.map((result) => ({ ...result, date: '2031-05-14' })),
  );
  const squad = (await coach.get(`/faults?movement=${MOVEMENT}`).expect(200)).body as SquadFaults;
  const line = squad.items.find(({ athleteId }) => athleteId === own.athlete.id)!;
  expect(line.results).toMatchObject(results);
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
  expect(csv).toMatch(/other,,,0,0,12,2,2,/);
});

it('has makes by spot, touches with their splits, metres and minutes, and what was heard after a call', async () => {
  const own = await furnished({ call: null });
  const sent = await run(own.session, (n) =>
    n < 8
      ? { variant: `spot=${n < 4 ? 'left_wing' : 'top'}`, made: n !== 0 && n < 6, could: [] }
      : n < 10
        ? { touchS: n === 8 ? [0, 1, 2] : [0, 1.5, 3], could: [] }
        : n < 12
          ? { ranM: 400, ranS: 90, could: [] }
          : n < 14
            ? {
                ...{ exit: 'give:left', taken: 'give:left', right: true, could: [] },
                ...{ lateS: n === 12 ? 0.4 : 0.9, lateBy: n === 12 ? 'sound' : 'tap' },
              }
            : { could: [] },
  );
  const ledger = await ledgerOf(own);
  const at = (spot: string) => ledger.results.find((result) => result.spot === spot);
  expect(at('left wing')).toMatchObject({ tried: 4, made: 3 });
  expect(at('top')).toMatchObject({ tried: 4, made: 2 });
  const rest = ledger.results.find((result) => result.spot === null && result.rounds > 0)!;
  expect(rest).toMatchObject({ rounds: 2, touches: 6, splits: 4, splitS: 5, bestSplitS: 1 });
  expect(rest).toMatchObject({ compared: 1, firstSplitS: 1, lastSplitS: 1.5 });
  expect(rest.touchedAt).toEqual([
    [0, 1, 2],
    [0, 1.5, 3],
  ]);
  expect(rest).toMatchObject({ runs: 2, ranM: 800, ranS: 180 });
  expect(ledger.reads).toMatchObject([{ timed: 1, lateS: 0.9, heard: 1, reactionS: 0.4 }]);
  const squad = (await coach.get(`/faults?movement=${MOVEMENT}`).expect(200)).body as SquadFaults;
  const line = squad.items.find(({ athleteId }) => athleteId === own.athlete.id)!;
  expect(line.reads).toEqual(ledger.reads);
  const bare = ledger.results.map(({ date: _date, touchedAt: _touched, ...one }) => one);
  expect(line.results).toEqual(expect.arrayContaining(bare));
  const log = await logOf(coach, own.session.id);
  expect(log[8]).toMatchObject({ touchS: [0, 1, 2], lateBy: null });
  // Sent again it is the same; with other touches, or timed by what times nothing, it is refused.
  const again = async (change: object) => {
    const { stored, refused } = (
      await coach.post('/reps', { reps: [{ ...sent[9]!, ...change }] }).expect(200)
    ).body;
    return [stored.length, refused.length];
  };
  expect(await again({})).toEqual([1, 0]);
  expect(await again({ touchS: [0, 1.5, 3.1] })).toEqual([0, 1]);
  expect(await again({ id: uuid(), lateS: 0.4, lateBy: 'a guess' })).toEqual([0, 1]);
  const reps = (await coach.get('/csv/reps').expect(200)).text;
  expect(reps).toMatch(/left wing/);
  expect(reps).toMatch(/0 1.5 3/);
  const csv = (await coach.get('/csv/results').expect(200)).text;
  expect(csv).toMatch(/own,,left wing,4,3,/);
  expect(csv).toMatch(/,2,6,1.25,1,1,1.5,800,3\r/);
});

it('begins the next session at what was missed in the last, and only where makes count', async () => {
  const set = {
    ...{ call: null, target: 'makes' as const, amount: 2, reps: 4 },
    vary: { ...freshDrillSet('', { kind: 'warm-up', name: '' }, []).vary, spots: ['wing', 'top'] },
  };
  const own = await furnished(set);
  await run(own.session, (n) =>
    n < 8
      ? {
          ...{ rep: (n % 4) + 1, turn: n + 1, could: [] },
          variant: n < 4 ? 'spot=wing' : 'spot=top',
          made: n < 4 ? n < 2 : n === 4,
        }
      : { outcome: 'skip', could: [] },
  );
  await coach.get(`/athletes/${own.athlete.id}/faults`);
  const later = async (change: object, date = '2031-05-21') => {
    const [first] = own.session.drillSets;
    const session = {
      ...own.session,
      ...{ id: uuid(), date },
      drillSets: [{ ...first!, id: uuid(), ...change }],
    };
    await coach.post('/sessions', session).expect(200);
    const bundle = (await coach.get(`/sessions/${session.id}/run`).expect(200)).body as RunBundle;
    return bundle.missed.map(({ athleteId, variants }) => [athleteId, variants]);
  };
  expect(await later({})).toEqual([[own.athlete.id, ['own spot=top']]]);
  // More makes are asked now than were made at either: nothing comes before the other.
  expect(await later({ amount: 4 })).toEqual([]);
  expect(await later({ order: 'mixed' })).toEqual([]);
  expect(await later({ target: 'attempts', amount: 1 })).toEqual([]);
  expect(await later({}, '2031-05-01')).toEqual([]);
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
    spot: null,
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

it('holds moves and endings against each other by what was made in their chains', async () => {
  const chains = ['jab-cross--floater', 'jab-cross--two-foot-stop', 'jab-straight--floater'];
  const own = await furnished({ call: null, target: 'makes', amount: 2 });
  await run(own.session, (n) => ({
    ...{ movement: chains[n % 3]!, could: [], made: n % 3 === 0 || n > 15 },
  }));
  await coach.get(`/athletes/${own.athlete.id}/faults`);
  const ledger = (
    await coach.get(`/athletes/${own.athlete.id}/ledger/jab-cross--floater`).expect(200)
  ).body as Ledger;
  expect(ledger.chains).toEqual([
    { movement: 'jab-cross--floater', tried: 7, made: 7 },
    { movement: 'jab-cross--two-foot-stop', tried: 7, made: 2 },
    { movement: 'jab-straight--floater', tried: 6, made: 1 },
  ]);
  expect((await ledgerOf(await countedAlone())).chains).toEqual([]);
});

/** An athlete who has run one movement that is no chain. */
const countedAlone = async (): Promise<Furnished> => {
  const own = await furnished({ call: null });
  await run(own.session, () => ({ could: ['on-heels'] }));
  await coach.get(`/athletes/${own.athlete.id}/faults`);
  return own;
};
