import { CLUB_FILE_VERSION, type ClubFile, type RepInFile } from '@gravek/contract/clubFile';
import { sql } from 'kysely';
import { peopleOf } from '../club/members';
import type { Trx } from '../database/connect';
import { athletes, measurements, restrictions, isTrial } from '../athletes/queries';
import { approaches, summaries } from '../approaches/queries';
import { review, reviewIds } from '../film/queries';
import { grounds } from '../grounds/queries';
import { clubMovements, ruleSets } from '../movements/queries';
import { allCounts } from '../ownView/counts';
import { repsOf } from '../reps/queries';
import { sessions } from '../sessions/queries';

/** One page with everything. */
const ALL = { after: null, limit: Number.MAX_SAFE_INTEGER };

/** Left out where it is not so. */
const archived = (item: { archived: boolean }) => (item.archived ? { archived: true } : {});

/** A row that says so where it was taken out. */
const withRemoved = <R extends object>({ row, removed }: { row: R; removed: boolean }) =>
  removed ? { ...row, removed } : row;

/** The account that an id in the log stands for now. */
type Who = (id: string | null) => string | null;

const choicesOf = async (trx: Trx, who: Who) => {
  const cues = await trx.selectFrom('cue_choice').selectAll().orderBy('made_at').execute();
  const rungs = await trx.selectFrom('rung_choice').selectAll().orderBy('made_at').execute();
  const common = (row: (typeof cues)[number] | (typeof rungs)[number]) => ({
    id: row.id,
    athleteId: row.athlete_id,
    movement: row.movement,
    reason: row.reason,
    account: who(row.account_id)!,
    day: row.day,
    at: row.made_at.toISOString(),
  });
  return {
    cueChoices: cues.map((row) => ({
      ...common(row),
      fault: row.fault,
      drill: row.drill,
      toldAt: row.told_at?.toISOString() ?? null,
    })),
    rungChoices: rungs.map((row) => ({ ...common(row), rung: row.rung, drill: row.drill })),
  };
};

/** Members, and who is invited still, under the id by which the log knows them. */
const peopleIn = async (trx: Trx): Promise<ClubFile['people']> => {
  const joined = await trx
    .selectFrom('membership')
    .innerJoin('account', 'account.id', 'membership.account_id')
    .select(['membership.id', 'person', 'email', 'role', 'account.id as account'])
    .where('club_id', '=', sql<string>`gravek_club()`)
    .orderBy('membership.created_at')
    .orderBy('membership.id')
    .execute();
  const invited = await trx
    .selectFrom('invitation')
    .select(['id', 'person', 'email', 'role', 'formerly'])
    .orderBy('id')
    .execute();
  return [
    ...joined,
    ...invited.map(({ formerly, ...member }) =>
      formerly ? { ...member, account: formerly } : member,
    ),
  ];
};

/** Every plan with the measures that it was solved by. */
const plansOf = async (trx: Trx): Promise<ClubFile['approaches']> => {
  const ids = (await summaries(trx, ALL)).map(({ id }) => id);
  const { rows } = await sql<{ id: string; athleteId: string; listed: boolean }>`
    select approach_id as id, athlete_id as "athleteId", listed from athlete_approach`.execute(trx);
  const listed = new Map(rows.map((row) => [`${row.id}/${row.athleteId}`, row.listed]));
  return (await approaches(trx, ids)).map((plan) => ({
    id: plan.id,
    name: plan.name,
    movement: plan.movement,
    choices: plan.choices,
    athleteIds: plan.athleteIds,
    savedAt: plan.savedAt,
    ...archived(plan),
    solved: plan.solved.map((approach) => ({
      athleteId: approach.athleteId,
      listed: listed.get(`${plan.id}/${approach.athleteId}`) ?? true,
      measured: approach.modelSource === 'measured',
      at: new Date(approach.solvedAt).toISOString(),
      model: approach.model,
    })),
  }));
};

const REPS_AT_ONCE = 2_000;

/** The log of a session, a part at a time. */
async function* logOf(trx: Trx, who: Who, sessionId: string): AsyncGenerator<RepInFile[]> {
  const logged = await trx
    .selectFrom('rep')
    .select(['id', 'logged_by'])
    .where('session_id', '=', sessionId)
    .execute();
  const loggedBy = new Map(logged.map((row) => [row.id, who(row.logged_by)]));
  let after = 0;
  for (;;) {
    const part = await repsOf(trx, sessionId, { after, limit: REPS_AT_ONCE });
    if (part.length === 0) return;
    yield part.map(({ arrival: _, ...rep }) => {
      const by = loggedBy.get(rep.id) ?? null;
      return by === null ? rep : { ...rep, loggedBy: by };
    });
    after = part.at(-1)!.arrival;
  }
}

/**
 * The whole club as a club file, a piece of text at a time: all that is held but passwords, addresses of
 * calendars and what is worked out from the rest.
 */
export async function* writeClubFile(trx: Trx, clubId: string): AsyncGenerator<string> {
  const club = await trx
    .selectFrom('club')
    .selectAll()
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  const member = await peopleOf(trx);
  const who: Who = (id) => member(id)?.accountId ?? id;
  const people = await athletes(trx, ALL, true);
  const tests = (await measurements(trx)).map(withRemoved);
  const restrictionsKept = (await restrictions(trx)).map(withRemoved);
  const reviews = [];
  for (const id of await reviewIds(trx)) {
    const { version: _, archived: away, ...film } = (await review(trx, id))!;
    reviews.push({ ...film, ...archived({ archived: away }) });
  }
  const list = await sessions(trx, { from: '0001-01-01', to: '9999-12-31' });
  const file: Omit<ClubFile, 'reps'> = {
    format: 'gravek-club',
    version: CLUB_FILE_VERSION,
    clubId,
    club: {
      name: club.name,
      unit: club.unit as ClubFile['club']['unit'],
      cueSchool: club.cue_school as ClubFile['club']['cueSchool'],
      timeZone: club.time_zone,
      limits: club.limits,
    },
    people: await peopleIn(trx),
    athletes: people.map((person) => ({
      id: person.id,
      name: person.name,
      squad: person.squad,
      hand: person.hand,
      takeoffFoot: person.takeoffFoot,
      shoeM: person.shoeM,
      heightM: person.heightM,
      legM: person.legM,
      birthYear: person.birthYear,
      bornOn: person.bornOn,
      positions: person.positions,
      ...archived(person),
    })),
    restrictions: restrictionsKept,
    trials: tests.filter(isTrial),
    readings: tests.filter((test) => !isTrial(test)) as ClubFile['readings'],
    movements: (await clubMovements(trx)).map((movement) => ({
      id: movement.id,
      basedOn: movement.basedOn,
      movement: movement.movement as ClubFile['movements'][number]['movement'],
      ...archived(movement),
    })),
    ruleSets: (await ruleSets(trx)).map((set) => ({
      id: set.id,
      name: set.name,
      note: set.note,
      rules: set.rules,
      ...archived(set),
    })),
    grounds: (await grounds(trx)).map(({ version: _, archived: away, ...ground }) => ({
      ...ground,
      ...archived({ archived: away }),
    })),
    approaches: await plansOf(trx),
    sessions: list.map((session) => ({
      id: session.id,
      date: session.date,
      title: session.title,
      groundId: session.groundId,
      place: session.place,
      template: session.template,
      ...(session.circuit && { circuit: session.circuit }),
      drillSets: session.drillSets,
      ...archived(session),
    })),
    reviews,
    ...(await choicesOf(trx, who)),
    ownCounts: await allCounts(trx),
  };
  yield `${JSON.stringify(file).slice(0, -1)},"reps":[`;
  let isFirst = true;
  for (const { id } of list) {
    for await (const part of logOf(trx, who, id)) {
      const rows = part.map((rep) => JSON.stringify(rep)).join(',\n');
      yield `${isFirst ? '' : ','}\n${rows}`;
      isFirst = false;
    }
  }
  yield ']}\n';
}
