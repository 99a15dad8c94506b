import { sql } from 'kysely';
import { inClub } from '../src/database/connect';
import { aRep, coachIn, openStage } from '../test/setup';
import { fillClub } from './fill';

/** How long the server takes for a club of 300 athletes and two million reps, and how much it sends. */
const VOLUME = {
  squads: 6,
  athletesEach: 50,
  sessionsEach: 303,
  repsEach: 22,
  lastDay: '2031-05-14',
};
const CALLS = 15;

const stage = await openStage();
try {
  const coach = await coachIn(stage);
  const began = performance.now();
  const [squad] = await inClub(stage.db, coach, (trx) => fillClub(trx, VOLUME));
  await sql`analyze`.execute(stage.owner);
  const reps = VOLUME.squads * VOLUME.athletesEach * VOLUME.sessionsEach * VOLUME.repsEach;
  console.log(
    `\n${VOLUME.squads * VOLUME.athletesEach} athletes, ${reps.toLocaleString('en')} reps, filled and counted in ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  const { sessionId, athleteIds } = squad!;
  const session = (await coach.get(`/sessions/${sessionId}`)).body;
  let turn = 0;
  const asks = {
    'Today: cues': () => coach.get(`/cues?on=${VOLUME.lastDay}`),
    'Faults: the squad': () => coach.get('/faults'),
    'an athlete’s faults': () => coach.get(`/athletes/${athleteIds[0]}/faults`),
    'a page of their history': () => coach.get(`/athletes/${athleteIds[0]}/faults/straight-run-up`),
    'a session’s parts for the phone': () => coach.get(`/sessions/${sessionId}/run`),
    'the log since the last row': () => coach.get(`/sessions/${sessionId}/reps?after=1095`),
    'a tap': () => {
      turn += 1;
      return coach.post('/reps', {
        reps: [aRep(session, { set: 2, rep: turn, turn: 22 + turn, athleteId: athleteIds[1]! })],
      });
    },
    approaches: () => coach.get('/approaches'),
    'a week of sessions': () => coach.get('/sessions?from=2031-05-08&to=2031-05-14'),
  };
  for (const [name, ask] of Object.entries(asks)) {
    const times: number[] = [];
    let bytes = 0;
    for (let i = 0; i < CALLS; i += 1) {
      const start = performance.now();
      const answer = await ask();
      times.push(performance.now() - start);
      if (answer.status !== 200) throw new Error(`${name}: ${answer.status} ${answer.text}`);
      bytes = Buffer.byteLength(answer.text);
    }
    times.sort((a, b) => a - b);
    console.log(
      `${name.padEnd(34)} ${times[CALLS >> 1]!.toFixed(0).padStart(6)} ms median ${times.at(-1)!.toFixed(0).padStart(6)} ms most ${(bytes / 1000).toFixed(1).padStart(8)} kB`,
    );
  }
} finally {
  await stage.close();
}
