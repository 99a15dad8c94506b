import { type Foot, otherFoot } from '../feet';
import { spanM } from './body';
import { type Ground, type Laying, mark, openFoot, runWidthM } from './ground';
import type { SequencePhase, Way } from './sequence';
import { type Contact, nextFoot, sign, stepOn, toRad } from './walker';

export const WAY_DEG: Record<Way, number> = { ahead: 0, right: 90, back: 180, left: -90 };

export const layCurve: Laying<'curve'> = (
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

export const evenSteps = (
  ground: Ground,
  phase: SequencePhase,
  run: {
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
  for (let i = 0; i < run.steps; i += 1) {
    stepOn(walker, phase.code, {
      foot: i === 0 ? (run.first ?? openFoot(ground)) : nextFoot(walker, null),
      contact: run.contact,
      intervalS: run.intervalS,
      travelDeg: walker.facingDeg + WAY_DEG[run.way],
      advanceM: run.lengthM,
      widthM: run.widthM,
    });
  }
};

/** So many times the short step and more is a running step. */
const RUNS_FROM = 1.8;

export const layShort: Laying<'short'> = (ground, phase, steps) => {
  const { walker, body, speed } = ground;
  const lengthM = spanM(steps.step, body);
  const from = walker.footfalls.at(-1);
  const running = from?.contact === 'step' && from.lengthM > lengthM && lengthM > 0;
  // A step that is a little longer than the next is no run to shorten.
  if (running && from.lengthM > RUNS_FROM * lengthM) mark(ground, 'shorten', 'shorten here');
  let left = steps.first ?? openFoot(ground);
  for (let i = 1; running && i <= steps.taper; i += 1) {
    const part = i / (steps.taper + 1);
    const cadenceFrom = 60 / from.intervalS;
    evenSteps(ground, phase, {
      first: left,
      steps: 1,
      lengthM: from.lengthM * (lengthM / from.lengthM) ** part,
      intervalS: 60 / (cadenceFrom + (steps.cadenceSpm * speed - cadenceFrom) * part),
      way: 'ahead',
      widthM: spanM(steps.width, body),
      contact: 'step',
    });
    left = otherFoot(left);
  }
  evenSteps(ground, phase, {
    first: left,
    steps: steps.steps,
    lengthM,
    intervalS: 60 / (steps.cadenceSpm * speed),
    way: 'ahead',
    widthM: spanM(steps.width, body),
    contact: 'short',
  });
  walker.run = 0;
};
