import { otherFoot, type Foot } from '../feet';
import { arc, arcMove } from './arc';
import { spanM } from './body';
import { mark, openFoot, runWidthM, type Ground, type Laying } from './ground';
import type { PhaseKind, SequencePhase, Way } from './sequence';
import {
  between,
  bothFeet,
  contactAt,
  moved,
  nextFoot,
  note,
  sign,
  stepOn,
  toRad,
  type Contact,
  type Footfall,
  type Place,
} from './walker';

/** Between feet that land from a jump, as a fraction of leg length. */
const LANDING_WIDTH_OF_LEG = 0.4;

const WAY_DEG: Record<Way, number> = { ahead: 0, right: 90, back: 180, left: -90 };

const stance: Laying<'stance'> = ({ walker, body }, phase, { width, depth, front }) => {
  const widthM = spanM(width, body);
  const depthM = front ? spanM(depth, body) : 0;
  const first = walker.footfalls.length === 0;
  for (const foot of bothFeet(walker)) {
    const abreast = moved(walker.centre, walker.facingDeg + 90, (sign(foot) * widthM) / 2);
    const at = front && foot !== front ? moved(abreast, walker.facingDeg, -depthM) : abreast;
    const fall = contactAt(walker, phase.code, at, {
      foot,
      contact: 'stand',
      intervalS: 0,
      lengthM: first ? 0 : between(at, walker.feet[foot]),
      advanceM: 0,
      together: true,
    });
    fall.n = walker.n;
  }
  walker.last = front;
  walker.free = true;
  walker.run = 0;
};

const trigger: Laying<'trigger'> = (
  { walker, body, speed },
  phase,
  { foot, way, step, intervalS },
) => {
  const lengthM = spanM(step, body);
  const heading = walker.facingDeg + WAY_DEG[way];
  const at = moved(walker.feet[foot], heading, lengthM);
  walker.centre = moved(walker.centre, heading, lengthM / 2);
  contactAt(walker, phase.code, at, {
    foot,
    contact: way === 'back' ? 'back' : 'step',
    intervalS: intervalS / speed,
    lengthM,
    advanceM: lengthM / 2,
  });
};

const curve: Laying<'curve'> = (
  ground,
  phase,
  { to, steps, turnDeg, radiusM, step, cadenceSpm },
) => {
  const { walker, body, speed } = ground;
  const lengthM = spanM(step, body) * Math.sqrt(speed);
  const each = sign(to) * (radiusM ? ((lengthM / radiusM) * 180) / Math.PI : turnDeg / steps);
  const half = toRad(Math.abs(each) / 2);
  const chordM = half < 1e-9 ? lengthM : (lengthM * Math.sin(half)) / half;
  mark(ground, 'curve', 'curve begins');
  for (let i = 0; i < steps; i += 1) {
    // Along the chord of each piece of the arc: half the turn before the step, half after it.
    walker.facingDeg += each / 2;
    const travelDeg = walker.facingDeg;
    walker.facingDeg += each / 2;
    stepOn(walker, phase.code, {
      foot: i === 0 ? openFoot(ground) : nextFoot(walker, null),
      contact: 'step',
      intervalS: 60 / (cadenceSpm * Math.sqrt(speed)),
      travelDeg,
      advanceM: chordM,
      lengthM,
      widthM: runWidthM(body),
    });
    walker.run += 1;
  }
};

const crossover: Laying<'crossover'> = ({ walker, body, speed }, phase, asked) => {
  const { first, steps, step, second, grow, cadenceSpm, sideOnDeg, to } = asked;
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

const evenSteps = (
  ground: Ground,
  phase: SequencePhase,
  asked: {
    first: Foot | null;
    steps: number;
    lengthM: number;
    intervalS: number;
    way: Way;
    widthM: number;
    contact: Contact;
  },
): void => {
  const { walker } = ground;
  for (let i = 0; i < asked.steps; i += 1) {
    stepOn(walker, phase.code, {
      foot: i === 0 ? (asked.first ?? openFoot(ground)) : nextFoot(walker, null),
      contact: asked.contact,
      intervalS: asked.intervalS,
      travelDeg: walker.facingDeg + WAY_DEG[asked.way],
      advanceM: asked.lengthM,
      widthM: asked.widthM,
    });
  }
};

/** So many times the short step and more is a running step. */
const RUNS_FROM = 1.8;

const short: Laying<'short'> = (ground, phase, asked) => {
  const { walker, body, speed } = ground;
  const lengthM = spanM(asked.step, body);
  const from = walker.footfalls.at(-1);
  const running = from?.contact === 'step' && from.lengthM > lengthM && lengthM > 0;
  // A step that is a little longer than the next is no run to shorten.
  if (running && from.lengthM > RUNS_FROM * lengthM) mark(ground, 'shorten', 'shorten here');
  let left = asked.first ?? openFoot(ground);
  for (let i = 1; running && i <= asked.taper; i += 1) {
    const part = i / (asked.taper + 1);
    const cadenceFrom = 60 / from.intervalS;
    evenSteps(ground, phase, {
      first: left,
      steps: 1,
      lengthM: from.lengthM * (lengthM / from.lengthM) ** part,
      intervalS: 60 / (cadenceFrom + (asked.cadenceSpm * speed - cadenceFrom) * part),
      way: 'ahead',
      widthM: spanM(asked.width, body),
      contact: 'step',
    });
    left = otherFoot(left);
  }
  evenSteps(ground, phase, {
    first: left,
    steps: asked.steps,
    lengthM,
    intervalS: 60 / (asked.cadenceSpm * speed),
    way: 'ahead',
    widthM: spanM(asked.width, body),
    contact: 'short',
  });
  walker.run = 0;
};

const giveGround: Laying<'give-ground'> = (ground, phase, asked) => {
  if (asked.waitS) {
    ground.walker.timeS += asked.waitS / ground.speed;
    note(ground.walker);
  }
  evenSteps(ground, phase, {
    first: asked.first,
    steps: asked.steps,
    lengthM: spanM(asked.step, ground.body),
    intervalS: 60 / (asked.cadenceSpm * ground.speed),
    way: 'back',
    widthM: spanM(asked.width, ground.body),
    contact: 'back',
  });
  ground.walker.run = 0;
};

/** Lead foot out, trail foot after it. */
const shuffle: Laying<'shuffle'> = (ground, phase, asked) => {
  const { walker, body, speed } = ground;
  const { to, steps, stopEvery, stopS } = asked;
  const lengthM = spanM(asked.step, body);
  const widthM = spanM(asked.width, body);
  const halfS = asked.intervalS / (2 * speed);
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
      toesDeg: toes(asked.leadToesDeg),
    });
    stepOn(walker, phase.code, {
      ...lead,
      foot: otherFoot(to),
      travelDeg: heading(),
      advanceM: lengthM / 2,
      widthM,
      toesDeg: toes(asked.trailToesDeg),
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
const gaps: Laying<'gaps'> = (ground, phase, asked) => {
  const { walker, body, speed } = ground;
  const gapM = spanM(asked.gap, body);
  const travelDeg = walker.facingDeg + WAY_DEG[asked.way];
  const isSideways = asked.way === 'left' || asked.way === 'right';
  const roomM = ROOM_OF_GAP * gapM;
  // Sideways one starts beside the first bag, not astride of it.
  const leadM = isSideways ? between(walker.feet[asked.first], walker.centre) : 0;
  const origin = isSideways
    ? moved(walker.centre, travelDeg, leadM + (gapM - roomM) / 2)
    : walker.centre;
  const intervalS = 60 / (asked.cadenceSpm * speed);
  // In an order that a mirror turns round.
  const acrossDeg = walker.facingDeg + (isSideways ? 0 : 90 * sign(walker.side));
  for (let i = 0; i <= asked.gaps; i += 1) {
    const at = moved(origin, travelDeg, i * gapM);
    mark(ground, 'gap', i === 0 ? 'start' : i === asked.gaps ? 'finish' : '', at);
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
  let foot = asked.first;
  for (let i = 0; i < asked.gaps; i += 1) {
    for (let k = 0; k < asked.contacts; k += 1) {
      const part = asked.contacts === 1 ? 0 : k / (asked.contacts - 1) - 0.5;
      // Going sideways the leading foot is the farther one, and the other comes up to it.
      const alongM = (i + 0.5) * gapM + (isSideways ? -part : part) * roomM;
      const widthM = isSideways ? 0 : runWidthM(body);
      const on = moved(origin, travelDeg, alongM);
      const at = moved(on, walker.facingDeg + 90, (sign(foot) * widthM) / 2);
      const lengthM = between(at, walker.feet[foot]);
      const centre = moved(origin, travelDeg, (i + (k + 0.5) / asked.contacts) * gapM);
      const advanceM = between(centre, walker.centre);
      walker.centre = centre;
      contactAt(walker, phase.code, at, { foot, contact: 'step', intervalS, lengthM, advanceM });
      foot = otherFoot(foot);
    }
    if (isSideways) foot = asked.first;
  }
  walker.centre = moved(origin, travelDeg, asked.gaps * gapM);
  walker.run = 0;
};

/** A front pivot brings the free foot round ahead, a reverse one behind. */
const pivot: Laying<'pivot'> = ({ walker, speed }, phase, { on, turn, turnDeg, intervalS }) => {
  const side = turn === 'front' ? on : otherFoot(on);
  const free = otherFoot(on);
  const by = sign(side) * turnDeg;
  const about = walker.feet[on];
  const round = (at: Place): Place => {
    const angle = toRad(by);
    const [x, y] = [at.besideM - about.besideM, at.aheadM - about.aheadM];
    return {
      besideM: about.besideM + x * Math.cos(angle) + y * Math.sin(angle),
      aheadM: about.aheadM - x * Math.sin(angle) + y * Math.cos(angle),
    };
  };
  const at = round(walker.feet[free]);
  const centre = round(walker.centre);
  const advanceM = between(centre, walker.centre);
  walker.centre = centre;
  walker.facingDeg += by;
  contactAt(walker, phase.code, at, {
    foot: free,
    contact: 'pivot',
    intervalS: intervalS / speed,
    lengthM: between(at, walker.feet[free]),
    advanceM,
  });
  walker.run = 0;
};

const gather: Laying<'gather'> = (ground, phase, asked) => {
  const { walker, body, speed } = ground;
  const { feet, first, boxes } = asked;
  const apartM = spanM(asked.apart, body);
  const both = feet === 'together';
  const intervalS = asked.intervalS / speed;
  const common = { contact: 'gather', intervalS, travelDeg: walker.facingDeg } as const;
  const footfall = stepOn(walker, phase.code, {
    ...common,
    foot: first,
    advanceM: spanM(asked.ahead, body),
    widthM: both ? apartM : runWidthM(body),
  });
  // A footfall is where the toes are; its box lies round the whole foot.
  const middleOf = (fall: Footfall): Place => moved(fall, fall.headingDeg, -body.shoeM / 2);
  if (boxes) mark(ground, 'box', 'box 1', middleOf(footfall));
  const two = stepOn(walker, phase.code, {
    ...common,
    foot: otherFoot(first),
    advanceM: both ? 0 : apartM,
    widthM: both ? apartM : runWidthM(body),
    ...(both ? { together: true, lengthM: footfall.lengthM } : {}),
  });
  walker.free = both;
  if (boxes) mark(ground, 'box', 'box 2', middleOf(two));
  walker.run = 0;
};

/** The body leaves the ground from feet that are down already, flies, and lands. */
const finish: Laying<'finish'> = (ground, phase, { from, flight, flightS, land }) => {
  const { walker, body } = ground;
  const leaving = (foot: Foot): Footfall | undefined =>
    walker.footfalls.findLast((fall) => fall.foot === foot);
  for (const foot of from === 'both' ? bothFeet(walker) : [from]) {
    const fall = leaving(foot);
    if (fall) fall.takeOff = true;
  }
  const flightM = spanM(flight, body);
  if (land === 'none') {
    walker.centre = moved(walker.centre, walker.facingDeg, flightM);
    walker.timeS += flightS;
    note(walker);
    return;
  }
  if (from === 'both' && land === 'both') {
    // Who takes off from both lands on the same two prints, or as far on as the flight goes.
    const down = bothFeet(walker);
    walker.centre = moved(walker.centre, walker.facingDeg, flightM);
    down.forEach((foot, i) => {
      contactAt(walker, phase.code, moved(walker.feet[foot], walker.facingDeg, flightM), {
        foot,
        contact: 'land',
        intervalS: flightS,
        lengthM: Math.abs(flightM),
        advanceM: i === 0 ? Math.abs(flightM) : 0,
        together: i > 0,
      });
    });
    walker.free = true;
    walker.run = 0;
    return;
  }
  const down: Foot[] = land === 'both' ? bothFeet(walker) : [land];
  down.forEach((foot, i) => {
    stepOn(walker, phase.code, {
      foot,
      contact: 'land',
      intervalS: flightS,
      travelDeg: walker.facingDeg,
      advanceM: i === 0 ? flightM : 0,
      lengthM: Math.abs(flightM),
      widthM: land === 'both' ? LANDING_WIDTH_OF_LEG * body.legM : runWidthM(body),
      together: i > 0,
    });
  });
  walker.free = land === 'both';
  walker.run = 0;
};

const skip: Laying<'skip'> = (ground, phase, { first, skips, step, hop, intervalS }) => {
  const { walker, body, speed } = ground;
  for (let i = 0; i < skips; i += 1) {
    const foot = i % 2 === 0 ? first : otherFoot(first);
    const common = {
      foot,
      contact: 'step',
      intervalS: intervalS / 2 / speed,
      travelDeg: walker.facingDeg,
      widthM: runWidthM(body),
    } as const;
    stepOn(walker, phase.code, { ...common, advanceM: spanM(step, body) });
    stepOn(walker, phase.code, { ...common, advanceM: spanM(hop, body) });
  }
  walker.run = 0;
};

const hold: Laying<'hold'> = ({ walker }, _phase, { holdS }) => {
  walker.timeS += holdS;
  note(walker);
  walker.run = 0;
};

const recover: Laying<'recover'> = (ground, phase, asked) => {
  const root = Math.sqrt(ground.speed);
  evenSteps(ground, phase, {
    ...asked,
    lengthM: spanM(asked.step, ground.body) * root,
    intervalS: 60 / (asked.cadenceSpm * root),
    widthM: asked.width ? spanM(asked.width, ground.body) : runWidthM(ground.body),
    contact: asked.way === 'back' ? 'back' : 'step',
  });
};

const called: Laying<'called'> = ({ walker, body, speed }, phase, { calls }) => {
  for (const call of calls) {
    const { foot } = call;
    const from = walker.feet[foot];
    const aside = sign(call.to) * spanM(call.aside, body);
    const at = moved(
      moved(from, walker.facingDeg, spanM(call.ahead, body)),
      walker.facingDeg + 90,
      aside,
    );
    const still = walker.feet[otherFoot(foot)];
    const centre = {
      besideM: (at.besideM + still.besideM) / 2,
      aheadM: (at.aheadM + still.aheadM) / 2,
    };
    const advanceM = between(centre, walker.centre);
    walker.centre = centre;
    walker.facingDeg += sign(call.turnTo) * call.turnDeg;
    contactAt(walker, phase.code, at, {
      foot,
      contact: 'step',
      intervalS: call.intervalS / speed,
      lengthM: between(at, from),
      advanceM,
    });
  }
  walker.run = 0;
};

/** Every kind of step but the run-up itself, which the solvers may be asked for. */
export const LAYING: { [K in Exclude<PhaseKind, 'build-up'>]: Laying<K> } = {
  stance,
  trigger,
  curve,
  crossover,
  short,
  'give-ground': giveGround,
  shuffle,
  gaps,
  pivot,
  gather,
  finish,
  hold,
  skip,
  recover,
  called,
  arc,
  'arc-move': arcMove,
};
