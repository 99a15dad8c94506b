import { keptVariants } from '@gravek/core/session/variants';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Session, SessionInput } from '@gravek/contract/session';
import { barredBy, whyBarred } from '@gravek/library/session/restrictions';
import { withoutAthletes } from '@gravek/library/session/sessionFit';
import { variantWords } from '@gravek/library/session/setWords';
import { baseOf, demandOfSet, type Finds, notJoined } from '@gravek/library/session/work';
import { isDeepStrictEqual } from 'util';
import { findsOf, type PlansFound } from '../approaches/finds';
import { solveFor } from '../approaches/queries';
import { athletes } from '../athletes/queries';
import type { Trx } from '../database/connect';
import { badInput } from '../http/problem';

/** A drill set as its row; its athletes have rows of their own. */
export const drillSetColumns = (set: DrillSet, sessionId: string, position: number) => {
  const { id, athleteIds: _athletes, ...document } = set;
  return {
    id,
    session_id: sessionId,
    position,
    approach_id: approachOf(set),
    document: JSON.stringify(document),
  };
};

/** The plan that a drill set runs; null where it runs none. */
const approachOf = ({ work }: Pick<DrillSet, 'work'>): string | null =>
  work.kind === 'plan' ? work.approachId : null;

const approachesOf = (drillSets: readonly DrillSet[]): string[] => [
  ...new Set(drillSets.flatMap((set) => approachOf(set) ?? [])),
];

/** Drill sets with the session that holds them and whether reps were logged in them. */
const setsThere = async (trx: Trx, ids: readonly string[]) =>
  ids.length === 0
    ? []
    : trx
        .selectFrom('drill_set as d')
        .select((eb) => [
          'd.id',
          'd.session_id as sessionId',
          'd.document as document',
          eb
            .exists(
              eb
                .selectFrom('rep as r')
                .select('r.id')
                .whereRef('r.club_id', '=', 'd.club_id')
                .whereRef('r.drill_set_id', '=', 'd.id'),
            )
            .as('hasReps'),
        ])
        .where('d.id', 'in', [...ids])
        .execute();

/** Reasons why a drill set cannot be as asked, by field. */
const faultsOf = async (
  trx: Trx,
  { id: sessionId, drillSets, date }: SessionInput,
  before: Session | undefined,
  { finds, people }: { finds: Finds; people: readonly Athlete[] },
): Promise<Record<string, string>> => {
  const personBy = new Map(people.map((person) => [person.id, person]));
  const fields = withoutAthletes(drillSets, before?.drillSets);
  const beforeBy = new Map(before?.drillSets.map((set) => [set.id, set]));
  const unsure = drillSets.filter(
    ({ id, work }) => !isDeepStrictEqual(beforeBy.get(id)?.work, work),
  );
  const stored = await setsThere(
    trx,
    unsure.map((set) => set.id),
  );
  const storedSets = new Map(stored.map((set) => [set.id, set]));
  drillSets.forEach((set, i) => {
    const old = beforeBy.get(set.id);
    const already = new Set(old?.athleteIds);
    const kept = storedSets.get(set.id);
    if (drillSets.findIndex((other) => other.id === set.id) !== i) {
      fields[`drillSets[${i}].id`] = 'This drill set is in the session twice.';
    } else if (kept && kept.sessionId !== sessionId) {
      fields[`drillSets[${i}].id`] =
        'This drill set belongs to another session; add it here as a new one.';
    }
    const path = `drillSets[${i}]`;
    if (kept?.hasReps && !isDeepStrictEqual(kept.document.work, set.work)) {
      fields[`${path}.work`] =
        'Reps of this drill set have been logged, so what is done stays. Add another drill set for the other.';
    }
    const base = baseOf(set.work, finds);
    if (!base) {
      fields[`${path}.work`] =
        set.work.kind === 'plan'
          ? 'This approach is not there any more; choose another.'
          : 'This movement is not there any more; choose another.';
    }
    if (keptVariants(set).length === 0) {
      fields[`${path}.struck`] = 'Every combination is struck out; leave at least one.';
    }
    const [apart] = base ? notJoined(base, set) : [];
    if (apart) {
      fields[`${path}.struck`] =
        `${variantWords(base!, apart.variant).join(', ')}: ${apart.why} Strike it out.`;
    }
    const demand = base ? demandOfSet(base, set) : [];
    for (const athleteId of set.athleteIds) {
      const person = personBy.get(athleteId);
      if (!person) {
        fields[`${path}.athleteIds`] = 'One of these athletes is not there any more.';
      } else if (person.archived && !already.has(athleteId)) {
        fields[`${path}.athleteIds`] =
          `${person.name} is archived; take them out or bring them back first.`;
      } else if (!already.has(athleteId)) {
        const barred = barredBy(demand, person.restrictions, date);
        if (barred) fields[`${path}.athleteIds`] = whyBarred(person.name, barred);
      }
    }
  });
  return fields;
};

/**
 * Stores the drill sets of a session as asked: new ones are added, known ones changed, missing ones
 * taken out, and every athlete gets the approach solved.
 *
 * @throws {ProblemError} naming the drill set that cannot be as asked; one with reps cannot go
 */
export const storeDrillSets = async (
  trx: Trx,
  input: SessionInput,
  before: Session | undefined,
): Promise<void> => {
  const drillSets = input.drillSets;
  const finds = await findsOf(trx, drillSets);
  const people = await athletes(trx, {
    ids: [...new Set(drillSets.flatMap(({ athleteIds }) => athleteIds))],
  });
  const fields = await faultsOf(trx, input, before, { finds, people });
  if (Object.keys(fields).length > 0) throw badInput(fields);

  const kept = new Set(drillSets.map((set) => set.id));
  const gone = (before?.drillSets ?? []).map((set) => set.id).filter((id) => !kept.has(id));
  if (gone.length > 0) {
    const used = await trx
      .selectFrom('rep')
      .select('id')
      .where('drill_set_id', 'in', gone)
      .limit(1)
      .executeTakeFirst();
    if (used) {
      throw badInput({
        drillSets: 'A drill set with logged reps cannot be taken out; its reps would be lost.',
      });
    }
    await trx.deleteFrom('drill_set').where('id', 'in', gone).execute();
  }
  if (drillSets.length > 0) {
    await trx
      .insertInto('drill_set')
      .values(drillSets.map((set, position) => drillSetColumns(set, input.id, position)))
      .onConflict((conflict) =>
        conflict.columns(['club_id', 'id']).doUpdateSet((eb) => ({
          session_id: eb.ref('excluded.session_id'),
          position: eb.ref('excluded.position'),
          approach_id: eb.ref('excluded.approach_id'),
          document: eb.ref('excluded.document'),
        })),
      )
      .execute();
    await trx
      .deleteFrom('drill_set_athlete')
      .where('drill_set_id', 'in', [...kept])
      .execute();
    const rows = drillSets.flatMap(({ id, athleteIds }) =>
      athleteIds.map((athlete_id, position) => ({ drill_set_id: id, athlete_id, position })),
    );
    if (rows.length > 0) await trx.insertInto('drill_set_athlete').values(rows).execute();
  }
  await solveForGuests(trx, drillSets, finds, people);
};

/** Has the approaches of a session solved for those of its athletes who are not on them yet. */
const solveForGuests = (
  trx: Trx,
  drillSets: readonly DrillSet[],
  { planOf, solvedFor }: PlansFound,
  people: readonly Athlete[],
): Promise<void> =>
  solveFor(
    trx,
    approachesOf(drillSets).map((id) => {
      const isSolved = new Set(solvedFor(id).map(({ athleteId }) => athleteId));
      const athleteIds = drillSets
        .filter((set) => approachOf(set) === id)
        .flatMap((set) => set.athleteIds)
        .filter((athleteId) => !isSolved.has(athleteId));
      return { plan: { id, ...planOf(id)! }, athleteIds: [...new Set(athleteIds)], listed: false };
    }),
    people,
  );
