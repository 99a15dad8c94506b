import { randomBytes } from 'node:crypto';
import {
  check,
  clubFile,
  looseEndsOfClub,
  MOST_REPS,
  WARM_UP,
  repInFile,
  type ClubFile,
  type RepInFile,
} from '@gravek/contract';
import { sql } from 'kysely';
import pg from 'pg';
import { v7 as uuid } from 'uuid';
import { array, object } from 'yup';
import { upgraded } from './upgrade';
import { solveFor } from '../approaches/queries';
import { athleteColumns, measurementColumns, restrictionColumns } from '../athletes/queries';
import { members } from '../club/members';
import { inClub, withoutHurry, type Db, type Trx, type Who } from '../database/connect';
import { groundColumns } from '../grounds/queries';
import { ProblemError } from '../http/problem';
import { StartFault } from '../startFault';
import { reviewColumns } from '../film/queries';
import { movementColumns, movementsBy } from '../movements/queries';
import { countNew } from '../reps/countNew';
import { inChunks, repColumns } from '../reps/queries';
import { drillSetColumns, sessionColumns } from '../sessions/queries';
import { INVITED_MS } from '../club/invitations';
import { freshLink } from '../signIn/link';
import { hashPassword } from '../signIn/password';

/** Rows in the order of the file, numbered within their sessions as if they had arrived so. */
const loadReps = async (
  trx: Trx,
  reps: readonly RepInFile[],
  accountBy: (id: string) => string,
): Promise<void> => {
  const ends = new Map<string, number>();
  const numbered = reps.map((rep) => {
    const arrival = (ends.get(rep.sessionId) ?? 0) + 1;
    ends.set(rep.sessionId, arrival);
    const by = rep.loggedBy === undefined ? null : accountBy(rep.loggedBy);
    return {
      ...repColumns(rep, by),
      load: rep.load && JSON.stringify(rep.load),
      measured: rep.measured && JSON.stringify(rep.measured),
      arrival,
    };
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

const awayNow = (flag: boolean | undefined) => (flag ? sql<Date>`now()` : null);

/** What coaches have chosen otherwise than the figures did. */
const loadChoices = async (
  trx: Trx,
  { cueChoices = [], rungChoices = [] }: ClubFile,
  accountBy: (id: string) => string,
): Promise<void> => {
  const columns = (one: NonNullable<ClubFile['rungChoices' | 'cueChoices']>[number]) => ({
    id: one.id,
    athlete_id: one.athleteId,
    movement: one.movement,
    reason: one.reason,
    account_id: accountBy(one.account),
    day: one.day,
    made_at: one.at,
  });
  await inChunks(cueChoices, (part) =>
    trx
      .insertInto('cue_choice')
      .values(
        part.map((one) => ({
          ...columns(one),
          fault: one.fault,
          drill: one.drill,
          told_at: one.toldAt,
        })),
      )
      .execute(),
  );
  await inChunks(rungChoices, (part) =>
    trx
      .insertInto('rung_choice')
      .values(part.map((one) => ({ ...columns(one), rung: one.rung })))
      .execute(),
  );
};

const loadAll = async (
  trx: Trx,
  file: ClubFile,
  accountBy: (id: string) => string,
): Promise<void> => {
  await inChunks(file.athletes, (part) =>
    trx
      .insertInto('athlete')
      .values(
        part.map((athlete) => ({
          id: athlete.id,
          ...athleteColumns(athlete),
          archived_at: awayNow(athlete.archived),
        })),
      )
      .execute(),
  );
  await inChunks(file.restrictions, (part) =>
    trx
      .insertInto('restriction')
      .values(part.map((one) => ({ ...restrictionColumns(one), removed_at: awayNow(one.removed) })))
      .execute(),
  );
  await inChunks([...file.trials, ...file.readings], (part) =>
    trx
      .insertInto('measurement')
      .values(part.map((one) => ({ ...measurementColumns(one), removed_at: awayNow(one.removed) })))
      .execute(),
  );
  for (const one of file.movements) {
    const { id } = one;
    await trx
      .insertInto('movement')
      .values({ id, ...movementColumns(one), archived_at: awayNow(one.archived) })
      .execute();
  }
  for (const { id, name, note, rules, archived } of file.ruleSets) {
    await trx
      .insertInto('rule_set')
      .values({ id, name, note, rules: JSON.stringify(rules), archived_at: awayNow(archived) })
      .execute();
  }
  for (const { archived, ...one } of file.grounds) {
    await trx
      .insertInto('ground')
      .values({ ...groundColumns(one), archived_at: awayNow(archived) })
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
        archived_at: awayNow(one.archived),
        ...(one.savedAt === undefined ? {} : { saved_at: one.savedAt }),
      })
      .execute();
  }
  await lookForMovements(trx, file);
  await solveAll(trx, file);
  await inChunks(file.sessions, (part) =>
    trx
      .insertInto('session')
      .values(
        part.map((one) => ({
          id: one.id,
          ...sessionColumns(one),
          archived_at: awayNow(one.archived),
        })),
      )
      .execute(),
  );
  const sets = file.sessions.flatMap((session) =>
    session.drillSets.map((set, position) => ({ set, position, sessionId: session.id })),
  );
  await inChunks(sets, (part) =>
    trx
      .insertInto('drill_set')
      .values(part.map((one) => drillSetColumns(one.set, one.sessionId, one.position)))
      .execute(),
  );
  const people = sets.flatMap(({ set }) =>
    set.athleteIds.map((athlete_id, position) => ({ drill_set_id: set.id, athlete_id, position })),
  );
  await inChunks(people, (part) => trx.insertInto('drill_set_athlete').values(part).execute());
  for (const { archived, ...one } of file.reviews ?? []) {
    await trx
      .insertInto('review')
      .values({ ...reviewColumns(one), archived_at: awayNow(archived) })
      .execute();
  }
  await loadChoices(trx, file, accountBy);
  await loadReps(trx, file.reps, accountBy);
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

/** Rows of a log that are checked before others get their turn. */
const AT_A_TIME = 500;
const others = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/**
 * Reads a club file. A long log is looked at piece by piece, so that nobody else waits for it.
 *
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 */
export const readClubFile = async (text: string): Promise<ClubFile> => {
  let read: unknown;
  try {
    // Some editors begin a file with a mark of its encoding.
    read = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    throw new StartFault('This is not a club file: it cannot be read as JSON.');
  }
  const file = upgradedOrNot(read);
  const { reps: log } = (file ?? {}) as { reps?: unknown };
  const rows: unknown[] = Array.isArray(log) ? log : [];
  const checked = check(clubFile, Array.isArray(log) ? { ...(file as object), reps: [] } : file);
  if (!checked.ok) throw refusal(checked.fields);
  if (rows.length > MOST_REPS) throw refusal({ reps: `At most ${MOST_REPS} of them are read.` });
  const reps: RepInFile[] = [];
  for (let i = 0; i < rows.length; i += AT_A_TIME) {
    const part = check(logPart, { reps: rows.slice(i, i + AT_A_TIME) });
    if (!part.ok) throw refusal(inFile(part.fields, i));
    reps.push(...part.value.reps);
    await others();
  }
  const whole = { ...checked.value, reps };
  const loose = looseEndsOfClub(whole);
  if (Object.keys(loose).length > 0) throw refusal(loose);
  return whole;
};

const logPart = object({ reps: array(repInFile.required()).max(AT_A_TIME).required() });

/** Places of a part of the log as they are in the file. */
const inFile = (fields: Record<string, string>, from: number): Record<string, string> =>
  Object.fromEntries(
    Object.entries(fields).map(([path, why]) => [
      path.replace(/^reps\[(\d+)\]/, (_, i: string) => `reps[${Number(i) + from}]`),
      why,
    ]),
  );

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
      const solved = approach.solved ?? [];
      const known = new Map(solved.map((one) => [one.athleteId, one]));
      const guests = solved.filter((one) => !one.listed).map((one) => one.athleteId);
      await solveFor(trx, approach, approach.athleteIds, true, known);
      await solveFor(trx, approach, guests, false, known);
      for (const { athleteId, at } of solved) {
        await trx
          .updateTable('athlete_approach')
          .set({ solved_at: at })
          .where('approach_id', '=', approach.id)
          .where('athlete_id', '=', athleteId)
          .execute();
      }
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
  if (error.constraint === 'invitation_club_id_email_key')
    return refusal({ people: 'Two of them have the same e-mail address.' });
  if (error.constraint === 'club_pkey') return refusal({ clubId: 'This club is here already.' });
  return refusal({ [error.table ?? '']: 'Something in it cannot be kept.' });
};

const settingsColumns = ({ name, unit, cueSchool, timeZone, limits }: ClubFile['club']) => ({
  name,
  unit,
  cue_school: cueSchool,
  time_zone: timeZone,
  limits: JSON.stringify(limits),
});

type Person = ClubFile['people'][number];

/** People of a file become members when they accept; until then what they logged stays under the file's ids. */
const invite = async (
  trx: Trx,
  people: readonly Person[],
  madeBy: string | null,
): Promise<void> => {
  await inChunks(people, (part) =>
    trx
      .insertInto('invitation')
      .values(
        part.map(({ id, email, person, role, account }) => ({
          ...{ id, email, person, role },
          formerly: account ?? null,
          made_by: madeBy,
        })),
      )
      .execute(),
  );
};

/** Accounts of the demo, which somebody at this machine opens with a press. */
const enlist = async (trx: Trx, people: readonly Person[]): Promise<Map<string, string>> => {
  const known = new Map<string, string>();
  for (const { id, email, person, role, account, password } of people) {
    const accountId = uuid();
    const password_hash = await hashPassword(password ?? randomBytes(32).toString('base64'));
    await trx
      .insertInto('account')
      .values({ id: accountId, email, person, password_hash })
      .execute();
    await trx.insertInto('membership').values({ id, account_id: accountId, role }).execute();
    if (account) known.set(account, accountId);
  }
  return known;
};

/** Makes a club of a file as one transaction: all of it or nothing. */
const makeClub = async <T>(
  db: Db,
  text: string,
  people: (trx: Trx, file: ClubFile) => Promise<{ known: Map<string, string>; told: T }>,
): Promise<T> => {
  const file = await readClubFile(text);
  return inClub(db, { clubId: file.clubId, accountId: uuid() }, async (trx) => {
    await withoutHurry(trx);
    await trx
      .insertInto('club')
      .values({ id: file.clubId, ...settingsColumns(file.club) })
      .execute();
    const { known, told } = await people(trx, file);
    await loadAll(trx, file, (id) => known.get(id) ?? id);
    return told;
  }).catch((error: unknown) => {
    throw asStartFault(error);
  });
};

/** Loads the demo club, whose people have accounts at once. */
export const loadDemo = (db: Db, text: string): Promise<void> =>
  makeClub(db, text, async (trx, file) => ({
    known: await enlist(trx, file.people),
    told: undefined,
  }));

/**
 * Makes a club of a file. Nobody gets an account by it: its people are invited.
 *
 * @param text the file's JSON, as docs/file-format.md describes it
 * @returns a link for each of its owners, to be passed on
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 */
export const loadClubFile = (
  db: Db,
  text: string,
): Promise<{ person: string; token: string; until: Date }[]> =>
  makeClub(db, text, async (trx, { people }) => {
    if (people.every(({ role }) => role !== 'owner')) {
      throw refusal({ people: 'None of them is an owner, so nobody could change the club.' });
    }
    await invite(trx, people, null);
    const told = [];
    for (const { id, person, role } of people) {
      if (role !== 'owner') continue;
      const { token, ...kept } = freshLink(INVITED_MS);
      await trx.updateTable('invitation').set(kept).where('id', '=', id).execute();
      told.push({ person, token, until: kept.until });
    }
    return { known: new Map<string, string>(), told };
  });

/** What a club holds besides its members and settings. */
const HOLDS = ['athlete', 'approach', 'session', 'movement', 'rule_set', 'ground'] as const;

/**
 * Puts a club file into a club that holds nothing yet, in the transaction of one of its owners: all of it
 * or nothing. Who of its people is no member here is invited. The same file sent again is done.
 *
 * @param mark what tells this file from others
 * @throws {StartFault} when the club holds something, or the file cannot be kept
 */
export const restoreInto = async (
  trx: Trx,
  { clubId, accountId }: Who,
  file: ClubFile,
  mark: string,
): Promise<void> => {
  await withoutHurry(trx);
  const { restored } = await trx
    .selectFrom('club')
    .select('restored')
    .where('id', '=', clubId)
    .forUpdate()
    .executeTakeFirstOrThrow();
  if (restored === mark) return;
  for (const table of HOLDS) {
    const there = await trx
      .selectFrom(table)
      .select('id')
      .where('club_id', '=', clubId)
      .limit(1)
      .executeTakeFirst();
    if (there) {
      throw new StartFault(
        'This club holds something already, so nothing was changed. An archive goes into a club without athletes, plans, sessions, grounds or movements of its own.',
      );
    }
  }
  await trx
    .updateTable('club')
    .set((eb) => ({
      ...settingsColumns(file.club),
      restored: mark,
      version: eb('version', '+', 1),
    }))
    .where('id', '=', clubId)
    .execute();
  const here = new Map((await members(trx, accountId)).map((one) => [one.email, one.id]));
  const accounts = await trx.selectFrom('account').select(['id', 'email']).execute();
  const accountOf = new Map(accounts.map(({ id, email }) => [email, id]));
  const known = new Map(
    file.people.flatMap(({ account, email }) =>
      account && here.has(email) ? [[account, accountOf.get(email)!]] : [],
    ),
  );
  try {
    await trx.deleteFrom('invitation').execute();
    await invite(
      trx,
      file.people.filter(({ email }) => !here.has(email)),
      accountId,
    );
    await loadAll(trx, file, (id) => known.get(id) ?? id);
  } catch (error) {
    throw asStartFault(error);
  }
};
