import type { Foot } from '../feet';
import { otherFoot } from '../feet';
import type { Body } from '../layout/body';
import type { Layout } from '../layout/shape';
import type { Footfall } from '../layout/walker';
import { feetAt, type FrontFoot } from './frontView';
import {
  anglesOf,
  figureOf,
  type ArmPose,
  type LegPose,
  type Pose,
  type PostureAngles,
  type SideFigure,
} from './posture';

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
type Key = {
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

/** A contact seen from the side, with what changed since the one before. */
export type SideContact = PostureAngles & {
  n: number;
  foot: Foot;
  phase: string;
  timeS: number;
  /** way of the hip since the contact or the stance before, metres; null for the first that is looked at */
  hipTravelM: number | null;
  /** how far the trunk came up since then, degrees; null likewise */
  trunkRiseDeg: number | null;
};

/** What a phase has around the body: a wall at the hands, a box under the foot, air under it. */
type Stage = { wall: boolean; boxM: number; liftM: number };
const OPEN: Stage = { wall: false, boxM: 0, liftM: 0 };

/** A posture that is held while no foot lands. */
export type SideHeld = PostureAngles & { phase: string; timeS: number };

export type SideView = {
  keys: readonly Key[];
  /** phases that are looked at from the side: code → what is looked at */
  looks: ReadonlyMap<string, readonly PostureLook[]>;
  /** phases that are shown from the front as well */
  fronts: ReadonlySet<string>;
  stages: ReadonlyMap<string, Stage>;
  contacts: SideContact[];
  held: SideHeld[];
  /** how high the head or the hands ever are, metres */
  topM: number;
};

/** When the push is over, as a part of the way from contact to contact. */
const PUSHED = 0.6;
/** Likewise where the body comes down from a jump: most of that time it is in the air. */
const JUMPED = 0.3;
/** Part of the way between two held moments that is stood still at each end, so that the eye can see it. */
const HELD = 0.18;
const GRAVITY = 9.81;

const keyOf = (pose: Pose, timeS: number, on: Foot, fall: Footfall | null): Key => ({
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

const mixed = (a: number, b: number, part: number): number => a + (b - a) * part;
const legBetween = (a: LegPose, b: LegPose, part: number): LegPose => ({
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
const armsBetween = <Side extends string>(
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

const between = (a: Pose, b: Pose, part: number): Pose => ({
  trunkDeg: mixed(a.trunkDeg, b.trunkDeg, part),
  archDeg: mixed(a.archDeg ?? 0, b.archDeg ?? 0, part),
  stance: legBetween(a.stance, b.stance, part),
  free: legBetween(a.free, b.free, part),
  arms: armsBetween(a.arms, b.arms, part, ['stance', 'free']),
});

/** Contacts of a phase; feet that land together are one. */
const contactsOf = (layout: Layout, phase: string): Footfall[] =>
  layout.footfalls.filter(
    (fall, i, all) =>
      fall.phase === phase &&
      fall.n > 0 &&
      all.findIndex((footfall) => footfall.n === fall.n) === i,
  );

/**
 * A sequence seen from the side: how the body is held at each contact, for those phases of which that is
 * said.
 *
 * @param postureOf what is said of a phase, by its code
 * @param body whose height and leg it is drawn to
 */
export const sideView = (
  layout: Layout,
  postureOf: (phase: string) => Posture | null | undefined,
  body: Pick<Body, 'heightM' | 'legM'>,
): SideView => {
  const keys: Key[] = [];
  const looks = new Map<string, readonly PostureLook[]>();
  const fronts = new Set<string>();
  const stages = new Map<string, Stage>();
  const held: SideHeld[] = [];
  for (const { code, fromS, toS } of layout.phases) {
    const posture = postureOf(code);
    if (!posture) continue;
    looks.set(code, posture.looks);
    if (posture.front) fronts.add(code);
    const { wall = false, boxM = 0, liftM = 0 } = posture;
    if (wall || boxM || liftM) stages.set(code, { wall, boxM, liftM });
    const falls = contactsOf(layout, code);
    const before = (timeS: number): Footfall | undefined =>
      layout.footfalls.findLast((fall) => fall.timeS < timeS - 1e-9);
    if (falls.length === 0) {
      const on = before(toS + 1e-6)?.foot ?? 'left';
      const figure = figureOf(posture.contact, body, 0, posture.boxM);
      held.push({ ...anglesOf(figure), phase: code, timeS: (fromS + toS) / 2 });
      keys.push(keyOf(posture.contact, fromS, on, null), keyOf(posture.contact, toS, on, null));
    }
    falls.forEach((fall, i) => {
      const last = before(fall.timeS);
      if (posture.push) {
        const sinceS = Math.max(last?.timeS ?? fromS, i === 0 ? fromS : 0);
        const pushed = last && last.foot !== fall.foot ? last.foot : otherFoot(fall.foot);
        const timeS = sinceS + (fall.landing ? JUMPED : PUSHED) * (fall.timeS - sinceS);
        keys.push(keyOf(posture.push, timeS, pushed, null));
      }
      const part = falls.length > 1 ? i / (falls.length - 1) : 0;
      const pose = posture.last ? between(posture.contact, posture.last, part) : posture.contact;
      keys.push(keyOf(pose, fall.timeS, fall.foot, fall));
    });
  }
  keys.sort((a, b) => a.timeS - b.timeS);
  const view = { keys, looks, fronts, stages, held, contacts: contactRows(keys, body) };
  return { ...view, topM: topOf(view, layout, body) };
};

const poseOf = ({
  trunkDeg,
  archDeg,
  left,
  right,
  arms,
  on,
}: Omit<Key, 'timeS' | 'fall'>): Pose => ({
  trunkDeg,
  archDeg,
  stance: on === 'left' ? left : right,
  free: on === 'left' ? right : left,
  arms: arms && { stance: arms[on], free: arms[otherFoot(on)] },
});

/** So many looks at a sequence find how high anything comes in it. */
const LOOKS = 80;

/** How high head or hands ever are, metres. */
const topOf = (
  view: Omit<SideView, 'topM'>,
  layout: Layout,
  body: Pick<Body, 'heightM' | 'legM'>,
): number => {
  const times = Array.from({ length: LOOKS + 1 }, (_, i) => (layout.totalTimeS * i) / LOOKS);
  return Math.max(
    0,
    ...[...times, ...view.keys.map(({ timeS }) => timeS)].map((timeS) => {
      const figure = sideAt(view, layout, body, timeS)?.figure;
      if (!figure) return 0;
      const { head, arms } = figure;
      return Math.max(
        head.y + head.radius,
        ...(arms ? [arms.stance.hand.y, arms.free.hand.y] : []),
      );
    }),
  );
};

const contactRows = (keys: readonly Key[], body: Pick<Body, 'heightM' | 'legM'>): SideContact[] => {
  const rows: SideContact[] = [];
  keys.forEach((key, i) => {
    const { fall } = key;
    if (!fall) return;
    const angles = anglesOf(figureOf(poseOf(key), body));
    // What it is compared with: the contact before, or how the body stood.
    const last = keys
      .slice(0, i)
      .findLast((key) => (key.fall ? key.fall.n === fall.n - 1 : fall.n === 1));
    const before = last && anglesOf(figureOf(poseOf(last), body));
    rows.push({
      ...angles,
      n: fall.n,
      foot: fall.foot,
      phase: fall.phase,
      timeS: fall.timeS,
      hipTravelM: before ? fall.lengthM - (angles.footToHipM - before.footToHipM) : null,
      trunkRiseDeg: before ? before.trunkLeanDeg - angles.trunkLeanDeg : null,
    });
  });
  return rows;
};

/** A body at a moment, and by which foot it is looked at. */
export type SideMoment = {
  figure: SideFigure;
  on: Foot;
  phase: string;
  contact: number | null;
  /** where both feet stand, where it is shown from the front as well */
  feet: Record<Foot, FrontFoot> | null;
  /** the hands are on a wall */
  wall: boolean;
  /** height of the box under the foot, metres; 0 for none */
  boxM: number;
};

/** The phase that passes at a moment; its contacts end it. */
const phaseAt = (layout: Layout, timeS: number): string | undefined =>
  (layout.phases.find((phase) => timeS <= phase.toS + 1e-9) ?? layout.phases.at(-1))?.code;

/**
 * The body at a moment; null in a phase that is not looked at from the side. It stands still about each
 * held moment and moves between.
 */
export const sideAt = (
  view: Omit<SideView, 'topM'>,
  layout: Layout,
  body: Pick<Body, 'heightM' | 'legM'>,
  timeS: number,
): SideMoment | null => {
  const phase = phaseAt(layout, timeS);
  if (phase === undefined || !view.looks.has(phase) || view.keys.length === 0) return null;
  const at = view.keys.findLastIndex((key) => key.timeS <= timeS + 1e-9);
  const from = view.keys[Math.max(0, at)]!;
  const to = view.keys[Math.min(view.keys.length - 1, at + 1)]!;
  const span = to.timeS - from.timeS;
  const along = span > 1e-9 ? Math.max(0, Math.min(1, (timeS - from.timeS) / span)) : 0;
  const part = Math.max(0, Math.min(1, (along - HELD) / (1 - 2 * HELD)));
  const key = part < 0.5 ? from : to;
  // Between leaving the ground and coming down the body rises and falls as anything thrown.
  const airborne = to.fall?.landing && part > 0 && part < 1;
  const liftM = airborne ? (GRAVITY / 2) * along * (1 - along) * span * span : 0;
  const pose = poseOf({
    trunkDeg: mixed(from.trunkDeg, to.trunkDeg, part),
    archDeg: mixed(from.archDeg, to.archDeg, part),
    left: legBetween(from.left, to.left, part),
    right: legBetween(from.right, to.right, part),
    arms: armsBetween(from.arms, to.arms, part, ['left', 'right']),
    on: key.on,
  });
  const { wall, boxM, ...stage } = view.stages.get(phase) ?? OPEN;
  return {
    figure: figureOf(pose, body, liftM + stage.liftM, boxM),
    on: key.on,
    phase,
    feet: view.fronts.has(phase) ? feetAt(layout, timeS) : null,
    wall,
    boxM,
    contact: part === 0 ? (from.fall?.n ?? null) : part === 1 ? (to.fall?.n ?? null) : null,
  };
};
