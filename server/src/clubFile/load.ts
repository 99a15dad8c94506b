import {
  check,
  clubFile,
  looseEndsOfClub,
  WARM_UP,
  type ClubFile,
  type Rep,
} from '@gravek/contract';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { upgraded } from './upgrade';
import { solveFor } from '../approaches/queries';
import { athleteColumns, measurementColumns, restrictionColumns } from '../athletes/queries';
import { inClub, withoutHurry, type Db, type Trx } from '../database/connect';
import { groundColumns } from '../grounds/queries';
import { ProblemError } from '../http/problem';
import { StartFault } from '../startFault';
import { movementColumns, movementsBy } from '../movements/queries';
import { countNew } from '../reps/countNew';
import { inChunks, repColumns } from '../reps/queries';
import { drillSetColumns, sessionColumns } from '../sessions/queries';
import { hashPassword } from '../signIn/password';

/** Rows in the order of the file, numbered within their sessions as if they had arrived so. */
const loadReps = async (trx: Trx, reps: readonly Rep[]): Promise<void> => {
  const ends = new Map<string, number>();
  const numbered = reps.map((rep) => {
    const arrival = (ends.get(rep.sessionId) ?? 0) + 1;
    ends.set(rep.sessionId, arrival);
    return { ...repColumns(rep, null), load: rep.load && JSON.stringify(rep.load), arrival };
  });
  await inChunks(numbered, (part) => trx.insertInto('rep').values(part).execute());
  const faults = reps
    .filter((rep) => rep.outcome === 'fault')
    .flatMap((rep) => rep.faults.map((fault) => ({ rep_id: rep.id, fault })));
  await inChunks(faults, (part) => trx.insertInto('rep_fault').values(part).execute());
  for (const [id, end] of ends) {
    await trx.updateTable('session').set({ log_end: end }).where('id', '=', id).execute();
  }
  await countNew(trx);
};

const loadAll = async (trx: Trx, file: ClubFile): Promise<void> => {
  await inChunks(file.athletes, (part) =>
    trx
      .insertInto('athlete')
      .values(part.map((athlete) => ({ id: athlete.id, ...athleteColumns(athlete) })))
      .execute(),
  );
  await inChunks(file.restrictions, (part) =>
    trx.insertInto('restriction').values(part.map(restrictionColumns)).execute(),
  );
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
  for (const one of file.grounds) {
    await trx.insertInto('ground').values(groundColumns(one)).execute();
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
  }
  await lookForMovements(trx, file);
  await solveAll(trx, file);
  await inChunks(file.sessions, (part) =>
    trx
      .insertInto('session')
      .values(part.map((one) => ({ id: one.id, ...sessionColumns(one) })))
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

const SHOWN = 5;

/** Refuses a file with the first places that are wrong. */
const refusal = (places: Record<string, string>): StartFault => {
  const all = Object.entries(places);
  const lines = all.slice(0, SHOWN).map(([path, why]) => `  ${path || 'the file'}: ${why}`);
  if (all.length > SHOWN) lines.push(`  … and ${all.length - SHOWN} more places`);
  return new StartFault(
    `This club file cannot be loaded; nothing was changed.\n${lines.join('\n')}`,
  );
};

/** @throws {StartFault} when it cannot be read, naming the first places that are wrong */
const readClubFile = (text: string): ClubFile => {
  let read: unknown;
  try {
    // Some editors begin a file with a mark of its encoding.
    read = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    throw new StartFault('This is not a club file: it cannot be read as JSON.');
  }
  const checked = check(clubFile, upgradedOrNot(read));
  if (!checked.ok) throw refusal(checked.fields);
  const loose = looseEndsOfClub(checked.value);
  if (Object.keys(loose).length > 0) throw refusal(loose);
  return checked.value;
};

/** What an older file lacks cannot be made up when its parts are not even lists. */
const upgradedOrNot = (read: unknown): unknown => {
  try {
    return upgraded(read);
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new StartFault(
      'This club file cannot be loaded: it says an older version, and is not laid out as one.',
    );
  }
};

/** Reps and approaches name movements that ship or that the file brings along. */
const lookForMovements = async (trx: Trx, file: ClubFile): Promise<void> => {
  const movementBy = await movementsBy(trx, [
    ...file.approaches.map((approach) => approach.movement),
    ...new Set(file.reps.map((rep) => rep.movement)),
    ...file.sessions.flatMap(({ drillSets }) =>
      drillSets.flatMap(({ work }) => (work.kind === 'movement' ? [work.movement] : [])),
    ),
  ]);
  const missing = (path: string): StartFault =>
    refusal({ [path]: 'There is no such movement, neither built in nor in the file.' });
  file.approaches.forEach(({ movement }, i) => {
    if (!movementBy(movement)) throw missing(`approaches[${i}].movement`);
  });
  file.sessions.forEach(({ drillSets }, i) =>
    drillSets.forEach(({ work }, d) => {
      if (work.kind === 'movement' && !movementBy(work.movement))
        throw missing(`sessions[${i}].drillSets[${d}].work.movement`);
    }),
  );
  file.reps.forEach(({ movement }, i) => {
    if (movement !== WARM_UP && !movementBy(movement)) throw missing(`reps[${i}].movement`);
  });
};

/** What is wrong with each approach, found as it is solved. */
const solveAll = async (trx: Trx, file: ClubFile): Promise<void> => {
  for (const [i, approach] of file.approaches.entries()) {
    try {
      await solveFor(trx, approach, approach.athleteIds, true);
    } catch (error) {
      if (error instanceof ProblemError || error instanceof RangeError)
        throw refusal({ [`approaches[${i}]`]: error.message });
      throw error;
    }
  }
};

/** What the tables have against the file as a whole. */
const asStartFault = (error: unknown): unknown => {
  if (!(error instanceof pg.DatabaseError) || !/^2[23]/.test(error.code ?? '')) return error;
  if (error.constraint === 'account_email_key')
    return refusal({ people: 'One of these e-mail addresses has an account here already.' });
  if (error.constraint === 'club_pkey') return refusal({ clubId: 'This club is here already.' });
  return refusal({ [error.table ?? '']: 'Something in it cannot be kept.' });
};

/**
 * Loads a club file as one transaction: all of it or nothing.
 *
 * @param text the file's JSON, as docs/file-format.md describes it
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 */
export const loadClubFile = async (db: Db, text: string): Promise<void> => {
  const file = readClubFile(text);
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
        limits: JSON.stringify(file.club.limits),
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
  }).catch((error: unknown) => {
    throw asStartFault(error);
  });
};
