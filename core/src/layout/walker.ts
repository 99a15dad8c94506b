import { otherFoot, type Foot } from '../feet';

/** Metres to the right of where the sequence starts, and ahead of it. */
export type Place = { besideM: number; aheadM: number };

export const CONTACTS = [
  'stand',
  'step',
  'short',
  'back',
  'cross',
  'shuffle',
  'pivot',
  'gather',
  'land',
] as const;
export type Contact = (typeof CONTACTS)[number];

export type BallEvent = 'gather' | 'release' | 'dribble';

export type Footfall = Place & {
  /** number of the step; feet that land together share it, feet that stand at the start have 0 */
  n: number;
  foot: Foot;
  /** where the toes point, degrees clockwise from straight ahead at the start */
  headingDeg: number;
  /** which way the body faces, degrees as above */
  facingDeg: number;
  contact: Contact;
  phase: string;
  lengthM: number;
  intervalS: number;
  /** from the first push to this contact */
  timeS: number;
  /** of the body since the contact before */
  speedMps: number;
  /** the body leaves the ground from this foot */
  takeOff: boolean;
  /** the body comes down from the air on it */
  landing: boolean;
  ball: BallEvent | null;
  /** distance left to the line or bar that the run is aimed at, metres; null where there is none */
  toLineM: number | null;
};

/** Where the middle of the body is at a moment. */
export type TrackPoint = Place & { timeS: number; facingDeg: number };

/**
 * @example toRad(180) // 3.14
 */
export const toRad = (deg: number): number => (deg * Math.PI) / 180;

/**
 * The place so many metres off along a heading.
 *
 * @example moved({ besideM: 1, aheadM: 0 }, 0, 2) // { besideM: 1, aheadM: 2 }
 */
export const moved = (from: Place, headingDeg: number, metres: number): Place => ({
  besideM: from.besideM + metres * Math.sin(toRad(headingDeg)),
  aheadM: from.aheadM + metres * Math.cos(toRad(headingDeg)),
});

/**
 * @example between({ besideM: 0, aheadM: 0 }, { besideM: 3, aheadM: 4 }) // 5
 */
export const between = (a: Place, b: Place): number =>
  Math.hypot(a.besideM - b.besideM, a.aheadM - b.aheadM);

/**
 * Heading within (−180, 180].
 *
 * @example turned(270) // -90
 */
export const turned = (deg: number): number => {
  const rest = deg % 360;
  return rest > 180 ? rest - 360 : rest <= -180 ? rest + 360 : rest;
};

/**
 * @example sign('left') // -1
 */
export const sign = (side: Foot): number => (side === 'right' ? 1 : -1);

export type Step = {
  foot: Foot;
  contact: Contact;
  intervalS: number;
  /** way of the body, and how far along it */
  travelDeg: number;
  advanceM: number;
  /** between left and right foot, across where the body faces */
  widthM: number;
  /** as the coach measures it; the way of the body when left out */
  lengthM?: number;
  toesDeg?: number;
  /** lands together with the foot before */
  together?: boolean;
};

/** The body on its way: where it is, which way it faces and which foot came last. */
export type Walker = {
  /** the side that the sequence is written for; its foot goes first where nothing else decides */
  side: Foot;
  centre: Place;
  facingDeg: number;
  feet: Record<Foot, Place>;
  last: Foot | null;
  /** both feet stand: either may go next */
  free: boolean;
  timeS: number;
  n: number;
  /** steps of the build-up run so far */
  run: number;
  footfalls: Footfall[];
  track: TrackPoint[];
};

export const newWalker = (side: Foot): Walker => ({
  side,
  centre: { besideM: 0, aheadM: 0 },
  facingDeg: 0,
  feet: { left: { besideM: 0, aheadM: 0 }, right: { besideM: 0, aheadM: 0 } },
  last: null,
  free: true,
  timeS: 0,
  n: 0,
  run: 0,
  footfalls: [],
  track: [{ timeS: 0, besideM: 0, aheadM: 0, facingDeg: 0 }],
});

export const note = (walker: Walker): void => {
  const { centre, timeS, facingDeg } = walker;
  walker.track.push({ besideM: centre.besideM, aheadM: centre.aheadM, timeS, facingDeg });
};

/** Puts a foot down at a place and keeps the books. */
export const contactAt = (
  walker: Walker,
  phase: string,
  at: Place,
  step: Pick<Step, 'foot' | 'contact' | 'intervalS' | 'toesDeg' | 'together'> & {
    lengthM: number;
    advanceM: number;
  },
): Footfall => {
  const { foot, contact, intervalS } = step;
  if (!step.together) {
    walker.n += 1;
    walker.timeS += intervalS;
  }
  walker.feet[foot] = at;
  walker.last = foot;
  walker.free = false;
  const fall: Footfall = {
    besideM: at.besideM,
    aheadM: at.aheadM,
    n: walker.n,
    foot,
    headingDeg: turned(step.toesDeg ?? walker.facingDeg),
    facingDeg: turned(walker.facingDeg),
    contact,
    phase,
    lengthM: step.lengthM,
    intervalS,
    timeS: walker.timeS,
    speedMps: intervalS > 0 ? step.advanceM / intervalS : 0,
    takeOff: false,
    landing: contact === 'land',
    ball: null,
    toLineM: null,
  };
  walker.footfalls.push(fall);
  note(walker);
  return fall;
};

/** Moves the body on and puts a foot down beside its way. */
export const stepOn = (walker: Walker, phase: string, step: Step): Footfall => {
  walker.centre = moved(walker.centre, step.travelDeg, step.advanceM);
  const at = moved(walker.centre, walker.facingDeg + 90, (sign(step.foot) * step.widthM) / 2);
  return contactAt(walker, phase, at, { ...step, lengthM: step.lengthM ?? step.advanceM });
};

/**
 * The foot whose turn it is, when nothing asks for another.
 *
 * @example nextFoot(newWalker('right'), null) // 'right'
 */
export const nextFoot = (walker: Walker, wanted: Foot | null): Foot =>
  wanted ?? (walker.last ? otherFoot(walker.last) : walker.side);

/**
 * Both feet, in an order that a mirror turns round.
 *
 * @example bothFeet(newWalker('left')) // ['left', 'right']
 */
export const bothFeet = ({ side }: Walker): [Foot, Foot] => [side, otherFoot(side)];
