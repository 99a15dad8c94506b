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
