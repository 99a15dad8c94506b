import { type Foot, otherFoot } from '../feet';
import { arc, arcMove } from './arc';
import { spanM } from './body';
import { type Laying, mark, runWidthM } from './ground';
import { layCurve, evenSteps, layShort, WAY_DEG } from './phasesRunning';
import { layCrossover, layGaps, layGiveGround, layShuffle } from './phasesSideways';
import type { PhaseKind } from './sequence';
import {
  between,
  bothFeet,
  contactAt,
  type Footfall,
  moved,
  note,
  type Place,
  sign,
  stepOn,
  toRad,
} from './walker';

/** Between feet that land from a jump, as a fraction of leg length. */
const LANDING_WIDTH_OF_LEG = 0.4;

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

const gather: Laying<'gather'> = (ground, phase, steps) => {
  const { walker, body, speed } = ground;
  const { feet, first, boxes } = steps;
  const apartM = spanM(steps.apart, body);
  const both = feet === 'together';
  const intervalS = steps.intervalS / speed;
  const common = { contact: 'gather', intervalS, travelDeg: walker.facingDeg } as const;
  const footfall = stepOn(walker, phase.code, {
    ...common,
    foot: first,
    advanceM: spanM(steps.ahead, body),
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

const recover: Laying<'recover'> = (ground, phase, steps) => {
  const root = Math.sqrt(ground.speed);
  evenSteps(ground, phase, {
    ...steps,
    lengthM: spanM(steps.step, ground.body) * root,
    intervalS: 60 / (steps.cadenceSpm * root),
    widthM: steps.width ? spanM(steps.width, ground.body) : runWidthM(ground.body),
    contact: steps.way === 'back' ? 'back' : 'step',
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
  curve: layCurve,
  crossover: layCrossover,
  short: layShort,
  'give-ground': layGiveGround,
  shuffle: layShuffle,
  gaps: layGaps,
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
