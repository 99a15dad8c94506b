import {
  CONDITION_AXES,
  type Agreement,
  type Condition,
  type ConditionAxis,
  type CueRecord,
  type Ledger,
} from '@gravek/contract/faults';
import { cueEffect, type RepCounts } from '@gravek/core/cue/cueEffect';
import { SURE } from '@gravek/core/cue/cueState';
import { rateBand } from '@gravek/core/cue/rateBand';
import { groupBy } from '@gravek/core/session/repLog';
import { faultOf } from '@gravek/library/movement/byCode';
import { isChain } from '@gravek/library/movement/chains';
import { laddersOf } from '@gravek/library/cue/ladder';
import { agreementOf, contrastsOf, cueSpans, isOf } from '@gravek/library/cue/ledger';
import { bySession, historyOf, shownIn, type SessionFaults } from '@gravek/library/cue/standings';
import { sql } from 'kysely';
import { peopleOf } from '../club/members';
import type { Trx } from '../database/connect';
import { badInput, notFound } from '../http/problem';
import { movementsBy } from '../movements/queries';
import { clubNow, countsOf, faultsOf, type Counted } from './queries';
import { makesInChains, readsOf, resultsOf } from './results';
import { laddersIn } from './rungs';

/** A condition as its axis has it in an address, and back. */
const asText = (value: Condition[ConditionAxis]): string => String(value);

/**
 * Reads which conditions are asked for.
 *
 * @throws {ProblemError} when an axis is asked for a value that no rep has
 */
const askedFor = (
  rows: readonly Counted[],
  query: Readonly<Record<string, string>>,
): Partial<Condition> => {
  const asked: Partial<Record<ConditionAxis, Condition[ConditionAxis]>> = {};
  for (const axis of CONDITION_AXES) {
    const text = query[axis];
    if (text === undefined) continue;
    const row = rows.find((row) => asText(row[axis]) === text);
    if (!row) throw badInput({ [axis]: 'No rep was run like that.' });
    asked[axis] = row[axis];
  }
  return asked as Partial<Condition>;
};

/** What each cue has done for other athletes of the club in a movement. */
const recordOf = async (
  trx: Trx,
  movement: string,
  athleteId: string,
  priors: ReadonlyMap<string, { alpha: number; beta: number }>,
): Promise<CueRecord[]> => {
  const { rows } = await sql<{ fault: string; before: RepCounts; since: RepCounts }>`
    select r ->> 'fault' as fault, r -> 'before' as before, r -> 'since' as since
    from fault_standing f, jsonb_array_elements(f.results) r
    where f.movement = ${movement} and f.athlete_id <> ${athleteId}`.execute(trx);
  const total = (list: readonly RepCounts[]): RepCounts => ({
    reps: list.reduce((sum, session) => sum + session.reps, 0),
    faults: list.reduce((sum, session) => sum + session.faults, 0),
  });
  return [...groupBy(rows, (row) => row.fault)].flatMap(([fault, list]) => {
    const prior = priors.get(fault);
    if (!prior) return [];
    return [
      {
        fault,
        athletes: list.length,
        better: list.filter(
          ({ before, since }) => cueEffect({ before, since, prior }).probability >= SURE,
        ).length,
        before: total(list.map(({ before }) => before)),
        since: total(list.map(({ since }) => since)),
      },
    ];
  });
};

const agreementIn = async (trx: Trx, athleteId: string, movement: string): Promise<Agreement[]> =>
  agreementOf(
    await trx
      .selectFrom('watched_twice')
      .select(['faults_a as faultsA', 'faults_b as faultsB', 'could'])
      .where('athlete_id', '=', athleteId)
      .where('movement', '=', movement)
      .execute(),
  );

/** Faults that showed and that the movement does not have any more. */
const goneFrom = async (
  trx: Trx,
  movement: string,
  sessions: readonly SessionFaults[],
): Promise<Ledger['gone']> => {
  const now = (await movementsBy(trx, [movement]))(movement);
  const shown = groupBy(
    sessions.flatMap((session) => session.faults),
    ({ fault }) => fault,
  );
  return [...shown].flatMap(([code, list]) =>
    now && faultOf(now, code)
      ? []
      : [{ code, reps: list.reduce((sum, session) => sum + session.reps, 0) }],
  );
};

const standOnLadder = async (trx: Trx, athleteId: string, movement: string) => {
  const { today } = await clubNow(trx);
  const movementBy = await movementsBy(trx, [movement]);
  const [stand] = laddersOf(await laddersIn(trx, today, { athleteId, movement }), movementBy);
  return stand ?? null;
};

/** Rates of what is asked for, where not all of it is: no state, since a part of the reps has none. */
const partly = (sessions: readonly SessionFaults[], code: string, lastDay: string) => {
  const { rate, low, high } = rateBand({ sessions: historyOf(sessions, code), onDate: lastDay });
  const { reps, faults: seen } = shownIn(sessions, code);
  return { rate, low, high, reps, seen };
};

/**
 * All that is known of the faults of an athlete in a movement.
 *
 * @param query conditions that are asked for, by axis; of any where an axis is absent
 */
export const ledgerOf = async (
  trx: Trx,
  athleteId: string,
  movement: string,
  query: Readonly<Record<string, string>>,
): Promise<Ledger> => {
  const picture = (await faultsOf(trx, [athleteId])).find(
    (picture) => picture.movement === movement,
  );
  if (!picture) throw notFound('movement');
  const rows = await countsOf(trx, { athleteIds: [athleteId], movements: [movement] });
  const asked = askedFor(rows, query);
  const all = bySession(rows);
  const some = Object.keys(asked).length > 0;
  const sessions = some ? bySession(rows.filter((row) => isOf(row, asked))) : all;
  const { faults, ...own } = picture;
  const who = await peopleOf(trx);
  return {
    ...own,
    log: sessions.map(({ sessionId, date, reps }) => ({ id: sessionId, date, reps })),
    rows: faults.map((fault) => ({
      ...fault,
      ...(some ? partly(sessions, fault.code, own.lastDay) : {}),
      exposed: sessions.map((session) => shownIn([session], fault.code).reps),
      shown: sessions.map((session) => shownIn([session], fault.code).faults),
    })),
    spans: cueSpans(sessions),
    axes: CONDITION_AXES.flatMap((axis) => {
      const values = [...groupBy(rows, (row) => asText(row[axis]))];
      return values.length < 2
        ? []
        : values.map(([value, own]) => ({
            axis,
            value,
            name: axis === 'loggedBy' ? (who(value)?.person ?? null) : null,
            reps: own.reduce((sum, row) => sum + row.reps, 0),
          }));
    }),
    contrasts: contrastsOf(
      rows,
      faults.filter(({ seen }) => seen > 0).map(({ code }) => code),
    ),
    others: await recordOf(
      trx,
      movement,
      athleteId,
      new Map(faults.map(({ code, prior }) => [code, prior])),
    ),
    agreement: await agreementIn(trx, athleteId, movement),
    reads: await readsOf(trx, movement, athleteId),
    results: await resultsOf(trx, movement, athleteId),
    chains: isChain(movement) ? await makesInChains(trx, athleteId) : [],
    gone: await goneFrom(trx, movement, sessions),
    ladder: await standOnLadder(trx, athleteId, movement),
  };
};
