import { sql } from 'kysely';
import { inClub, withoutHurry } from '../src/database/connect';
import { aRep, coachIn, openStage, type Coach, type Stage } from '../test/setup';
import { fillClub } from './fill';

/**
 * How long the server takes for a club of 300 athletes, with 200,000 reps and with two million, and how much
 * it sends; beside the ledger and the squad plain SQL over the rows of the log, without states or cues.
 */
/** The newest session was yesterday: causes look back over a year from today. */
const dayAgo = (days: number): string =>
  new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
const VOLUME = { squads: 6, athletesEach: 50, repsEach: 22, lastDay: dayAgo(1) };
const SIZES = process.env.GRAVEK_BENCH_SESSIONS?.split(',').map(Number) ?? [30, 303];
const WARMING = 5;
const CALLS = 40;
/** By hand it takes seconds; fewer will do. */
const PLAIN_CALLS = 8;

const part = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!;

/** @throws {Error} unless what is told of the squad is what the log holds, rep for rep */
const countsHold = async (stage: Stage, coach: Coach): Promise<void> => {
  const { rows } = await inClub(stage.db, coach, async (trx) => {
    await withoutHurry(trx);
    return sql<{ reps: string }>`
      select count(*) as reps from rep where outcome in ('clean', 'fault')`.execute(trx);
  });
  const asked = async (place: string) =>
    (await coach.get(place).expect(200)).body as { movements: string[]; items: { reps: number }[] };
  const { movements } = await asked('/faults');
  let told = 0;
  for (let look = 1; look <= 50; look += 1) {
    told = 0;
    for (const movement of movements) {
      const { items } = await asked(`/faults?movement=${movement}`);
      told += items.reduce((sum, line) => sum + line.reps, 0);
    }
    if (told === Number(rows[0]!.reps)) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`${rows[0]!.reps} reps are in the log, and ${told} are told of`);
};

/** Times of each ask, ms, at 95 %. */
const run = async (sessionsEach: number): Promise<Map<string, number>> => {
  const stage = await openStage();
  const most = new Map<string, number>();
  try {
    const coach = await coachIn(stage);
    const began = performance.now();
    const [squad] = await inClub(stage.db, coach, async (trx) => {
      await withoutHurry(trx);
      return fillClub(trx, { ...VOLUME, sessionsEach });
    });
    await sql`analyze`.execute(stage.owner);
    const reps = VOLUME.squads * VOLUME.athletesEach * sessionsEach * VOLUME.repsEach;
    console.log(
      `\n${VOLUME.squads * VOLUME.athletesEach} athletes, ${reps.toLocaleString('en')} reps, filled and counted in ${((performance.now() - began) / 1000).toFixed(0)} s`,
    );
    const { sessionId, athleteIds } = squad!;
    const session = (await coach.get(`/sessions/${sessionId}`)).body;
    const movement = 'straight-run-up';
    let turn = 0;
    /** What is timed beside the API: the same rows by hand. */
    const plain = async (
      query: ReturnType<typeof sql>,
    ): Promise<{ status: number; text: string }> => ({
      status: 200,
      text: JSON.stringify((await inClub(stage.db, coach, (trx) => query.execute(trx))).rows),
    });
    const asks: Record<string, () => Promise<{ status: number; text: string }>> = {
      'Today: cues': () => coach.get(`/cues?on=${VOLUME.lastDay}`),
      'Today: what is due': () => coach.get(`/sessions/needs?day=${VOLUME.lastDay}`),
      'Today, all of it': () => coach.get('/today'),
      'Faults: causes, of the last year': () => coach.get(`/causes/${movement}`),
      'Movements: ways of teaching, of the last year': () => coach.get(`/ways/${movement}`),
      'Movements: who is ready for the next drill': () => coach.get(`/progress/${movement}`),
      'Faults: the squad': () => coach.get('/faults'),
      '  plain SQL': () =>
        plain(sql`
          select r.athlete_id, f.fault, count(*) from rep r
          left join rep_fault f on f.club_id = r.club_id and f.rep_id = r.id
          where r.movement = ${movement} and r.outcome in ('clean', 'fault') group by 1, 2`),
      'an athlete’s ledger': () => coach.get(`/athletes/${athleteIds[0]}/ledger/${movement}`),
      '  plain SQL of it': () =>
        plain(sql`
          select s.day, s.id, f.fault, count(distinct r.id) from rep r
          join session s on s.club_id = r.club_id and s.id = r.session_id
          left join rep_fault f on f.club_id = r.club_id and f.rep_id = r.id
          where r.athlete_id = ${athleteIds[0]} and r.movement = ${movement}
            and r.outcome in ('clean', 'fault') group by 1, 2, 3 order by 1`),
      'an athlete’s faults': () => coach.get(`/athletes/${athleteIds[0]}/faults`),
      'a session’s parts for the phone': () => coach.get(`/sessions/${sessionId}/run`),
      'the log since the last row': () => coach.get(`/sessions/${sessionId}/reps?after=1095`),
      'a tap': () => {
        turn += 1;
        return coach.post('/reps', {
          reps: [
            aRep(session, {
              set: 2 + Math.floor(turn / 50),
              rep: 1 + (turn % 50),
              turn: 22 + turn,
              athleteId: athleteIds[1]!,
            }),
          ],
        });
      },
      'the squad after a tap': () => coach.get('/faults'),
      approaches: () => coach.get('/approaches'),
      'a week of sessions': () => coach.get(`/sessions?from=${dayAgo(7)}&to=${dayAgo(1)}`),
    };
    for (const [name, ask] of Object.entries(asks)) {
      const times: number[] = [];
      let bytes = 0;
      const calls = name.startsWith('  plain') ? PLAIN_CALLS : CALLS;
      for (let i = 0; i < WARMING + calls; i += 1) {
        if (name === 'the squad after a tap') await asks['a tap']!();
        const start = performance.now();
        const answer = await ask();
        if (i >= WARMING) times.push(performance.now() - start);
        if (answer.status !== 200) throw new Error(`${name}: ${answer.status} ${answer.text}`);
        bytes = Buffer.byteLength(answer.text);
      }
      most.set(name, part(times, 0.95));
      console.log(
        `${name.padEnd(34)} ${part(times, 0.5).toFixed(0).padStart(6)} ms median ${part(times, 0.95).toFixed(0).padStart(6)} ms at 95 % ${(bytes / 1000).toFixed(1).padStart(8)} kB`,
      );
    }
    await countsHold(stage, coach);
  } finally {
    await stage.close();
  }
  return most;
};

const all: Map<string, number>[] = [];
for (const size of SIZES) all.push(await run(size));
const [few, many] = all;
if (few && many) {
  console.log('\nhow much longer the larger club takes, at 95 %:');
  for (const [name, ms] of many) {
    console.log(`${name.padEnd(34)} ${(ms / few.get(name)!).toFixed(1).padStart(6)} times`);
  }
}
