import { arcLanes } from '../curve/goalArc';
import { otherFoot, type Foot } from '../feet';
import { spanM, type Body } from './body';
import { mark, runWidthM, type ArcAsk, type GoalArc, type Ground, type Laying } from './ground';
import type { PhaseSteps, SequencePhase } from './sequence';
import {
  between,
  bothFeet,
  contactAt,
  moved,
  note,
  sign,
  toRad,
  turned,
  type Place,
} from './walker';

type ArcSteps = Extract<PhaseSteps, { kind: 'arc' }>;

/** Nearest that feet come to the goal line, as a part of leg length. */
const CLEAR_OF_LEG = 0.35;

const laneAt = (arc: GoalArc, lane: number): number =>
  arc.angles[Math.max(1, Math.min(arc.angles.length, lane)) - 1]!;

const placeAt = (arc: GoalArc, deg: number, radiusM = arc.radiusM): Place =>
  moved(arc.centre, deg, radiusM);

/**
 * Goal centre to the feet: the depth asked for a body, and so far at least that the posts are reached.
 *
 * @example
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null };
 * const body = bodyOf({ ...athlete, hand: 'right', takeoffFoot: 'left' });
 * arcDepthM({ depth: { value: 1.2, of: 'm' }, goalM: 3, spreadDeg: 60 }, body) // 1.73
 */
export const arcDepthM = (
  { depth, goalM, spreadDeg }: Pick<ArcSteps, 'depth' | 'goalM' | 'spreadDeg'>,
  body: Body,
): number => Math.max(spanM(depth, body), goalM / 2 / Math.sin(toRad(spreadDeg)));

/** The arc of a sequence, and where on it the keeper begins; null where it has none. */
export const arcOf = (
  path: readonly SequencePhase[],
  body: Body,
  ask: ArcAsk,
): { arc: GoalArc; steps: ArcSteps } | null => {
  const arcSteps = path.find((phase) => phase.steps.kind === 'arc')?.steps as ArcSteps | undefined;
  if (!arcSteps) return null;
  const lanes = ask.lanes ?? arcSteps.lanes;
  const steps = {
    ...arcSteps,
    lanes,
    goalM: ask.goalM ?? arcSteps.goalM,
    spreadDeg: ask.spreadDeg ?? arcSteps.spreadDeg,
  };
  const radiusM = ask.depthM ?? arcDepthM(steps, body);
  const { marks } = arcLanes({
    depthM: radiusM,
    lanes,
    spreadDeg: steps.spreadDeg,
    shuffleStepM: Math.min(2, spanM(arcSteps.step, body)),
  });
  const angles = marks.map(({ angleDeg }) => -sign(arcSteps.post) * angleDeg);
  const lane = Math.min(lanes, steps.fromLane);
  // The keeper begins at the origin, so the goal lies behind.
  const centre = moved({ besideM: 0, aheadM: 0 }, angles[lane - 1]! + 180, radiusM);
  return { arc: { centre, goalM: steps.goalM, radiusM, angles, lane }, steps };
};

/** Both feet abreast at a place of the arc, the back to the goal. */
const stanceAt = (at: Place, facingDeg: number, widthM: number, foot: Foot): Place =>
  moved(at, facingDeg + 90, (sign(foot) * widthM) / 2);

/** From the goal to the shooters, on their own arc, metres. */
const SHOOTERS_M = 6.5;

/** The ball goes to the shooter of a lane; the keeper's marks follow it. */
const passTo = ({ things, arc: on }: Ground, deg: number, timeS: number): void => {
  const at = { ...placeAt(on!, deg, SHOOTERS_M), timeS };
  const ball = things.find((thing) => thing.kind === 'ball');
  if (ball) ball.points.push(at);
  else things.push({ kind: 'ball', name: 'ball and shooter', line: false, points: [at] });
};

/** Farther than this from where the body faces no toe of a keeper points, degrees. */
const MOST_OPEN_DEG = 75;
const opened = (facingDeg: number, deg: number): number => {
  const off = turned(deg - facingDeg);
  return facingDeg + Math.max(-MOST_OPEN_DEG, Math.min(MOST_OPEN_DEG, off));
};

/** From lane to lane in shuffles of one length, with a stop on both feet in each. */
export const arc: Laying<'arc'> = (ground, phase, steps) => {
  const { walker, body, speed } = ground;
  const on = ground.arc!;
  const toLane = Math.min(on.angles.length, ground.arcAsk.atLane ?? steps.toLane);
  const way = toLane < on.lane ? -1 : 1;
  const lead: Foot = laneAt(on, toLane) > laneAt(on, on.lane) ? 'right' : 'left';
  const widthM = spanM(steps.width, body);
  const stepM = spanM(steps.step, body);
  const halfS = steps.intervalS / (2 * speed);
  on.angles.forEach((deg, i) => mark(ground, 'lane', `lane ${i + 1}`, placeAt(on, deg)));
  passTo(ground, laneAt(on, on.lane), walker.timeS);
  while (on.lane !== toLane) {
    const [fromDeg, toDeg] = [laneAt(on, on.lane), laneAt(on, on.lane + way)];
    const gapM = 2 * on.radiusM * Math.sin(toRad(Math.abs(toDeg - fromDeg)) / 2);
    const shuffles = Math.max(1, Math.ceil(gapM / stepM - 1e-9));
    for (let k = 1; k <= shuffles; k += 1) {
      const before = fromDeg + ((toDeg - fromDeg) * (k - 1)) / shuffles;
      const after = fromDeg + ((toDeg - fromDeg) * k) / shuffles;
      const landed = placeAt(on, after);
      for (const [foot, deg] of [
        [lead, (before + after) / 2],
        [otherFoot(lead), after],
      ] as const) {
        const from = walker.centre;
        walker.centre = placeAt(on, deg);
        walker.facingDeg = deg;
        contactAt(walker, phase.code, stanceAt(landed, after, widthM, foot), {
          foot,
          contact: 'shuffle',
          intervalS: halfS,
          lengthM: gapM / shuffles,
          advanceM: between(walker.centre, from),
        });
      }
    }
    passTo(ground, toDeg, walker.timeS);
    on.lane += way;
    walker.timeS += steps.stopS;
    note(walker);
  }
  walker.free = true;
  walker.run = 0;
};

/** Points along a broken line, so far apart as the parts of its length say. */
const along = (
  points: readonly Place[],
  parts: readonly number[],
): { at: Place; deg: number }[] => {
  const legs = points
    .slice(1)
    .map((to, i) => ({ from: points[i]!, to, m: between(points[i]!, to) }));
  const wholeM = legs.reduce((sum, leg) => sum + leg.m, 0);
  let doneM = 0;
  return parts.map((part) => {
    doneM += wholeM * part;
    let left = doneM;
    const leg = legs.find((leg, l) => {
      if (left <= leg.m + 1e-9 || l === legs.length - 1) return true;
      left -= leg.m;
      return false;
    })!;
    const deg =
      (Math.atan2(leg.to.besideM - leg.from.besideM, leg.to.aheadM - leg.from.aheadM) * 180) /
      Math.PI;
    return { at: moved(leg.from, deg, left), deg };
  });
};

/** How long a wide pass is in the air, seconds. */
const PASS_S = 0.5;

/** How the steps of a wide move shrink to its stop; the last part is the foot that is set beside. */
const TO_STOP = [0.8, 0.5, 0.25];

/**
 * To a lane on the other side: the lead foot opens, the feet run, the last one stops and the other is
 * set beside it. On angle first it runs over the corner where the new lane line is nearest, but never so
 * near the goal line that a foot would be behind it.
 */
export const arcMove: Laying<'arc-move'> = (ground, phase, movingSteps) => {
  const { walker, body, speed } = ground;
  const on = ground.arc;
  if (!on) throw new RangeError('an arc-move needs an arc before it');
  // Asked for the lane that it stands in, it goes to the one in the mirror.
  const asksFor = Math.min(on.angles.length, ground.arcAsk.wideLane ?? movingSteps.toLane);
  const toLane = asksFor === on.lane ? on.angles.length + 1 - on.lane : asksFor;
  const [fromDeg, toDeg] = [laneAt(on, on.lane), laneAt(on, toLane)];
  const lead: Foot = toDeg > fromDeg ? 'right' : 'left';
  const [from, to] = [placeAt(on, fromDeg), placeAt(on, toDeg)];
  passTo(ground, fromDeg, walker.timeS);
  passTo(ground, toDeg, walker.timeS + PASS_S);
  const clearM = (CLEAR_OF_LEG * body.legM) / Math.max(0.2, Math.cos(toRad(toDeg)));
  const nearestM = on.radiusM * Math.cos(toRad(Math.min(90, Math.abs(toDeg - fromDeg))));
  const cornerM = Math.max(nearestM, clearM);
  const points =
    movingSteps.way === 'angle-first' && cornerM < on.radiusM
      ? [from, placeAt(on, toDeg, cornerM), to]
      : [from, to];
  const wholeM = points.slice(1).reduce((sum, at, i) => sum + between(points[i]!, at), 0);
  const stepM = spanM(movingSteps.step, body) * Math.sqrt(speed);
  // As many steps as arrive on the foot that it is to stop on.
  const odd = movingSteps.stop === lead ? 1 : 0;
  const steps = Math.max(odd || 2, 2 * Math.round((wholeM / stepM - odd) / 2) + odd);
  const widthM = spanM(movingSteps.width, body);
  const intervalS = 60 / (movingSteps.cadenceSpm * Math.sqrt(speed));
  let foot = lead;
  const shares = Array.from({ length: steps + 1 }, (_, i) => TO_STOP[i - steps + 2] ?? 1);
  const sum = shares.reduce((total, share) => total + share, 0);
  const parts = shares.map((share) => share / sum);
  along(points, parts.slice(0, -1)).forEach(({ at, deg }, i) => {
    const last = i === steps - 1;
    walker.centre = at;
    walker.facingDeg = fromDeg + ((toDeg - fromDeg) * (i + 1)) / steps;
    contactAt(
      walker,
      phase.code,
      last
        ? stanceAt(to, toDeg, widthM, foot)
        : moved(at, deg + 90, (sign(foot) * runWidthM(body)) / 2),
      {
        foot,
        contact: 'step',
        intervalS,
        lengthM: wholeM * parts[i]!,
        advanceM: wholeM * parts[i]!,
        toesDeg: last ? toDeg : opened(walker.facingDeg, deg),
      },
    );
    foot = otherFoot(foot);
  });
  walker.centre = to;
  contactAt(walker, phase.code, stanceAt(to, toDeg, widthM, foot), {
    foot,
    contact: 'step',
    intervalS,
    lengthM: between(stanceAt(to, toDeg, widthM, foot), walker.feet[foot]),
    advanceM: wholeM * parts[steps]!,
  });
  on.lane = toLane;
  walker.free = true;
  walker.run = 0;
};

/** The feet at the beginning of an arc, and the way they face. */
export const standOnArc = ({ walker, body, arc: on }: Ground): void => {
  if (!on) return;
  walker.facingDeg = laneAt(on, on.lane);
  walker.track[0]!.facingDeg = walker.facingDeg;
  for (const foot of bothFeet(walker)) {
    walker.feet[foot] = stanceAt(walker.centre, walker.facingDeg, runWidthM(body), foot);
  }
};
