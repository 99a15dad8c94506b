import { countReps } from '@gravek/core/session/repCounts';
import { type CountedRow, standing } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { AthleteFaults, CueLine } from '@gravek/contract/faults';
import type { Problem } from '@gravek/contract/problem';
import type { RunAnswer, RunBundle } from '@gravek/contract/run';
import type { Rep, RepReceipt, Session, SessionInput } from '@gravek/contract/session';
import { bySession } from '@gravek/library/cue/sessionFaults';
import { standingsOf } from '@gravek/library/cue/standings';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inClub } from '../src/database/connect';
import { countNew } from '../src/reps/countNew';
import { storeReps } from '../src/reps/store';
import {
  anApproach,
  anAthlete,
  aRep,
  aSession,
  type Coach,
  coachIn,
  furnish,
  logOf,
  openStage,
  type Stage,
  statementsOf,
} from './setup';

/** What the log keeps whatever happens to it, and that its counts are always those of a recount. */

let stage: Stage;
let coach: Coach;
beforeAll(async () => {
  stage = await openStage();
  coach = await coachIn(stage);
});
afterAll(() => stage.close());

const send = async (reps: object[]): Promise<RepReceipt> =>
  (await coach.post('/reps', { reps }).expect(200)).body as RepReceipt;
const faultsOf = async (athleteId: string): Promise<AthleteFaults[]> =>
  (await coach.get(`/athletes/${athleteId}/faults`)).body.items as AthleteFaults[];
const loggedIn = async ({ id }: SessionInput): Promise<number> =>
  ((await coach.get(`/sessions/${id}`)).body as Session).logged;

it('takes five statements of its request, that of the sign-in among them', async () => {
  const { session } = await furnish(coach);
  const statements = await statementsOf(() =>
    coach.post('/reps', { reps: [aRep(session, { rep: 3, turn: 3 })] }).expect(200),
  );
  expect(statements.length, statements.join('\n')).toBeLessThanOrEqual(5);
  expect(statements.some((text) => text.includes('gravek_store_reps'))).toBe(true);
});

it('is stored once when it comes again, elsewhere, while the first try is not done yet', async () => {
  const own = await furnish(coach);
  const rep = { ...own.rep, id: uuid(), rep: 2, turn: 2, deviceNo: own.rep.deviceNo + 1 };
  let again: Promise<RepReceipt> | undefined;
  await inClub(stage.db, coach, async (trx) => {
    await storeReps(trx, [{ rows: [rep], accountId: coach.accountId }]);
    again = send([rep]);
    for (let waits = 0; waits === 0;) {
      waits = (
        await sql<{ n: number }>`
          select count(*)::int as n from pg_locks join pg_stat_activity using (pid)
          where not granted and datname = current_database()
        `.execute(stage.owner)
      ).rows[0]!.n;
    }
  });
  expect(await again).toMatchObject({ stored: [{ id: rep.id }], refused: [] });
});

it('waits alone when somebody saves its session, and is told when that takes long', async () => {
  const [busy, free] = [await furnish(coach), await furnish(coach)];
  const repIn = ({ session }: typeof busy, rep: number) => aRep(session, { rep, turn: rep });
  let inTime: Promise<RepReceipt> | undefined;
  await inClub(stage.db, coach, async (trx) => {
    await sql`select from session where id = ${busy.session.id} for update`.execute(trx);
    const late = coach.post('/reps', { reps: [repIn(busy, 2)] });
    const answer = late.then(({ status, body }) => ({ status, body: body as Problem }));
    for (let rep = 2; rep < 12; rep += 1) await send([repIn(free, rep)]);
    let over = false;
    void answer.then(() => (over = true));
    await Promise.resolve();
    expect(over).toBe(false);
    expect(await answer).toMatchObject({ status: 503 });
    expect((await answer).body.title).toContain('saving this session');
    inTime = send([repIn(busy, 3)]);
    await send([repIn(free, 12)]);
  });
  expect((await inTime!).stored).toHaveLength(1);
});

describe('a rep', () => {
  it('stays what it was when the plan and the session are changed later', async () => {
    const own = await furnish(coach);
    const { id, ...plan } = own.approach;
    const changed = { ...plan, name: 'Another name', choices: { ...plan.choices, steps: 8 } };
    await coach.put(`/approaches/${id}`, { ...changed, version: 1 }).expect(200);
    const { id: sessionId, ...session } = own.session;
    const sides = session.drillSets.map((set) => ({
      ...set,
      vary: { ...set.vary, sides: ['other', 'own'] },
      reps: 5,
    }));
    await coach
      .put(`/sessions/${sessionId}`, { ...session, drillSets: sides, version: 1 })
      .expect(200);
    expect(await logOf(coach, sessionId)).toMatchObject([
      { id: own.rep.id, movement: 'straight-run-up', side: 'own', set: 1, rep: 1, turn: 1 },
    ]);
    expect((await faultsOf(own.athlete.id))[0]).toMatchObject({ reps: 1, sessions: 1 });
  });

  it('keeps the movement of its plan and the plan of its drill set, with the way out told', async () => {
    const own = await furnish(coach);
    const { id, ...plan } = own.approach;
    const other = await coach.put(`/approaches/${id}`, {
      ...plan,
      movement: 'close-and-shorten',
      version: 1,
    });
    expect(other.status).toBe(422);
    expect((other.body as Problem).fields!.movement).toContain('as an approach of its own');
    const spare = anApproach([own.athlete.id], { name: 'Spare' });
    await coach.post('/approaches', spare).expect(200);
    const { id: sessionId, ...session } = own.session;
    const swapped = session.drillSets.map((set) => ({
      ...set,
      work: { kind: 'plan', approachId: spare.id },
    }));
    const refused = await coach.put(`/sessions/${sessionId}`, {
      ...session,
      drillSets: swapped,
      version: 1,
    });
    expect(refused.status).toBe(422);
    expect((refused.body as Problem).fields!['drillSets[0].work']).toContain(
      'Add another drill set',
    );
  });

  it('answered by two phones counts once, and the other one stands in when it is taken back', async () => {
    const { session, athlete } = await furnish(coach);
    const [a, b] = [uuid(), uuid()];
    // The second phone's clock is two minutes ahead: that puts nothing in front.
    const mine = aRep(session, { rep: 2, device: a, deviceNo: 1, at: '2031-05-14T10:00:00.000Z' });
    const theirs = aRep(session, {
      rep: 2,
      device: b,
      deviceNo: 9,
      at: '2031-05-14T09:58:00.000Z',
      outcome: 'fault',
      faults: ['slows-in'],
    });
    await send([mine]);
    await send([theirs]);
    expect(await loggedIn(session)).toBe(2);
    expect((await faultsOf(athlete.id))[0]!.faults.map((fault) => fault.code)).toEqual(['reaches']);
    await send([
      aRep(session, { rep: 2, device: a, deviceNo: 2, outcome: 'void', voids: mine.id }),
    ]);
    expect(await loggedIn(session)).toBe(2);
    expect((await faultsOf(athlete.id))[0]!.faults.map((fault) => fault.code).sort()).toEqual([
      'reaches',
      'slows-in',
    ]);
  });

  it('may be taken back in front of itself in one batch, but only within its own turn and session', async () => {
    const one = await furnish(coach);
    const two = await furnish(coach);
    const slip = aRep(one.session, { rep: 2 });
    const back = aRep(one.session, { rep: 2, outcome: 'void', voids: slip.id });
    expect((await send([back, slip])).stored.map((row) => row.id).sort()).toEqual(
      [slip.id, back.id].sort(),
    );
    expect(await loggedIn(one.session)).toBe(1);
    const across = aRep(two.session, { outcome: 'void', voids: slip.id });
    const sideways = aRep(one.session, { rep: 3, outcome: 'void', voids: uuid() });
    const { stored, refused } = await send([across, sideways]);
    expect(stored).toEqual([]);
    expect(refused.map((row) => row.title)).toEqual([
      'It takes back a rep of another turn.',
      'The rep that it takes back is not there.',
    ]);
  });

  it('under an id that is taken is stored when it is the same, and refused when it is another', async () => {
    const { session, rep } = await furnish(coach);
    expect((await send([rep])).stored).toEqual([{ id: rep.id, arrival: 1 }]);
    const other = await send([{ ...rep, outcome: 'clean', faults: [] }]);
    expect(other.stored).toEqual([]);
    expect(other.refused[0]!.title).toContain('Another rep');
    const twice = aRep(session, { rep: 2 });
    const both = await send([twice, { ...twice, rep: 3 }]);
    expect(both.stored.map((row) => row.id)).toEqual([twice.id]);
    expect(both.refused.map((row) => row.id)).toEqual([twice.id]);
  });

  it('is answered by itself though many phones send at once, and what they showed is counted when asked', async () => {
    const { session, athlete } = await furnish(coach);
    const reps = Array.from({ length: 30 }, (_, i) =>
      aRep(session, { rep: 1 + (i % 5), turn: 2 + i, device: uuid(), deviceNo: 1 }),
    );
    const [first] = reps as [Rep];
    const sent = [...reps, first, { ...first, rep: 50 }];
    const assistant = await coachIn(stage, 'assistant', coach.clubId);
    const answers = await Promise.all([
      ...sent.map((rep, i) => (i % 2 === 0 ? coach : assistant).post('/reps', { reps: [rep] })),
      faultsOf(athlete.id),
      coach.post('/reps', { reps: 'all of them' }).expect(422),
    ]);
    const receipts = answers
      .slice(0, sent.length)
      .map((answer) => (answer as { body: RepReceipt }).body);
    // Of the two that say otherwise under one id, whichever came first is the one.
    const ofFirst = [receipts[0]!, receipts[30]!, receipts[31]!];
    expect(ofFirst.flatMap((receipt) => receipt.refused).length).toBeGreaterThan(0);
    for (const [i, receipt] of receipts.slice(1, 30).entries()) {
      expect(receipt.stored.map((row) => row.id)).toEqual([reps[i + 1]!.id]);
    }
    const arrivals = (await logOf(coach, session.id)).map((row) => row.arrival);
    expect(arrivals).toEqual(Array.from({ length: 31 }, (_, i) => i + 1));
    // Counted when it is asked for, however often.
    expect((await faultsOf(athlete.id))[0]!.reps).toBe(await loggedIn(session));
  });

  it.each([
    ['a void without its rep', { outcome: 'void', voids: null }],
    ['a clean rep that takes one back', { voids: uuid() }],
    ['a time that is no time', { at: 'yesterday' }],
    ['the 31st of February', { at: '2031-02-31T10:00:00Z' }],
    ['a text that no database holds', { outcome: 'fault', faults: ['re\u0000aches'] }],
    ['half a letter', { cue: '\ud800' }],
    ['a number beyond all numbers', { deviceNo: 2 ** 31 }],
    ['no device', { device: undefined }],
    ['a movement that nobody knows', { movement: 'nonsense' }],
    ['text for a number', { rep: 'two' }],
    ['nothing at all', null],
  ])('that is wrong (%s) is refused alone, and the others are stored', async (_what, change) => {
    const { session } = await furnish(coach);
    const bad = change === null ? { id: uuid() } : { ...aRep(session, { rep: 2 }), ...change };
    const good = aRep(session, { rep: 3 });
    const { stored, refused } = await send([bad, good]);
    expect(stored.map((row) => row.id)).toEqual([good.id]);
    expect(refused.map((row) => row.id)).toEqual([bad.id]);
    expect(await loggedIn(session)).toBe(2);
  });

  it('with a fault called like what every object has is counted like any other', async () => {
    const { session, athlete } = await furnish(coach);
    const odd = ['constructor', '__proto__', 'toString'];
    await send([aRep(session, { rep: 2, outcome: 'fault', faults: odd })]);
    // The movement does not name them, so they are kept and not shown.
    expect((await logOf(coach, session.id)).at(-1)!.faults.sort()).toEqual(odd.sort());
    expect((await faultsOf(athlete.id))[0]).toMatchObject({ reps: 2 });
  });
});

describe('the log since a number', () => {
  it('never leaves a row out, whoever writes meanwhile', async () => {
    const { session } = await furnish(coach);
    let known = await logOf(coach, session.id);
    const writers = Array.from({ length: 6 }, async (_, phone) => {
      const device = uuid();
      for (let n = 1; n <= 8; n += 1) {
        await send([aRep(session, { set: 1 + phone, rep: n, device, deviceNo: n })]);
      }
    });
    let done = false;
    const writing = Promise.all(writers).then(() => (done = true));
    for (let last = false; !last;) {
      last = done;
      const after = known.at(-1)?.arrival ?? 0;
      const page = (await coach.get(`/sessions/${session.id}/reps?after=${after}`)).body;
      known = [...known, ...page.items];
    }
    await writing;
    expect(known.map((rep) => rep.arrival)).toEqual(known.map((_, i) => i + 1));
    expect(known).toHaveLength(49);
  });

  it('comes in pages, and says when that is not how to ask', async () => {
    const { session } = await furnish(coach);
    for (let batch = 0; batch < 6; batch += 1) {
      const reps = Array.from({ length: 100 }, (_, i) =>
        aRep(session, { set: 1 + batch, rep: 1 + (i % 50), side: i < 50 ? 'own' : 'other' }),
      );
      await send(reps);
    }
    const first = (await coach.get(`/sessions/${session.id}/reps?after=0`)).body;
    expect([first.items.length, first.more]).toEqual([500, true]);
    const rest = (await coach.get(`/sessions/${session.id}/reps?after=500`)).body;
    expect([rest.items.length, rest.more]).toEqual([101, false]);
    for (const after of ['-1', 'x', '1e3', "1' or '1'='1"]) {
      const odd = await coach.get(
        `/sessions/${session.id}/reps?after=${encodeURIComponent(after)}`,
      );
      expect(odd.status).toBe(422);
    }
  });
});

describe('what a phone keeps of a session', () => {
  it('comes once, again only when it has changed, and never because of a rep of the session', async () => {
    const own = await furnish(coach);
    const at = `/sessions/${own.session.id}/run`;
    const bundle = (await coach.get(at)).body as RunBundle;
    expect((await coach.get(`${at}?known=${bundle.stamp}`)).body).toEqual({ unchanged: true });
    await send([aRep(own.session, { rep: 2, outcome: 'fault', faults: ['slows-in'] })]);
    expect((await coach.get(`${at}?known=${bundle.stamp}`)).body).toEqual({ unchanged: true });
    const { id, ...fields } = own.athlete;
    await coach.put(`/athletes/${id}`, { ...fields, name: 'Ilse Anders', version: 1 }).expect(200);
    const later = (await coach.get(`${at}?known=${bundle.stamp}`)).body as RunAnswer;
    expect(later).toMatchObject({ athletes: [{ name: 'Ilse Anders' }] });
  });

  it('has the cue from before the session, of the movement that is run in it', async () => {
    const own = await furnish(coach);
    const plan = anApproach([own.athlete.id], { movement: 'close-and-shorten', name: 'Closing' });
    await coach.post('/approaches', plan).expect(200);
    const on = (date: string, approachId: string): SessionInput => ({
      ...aSession(approachId, [own.athlete.id]),
      date,
    });
    const before = on('2031-05-20', own.approach.id);
    const other = on('2031-05-21', plan.id);
    const now = on('2031-05-22', own.approach.id);
    for (const session of [before, other, now]) await coach.post('/sessions', session).expect(200);
    const many = (session: SessionInput, movement: string, fault: string) =>
      Array.from({ length: 6 }, (_, i) =>
        aRep(session, {
          movement,
          set: 1 + Math.floor(i / 3),
          rep: 1 + (i % 3),
          outcome: 'fault',
          faults: [fault],
        }),
      );
    await send(many(before, 'straight-run-up', 'slows-in'));
    await send(many(other, 'close-and-shorten', 'stops-dead'));
    const cueOf = async (session: SessionInput) =>
      ((await coach.get(`/sessions/${session.id}/run`)).body as RunBundle).cues;
    expect(await cueOf(now)).toMatchObject([{ movement: 'straight-run-up', fault: 'slows-in' }]);
    // Reps of this very session do not move its cue, nor do they move Today's.
    await send(many(now, 'straight-run-up', 'looks-down'));
    expect(await cueOf(now)).toMatchObject([{ fault: 'slows-in', reps: 7 }]);
    expect((await coach.get('/cues?on=2031-05-22')).body.items).toMatchObject([
      { movement: 'straight-run-up', cue: { fault: 'slows-in' }, reps: 7 },
    ]);
    // An earlier session that is run once more goes by what was known then.
    expect(await cueOf(before)).toMatchObject([{ reps: 1 }]);
    // On a day without a session everybody has the cue of what they ran last.
    const free = (await coach.get('/cues?on=2031-05-23')).body.items as CueLine[];
    expect(free.filter((cueLine) => cueLine.athleteId === own.athlete.id)).toMatchObject([
      { movement: 'straight-run-up', reps: 13 },
    ]);
  });
});

/** A list of flat objects as the database writes it: shorter keys first. */
const inJsonb = (list: readonly object[]): string =>
  `[${list
    .map((one) => {
      const keys = Object.keys(one).sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
      const pairs = keys.map(
        (key) => `${JSON.stringify(key)}: ${JSON.stringify((one as Record<string, unknown>)[key])}`,
      );
      return `{${pairs.join(', ')}}`;
    })
    .join(', ')}]`;

/** The counts as they are kept, in the shape of a recount. */
const keptCounts = async (): Promise<string[]> => {
  await inClub(stage.db, coach, (trx) => countNew(trx));
  const { rows } = await sql<{ line: string }>`
    select concat_ws('/', c.athlete_id, c.session_id, c.movement, c.part, c.side, c.lead_foot,
      c.speed_pct, c.late, c.logged_by, c.reps, c.faults, c.cues) as line
    from rep_count c where club_id = ${coach.clubId}`.execute(stage.owner);
  return rows.map((row) => row.line).sort();
};

describe('counts', () => {
  it('never drift from a recount, over random logs with voids, late and doubled rows', async () => {
    let state = 20310514;
    const random = (below: number): number => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      return Math.floor((state / 2 ** 32) * below);
    };
    const athletes = [anAthlete(), anAthlete(), anAthlete()];
    for (const athlete of athletes) await coach.post('/athletes', athlete).expect(200);
    const ids = athletes.map((athlete) => athlete.id);
    const plan = anApproach(ids);
    await coach.post('/approaches', plan).expect(200);
    const sessions = ['2031-06-01', '2031-06-02'].map((date) => ({
      ...aSession(plan.id, ids),
      date,
    }));
    for (const session of sessions) await coach.post('/sessions', session).expect(200);
    const phones = [uuid(), uuid(), uuid()];
    const numbers = [0, 0, 0];
    const made: Rep[] = [];
    const codes = ['reaches', 'slows-in', 'looks-down', 'constructor'];
    for (let i = 0; i < 220; i += 1) {
      const phone = random(3);
      const target = made[random(made.length)];
      const common = { device: phones[phone]!, deviceNo: (numbers[phone]! += 1) };
      if (random(5) === 0 && target && target.outcome !== 'void') {
        made.push({
          ...target,
          ...common,
          id: uuid(),
          outcome: 'void',
          voids: target.id,
          faults: [],
        });
        continue;
      }
      const outcome = (['clean', 'fault', 'fault', 'again', 'skip'] as const)[random(5)]!;
      made.push(
        aRep(sessions[random(2)]!, {
          ...common,
          athleteId: ids[random(3)]!,
          rep: 1 + random(3),
          set: 1 + random(2),
          side: random(4) === 0 ? 'other' : 'own',
          leadFoot: (['left', 'right', null] as const)[random(3)]!,
          speedPct: [60, 100, null][random(3)]!,
          part: random(4) === 0 ? 'last-two' : null,
          outcome,
          faults: outcome === 'fault' ? codes.filter(() => random(2) === 0) : [],
          cue: random(2) === 0 ? 'reaches' : null,
        }),
      );
    }
    // Late rows: a phone keeps some back and sends them after later ones; doubled ones go out again.
    const queue = [...made, ...made.filter(() => random(4) === 0)].sort(
      (a, b) => made.indexOf(a) + random(40) - (made.indexOf(b) + random(40)),
    );
    const batches: Rep[][] = [];
    while (queue.length > 0) batches.push(queue.splice(0, 1 + random(12)));
    // Three at a time, as three phones do.
    let left = batches;
    for (let round = 0; round < 8 && left.length > 0; round += 1) {
      const again: Rep[][] = [];
      while (left.length > 0) {
        const now = left.splice(0, 3);
        const receipts = await Promise.all(now.map((batch) => send(batch)));
        receipts.forEach((receipt, i) => {
          // A void that overtook its rep waits on its phone, and is sent again.
          const refused = new Set(receipt.refused.map((row) => row.id));
          const rest = now[i]!.filter((rep) => refused.has(rep.id));
          if (rest.length > 0) again.push(rest);
        });
      }
      left = again;
    }
    expect(left).toEqual([]);
    const logs = await Promise.all(sessions.map((session) => logOf(coach, session.id)));
    const rows: CountedRow[] = logs
      .flat()
      .map((rep) => ({ ...rep, spot: null, could: rep.could!, loggedBy: coach.accountId }));
    expect(rows).toHaveLength(made.length);

    const expected = countReps(rows).map((rep) =>
      [
        rep.athleteId,
        rep.sessionId,
        rep.movement,
        rep.part ?? '',
        rep.side,
        rep.leadFoot ?? '',
        rep.speedPct ?? 0,
        rep.late ? 't' : 'f',
        rep.loggedBy,
        rep.reps,
        inJsonb(rep.faults),
        inJsonb(rep.cues),
      ].join('/'),
    );
    const kept = (await keptCounts()).filter((line) =>
      sessions.some((session) => line.includes(session.id)),
    );
    expect(kept).toEqual(expected.sort());

    // By hand, without the rule in core: who stands is the first answer of a turn that was run.
    const byHand = rows
      .filter((row) => ['clean', 'fault'].includes(row.outcome))
      .filter((row) => {
        const taken = new Set(rows.map((row) => row.voids));
        return !taken.has(row.id);
      });
    const turns = new Set(
      byHand.map((row) => [row.drillSetId, row.athleteId, row.set, row.side, row.rep].join()),
    );
    expect(standing(rows).filter((row) => ['clean', 'fault'].includes(row.outcome))).toHaveLength(
      turns.size,
    );

    // What is told of an athlete is worked out from just these counts.
    for (const athleteId of ids) {
      const told = (await faultsOf(athleteId)).find((one) => one.movement === 'straight-run-up');
      const perSession = sessions.map((session) => {
        const own = countReps(rows.filter((row) => row.sessionId === session.id)).filter(
          (rep) => rep.athleteId === athleteId,
        );
        return own.map((count) => ({
          ...count,
          date: session.date,
          exposed: count.could.map((fault) => ({ fault, reps: count.reps })),
        }));
      });
      const summed = bySession(perSession.flat());
      const priors = new Map((told?.faults ?? []).map(({ code, prior }) => [code, prior]));
      const shown = standingsOf(summed, priors).filter((fault) => fault.code !== 'constructor');
      expect(told?.faults ?? []).toEqual(JSON.parse(JSON.stringify(shown)));
    }
  });

  it('follow a session to another day', async () => {
    const { session, athlete, approach } = await furnish(coach);
    const later = { ...aSession(approach.id, [athlete.id]), date: '2031-07-01' };
    await coach.post('/sessions', later).expect(200);
    await send([aRep(later, { outcome: 'clean' })]);
    const rateNow = async () => (await faultsOf(athlete.id))[0]!.faults[0]!.rate;
    const before = await rateNow();
    const { id, ...fields } = session;
    await coach.put(`/sessions/${id}`, { ...fields, date: '2031-06-30', version: 1 }).expect(200);
    expect(await rateNow()).toBeGreaterThan(before);
    expect((await faultsOf(athlete.id))[0]!.lastDay).toBe('2031-07-01');
  });

  it('go with the athlete, and leave those of others alone', async () => {
    const { session, athlete } = await furnish(coach);
    const kept = await furnish(coach);
    await coach.remove(`/athletes/${athlete.id}`).expect(204);
    const lines = (await keptCounts()).join('\n');
    expect(lines).not.toContain(athlete.id);
    expect(lines).toContain(kept.athlete.id);
    expect(await loggedIn(session)).toBe(0);
    await inClub(stage.db, coach, async (trx) => {
      const rows = await trx.selectFrom('fault_standing').select('athlete_id').execute();
      expect(rows.map((row) => row.athlete_id)).not.toContain(athlete.id);
    });
  });
});

describe('an athlete who leaves', () => {
  const heldBack = async (athleteId: string): Promise<Athlete['restrictions']> =>
    ((await coach.get(`/athletes/${athleteId}`)).body as Athlete).restrictions;
  const begun = async () => {
    const athlete = anAthlete();
    await coach.post('/athletes', athlete).expect(200);
    const approach = anApproach([athlete.id]);
    await coach.post('/approaches', approach).expect(200);
    const session = aSession(approach.id, [athlete.id]);
    await coach.post('/sessions', session).expect(200);
    return { athlete, approach, session };
  };

  it('by pain is held back from everything until cleared, once, however often it is sent', async () => {
    const { athlete, approach, session } = await begun();
    const stop = aRep(session, { outcome: 'pain' });
    await send([stop]);
    await send([stop]);
    const [held, ...others] = await heldBack(athlete.id);
    expect(others).toEqual([]);
    expect(held).toMatchObject({
      id: stop.id,
      kind: 'pain',
      from: session.date,
      until: null,
      note: 'Stopped in Run-ups',
    });
    const later = await coach.post('/sessions', aSession(approach.id, [athlete.id])).expect(422);
    expect((later.body as Problem).fields!['drillSets[0].athleteIds']).toBe(
      `${athlete.name} was stopped by pain and waits to be cleared.`,
    );
    // Cleared it stays cleared, though the phone sends the row once more.
    await coach
      .put(`/athletes/${athlete.id}/restrictions/${stop.id}/away`, { away: true })
      .expect(200);
    await send([stop]);
    expect(await heldBack(athlete.id)).toEqual([]);
    await coach.post('/sessions', aSession(approach.id, [athlete.id])).expect(200);
  });

  it('by a slip of the thumb is back when that is taken back, in one batch or later', async () => {
    const { athlete, session } = await begun();
    const stop = aRep(session, { outcome: 'pain' });
    const back = aRep(session, { outcome: 'void', voids: stop.id });
    await send([back, stop]);
    expect(await heldBack(athlete.id)).toEqual([]);
    const again = aRep(session, { outcome: 'pain' });
    await send([again]);
    expect(await heldBack(athlete.id)).toHaveLength(1);
    await send([aRep(session, { outcome: 'void', voids: again.id })]);
    expect(await heldBack(athlete.id)).toEqual([]);
  });

  it('by pain is not let go by a void of another turn, which says so', async () => {
    const { athlete, session } = await begun();
    const stop = aRep(session, { outcome: 'pain' });
    await send([stop]);
    for (const change of [{ rep: 2, turn: 2 }, { set: 2 }, { side: 'other' as const }]) {
      const { refused } = await send([
        aRep(session, { outcome: 'void', voids: stop.id, ...change }),
      ]);
      expect(refused[0]!.title).toContain('another turn');
    }
    expect(await heldBack(athlete.id)).toHaveLength(1);
  });

  it('for today is held back from nothing, and neither counts as a rep', async () => {
    const { athlete, session } = await begun();
    await send([
      aRep(session, { outcome: 'out' }),
      aRep(session, { outcome: 'pain', rep: 2, turn: 2 }),
    ]);
    expect((await heldBack(athlete.id)).map((one) => one.kind)).toEqual(['pain']);
    expect(await loggedIn(session)).toBe(0);
    expect(await faultsOf(athlete.id)).toEqual([]);
  });

  it('has an open end and the coach’s share of the reps where that is said', async () => {
    const { athlete } = await begun();
    const held = {
      id: uuid(),
      athleteId: athlete.id,
      kind: 'reduced',
      from: '2031-05-01',
      until: null,
      share: 0.25,
      note: 'Knee, by the physio',
    };
    await coach.post(`/athletes/${athlete.id}/restrictions`, held).expect(200);
    expect(await heldBack(athlete.id)).toEqual([held]);
    const none = { ...held, id: uuid(), share: 0 };
    const refused = await coach.post(`/athletes/${athlete.id}/restrictions`, none).expect(422);
    expect(Object.keys((refused.body as Problem).fields!)).toEqual(['share']);
  });
});
