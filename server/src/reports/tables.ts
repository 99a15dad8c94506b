import { groupBy, standing } from '@gravek/core/session/repLog';
import { variantFrom } from '@gravek/core/session/variants';
import { CSV_TABLES, type CsvTableName } from '@gravek/contract/club';
import { WARM_UP } from '@gravek/contract/drillSet';
import { resultsOfCounts } from '@gravek/library/cue/results';
import { faultOf } from '@gravek/library/movement/byCode';
import { movementOf } from '@gravek/library/movement/movements';
import { type Cell, CSV_START, csvText } from '@gravek/library/roster/csv';
import { wayName } from '@gravek/library/session/setWords';
import { sql } from 'kysely';
import { isTrial, measurements } from '../athletes/queries';
import { peopleOf } from '../club/members';
import type { Trx } from '../database/connect';
import { countRows, resultsIn } from '../faults/counts';
import { clubMovements } from '../movements/queries';
import { repsOf } from '../reps/queries';

/** What a table calls people, movements and faults. A code stands for what is not there any more. */
const namesIn = async (trx: Trx) => {
  const athletes = await trx.selectFrom('athlete').select(['id', 'name', 'squad']).execute();
  const byId = new Map(athletes.map((row) => [row.id, row]));
  const who = await peopleOf(trx);
  const documents = (await clubMovements(trx)).map((movement) => movement.movement);
  return {
    athlete: (id: string): Cell[] => {
      const { name = '', squad = '' } = byId.get(id) ?? {};
      return [name, squad];
    },
    person: (id: string | null): Cell => who(id)?.person ?? null,
    movement: (code: string): string =>
      code === WARM_UP ? code : movementOf(code, documents).name,
    way: (code: string, way: string): string =>
      code === WARM_UP ? way : wayName(movementOf(code, documents), way),
    fault: (code: string, fault: string): string =>
      faultOf(movementOf(code, documents), fault)?.name ?? fault,
  };
};

type Names = Awaited<ReturnType<typeof namesIn>>;
type Table = {
  heads: string[];
  /** rows, some at a time */
  rows: (trx: Trx, names: Names) => AsyncIterable<Cell[][]>;
};

/** All that is logged of one session: no field session comes near it. */
const WHOLE_LOG = 100_000;

const sessionsByDay = (trx: Trx) =>
  trx
    .selectFrom('session')
    .select(['id', 'day', 'title'])
    .where(sql<boolean>`club_id = gravek_club()`)
    .orderBy('day')
    .orderBy('id')
    .execute();

/** Reps that stand, session by session. */
async function* reps(trx: Trx, names: Names): AsyncGenerator<Cell[][]> {
  for (const { id, day, title } of await sessionsByDay(trx)) {
    const log = await repsOf(trx, id, { after: 0, limit: WHOLE_LOG });
    if (log.length === 0) continue;
    const by = await trx
      .selectFrom('rep')
      .select(['id', 'logged_by'])
      .where('session_id', '=', id)
      .execute();
    const loggedBy = new Map(by.map((row) => [row.id, row.logged_by]));
    yield standing(log).map((rep) => [
      ...[day, title, ...names.athlete(rep.athleteId), names.movement(rep.movement), rep.part],
      ...[rep.set, rep.rep, rep.side, rep.leadFoot, rep.speedPct, rep.rung, rep.variant],
      rep.ways?.map((way) => names.way(rep.movement, way)).join('; ') ?? null,
      variantFrom(rep.variant, rep.side).spot,
      ...[
        rep.exit,
        rep.taken,
        rep.right,
        rep.lateS,
        rep.lateS === null ? null : (rep.lateBy ?? 'tap'),
      ],
      ...[rep.made, rep.heldS, rep.touchS === null ? null : rep.touchS.join(' ')],
      ...[rep.ranM, rep.ranS, rep.outcome, rep.watched],
      rep.faults.map((fault) => names.fault(rep.movement, fault)).join('; '),
      rep.cue === null ? null : names.fault(rep.movement, rep.cue),
      ...[rep.note, rep.at, names.person(loggedBy.get(rep.id) ?? null)],
    ]);
  }
}

const part = (value: number): number => Number(value.toFixed(4));

/** How every fault of everybody stands now. */
async function* faults(trx: Trx, names: Names): AsyncGenerator<Cell[][]> {
  const rows = await trx
    .selectFrom('fault_standing')
    .innerJoin('athlete', (join) =>
      join
        .onRef('athlete.club_id', '=', 'fault_standing.club_id')
        .onRef('athlete.id', '=', 'fault_standing.athlete_id'),
    )
    .select(['athlete_id', 'movement', 'last_day', 'faults'])
    .where(sql<boolean>`fault_standing.club_id = gravek_club()`)
    .orderBy('athlete.name')
    .orderBy('movement')
    .execute();
  yield rows.flatMap((row) =>
    row.faults.map((fault): Cell[] => [
      ...names.athlete(row.athlete_id),
      ...[names.movement(row.movement), names.fault(row.movement, fault.code), fault.state],
      ...[part(fault.rate), part(fault.low), part(fault.high), fault.seen, fault.reps],
      ...[fault.effect === null ? null : part(fault.effect), row.last_day],
    ]),
  );
}

/** Figures of a test, however deep they lie, each with what it is. */
const figuresOf = (value: unknown, what = ''): [string, number][] => {
  if (typeof value === 'number') return [[what, Number(value.toFixed(6))]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) =>
    figuresOf(inner, `${what} ${Array.isArray(value) ? Number(key) + 1 : key}`.trim()),
  );
};

/** Figures of every test, one a row. */
async function* measures(trx: Trx, names: Names): AsyncGenerator<Cell[][]> {
  const standing = (await measurements(trx)).flatMap(({ row, removed }) => (removed ? [] : [row]));
  for (const readingRow of standing.sort((a, b) => a.takenOn.localeCompare(b.takenOn))) {
    const test = isTrial(readingRow) ? 'measured run' : readingRow.reading.kind;
    const figures = isTrial(readingRow)
      ? figuresOf(readingRow.steps, 'step')
      : figuresOf(readingRow.reading);
    yield figures.map(([what, value]) => [
      ...[
        ...names.athlete(readingRow.athleteId),
        readingRow.takenOn,
        test,
        what,
        value,
        readingRow.source,
        readingRow.note,
      ],
    ]);
  }
}

/** What each session put on everybody, by movement. */
async function* loads(trx: Trx, names: Names): AsyncGenerator<Cell[][]> {
  const { rows } = await sql<{
    day: string;
    title: string;
    athleteId: string;
    movement: string;
    reps: number;
    contacts: number;
    jumps: number;
    throws: number;
    sprintM: number;
  }>`
    select s.day, s.title, c.athlete_id as "athleteId", c.movement, sum(c.reps)::int as reps,
      sum(c.contacts)::float8 as contacts, sum(c.jumps)::float8 as jumps,
      sum(c.throws)::float8 as throws, sum(c.sprint_m)::float8 as "sprintM"
    from rep_count c join session s on s.club_id = c.club_id and s.id = c.session_id
    where c.club_id = gravek_club()
    group by s.day, s.id, s.title, c.athlete_id, c.movement
    order by s.day, s.id, 3, 4`.execute(trx);
  for (const dayRows of groupBy(rows, (row) => row.day).values()) {
    yield dayRows.map((row) => [
      ...[row.day, row.title, ...names.athlete(row.athleteId), names.movement(row.movement)],
      ...[row.reps, row.contacts, row.jumps, row.throws, Number(row.sprintM.toFixed(1))],
    ]);
  }
}

/** What came of makes, seconds, touches, metres and minutes, by session, movement, side, exit and spot. */
async function* results(trx: Trx, names: Names): AsyncGenerator<Cell[][]> {
  for (const { id, day, title } of await sessionsByDay(trx)) {
    const counts = resultsIn(await countRows(trx, { sessionId: id }));
    const countsBy = groupBy(counts, ({ athleteId, movement }) => `${athleteId}/${movement}`);
    yield [...countsBy.values()].flatMap((list) => {
      const { athleteId, movement } = list[0]!;
      const heading = [day, title, ...names.athlete(athleteId), names.movement(movement)];
      return resultsOfCounts(list).map((count): Cell[] => [
        ...[...heading, count.side, count.exit, count.spot, count.tried, count.made, count.held],
        ...(count.held > 0 ? [part(count.heldS / count.held), count.bestHeldS] : [null, null]),
        ...[count.rounds, count.touches],
        ...(count.splits > 0
          ? [part(count.splitS / count.splits), part(count.bestSplitS!)]
          : [null, null]),
        ...(count.compared > 0
          ? [part(count.firstSplitS / count.compared), part(count.lastSplitS / count.compared)]
          : [null, null]),
        ...(count.runs > 0 ? [part(count.ranM), part(count.ranS / 60)] : [null, null]),
      ]);
    });
  }
}

const TABLES: Record<CsvTableName, Table> = {
  reps: {
    heads: [
      ...['date', 'session', 'athlete', 'squad', 'movement', 'part', 'set', 'rep', 'side'],
      ...[
        'lead foot',
        'speed %',
        'rung',
        'differs',
        'taught',
        'spot',
        'asked',
        'taken',
        'right answer',
      ],
      ...['after the call s', 'timed by', 'made', 'held s', 'touches at s', 'metres run'],
      ...['seconds run', 'outcome', 'watched', 'faults', 'cue', 'note', 'at', 'logged by'],
    ],
    rows: reps,
  },
  faults: {
    heads: [
      ...['athlete', 'squad', 'movement', 'fault', 'state', 'rate', 'rate 5 %', 'rate 95 %'],
      ...['reps that showed it', 'reps that could', 'chance that it is less', 'last run'],
    ],
    rows: faults,
  },
  results: {
    heads: [
      ...['date', 'session', 'athlete', 'squad', 'movement', 'side', 'asked', 'spot'],
      ...['tried', 'made', 'held', 'mean held s', 'longest held s', 'rounds of touches', 'touches'],
      ...['mean split s', 'best round split s', 'first round split s', 'last round split s'],
      ...['metres run', 'minutes run'],
    ],
    rows: results,
  },
  measures: {
    heads: ['athlete', 'squad', 'date', 'test', 'figure', 'value', 'source', 'note'],
    rows: measures,
  },
  loads: {
    heads: [
      ...['date', 'session', 'athlete', 'squad', 'movement', 'reps'],
      ...['contacts', 'jumps', 'throws', 'sprint m'],
    ],
    rows: loads,
  },
};

export const isTable = (name: string): name is CsvTableName =>
  CSV_TABLES.some((table) => table === name);

/** A table of the club as CSV, a piece at a time; lengths in metres, times in seconds. */
export async function* csvPieces(trx: Trx, name: CsvTableName): AsyncGenerator<string> {
  const { heads, rows } = TABLES[name];
  yield `${CSV_START}${csvText([heads])}\r\n`;
  for await (const some of rows(trx, await namesIn(trx))) {
    if (some.length > 0) yield `${csvText(some)}\r\n`;
  }
}
