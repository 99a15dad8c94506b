import type { Body } from '@gravek/core/layout/body';
import { loadCheck, type LoadCheck } from '@gravek/core/session/loadCheck';
import { addLoads } from '@gravek/core/session/repCounts';
import { type BodyLoad, LOAD_KINDS, type LoadKind } from '@gravek/core/session/repLog';
import { keptVariants } from '@gravek/core/session/variants';
import type { LoadLimit } from '@gravek/contract/club';
import type { DrillSet } from '@gravek/contract/drillSet';
import { type Conditions, likelyReps, type Makes } from './sessionTime';
import { type Base, variedRun } from './work';

const times = (load: BodyLoad, by: number): BodyLoad => ({
  contacts: load.contacts * by,
  jumps: load.jumps * by,
  throws: load.throws * by,
  sprintM: load.sprintM * by,
});

/** What a drill set is likely to put on each of its athletes. */
const setLoads = (
  set: DrillSet,
  base: Base | null,
  bodies: ReadonlyMap<string, Body>,
  conditions: Conditions,
): Map<string, BodyLoad> => {
  const reps = likelyReps(set, base, conditions);
  const variants = keptVariants(set);
  return new Map(
    set.athleteIds.flatMap((id, i) => {
      const body = bodies.get(id);
      if (!base || !body) return [];
      const rep = addLoads(variants.map((variant) => variedRun(base, variant, body).load));
      return [[id, times(rep, set.sets * reps[i]!)] as const];
    }),
  );
};

/** What loads are reckoned from, in a form that can be handed to a worker. */
export type LoadsAsk = {
  sets: { set: DrillSet; base: Base | null }[];
  bodies: [athleteId: string, body: Body][];
  conditions: Pick<Conditions, 'people' | 'on'>;
  makes: [athleteAndMovement: string, makes: Makes][];
};

/** What each of some drill sets, in their order, is likely to put on each of its athletes. */
export const loadsOf = ({ sets, bodies, conditions, makes }: LoadsAsk): Map<string, BodyLoad>[] => {
  const by = new Map(bodies);
  const made = new Map(makes);
  return sets.map(({ set, base }) =>
    setLoads(set, base, by, {
      ...conditions,
      makesOf: (id, movement) => made.get(`${id}/${movement}`),
    }),
  );
};

/**
 * What a session puts on each athlete, drill sets together.
 *
 * @example
 * const load = { contacts: 40, jumps: 2, throws: 0, sprintM: 10 };
 * sessionLoads([new Map([['a', load]]), new Map([['a', load]])]).get('a')
 * // { contacts: 80, jumps: 4, throws: 0, sprintM: 20 }
 */
export const sessionLoads = (
  loads: readonly ReadonlyMap<string, BodyLoad>[],
): Map<string, BodyLoad> => {
  const ids = new Set(loads.flatMap((load) => [...load.keys()]));
  return new Map(
    [...ids].map((id) => [id, addLoads(loads.map((load) => load.get(id) ?? null))] as const),
  );
};

/** Weeks of somebody before this one, the last one last, and what this week has so far besides. */
export type WeeksOf = { before: BodyLoad[]; thisWeek: BodyLoad };

/** Who has most of a kind in a session, beside what is usual and what the club allows. */
export type MostOf = {
  kind: LoadKind;
  athleteId: string;
  /** in this session */
  here: number;
  /** with the rest of the week */
  week: number;
  check: LoadCheck;
  /** the club's limit for a week at their age; null where there is none */
  limit: number | null;
  over: boolean;
};

/**
 * What the club allows somebody of a kind in a week: the limit of the youngest age that they are not
 * beyond.
 *
 * @param birthYear null where it is not known: nothing is limited then
 * @param on yyyy-mm-dd; ages are those reached in its year
 * @returns null where there is none
 * @example weekLimit([{ kind: 'jumps', upToAge: 14, week: 60 }], 2018, '2031-05-01', 'jumps') // 60
 */
export const weekLimit = (
  limits: readonly LoadLimit[],
  birthYear: number | null,
  on: string,
  kind: LoadKind,
): number | null => {
  if (birthYear === null) return null;
  const age = Number(on.slice(0, 4)) - birthYear;
  const [strictest] = limits
    .filter((limit) => limit.kind === kind && age <= limit.upToAge)
    .sort((a, b) => a.upToAge - b.upToAge);
  return strictest?.week ?? null;
};

/**
 * For each kind of load whoever has most of it, those first who are over a limit or far above the usual.
 *
 * @param weeksOf undefined where nothing is known of somebody
 * @param limitOf the club's limit of a kind for a week
 */
export const mostLoaded = (
  loads: ReadonlyMap<string, BodyLoad>,
  weeksOf: (id: string) => WeeksOf | undefined,
  limitOf: (id: string, kind: LoadKind) => number | null,
): MostOf[] =>
  LOAD_KINDS.flatMap((kind) => {
    const rows = [...loads].map(([athleteId, load]): MostOf => {
      const weeks = weeksOf(athleteId);
      const here = load[kind];
      const week = here + (weeks?.thisWeek[kind] ?? 0);
      const limit = limitOf(athleteId, kind);
      return {
        kind,
        athleteId,
        here,
        week,
        check: loadCheck({ weeks: (weeks?.before ?? []).map((load) => load[kind]), planned: week }),
        limit,
        over: limit !== null && week > limit,
      };
    });
    const [most] = rows.sort(
      (a, b) => Number(b.over) - Number(a.over) || b.here - a.here || b.week - a.week,
    );
    return most && most.here > 0 ? [most] : [];
  });
