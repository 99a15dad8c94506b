import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { sideView, type SideView } from '@gravek/core/body/sideView';
import type { Movement } from '@gravek/contract/movement';

/**
 * A movement seen from the side, for an athlete, as it is laid out; null where posture is not what counts
 * in it.
 *
 * @param taught with its schools in it, as `bySchools` gives it
 * @example sideOf(straightRunUp, laidOut(straightRunUp, body), body).topM // 1.81
 */
export const sideOf = (taught: Movement, layout: Layout, body: Body): SideView | null => {
  const postures = new Map(taught.phases.map((phase) => [phase.code, phase.posture]));
  const view = sideView(layout, (code) => postures.get(code), body);
  return view.keys.length > 0 ? view : null;
};
