import { rotation } from '@gravek/core/session/rotation';
import type { DrillSet, Helper } from '@gravek/contract/drillSet';
import type { SetTime } from './sessionTime';

/**
 * What the others do in a set while somebody performs; nothing where all perform, or wait their turn.
 *
 * @example helpersOf({ stand: 'pairs', helpers: ['feeds'] }) // ['feeds']
 */
export const helpersOf = (set: Pick<DrillSet, 'stand' | 'helpers'>): Helper[] => {
  if (set.stand === 'pairs') return [set.helpers[0] ?? 'partner'];
  return set.stand === 'roles' ? set.helpers : [];
};

/** One pass of a set's rotation on a time axis: everybody performs once. */
export type RotationAxis = {
  /** 'performs' and what the others do */
  roles: string[];
  /** seconds of one shift */
  shiftS: number;
  shifts: number;
  /** in the order in which they perform: role by shift, null where somebody waits */
  rows: { athleteId: string; parts: (number | null)[] }[];
};

/**
 * Who does what when, once round.
 *
 * @returns null where all do the same at once, or nobody is in it
 */
export const rotationAxis = (set: DrillSet, time: SetTime | null): RotationAxis | null => {
  const ids = set.athleteIds;
  if (!time || ids.length < 2 || set.stand === 'row' || set.stand === 'stations') return null;
  const roles = ['performs', ...helpersOf(set)];
  const shifts = rotation(ids, time.performing, roles.length);
  return {
    roles,
    shiftS: time.cycleS / shifts.length,
    shifts: shifts.length,
    rows: ids.map((athleteId) => ({
      athleteId,
      parts: shifts.map((shift) => shift.get(athleteId)?.role ?? null),
    })),
  };
};
