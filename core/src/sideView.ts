import type { Foot } from './feet';
import { otherFoot } from './feet';
import type { Body } from './layout/body';
import type { Layout } from './layout/shape';
import type { Footfall } from './layout/walker';
import {
  anglesOf,
  figureOf,
  type LegPose,
  type Pose,
  type PostureAngles,
  type SideFigure,
} from './posture';

export const POSTURE_LOOKS = ['trunk', 'hip', 'knee', 'shin', 'ankle', 'foot'] as const;
/** What a phase looks at from the side. */
export type PostureLook = (typeof POSTURE_LOOKS)[number];

/** How the body is held in a phase. */
export type Posture = {
  looks: readonly PostureLook[];
  /** as a foot lands, or all through a phase in which none does */
  contact: Pose;
  /** as the last foot of the phase lands, where that differs: those between come nearer to it step by step */
  last: Pose | null;
  /** as the foot before is pushed from, on the way to it; null for nothing of its own */
  push: Pose | null;
};

/** A held moment: the legs by foot. */
type Key = {
  timeS: number;
  trunkDeg: number;
  left: LegPose;
  right: LegPose;
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

export type SideView = {
  keys: readonly Key[];
  /** phases that are looked at from the side: code → what is looked at */
  looks: ReadonlyMap<string, readonly PostureLook[]>;
  contacts: SideContact[];
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
  left: on === 'left' ? pose.stance : pose.free,
  right: on === 'right' ? pose.stance : pose.free,
  on,
  fall,
});

const mixed = (a: number, b: number, part: number): number => a + (b - a) * part;
const legBetween = (a: LegPose, b: LegPose, part: number): LegPose => ({
  thighDeg: mixed(a.thighDeg, b.thighDeg, part),
  shinDeg: mixed(a.shinDeg, b.shinDeg, part),
  ankleDeg: mixed(a.ankleDeg, b.ankleDeg, part),
});

const between = (a: Pose, b: Pose, part: number): Pose => ({
  trunkDeg: mixed(a.trunkDeg, b.trunkDeg, part),
  stance: legBetween(a.stance, b.stance, part),
  free: legBetween(a.free, b.free, part),
});

/** Contacts of a phase; feet that land together are one. */
const contactsOf = (layout: Layout, phase: string): Footfall[] =>
  layout.footfalls.filter(
    (fall, i, all) =>
      fall.phase === phase && fall.n > 0 && all.findIndex((one) => one.n === fall.n) === i,
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
  for (const { code, fromS, toS } of layout.phases) {
    const posture = postureOf(code);
    if (!posture) continue;
    looks.set(code, posture.looks);
    const falls = contactsOf(layout, code);
    const before = (timeS: number): Footfall | undefined =>
      layout.footfalls.findLast((fall) => fall.timeS < timeS - 1e-9);
    if (falls.length === 0) {
      const on = before(toS + 1e-6)?.foot ?? 'left';
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
  return { keys, looks, contacts: contactRows(keys, body) };
};

const poseOf = ({ trunkDeg, left, right, on }: Omit<Key, 'timeS' | 'fall'>): Pose => ({
  trunkDeg,
  stance: on === 'left' ? left : right,
  free: on === 'left' ? right : left,
});

const contactRows = (keys: readonly Key[], body: Pick<Body, 'heightM' | 'legM'>): SideContact[] => {
  const rows: SideContact[] = [];
  keys.forEach((key, i) => {
    const { fall } = key;
    if (!fall) return;
    const angles = anglesOf(figureOf(poseOf(key), body));
    // What it is compared with: the contact before, or how the body stood.
    const last = keys
      .slice(0, i)
      .findLast((one) => (one.fall ? one.fall.n === fall.n - 1 : fall.n === 1));
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
export type SideMoment = { figure: SideFigure; on: Foot; phase: string; contact: number | null };

/** The phase that passes at a moment; its contacts end it. */
const phaseAt = (layout: Layout, timeS: number): string | undefined =>
  (layout.phases.find((phase) => timeS <= phase.toS + 1e-9) ?? layout.phases.at(-1))?.code;

/**
 * The body at a moment; null in a phase that is not looked at from the side. It stands still about each
 * held moment and moves between.
 */
export const sideAt = (
  view: SideView,
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
    left: legBetween(from.left, to.left, part),
    right: legBetween(from.right, to.right, part),
    on: key.on,
  });
  return {
    figure: figureOf(pose, body, liftM),
    on: key.on,
    phase,
    contact: part === 0 ? (from.fall?.n ?? null) : part === 1 ? (to.fall?.n ?? null) : null,
  };
};
