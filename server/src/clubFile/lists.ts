import { countColumns } from '../ownView/counts';
import type { ClubItem } from '@gravek/contract/clubFile';
import { sql } from 'kysely';
import { solveFor } from '../approaches/queries';
import { athleteColumns, measurementColumns, restrictionColumns } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { groundColumns } from '../grounds/queries';
import { ProblemError } from '../http/problem';
import { movementColumns } from '../movements/queries';
import { countNew } from '../reps/countNew';
import {
  athletesOf,
  each,
  type Loading,
  movementCheck,
  type MovementCheck,
  mustBeThere,
  type Named,
  type Piece,
  put,
} from './intoTables';
import { loadReps } from './loadReps';
import { refusal } from './refusal';
import { awayNow, loadSessions } from './sessionLists';

const loadAthletes = async (loading: Loading): Promise<void> => {
  const { trx } = loading;
  await each(loading, 'athletes', ({ items, at }) =>
    put(
      trx,
      'athlete',
      items.map((athlete) => ({
        id: athlete.id,
        ...athleteColumns(athlete),
        archived_at: awayNow(athlete.archived),
      })),
      at,
    ),
  );
  await each(loading, 'restrictions', async (piece) => {
    await mustBeThere(trx, 'athlete', athletesOf(piece));
    const rows = piece.items.map((item) => ({
      ...restrictionColumns(item),
      removed_at: awayNow(item.removed),
    }));
    await put(trx, 'restriction', rows, piece.at);
  });
  // Measured runs and other tests are kept in one place.
  for (const list of ['trials', 'readings'] as const) {
    await each(loading, list, async (piece) => {
      await mustBeThere(trx, 'athlete', athletesOf(piece));
      const rows = piece.items.map((item) => ({
        ...measurementColumns(item),
        removed_at: awayNow(item.removed),
      }));
      await put(trx, 'measurement', rows, piece.at);
    });
  }
};

/** What the club has made its own: movements, step rules, grounds. */
const loadClubOwn = async (loading: Loading): Promise<void> => {
  const { trx } = loading;
  await each(loading, 'movements', ({ items, at }) =>
    put(
      trx,
      'movement',
      items.map((item) => ({
        ...{ id: item.id, ...movementColumns(item) },
        archived_at: awayNow(item.archived),
      })),
      at,
    ),
  );
  await each(loading, 'ruleSets', ({ items, at }) =>
    put(
      trx,
      'rule_set',
      items.map(({ id, name, note, rules, archived }) => ({
        ...{ id, name, note, rules: JSON.stringify(rules), archived_at: awayNow(archived) },
      })),
      at,
    ),
  );
  await each(loading, 'grounds', ({ items, at }) =>
    put(
      trx,
      'ground',
      items.map(({ archived, ...ground }) => ({
        ...groundColumns(ground),
        archived_at: awayNow(archived),
      })),
      at,
    ),
  );
};

/** Solves a plan for everybody it was solved for, by the measures it was solved by. */
const solveAgain = async (trx: Trx, plan: ClubItem<'approaches'>, path: string): Promise<void> => {
  try {
    const solved = plan.solved ?? [];
    const solvedBy = new Map(solved.map((plan) => [plan.athleteId, plan]));
    const guests = solved.filter((plan) => !plan.listed).map((plan) => plan.athleteId);
    await solveFor(trx, [
      { plan, athleteIds: plan.athleteIds, listed: true, known: solvedBy },
      { plan, athleteIds: guests, listed: false, known: solvedBy },
    ]);
    await sql`
      update athlete_approach set solved_at = given.at
      from unnest(${solved.map((plan) => plan.athleteId)}::uuid[], ${solved.map((plan) => plan.at)}::timestamptz[])
        as given (athlete_id, at)
      where club_id = gravek_club() and approach_id = ${plan.id}
        and athlete_approach.athlete_id = given.athlete_id`.execute(trx);
  } catch (error) {
    if (error instanceof ProblemError || error instanceof RangeError) {
      throw refusal({ [path]: error.message });
    }
    throw error;
  }
};

const loadPlans = async (loading: Loading, movementsMustBe: MovementCheck): Promise<void> => {
  const { trx } = loading;
  await each(loading, 'approaches', async ({ items, at }) => {
    await mustBeThere(
      trx,
      'athlete',
      items.flatMap(({ athleteIds, solved = [] }, i) => [
        ...athleteIds.map((id, a) => ({ path: `${at(i)}.athleteIds[${a}]`, id })),
        ...solved.map((plan, a) => ({
          path: `${at(i)}.solved[${a}].athleteId`,
          id: plan.athleteId,
        })),
      ]),
    );
    await movementsMustBe(
      items.map(({ movement }, i) => ({ path: `${at(i)}.movement`, id: movement })),
    );
    await put(
      trx,
      'approach',
      items.map((item) => ({
        id: item.id,
        name: item.name,
        movement: item.movement,
        choices: JSON.stringify(item.choices),
        archived_at: awayNow(item.archived),
        ...(item.savedAt === undefined ? {} : { saved_at: item.savedAt }),
      })),
      at,
    );
    for (const [i, plan] of items.entries()) await solveAgain(trx, plan, at(i));
  });
};

/** What coaches have chosen otherwise than the figures did. */
const loadChoices = async (loading: Loading): Promise<void> => {
  const { trx, accountBy } = loading;
  const columns = (choice: ClubItem<'cueChoices' | 'rungChoices'>) => ({
    id: choice.id,
    athlete_id: choice.athleteId,
    movement: choice.movement,
    reason: choice.reason,
    account_id: accountBy(choice.account),
    day: choice.day,
    made_at: choice.at,
  });
  const athletes = ({ items, at }: Piece<'cueChoices'> | Piece<'rungChoices'>): Named[] =>
    items.map(({ athleteId }, i) => ({ path: `${at(i)}.athleteId`, id: athleteId }));
  await each(loading, 'cueChoices', async (piece) => {
    await mustBeThere(trx, 'athlete', athletes(piece));
    await put(
      trx,
      'cue_choice',
      piece.items.map((item) => ({
        ...columns(item),
        fault: item.fault,
        drill: item.drill,
        told_at: item.toldAt,
      })),
      piece.at,
    );
  });
  await each(loading, 'rungChoices', async (piece) => {
    await mustBeThere(trx, 'athlete', athletes(piece));
    await put(
      trx,
      'rung_choice',
      piece.items.map((item) => ({ ...columns(item), rung: item.rung, drill: item.drill })),
      piece.at,
    );
  });
};

/** What athletes counted of themselves. */
const loadOwnCounts = (loading: Loading): Promise<void> =>
  each(loading, 'ownCounts', async ({ items, at }) => {
    const athletes = items.map(({ athleteId }, i) => ({
      path: `${at(i)}.athleteId`,
      id: athleteId,
    }));
    await mustBeThere(loading.trx, 'athlete', athletes);
    await put(
      loading.trx,
      'own_count',
      items.map(({ athleteId, name, ...item }) => ({
        ...countColumns(item, { athleteId, name }),
        at: item.at,
      })),
      at,
    );
  });

/** All lists but the people, each after those that it names. */
export const loadAll = async (loading: Loading): Promise<void> => {
  const movementsMustBe = movementCheck(loading.trx);
  await loadAthletes(loading);
  await loadClubOwn(loading);
  await loadPlans(loading, movementsMustBe);
  await loadSessions(loading, movementsMustBe);
  await loadChoices(loading);
  await loadOwnCounts(loading);
  await loadReps(loading, movementsMustBe);
  loading.told(null);
  await countNew(loading.trx);
};
