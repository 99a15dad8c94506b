import { type Foot, otherFoot } from '../feet';
import type { Body } from '../layout/body';
import type { Layout } from '../layout/shape';
import type { Footfall } from '../layout/walker';
import { feetAt, type FrontFoot } from './frontView';
import { anglesOf, figureOf, type Pose, type PostureAngles, type SideFigure } from './posture';
import {
  armsBetween,
  between,
  HELD,
  JUMPED,
  type Key,
  keyOf,
  legBetween,
  mixed,
  type Posture,
  type PostureLook,
  PUSHED,
} from './keyframes';

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
const GRAVITY = 9.81;

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
