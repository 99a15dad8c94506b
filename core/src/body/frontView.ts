import type { Foot } from '../feet';
import type { Layout } from '../layout/shape';
import { toRad, type Footfall } from '../layout/walker';
import type { SideFigure, SidePoint } from './posture';

/** Widths as fractions of body height: Drillis and Contini. */
const HALF_HIPS = 0.0955;
const HALF_SHOULDERS = 0.1295;
const SOLE = 0.152;
/** A knee stands between hip and ankle, a little nearer to the foot: so much of the way out. */
const KNEE_OUT = 0.6;

/** Where a foot stands, seen by somebody in front: to the athlete's right of the middle of both feet. */
export type FrontFoot = { rightM: number; toesOutDeg: number };

/** A body seen from the front, metres: x to the athlete's right of the middle between the feet, up positive. */
export type FrontFigure = {
  head: SidePoint & { radius: number };
  sides: Record<
    Foot,
    {
      shoulder: SidePoint;
      hip: SidePoint;
      knee: SidePoint;
      ankle: SidePoint;
      toe: SidePoint;
      arm: { elbow: SidePoint; wrist: SidePoint; hand: SidePoint } | null;
    }
  >;
};

/**
 * Where both feet stand at a moment, as they are laid out; null before both have.
 *
 * @example
 * const fall = { n: 0, timeS: 0, aheadM: 0, headingDeg: 0, facingDeg: 0 };
 * const footfalls = [{ ...fall, foot: 'left', besideM: -0.2 }, { ...fall, foot: 'right', besideM: 0.2 }];
 * feetAt({ footfalls }, 0).right.rightM // 0.2
 */
export const feetAt = (
  { footfalls }: Pick<Layout, 'footfalls'>,
  timeS: number,
): Record<Foot, FrontFoot> | null => {
  const last = (foot: Foot): Footfall | undefined =>
    footfalls.findLast((fall) => fall.foot === foot && fall.timeS <= timeS + 1e-9);
  const [left, right] = [last('left'), last('right')];
  if (!left || !right) return null;
  const facingDeg = (left.timeS > right.timeS ? left : right).facingDeg;
  const [sin, cos] = [Math.sin(toRad(facingDeg)), Math.cos(toRad(facingDeg))];
  const acrossM = (right.besideM - left.besideM) * cos - (right.aheadM - left.aheadM) * sin;
  const turned = (fall: Footfall): number => ((fall.headingDeg - facingDeg + 540) % 360) - 180;
  return {
    left: { rightM: -acrossM / 2, toesOutDeg: -turned(left) },
    right: { rightM: acrossM / 2, toesOutDeg: turned(right) },
  };
};

/**
 * A figure that is held, seen from the front, on the feet as they are laid out.
 *
 * @param on the foot it is looked at by
 * @param heightM of the body
 */
export const frontFigureOf = (
  figure: SideFigure,
  on: Foot,
  feet: Record<Foot, FrontFoot>,
  heightM: number,
): FrontFigure => {
  const side = (foot: Foot): FrontFigure['sides'][Foot] => {
    const sign = foot === 'right' ? 1 : -1;
    const leg = foot === on ? figure.stance : figure.free;
    const arm = figure.arms && (foot === on ? figure.arms.stance : figure.arms.free);
    const hipX = sign * HALF_HIPS * heightM;
    const { rightM, toesOutDeg } = feet[foot];
    const reach = ({ y, outM }: SidePoint & { outM: number }): SidePoint => ({
      x: sign * (HALF_SHOULDERS * heightM + outM),
      y,
    });
    return {
      shoulder: { x: sign * HALF_SHOULDERS * heightM, y: figure.shoulder.y },
      hip: { x: hipX, y: figure.hip.y },
      knee: { x: hipX + KNEE_OUT * (rightM - hipX), y: leg.knee.y },
      ankle: { x: rightM, y: leg.ankle.y },
      toe: {
        x: rightM + sign * SOLE * heightM * Math.sin(toRad(toesOutDeg)),
        y: leg.toe.y,
      },
      arm: arm ? { elbow: reach(arm.elbow), wrist: reach(arm.wrist), hand: reach(arm.hand) } : null,
    };
  };
  return {
    head: { x: 0, y: figure.head.y, radius: figure.head.radius },
    sides: { left: side('left'), right: side('right') },
  };
};
