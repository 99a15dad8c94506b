import { check, clubFile, type ClubFile, type Rep } from '@gravek/contract';
import { v7 as uuid } from 'uuid';
import { upgraded } from './upgrade';
import { solveFor } from '../approaches/queries';
import { athleteColumns, measurementColumns } from '../athletes/queries';
import { inClub, withoutHurry, type Db, type Trx } from '../database/connect';
import { StartFault } from '../startFault';
import { movementColumns } from '../movements/queries';
import { countAll } from '../reps/countAll';
import { inChunks, repColumns } from '../reps/queries';
import { drillSetColumns } from '../sessions/queries';
import { hashPassword } from '../signIn/password';

/** Rows in the order of the file, numbered within their sessions as if they had arrived so. */
const loadReps = async (trx: Trx, reps: readonly Rep[]): Promise<void> => {
  const ends = new Map<string, number>();
  const numbered = reps.map((rep) => {
    const arrival = (ends.get(rep.sessionId) ?? 0) + 1;
    ends.set(rep.sessionId, arrival);
    return repColumns(rep, arrival, null);
  });
  await inChunks(numbered, (part) => trx.insertInto('rep').values(part).execute());
  const faults = reps
    .filter((rep) => rep.outcome === 'fault')
    .flatMap((rep) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
  await inChunks(faults, (part) => trx.insertInto('rep_fault').values(part).execute());
  for (const [id, end] of ends) {
    await trx.updateTable('session').set({ log_end: end }).where('id', '=', id).execute();
  }
  await countAll(trx);
};

const loadAll = async (trx: Trx, file: ClubFile): Promise<void> => {
  await trx
    .insertInto('athlete')
    .values(file.athletes.map((athlete) => ({ id: athlete.id, ...athleteColumns(athlete) })))
    .execute();
  if (file.restrictions.length > 0) {
    await trx
      .insertInto('restriction')
      .values(
        file.restrictions.map((restriction) => ({
          id: restriction.id,
          athlete_id: restriction.athleteId,
          kind: restriction.kind,
          from_day: restriction.from,
          until_day: restriction.until,
          note: restriction.note,
        })),
      )
      .execute();
  }
  await inChunks([...file.trials, ...file.readings], (part) =>
    trx.insertInto('measurement').values(part.map(measurementColumns)).execute(),
  );
  for (const one of file.movements) {
    const { id } = one;
    await trx
      .insertInto('movement')
      .values({ id, ...movementColumns(one) })
      .execute();
  }
  for (const { id, name, note, rules } of file.ruleSets) {
    await trx
      .insertInto('rule_set')
      .values({ id, name, note, rules: JSON.stringify(rules) })
      .execute();
  }
  for (const one of file.approaches) {
    await trx
      .insertInto('approach')
      .values({
        id: one.id,
        name: one.name,
        movement: one.movement,
        choices: JSON.stringify(one.choices),
      })
      .execute();
    await solveFor(trx, one, one.athleteIds, true);
  }
  await inChunks(file.sessions, (part) =>
    trx
      .insertInto('session')
      .values(
        part.map((one) => ({ id: one.id, day: one.date, title: one.title, place: one.place })),
      )
      .execute(),
  );
  const sets = file.sessions.flatMap((session) =>
    session.drillSets.map((set, position) => ({ ...set, position, sessionId: session.id })),
  );
  await inChunks(sets, (part) =>
    trx
      .insertInto('drill_set')
      .values(part.map((set) => drillSetColumns(set, set.sessionId, set.position)))
      .execute(),
  );
  const people = sets.flatMap((set) =>
    set.athleteIds.map((athlete_id, position) => ({ drill_set_id: set.id, athlete_id, position })),
  );
  await inChunks(people, (part) => trx.insertInto('drill_set_athlete').values(part).execute());
  await loadReps(trx, file.reps);
};

/**
 * Loads a club file as one transaction: all of it or nothing.
 *
 * @param text the file's JSON, as docs/file-format.md describes it
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 */
export const loadClubFile = async (db: Db, text: string): Promise<void> => {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new StartFault('This is not a club file: it cannot be read as JSON.');
  }
  const checked = check(clubFile, upgraded(read));
  if (!checked.ok) {
    const first = Object.entries(checked.fields).slice(0, 5);
    throw new StartFault(
      `This club file cannot be loaded:\n${first.map(([path, why]) => `  ${path}: ${why}`).join('\n')}`,
    );
  }
  const file = checked.value;
  const people = await Promise.all(
    file.people.map(async (person) => ({
      ...person,
      accountId: uuid(),
      passwordHash: await hashPassword(person.password),
    })),
  );
  await inClub(db, { clubId: file.clubId, accountId: people[0]!.accountId }, async (trx) => {
    await withoutHurry(trx);
    await trx
      .insertInto('account')
      .values(
        people.map((one) => ({
          id: one.accountId,
          email: one.email,
          person: one.person,
          password_hash: one.passwordHash,
        })),
      )
      .execute();
    await trx
      .insertInto('club')
      .values({
        id: file.clubId,
        name: file.club.name,
        unit: file.club.unit,
        cue_school: file.club.cueSchool,
        time_zone: file.club.timeZone,
      })
      .execute();
    await trx
      .insertInto('membership')
      .values(
        people.map((person) => ({
          id: person.id,
          account_id: person.accountId,
          role: person.role,
        })),
      )
      .execute();
    await loadAll(trx, file);
  });
};
