import type { Foot } from '../feet';
import type { Footfall } from '../layout/walker';
import type { Pose, LegPose, ArmPose } from './posture';

export const POSTURE_LOOKS = ['trunk', 'hip', 'knee', 'shin', 'ankle', 'foot'] as const;
/** What a phase looks at from the side. */
export type PostureLook = (typeof POSTURE_LOOKS)[number];

export const POSTURE_MOMENTS = ['contact', 'last', 'push'] as const;
/** Moments of a phase of which it is said how the body is held. */
export type PostureMoment = (typeof POSTURE_MOMENTS)[number];

/** How the body is held in a phase. */
export type Posture = {
  looks: readonly PostureLook[];
  /** as a foot lands, or all through a phase in which none does */
  contact: Pose;
  /** as the last foot of the phase lands, where that differs: those between come nearer to it step by step */
  last: Pose | null;
  /** as the foot before is pushed from, on the way to it; null for nothing of its own */
  push: Pose | null;
  /** it is shown from the front as well, where hands or feet side by side are what counts */
  front?: boolean | undefined;
  /** the hands are on a wall */
  wall?: boolean | undefined;
  /** height of a box that it stands on, metres */
  boxM?: number | undefined;
  /** how far its lowest point is off the ground, in the air over a bar, metres */
  liftM?: number | undefined;
};

/** A held moment: limbs by side. */
export type Key = {
  timeS: number;
  trunkDeg: number;
  archDeg: number;
  left: LegPose;
  right: LegPose;
  arms: Record<Foot, ArmPose> | null;
  /** what the body stands on */
  on: Foot;
  /** the contact, where it is one */
  fall: Footfall | null;
};

/** When the push is over, as a part of the way from contact to contact. */
export const PUSHED = 0.6;
/** Likewise where the body comes down from a jump: most of that time it is in the air. */
export const JUMPED = 0.3;
/** Part of the way between two held moments that is stood still at each end, so that the eye can see it. */
export const HELD = 0.18;

export const keyOf = (pose: Pose, timeS: number, on: Foot, fall: Footfall | null): Key => ({
  timeS,
  trunkDeg: pose.trunkDeg,
  archDeg: pose.archDeg ?? 0,
  left: on === 'left' ? pose.stance : pose.free,
  right: on === 'right' ? pose.stance : pose.free,
  arms: pose.arms
    ? {
        left: on === 'left' ? pose.arms.stance : pose.arms.free,
        right: on === 'right' ? pose.arms.stance : pose.arms.free,
      }
    : null,
  on,
  fall,
});

/**
 * @example mixed(10, 20, 0.25) // 12.50
 */
export const mixed = (a: number, b: number, part: number): number => a + (b - a) * part;
export const legBetween = (a: LegPose, b: LegPose, part: number): LegPose => ({
  thighDeg: mixed(a.thighDeg, b.thighDeg, part),
  shinDeg: mixed(a.shinDeg, b.shinDeg, part),
  ankleDeg: mixed(a.ankleDeg, b.ankleDeg, part),
});

const armBetween = (a: ArmPose, b: ArmPose, part: number): ArmPose => ({
  raiseDeg: mixed(a.raiseDeg, b.raiseDeg, part),
  elbowDeg: mixed(a.elbowDeg, b.elbowDeg, part),
  asideDeg: mixed(a.asideDeg, b.asideDeg, part),
  foreAsideDeg: mixed(a.foreAsideDeg ?? a.asideDeg, b.foreAsideDeg ?? b.asideDeg, part),
});

/** Arms move only between two moments that both say how they are held. */
export const armsBetween = <Side extends string>(
  a: Record<Side, ArmPose> | null | undefined,
  b: Record<Side, ArmPose> | null | undefined,
  part: number,
  sides: readonly Side[],
): Record<Side, ArmPose> | null => {
  if (!a || !b) return (part < 0.5 ? a : b) ?? null;
  return Object.fromEntries(
    sides.map((side) => [side, armBetween(a[side], b[side], part)]),
  ) as Record<Side, ArmPose>;
};

export const between = (a: Pose, b: Pose, part: number): Pose => ({
  trunkDeg: mixed(a.trunkDeg, b.trunkDeg, part),
  archDeg: mixed(a.archDeg ?? 0, b.archDeg ?? 0, part),
  stance: legBetween(a.stance, b.stance, part),
  free: legBetween(a.free, b.free, part),
  arms: armsBetween(a.arms, b.arms, part, ['stance', 'free']),
});
