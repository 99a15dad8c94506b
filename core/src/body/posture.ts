import { number, oneOf } from '../check';

/** A point seen from the side, metres, up positive. */
export type SidePoint = { x: number; y: number };

export const SIDE_JOINTS = ['shoulder', 'hip', 'knee', 'ankle', 'toe'] as const;
export type SideJoint = (typeof SIDE_JOINTS)[number];

export type PostureInput = {
  /** which way the athlete moves in the picture */
  travel: 'left' | 'right';
  /** of the leg that is looked at */
  points: Record<SideJoint, SidePoint>;
};

export type PostureAngles = {
  /** from the vertical, positive towards the travel, degrees */
  trunkLeanDeg: number;
  /** from straight down, positive forward */
  thighDeg: number;
  /** from the vertical, positive towards the travel */
  shinLeanDeg: number;
  /** inner angles */
  hipDeg: number;
  kneeDeg: number;
  ankleDeg: number;
  /** ankle before the hip along the travel, metres; negative when the foot is behind it */
  footToHipM: number;
};

const toDeg = (rad: number): number => (rad * 180) / Math.PI;
const toRad = (deg: number): number => (deg * Math.PI) / 180;

/**
 * The inner angle at a point between two others.
 *
 * @example innerDeg({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 0, y: 1 }) // 90
 */
export const innerDeg = (at: SidePoint, a: SidePoint, b: SidePoint): number => {
  const [ax, ay, bx, by] = [a.x - at.x, a.y - at.y, b.x - at.x, b.y - at.y];
  return toDeg(Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)));
};

/**
 * The angles of a body that is seen from the side, from five points of it.
 *
 * @throws {RangeError} when a point is no number, or two neighbours lie on each other
 * @example
 * const points = { shoulder: { x: 1.62, y: 1.18 }, hip: { x: 1.2, y: 0.86 }, knee: { x: 1.42, y: 0.55 },
 *   ankle: { x: 1.11, y: 0.22 }, toe: { x: 1.27, y: 0.12 } };
 * postureAngles({ travel: 'right', points }).trunkLeanDeg // 52.70
 */
export const postureAngles = ({ travel, points }: PostureInput): PostureAngles => {
  const way = oneOf('travel', travel, ['left', 'right'] as const) === 'right' ? 1 : -1;
  for (const joint of SIDE_JOINTS) {
    number(`points.${joint}.x`, points[joint]?.x);
    number(`points.${joint}.y`, points[joint]?.y);
  }
  SIDE_JOINTS.slice(1).forEach((joint, i) => {
    const before = SIDE_JOINTS[i]!;
    const [a, b] = [points[before], points[joint]];
    if (Math.hypot(a.x - b.x, a.y - b.y) < 1e-9) {
      throw new RangeError(`points.${joint} must lie apart from ${before}`);
    }
  });
  const { shoulder, hip, knee, ankle, toe } = points;
  const lean = (from: SidePoint, to: SidePoint): number =>
    toDeg(Math.atan2((to.x - from.x) * way, to.y - from.y));
  return {
    trunkLeanDeg: lean(hip, shoulder),
    thighDeg: toDeg(Math.atan2((knee.x - hip.x) * way, hip.y - knee.y)),
    shinLeanDeg: lean(ankle, knee),
    hipDeg: innerDeg(hip, shoulder, knee),
    kneeDeg: innerDeg(knee, hip, ankle),
    ankleDeg: innerDeg(ankle, knee, toe),
    footToHipM: (ankle.x - hip.x) * way,
  };
};

/** A leg: thigh and shin as `PostureAngles` has them, the ankle's inner angle. */
export type LegPose = { thighDeg: number; shinDeg: number; ankleDeg: number };

/** An arm: the upper arm from straight down, forward positive (180 is overhead), the elbow's inner angle as it is seen from the side, how far out to that side. */
export type ArmPose = {
  raiseDeg: number;
  elbowDeg: number;
  asideDeg: number;
  /** of forearm and hand, where they come in again before the body; the upper arm's where nothing is said */
  foreAsideDeg?: number | undefined;
};

/** How a body is held, seen from the side; what it stands on or pushes from, and the other leg. */
export type Pose = {
  trunkDeg: number;
  stance: LegPose;
  free: LegPose;
  /** on the side of each leg, where the arms are coached */
  arms?: { stance: ArmPose; free: ArmPose } | null | undefined;
  /** how far the back is bent between hip and shoulders, degrees: the belly towards the way, or against it below 0 */
  archDeg?: number | undefined;
};

/** Segments as fractions of body height: Drillis and Contini. */
const TRUNK = 0.288;
const NECK_AND_HEAD = 0.117;
const HEAD_RADIUS = 0.065;
const THIGH = 0.245;
const SHIN = 0.246;
const ANKLE_ABOVE_SOLE = 0.039;
const ANKLE_TO_TOE = 0.115;
const ANKLE_TO_HEEL = 0.037;
const UPPER_ARM = 0.186;
const FOREARM = 0.146;
/** From the wrist to the tips of the fingers. */
const HAND = 0.108;

/** A leg in the drawing. */
export type SideLeg = { knee: SidePoint; ankle: SidePoint; toe: SidePoint; heel: SidePoint };

/** A point of an arm; `outM` is how far it is out from the shoulder to its side, metres. */
export type ArmPoint = SidePoint & { outM: number };
/** An arm in the drawing; the hand ends at the finger tips. */
export type SideArm = { elbow: ArmPoint; wrist: ArmPoint; hand: ArmPoint };

/** A body seen from the side as it moves to the right, metres: its hip above x = 0, its lowest sole on y = 0. */
export type SideFigure = {
  head: SidePoint & { radius: number };
  shoulder: SidePoint;
  /** the middle of the back, off the straight line where it is arched */
  back: SidePoint;
  hip: SidePoint;
  stance: SideLeg;
  free: SideLeg;
  /** on the side of each leg; null where the arms are free to do what they do */
  arms: { stance: SideArm; free: SideArm } | null;
};

const going = (from: SidePoint, deg: number, metres: number): SidePoint => ({
  x: from.x + metres * Math.sin(toRad(deg)),
  y: from.y + metres * Math.cos(toRad(deg)),
});

const armFrom = (
  shoulder: SidePoint,
  { raiseDeg, elbowDeg, asideDeg, foreAsideDeg = asideDeg }: ArmPose,
  heightM: number,
): SideArm => {
  const on = (from: ArmPoint, deg: number, outDeg: number, metres: number): ArmPoint => ({
    ...going(from, 180 - deg, metres * Math.cos(toRad(outDeg))),
    outM: from.outM + metres * Math.sin(toRad(outDeg)),
  });
  const elbow = on({ ...shoulder, outM: 0 }, raiseDeg, asideDeg, UPPER_ARM * heightM);
  // An elbow bends forward and up.
  const foreDeg = raiseDeg + 180 - elbowDeg;
  const wrist = on(elbow, foreDeg, foreAsideDeg, FOREARM * heightM);
  return { elbow, wrist, hand: on(wrist, foreDeg, foreAsideDeg, HAND * heightM) };
};

/**
 * Draws a body to scale.
 *
 * @param legM leg to the hip joint, metres; thigh and shin share what is longer or shorter in it
 * @param liftM how far the lowest sole is off the ground
 * @param boxM height of a box that it stands on, metres
 * @example
 * const pose = { trunkDeg: 10, stance: { thighDeg: 20, shinDeg: 10, ankleDeg: 90 }, free: { thighDeg: 60, shinDeg: -30, ankleDeg: 90 } };
 * figureOf(pose, { heightM: 1.75, legM: 0.93 }).hip.y // 0.907
 */
export const figureOf = (
  pose: Pose,
  { heightM, legM }: { heightM: number; legM: number },
  liftM = 0,
  boxM = 0,
): SideFigure => {
  number('heightM', heightM, { min: 0.8, max: 2.5 });
  const longer =
    number('legM', legM, { min: 0.3, max: 1.5 }) / ((THIGH + SHIN + ANKLE_ABOVE_SOLE) * heightM);
  const sole = ANKLE_ABOVE_SOLE * heightM;
  const leg = ({ thighDeg, shinDeg, ankleDeg }: LegPose): SideLeg => {
    const knee = going({ x: 0, y: 0 }, 180 - thighDeg, THIGH * heightM * longer);
    const ankle = going(knee, 180 + shinDeg, SHIN * heightM * longer);
    // The ball of the foot, as the sole meets the ground there.
    const footDeg = shinDeg + ankleDeg;
    const toe = going(ankle, footDeg, ANKLE_TO_TOE * heightM);
    // A flat foot has its heel as low as its ball: it is the sole that turns.
    const flat = 90 + toDeg(Math.asin(ANKLE_ABOVE_SOLE / ANKLE_TO_TOE));
    const heel = going(
      going(ankle, footDeg - flat + 180, sole),
      footDeg - flat + 270,
      ANKLE_TO_HEEL * heightM,
    );
    return { knee, ankle, toe, heel };
  };
  const [stance, free] = [leg(pose.stance), leg(pose.free)];
  const standing = [stance.toe.y, stance.heel.y];
  // On a box the other foot may hang below what it stands on.
  const lowest = Math.min(...standing, ...(boxM > 0 ? [] : [free.toe.y, free.heel.y]));
  const raised = <P extends SidePoint>(point: P): P => ({
    ...point,
    y: point.y - lowest + liftM + boxM,
  });
  const archDeg = pose.archDeg ?? 0;
  // Half of the arch is in the lower back and half in the upper: hip and shoulders keep the lean of the trunk.
  const back = going({ x: 0, y: 0 }, pose.trunkDeg + archDeg / 2, (TRUNK * heightM) / 2);
  const shoulder = going(back, pose.trunkDeg - archDeg / 2, (TRUNK * heightM) / 2);
  const head = going(shoulder, pose.trunkDeg * 0.6 - archDeg / 2, NECK_AND_HEAD * heightM);
  const armRaised = (arm: SideArm): SideArm => ({
    elbow: raised(arm.elbow),
    wrist: raised(arm.wrist),
    hand: raised(arm.hand),
  });
  const legRaised = (leg: SideLeg): SideLeg => ({
    knee: raised(leg.knee),
    ankle: raised(leg.ankle),
    toe: raised(leg.toe),
    heel: raised(leg.heel),
  });
  return {
    head: { ...raised(head), radius: HEAD_RADIUS * heightM },
    shoulder: raised(shoulder),
    back: raised(back),
    hip: raised({ x: 0, y: 0 }),
    stance: legRaised(stance),
    free: legRaised(free),
    arms: pose.arms
      ? {
          stance: armRaised(armFrom(shoulder, pose.arms.stance, heightM)),
          free: armRaised(armFrom(shoulder, pose.arms.free, heightM)),
        }
      : null,
  };
};

/**
 * The angles of a figure, by one of its legs.
 *
 * @example
 * const pose = { trunkDeg: 12.5, stance: { thighDeg: 20, shinDeg: 10, ankleDeg: 90 }, free: { thighDeg: 60, shinDeg: -30, ankleDeg: 90 } };
 * anglesOf(figureOf(pose, { heightM: 1.75, legM: 0.93 })).trunkLeanDeg // 12.50
 */
export const anglesOf = (figure: SideFigure, leg: 'stance' | 'free' = 'stance'): PostureAngles =>
  postureAngles({
    travel: 'right',
    points: {
      shoulder: figure.shoulder,
      hip: figure.hip,
      knee: figure[leg].knee,
      ankle: figure[leg].ankle,
      toe: figure[leg].toe,
    },
  });
