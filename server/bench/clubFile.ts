import { CLUB_FILE_VERSION } from '@gravek/contract/clubFile';
import { v7 as uuid } from 'uuid';
import { anApproach, anAthlete, aRep, aSession } from '../test/setup';

const ATHLETES = 20;
const REPS_EACH = 50;
const PIECE = 200;

/** A club file of about so many bytes, nearly all of them its log, made as it is read. */
export async function* longClubFile(bytes: number): AsyncGenerator<Buffer> {
  const athletes = Array.from({ length: ATHLETES }, (_, i) => anAthlete({ name: `Athlete ${i}` }));
  const ids = athletes.map((athlete) => athlete.id);
  const approach = anApproach(ids);
  const like = aSession(approach.id, ids);
  const repBytes = JSON.stringify(aRep(like)).length + 1;
  const perSession = ATHLETES * REPS_EACH;
  const sessions = Array.from({ length: Math.ceil(bytes / repBytes / perSession) }, () =>
    aSession(approach.id, ids),
  );
  const owner = { id: uuid(), person: 'Orla Finch', email: 'orla@club.invalid', role: 'owner' };
  const head = {
    ...{ format: 'gravek-club', version: CLUB_FILE_VERSION, clubId: uuid() },
    club: { name: 'Long', unit: 'metric', cueSchool: 'root-cause', timeZone: 'UTC', limits: [] },
    ...{ people: [owner], athletes, restrictions: [], trials: [], readings: [], movements: [] },
    ...{ ruleSets: [], grounds: [], approaches: [approach], sessions },
  };
  yield Buffer.from(`${JSON.stringify(head).slice(0, -1)},"reps":[`);
  let comma = '';
  for (const session of sessions) {
    for (let from = 0; from < perSession; from += PIECE) {
      const reps = Array.from({ length: PIECE }, (_, k) => {
        const turn = Math.floor((from + k) / ATHLETES) + 1;
        const athleteId = ids[(from + k) % ATHLETES]!;
        return JSON.stringify(
          aRep(session, { athleteId, turn, rep: turn, at: new Date().toISOString() }),
        );
      });
      yield Buffer.from(`${comma}${reps.join(',')}`);
      comma = ',';
    }
  }
  yield Buffer.from(']}');
}
