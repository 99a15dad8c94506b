import { otherFoot } from '../feet';
import { spanM } from './body';
import { type Laying, mark, runWidthM } from './ground';
import { evenSteps, WAY_DEG } from './phasesRunning';
import { between, contactAt, moved, nextFoot, note, sign, stepOn } from './walker';

export const layCrossover: Laying<'crossover'> = ({ walker, body, speed }, phase, crossing) => {
  const { first, steps, step, second, grow, cadenceSpm, sideOnDeg, to } = crossing;
  const travelDeg = walker.facingDeg;
  let growth = 1;
  walker.facingDeg = travelDeg + sign(to) * sideOnDeg;
  for (let i = 0; i < steps; i += 1) {
    const foot = nextFoot(walker, i === 0 ? first : null);
    const lengthM = growth * spanM(i % 2 === 1 && second ? second : step, body);
    walker.centre = moved(walker.centre, travelDeg, lengthM);
    const at = moved(walker.centre, travelDeg + 90, (sign(foot) * runWidthM(body)) / 2);
    contactAt(walker, phase.code, at, {
      foot,
      contact: 'cross',
      intervalS: 60 / (cadenceSpm * speed),
      lengthM,
      advanceM: lengthM,
      toesDeg: travelDeg + (sign(to) * sideOnDeg) / 2,
    });
    growth *= grow;
  }
  walker.facingDeg = travelDeg;
};

export const layGiveGround: Laying<'give-ground'> = (ground, phase, steps) => {
  if (steps.waitS) {
    ground.walker.timeS += steps.waitS / ground.speed;
    note(ground.walker);
  }
  evenSteps(ground, phase, {
    first: steps.first,
    steps: steps.steps,
    lengthM: spanM(steps.step, ground.body),
    intervalS: 60 / (steps.cadenceSpm * ground.speed),
    way: 'back',
    widthM: spanM(steps.width, ground.body),
    contact: 'back',
  });
  ground.walker.run = 0;
};

/** Lead foot out, trail foot after it. */
export const layShuffle: Laying<'shuffle'> = (ground, phase, shuffling) => {
  const { walker, body, speed } = ground;
  const { to, steps, stopEvery, stopS } = shuffling;
  const lengthM = spanM(shuffling.step, body);
  const widthM = spanM(shuffling.width, body);
  const halfS = shuffling.intervalS / (2 * speed);
  const heading = (): number => walker.facingDeg + sign(to) * 90;
  const toes = (deg = 0): number => walker.facingDeg + sign(to) * deg;
  for (let i = 0; i < steps; i += 1) {
    if (stopEvery > 0 && i % stopEvery === 0) mark(ground, 'lane', `lane ${i / stopEvery + 1}`);
    const lead = { foot: to, contact: 'shuffle', intervalS: halfS, lengthM } as const;
    stepOn(walker, phase.code, {
      ...lead,
      travelDeg: heading(),
      advanceM: lengthM / 2,
      widthM: widthM + lengthM,
      toesDeg: toes(shuffling.leadToesDeg),
    });
    stepOn(walker, phase.code, {
      ...lead,
      foot: otherFoot(to),
      travelDeg: heading(),
      advanceM: lengthM / 2,
      widthM,
      toesDeg: toes(shuffling.trailToesDeg),
    });
    if (stopEvery > 0 && (i + 1) % stopEvery === 0) {
      walker.timeS += stopS;
      note(walker);
    }
  }
  if (stopEvery > 0 && steps % stopEvery === 0) {
    mark(ground, 'lane', `lane ${steps / stopEvery + 1}`);
  }
  walker.run = 0;
};

/** Between bags there is room for feet in so much of a gap. */
const ROOM_OF_GAP = 0.32;
/** How far a bag reaches to each side of the way, metres. */
const BAG_HALF_M = 0.45;

/** So many contacts in each gap between low bags, in the room that the bags leave. */
export const layGaps: Laying<'gaps'> = (ground, phase, steps) => {
  const { walker, body, speed } = ground;
  const gapM = spanM(steps.gap, body);
  const travelDeg = walker.facingDeg + WAY_DEG[steps.way];
  const isSideways = steps.way === 'left' || steps.way === 'right';
  const roomM = ROOM_OF_GAP * gapM;
  // Sideways one starts beside the first bag, not astride of it.
  const leadM = isSideways ? between(walker.feet[steps.first], walker.centre) : 0;
  const origin = isSideways
    ? moved(walker.centre, travelDeg, leadM + (gapM - roomM) / 2)
    : walker.centre;
  const intervalS = 60 / (steps.cadenceSpm * speed);
  // In an order that a mirror turns round.
  const acrossDeg = walker.facingDeg + (isSideways ? 0 : 90 * sign(walker.side));
  for (let i = 0; i <= steps.gaps; i += 1) {
    const at = moved(origin, travelDeg, i * gapM);
    mark(ground, 'gap', i === 0 ? 'start' : i === steps.gaps ? 'finish' : '', at);
    ground.things.push({
      kind: 'edge',
      name: 'bag',
      line: true,
      points: [-BAG_HALF_M, BAG_HALF_M].map((off) => ({
        ...moved(at, acrossDeg, off),
        timeS: 0,
      })),
    });
  }
  let foot = steps.first;
  for (let i = 0; i < steps.gaps; i += 1) {
    for (let k = 0; k < steps.contacts; k += 1) {
      const part = steps.contacts === 1 ? 0 : k / (steps.contacts - 1) - 0.5;
      // Going sideways the leading foot is the farther one, and the other comes up to it.
      const alongM = (i + 0.5) * gapM + (isSideways ? -part : part) * roomM;
      const widthM = isSideways ? 0 : runWidthM(body);
      const on = moved(origin, travelDeg, alongM);
      const at = moved(on, walker.facingDeg + 90, (sign(foot) * widthM) / 2);
      const lengthM = between(at, walker.feet[foot]);
      const centre = moved(origin, travelDeg, (i + (k + 0.5) / steps.contacts) * gapM);
      const advanceM = between(centre, walker.centre);
      walker.centre = centre;
      contactAt(walker, phase.code, at, { foot, contact: 'step', intervalS, lengthM, advanceM });
      foot = otherFoot(foot);
    }
    if (isSideways) foot = steps.first;
  }
  walker.centre = moved(origin, travelDeg, steps.gaps * gapM);
  walker.run = 0;
};
