import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { SetUp } from '@gravek/contract/setUp';
import { drillOf } from '../movement/byCode';
import { freshDrillSet } from './sessionFit';

/** Walking back is rest enough after a single try; seconds. */
const WALK_BACK_S = 15;
/** Between rounds where a drill does not say otherwise; seconds. */
const BETWEEN_ROUNDS_S = 60;

/** How a drill is run where nothing is said. */
export const AS_USUAL: SetUp = {
  stand: 'turns',
  sides: ['own'],
  paces: [1],
  sets: 1,
  reps: 5,
  restS: WALK_BACK_S,
  setRestS: BETWEEN_ROUNDS_S,
};

/**
 * A drill set of some work as it is taught: a drill with its own set-up, anything else as usual.
 *
 * @param id of the new set
 * @param movement that the work is of; undefined where it is not known, or a warm-up
 * @example
 * const work = { kind: 'movement', movement: 'wall-switches', drill: 'one-freeze' };
 * setOfWork('s1', work, ['ana'], wallSwitches).stand // 'row': all at once, on a call
 */
export const setOfWork = (
  id: string,
  work: Work,
  athleteIds: readonly string[],
  movement: Movement | undefined,
): DrillSet => {
  const fresh = freshDrillSet(id, work, athleteIds);
  const drill =
    work.kind === 'movement' && work.drill !== null && movement
      ? drillOf(movement, work.drill)
      : undefined;
  if (!drill) return fresh;
  const {
    sides,
    leadFeet,
    exits,
    ways,
    spots,
    paces,
    rungs,
    bring: _,
    ...asked
  } = {
    ...AS_USUAL,
    ...Object.fromEntries(
      Object.entries(drill.setUp ?? {}).filter(([, value]) => value !== undefined),
    ),
  } as SetUp;
  return {
    ...fresh,
    ...(asked as Partial<DrillSet>),
    vary: {
      ...fresh.vary,
      ...(sides && { sides }),
      ...(leadFeet && { leadFeet }),
      ...(exits && { exits }),
      ...(ways && { ways }),
      ...(spots && { spots }),
      ...(paces && { paces }),
      ...(rungs && { rungs }),
    } as DrillSet['vary'],
  };
};

/** What a line of a session says of a set, and by which of its figures. */
const SAID = {
  varies: ['vary', 'struck', 'order'],
  target: ['target', 'amount', 'reps', 'retryMissed'],
  rounds: ['sets', 'redo', 'freeze'],
  stands: ['stand', 'helpers', 'apartPaces'],
  call: ['call'],
} as const satisfies Record<string, readonly (keyof DrillSet)[]>;

/**
 * Which parts of a set are not as its drill is set up; all of them where the work has no set-up.
 *
 * @example
 * const work = { kind: 'movement', movement: 'wall-switches', drill: 'one-freeze' };
 * const set = setOfWork('s1', work, ['ana'], wallSwitches);
 * changedParts({ ...set, reps: set.reps + 1 }, wallSwitches).target // true
 */
export const changedParts = (
  set: DrillSet,
  movement: Movement | undefined,
): Record<keyof typeof SAID, boolean> => {
  const { work } = set;
  const drill =
    work.kind === 'movement' && work.drill !== null && movement && drillOf(movement, work.drill);
  const usual = drill && drill.setUp ? setOfWork(set.id, work, set.athleteIds, movement) : null;
  const isChanged = (part: keyof typeof SAID): boolean =>
    !usual ||
    SAID[part].some(
      (field) => JSON.stringify(set[field] ?? null) !== JSON.stringify(usual[field] ?? null),
    );
  return {
    varies: isChanged('varies'),
    target: isChanged('target'),
    rounds: isChanged('rounds'),
    stands: isChanged('stands'),
    call: isChanged('call'),
  };
};
