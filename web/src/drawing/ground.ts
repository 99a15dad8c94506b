import type { OtherPath } from '@gravek/core/layout/otherThings';
import type { Layout } from '@gravek/core/layout/shape';
import type { Footfall, Place, TrackPoint } from '@gravek/core/layout/walker';
import { bisector } from 'd3-array';

/** Where places of a layout lie in a drawing, and how headings turn there. */
export type Ground = {
  width: number;
  height: number;
  pixelsPerM: number;
  at: (place: Place) => [x: number, y: number];
  /** degrees to turn something that is drawn pointing to the right */
  turn: (headingDeg: number) => number;
};

const MARGIN = { x: 46, y: 34 };
const MAX_PIXELS_PER_M = 260;
const MIN_HEIGHT = 150;
/** Ways a drawing may lie, degrees that straight ahead is turned from pointing right; as it is set first. */
const TURNS = [0, -90, -45, 45] as const;
/** How much larger it must get to lie aslant. */
const ASLANT = 1.3;

/** Far things are drawn, but do not make the feet small: so far around the feet still counts, metres. */
const NEAR_M = 1.6;

type Bounds = { x: [number, number]; y: [number, number] };

const spread = (values: readonly number[]): [number, number] => [
  Math.min(...values),
  Math.max(...values),
];

/** How far a layout reaches, in metres of a drawing that is turned by some degrees. */
const boundsOf = (layouts: readonly Layout[], shoeM: number, turnDeg: number): Bounds => {
  const feet = layouts.flatMap(({ footfalls, track, marks }) => [
    ...footfalls,
    ...footfalls.map((fall) => heelOf(fall, shoeM)),
    ...track,
    ...marks,
  ]);
  const others = layouts.flatMap((layout) => layout.others);
  const reach = (pick: (place: Place) => number): [number, number] => {
    const [low, high] = spread(feet.map(pick));
    const bars = others.flatMap((other) => (other.kind === 'bar' ? other.points.map(pick) : []));
    const near = others
      .flatMap((other) => other.points.map(pick))
      .filter((value) => value > low - NEAR_M && value < high + NEAR_M);
    return spread([low, high, ...bars, ...near]);
  };
  const turn = turner(turnDeg);
  return { x: reach((place) => turn(place)[0]), y: reach((place) => turn(place)[1]) };
};

/** A footfall is where the toes are. */
const heelOf = ({ besideM, aheadM, headingDeg }: Footfall, shoeM: number): Place => ({
  besideM: besideM - shoeM * Math.sin((headingDeg * Math.PI) / 180),
  aheadM: aheadM - shoeM * Math.cos((headingDeg * Math.PI) / 180),
});

const turner = (turnDeg: number) => {
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  return ({ besideM, aheadM }: Place): [number, number] => [
    aheadM * cos - besideM * sin,
    aheadM * sin + besideM * cos,
  ];
};

const sizeOf = ({ x, y }: Bounds): [wide: number, high: number] => [
  Math.max(0.6, x[1] - x[0]),
  Math.max(0.6, y[1] - y[0]),
];

/** Ground to scale around what has bounds, in a room of a size. */
const groundIn = (
  bounds: Bounds,
  turnDeg: number,
  pixelsPerM: number,
  width: number,
  height: number,
): Ground => {
  const turn = turner(turnDeg);
  const middle = [(bounds.x[0] + bounds.x[1]) / 2, (bounds.y[0] + bounds.y[1]) / 2] as const;
  return {
    width,
    height,
    pixelsPerM,
    at: (place) => {
      const [x, y] = turn(place);
      return [width / 2 + (x - middle[0]) * pixelsPerM, height / 2 + (y - middle[1]) * pixelsPerM];
    },
    turn: (headingDeg) => headingDeg + turnDeg,
  };
};

type Room = { width: number; height: number; maxPixelsPerM: number };

/** The way to lie in which layouts are drawn largest, in a room without its margins. */
const largest = (layouts: readonly Layout[], shoeM: number, room: Room) => {
  const fits = TURNS.map((turnDeg) => {
    const bounds = boundsOf(layouts, shoeM, turnDeg);
    const [wideM, highM] = sizeOf(bounds);
    const pixelsPerM = Math.min(room.maxPixelsPerM, room.width / wideM, room.height / highM);
    return { turnDeg, bounds, highM, pixelsPerM };
  });
  const worth = ({ turnDeg, pixelsPerM }: (typeof fits)[number]): number =>
    pixelsPerM / (turnDeg % 90 === 0 ? 1 : ASLANT);
  return fits.reduce((found, fit) => (worth(fit) > worth(found) * 1.02 ? fit : found));
};

/**
 * Fits layouts into a drawing of a width, at most so high: turned so that the way runs along the longer
 * side.
 */
export const groundOf = (
  layouts: readonly Layout[],
  shoeM: number,
  width: number,
  maxHeight: number,
  zoom = 1,
): Ground => {
  const { bounds, turnDeg, highM, pixelsPerM } = largest(layouts, shoeM, {
    width: width - 2 * MARGIN.x,
    height: maxHeight - 2 * MARGIN.y,
    maxPixelsPerM: MAX_PIXELS_PER_M * zoom,
  });
  const height = Math.max(MIN_HEIGHT, Math.round(highM * pixelsPerM + 2 * MARGIN.y));
  return groundIn(bounds, turnDeg, pixelsPerM, width, height);
};

/** Fits a layout into a small drawing of a size, with so much room around it. */
export const smallGround = (
  layout: Layout,
  { width, height, margin }: { width: number; height: number; margin: number },
): Ground => {
  const { bounds, turnDeg, pixelsPerM } = largest([layout], 0, {
    width: width - 2 * margin,
    height: height - 2 * margin,
    maxPixelsPerM: MAX_PIXELS_PER_M,
  });
  return groundIn(bounds, turnDeg, pixelsPerM, width, height);
};

/** The ground around some places, as it lies in another drawing but nearer. */
export const nearer = (
  ground: Ground,
  places: readonly Place[],
  pixelsPerM: number,
  aroundM: number,
): Ground => {
  const turnDeg = ground.turn(0);
  const turn = turner(turnDeg);
  const seen = places.map(turn);
  const bounds: Bounds = {
    x: spread(seen.map(([x]) => x)),
    y: spread(seen.map(([, y]) => y)),
  };
  return groundIn(
    bounds,
    turnDeg,
    pixelsPerM,
    Math.round((bounds.x[1] - bounds.x[0] + 2 * aroundM) * pixelsPerM),
    Math.round((bounds.y[1] - bounds.y[0] + 2 * aroundM) * pixelsPerM),
  );
};

const byTime = bisector<{ timeS: number }, number>((point) => point.timeS).right;

/** Between two numbered moments, straight. */
const mix = <T extends { timeS: number }>(
  points: readonly T[],
  timeS: number,
  pick: (point: T) => number,
): number => {
  const i = byTime(points, timeS);
  const before = points[Math.max(0, i - 1)]!;
  const after = points[Math.min(points.length - 1, i)]!;
  const span = after.timeS - before.timeS;
  const part = span > 0 ? Math.max(0, Math.min(1, (timeS - before.timeS) / span)) : 0;
  return pick(before) + (pick(after) - pick(before)) * part;
};

/** Headings turn the short way round. */
const facingAt = (track: readonly TrackPoint[], timeS: number): number => {
  const i = byTime(track, timeS);
  const before = track[Math.max(0, i - 1)]!;
  const after = track[Math.min(track.length - 1, i)]!;
  const way = ((after.facingDeg - before.facingDeg + 540) % 360) - 180;
  const span = after.timeS - before.timeS;
  return before.facingDeg + (span > 0 ? way * Math.min(1, (timeS - before.timeS) / span) : 0);
};

/** Where the body is at a moment and which way it faces. */
export const bodyAt = ({ track }: Layout, timeS: number): Place & { facingDeg: number } => ({
  besideM: mix(track, timeS, (point) => point.besideM),
  aheadM: mix(track, timeS, (point) => point.aheadM),
  facingDeg: facingAt(track, timeS),
});

/** Where somebody or something else is at a moment. */
export const otherAt = ({ points }: OtherPath, timeS: number): Place => ({
  besideM: mix(points, timeS, (point) => point.besideM),
  aheadM: mix(points, timeS, (point) => point.aheadM),
});
