import type { PicturePoint } from './planeMap';
import {
  postureAngles,
  SIDE_JOINTS,
  type PostureAngles,
  type SideJoint,
  type SidePoint,
} from '../body/posture';
import { MARK_PX, readingOf, type FilmView } from './watchedSteps';

export type WatchedPose = PostureAngles & {
  /** what the foot's distance to the hip may be off by, one standard deviation, metres */
  footToHipSdM: number;
  /** how far the camera stands off the side of the way that is run, degrees; null where that is not known */
  offSideDeg: number | null;
};

/** Metres of a pixel: along the way that is run, and up; how far off the side the camera stands. */
const scaleAt = (
  view: FilmView,
  foot: PicturePoint,
): { acrossPx: number; upPx: number; offSideDeg: number | null } => {
  const { at } = readingOf(view);
  const here = at(foot);
  if (view.kind === 'side') {
    const perPx = Math.abs(at({ ...foot, x: foot.x + 1 }).alongM - here.alongM);
    return { acrossPx: perPx, upPx: perPx, offSideDeg: null };
  }
  // How the picture's own ways lie on the ground: one pixel to the right, one up.
  const right = at({ ...foot, x: foot.x + 1 });
  const up = at({ ...foot, y: foot.y - 1 });
  const [ra, rc] = [right.alongM - here.alongM, right.acrossM - here.acrossM];
  const [ua, uc] = [up.alongM - here.alongM, up.acrossM - here.acrossM];
  // Along the way by one metre is so many pixels to the right: Cramer's rule on both ways.
  const area = ra * uc - rc * ua;
  const alongPx = Math.abs(area / uc);
  const offSideRad = Math.atan2(Math.abs(ua), Math.abs(uc));
  // A metre upright is as many pixels as a metre square to where the camera looks.
  return {
    acrossPx: alongPx,
    upPx: alongPx * Math.cos(offSideRad),
    offSideDeg: (offSideRad * 180) / Math.PI,
  };
};

/**
 * The angles of a body whose joints were marked in a picture. Where the ground is known by its marks, a
 * camera that stands off the side is allowed for; it is taken to stand level.
 *
 * @param joints pixels, down positive; the toe is on the ground
 * @param travel which way the athlete moves in the picture
 * @throws {RangeError} when the picture cannot be read as ground, or two joints lie on each other
 */
export const watchedPose = ({
  view,
  joints,
  travel,
  markPx = MARK_PX,
}: {
  view: FilmView;
  joints: Record<SideJoint, PicturePoint>;
  travel: 'left' | 'right';
  markPx?: number;
}): WatchedPose => {
  const { acrossPx, upPx, offSideDeg } = scaleAt(view, joints.toe);
  const points = Object.fromEntries(
    SIDE_JOINTS.map((joint) => [
      joint,
      { x: joints[joint].x * acrossPx, y: -joints[joint].y * upPx },
    ]),
  ) as Record<SideJoint, SidePoint>;
  return {
    ...postureAngles({ travel, points }),
    footToHipSdM: Math.SQRT2 * markPx * acrossPx,
    offSideDeg,
  };
};
