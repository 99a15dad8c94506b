import type { Mark } from '@gravek/core/layout/ground';
import type { Layout } from '@gravek/core/layout/shape';
import type { OtherPath } from '@gravek/core/layout/sequence';
import type { Branch } from '@gravek/library/planning/plan';
import { groundOf, nearer, type Ground } from './ground';
import { printOf, SOLE, type Print } from './prints';
import {
  alongLine,
  meet,
  placeLabels,
  type Box,
  type Label,
  type LabelAsk,
  type Spot,
} from './labels';

export type Tag = Label & { kind: 'n' | 'thing' | 'mark' | 'branch' | 'letter' };

/** A crowded place, drawn anew and larger in a frame of its own. */
export type Inset = {
  letter: string;
  ground: Ground;
  /** its frame in the drawing */
  frame: Box;
  /** what it shows, in the drawing */
  of: Box;
  prints: Print[];
  tags: Tag[];
};

/** All that is drawn of a layout, in pixels. */
export type Picture = {
  ground: Ground;
  height: number;
  prints: Print[];
  /** of what is laid over it */
  overPrints: Print[];
  tags: Tag[];
  insets: Inset[];
  /** what lies outside the drawing: where on its edge an arrow points at it, and which way */
  pointers: { x: number; y: number; deg: number }[];
  scale: { box: Box; pixels: number };
  compass: Box;
};

const MIN_PRINT = 12;
const CHARACTER = { n: 7.4, word: 6.2 };
export const LINE = 14;
const SIGN = 11;
/** Prints nearer than this to each other are one spot: they get one number, metres. */
const SAME_SPOT_M = 0.05;
/** An inset is worth its room from so much larger. */
const WORTH = 1.5;
const MOST_INSETS = 2;
/** Prints of this length are large enough, pixels. */
const PLAIN = 36;
const MOST_LARGER = 3.6;
const INSET = { width: 420, height: 200, largestPixelsPerM: 320 };
const AROUND_M = 0.24;
/** Spots that touch, from so many on, are a crowd. */
const CROWD = 3;
const TOUCHING = -1;
const ROWS_APART = 4;
/** Crowds nearer than this to each other are one, pixels. */
const BETWEEN = 16;
/** What lies outside the drawing is pointed at from so far inside its edge, pixels. */
const EDGE = 13;
/** How large whoever stands there is drawn, pixels. */
const STANDS = 11;
/** The room of the arrow at what lies outside, to each side of its middle, pixels. */
const POINTER = 9;

/** How long a sole is drawn on a ground, pixels. */
const soleOn = (ground: Ground, shoeM: number): number =>
  Math.max(MIN_PRINT, shoeM * ground.pixelsPerM);

const middleOf = ({ x, y, width, height }: Box): Spot => [x + width / 2, y + height / 2];

const word = (...lines: string[]): Pick<LabelAsk, 'text' | 'width' | 'height'> => ({
  text: lines.join('\n'),
  width: Math.max(...lines.map((line) => line.length)) * CHARACTER.word + 4,
  height: lines.length * LINE,
});

const around = (boxes: readonly Box[], by: number): Box => {
  const x = Math.min(...boxes.map((box) => box.x)) - by;
  const y = Math.min(...boxes.map((box) => box.y)) - by;
  return {
    x,
    y,
    width: Math.max(...boxes.map((box) => box.x + box.width)) + by - x,
    height: Math.max(...boxes.map((box) => box.y + box.height)) + by - y,
  };
};

/** Prints that stand on one spot, such as a foot that comes back to where it was. */
const spotsOf = (prints: readonly Print[]): Print[][] => {
  const spots: Print[][] = [];
  for (const print of prints) {
    const { fall } = print;
    const same = spots.find(
      ([first]) =>
        first!.fall.foot === fall.foot &&
        Math.hypot(first!.fall.besideM - fall.besideM, first!.fall.aheadM - fall.aheadM) <
          SAME_SPOT_M,
    );
    if (same) same.push(print);
    else spots.push([print]);
  }
  return spots;
};

/** The number of a spot, on the outer side of its foot. */
const numberAsk = (spot: readonly Print[]): LabelAsk => {
  const { fall, turnDeg, length, box } = spot[0]!;
  const text = [...new Set(spot.map((print) => print.fall.n))].join('·');
  return {
    text,
    at: middleOf(box),
    reach: (length * SOLE) / 2 + 3,
    towardDeg: turnDeg + (fall.foot === 'left' ? -90 : 90),
    width: text.length * CHARACTER.n + 2,
    height: LINE,
  };
};

/**
 * Places where prints of several spots lie over one another, each with all the prints that are in it.
 *
 * @param apart prints are of one crowd up to so far from each other, pixels; less than nothing where they must meet
 */
const crowdsOf = (
  prints: readonly Print[],
  spots: readonly Print[][],
  apart: number,
): Print[][] => {
  const groups: Box[][] = [];
  for (const [first] of spots) {
    const touching = groups.filter((group) =>
      group.some((other) => meet(other, first!.box, apart)),
    );
    const rest = groups.filter((group) => !touching.includes(group));
    groups.splice(0, groups.length, ...rest, [...touching.flat(), first!.box]);
  }
  const isCrowd = (group: readonly Box[]): boolean =>
    group.filter((box) => group.some((other) => other !== box && meet(other, box, TOUCHING)))
      .length >= CROWD;
  const places: Box[] = [];
  for (const group of groups.filter(isCrowd)) {
    const near = places.filter((place) => meet(place, around(group, 0), BETWEEN));
    const rest = places.filter((place) => !near.includes(place));
    places.splice(0, places.length, ...rest, around([...near, ...group], 0));
  }
  return places.map((place) => prints.filter((print) => meet(place, print.box, apart)));
};

/** The part of a line that lies in the drawing; null where none does. */
const seenPart = (
  [[x, y], [x2, y2]]: readonly [Spot, Spot],
  ground: Ground,
): [Spot, Spot] | null => {
  let [from, to] = [0, 1];
  for (const [start, step, most] of [
    [x, x2 - x, ground.width],
    [y, y2 - y, ground.height],
  ] as const) {
    if (step === 0) {
      if (start < 0 || start > most) return null;
      continue;
    }
    const [a, b] = [-start / step, (most - start) / step];
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  if (from > to) return null;
  const at = (part: number): Spot => [x + part * (x2 - x), y + part * (y2 - y)];
  return [at(from), at(to)];
};

const endsOf = ({ points }: OtherPath, ground: Ground): readonly [Spot, Spot] => [
  ground.at(points[0]!),
  ground.at(points[1]!),
];

const FEET_PER_M = 1 / 0.3048;
/** A way of more points is run at no one speed. */
const MOST_POINTS = 3;
const STANDS_MPS = 0.1;

/** What something is called; of somebody who comes or goes also how fast. */
const calledIn = ({ kind, name, points }: OtherPath, feet: boolean): string => {
  const [from, to] = points.slice(-2);
  const isPerson = kind === 'opponent' || kind === 'teammate';
  if (!isPerson || !from || !to || points.length > MOST_POINTS) return name;
  const wayM = Math.hypot(to.besideM - from.besideM, to.aheadM - from.aheadM);
  const mps = to.timeS > from.timeS ? wayM / (to.timeS - from.timeS) : 0;
  if (mps < STANDS_MPS) return name;
  return `${name}, ${feet ? `${(mps * FEET_PER_M).toFixed(0)} ft/s` : `${mps.toFixed(1)} m/s`}`;
};

const thingAsk = (other: OtherPath, ground: Ground, feet: boolean): LabelAsk => {
  const part = other.line ? seenPart(endsOf(other, ground), ground) : null;
  if (!part) {
    const at = ground.at(other.points[0]!);
    return { ...word(calledIn(other, feet)), at, reach: STANDS + 2, towardDeg: -90 };
  }
  // Near the upper end of what is seen of it: across the middle go the feet.
  const [upper, lower] = part[0][1] <= part[1][1] ? part : [part[1], part[0]];
  const inside = (value: number, most: number): number => Math.max(14, Math.min(most - 14, value));
  const at: Spot = [
    inside(upper[0] + (lower[0] - upper[0]) / 8, ground.width),
    inside(upper[1] + (lower[1] - upper[1]) / 8, ground.height),
  ];
  return { ...word(other.name), at, reach: 6, towardDeg: 20 };
};

const isDrawn = (other: OtherPath, ground: Ground): boolean => {
  if (other.line) return seenPart(endsOf(other, ground), ground) !== null;
  // What moves is drawn from where it begins.
  const [x, y] = ground.at(other.points[0]!);
  return x > 0 && x < ground.width && y > 0 && y < ground.height;
};

/** An arrow on the edge towards what lies outside the drawing, with its name and how far it is from the last foot. */
const pointerTo = (
  other: OtherPath,
  { track, footfalls }: Layout,
  ground: Ground,
  feet: boolean,
): { x: number; y: number; deg: number; ask: LabelAsk } => {
  const [p, q] = other.line ? [other.points[0]!, other.points[1]!] : [other.points[0]!, null];
  const target = q
    ? { besideM: (p.besideM + q.besideM) / 2, aheadM: (p.aheadM + q.aheadM) / 2 }
    : p;
  const from = footfalls.at(-1) ?? track.at(-1)!;
  const [fx, fy] = ground.at(from);
  const [tx, ty] = ground.at(target);
  const within = (part: number): boolean => {
    const [x, y] = [fx + (tx - fx) * part, fy + (ty - fy) * part];
    return x > EDGE && x < ground.width - EDGE && y > EDGE && y < ground.height - EDGE;
  };
  let [low, high] = [0, 1];
  for (let i = 0; i < 24; i += 1) {
    const middle = (low + high) / 2;
    if (within(middle)) low = middle;
    else high = middle;
  }
  const [x, y] = [fx + (tx - fx) * low, fy + (ty - fy) * low];
  const deg = (Math.atan2(ty - fy, tx - fx) * 180) / Math.PI;
  const farM = Math.hypot(target.besideM - from.besideM, target.aheadM - from.aheadM);
  const far = feet ? `${Math.round(farM * FEET_PER_M)} ft` : `${farM.toFixed(farM < 10 ? 1 : 0)} m`;
  return {
    ...{ x, y, deg },
    ask: { ...word(`${other.name}, ${far}`), at: [x, y], reach: EDGE, towardDeg: deg + 180 },
  };
};

/** The room of whoever or whatever stands somewhere. */
const standBoxes = (other: OtherPath, ground: Ground): Box[] =>
  other.line || other.points.length === 0
    ? []
    : [ground.at(other.points[0]!)].map(([x, y]) => ({
        x: x - STANDS,
        y: y - STANDS,
        width: 2 * STANDS,
        height: 2 * STANDS,
      }));

const markAsk = (mark: Mark, ground: Ground): LabelAsk => ({
  ...word(mark.label),
  at: ground.at(mark),
  reach: SIGN + 2,
  towardDeg: 90,
});

/** Ways that end nearer than this to each other, or to where they part, are not told apart by a name: pixels. */
const APART = 56;

const apartBy = ([x, y]: Spot, [x2, y2]: Spot): number => Math.hypot(x - x2, y - y2);

/** The names of other exits, at the end of what is seen of each; in a heap none could be read. */
const branchAsks = (branches: readonly Branch[], ground: Ground): LabelAsk[] => {
  const ways = branches.flatMap(({ name, points }) => {
    const spots = points.map(ground.at);
    const end = spots.findLast(
      ([x, y]) => x > 20 && x < ground.width - 20 && y > 12 && y < ground.height - 6,
    );
    return end ? [{ name, from: spots[0]!, end }] : [];
  });
  return ways
    .filter(
      (way) =>
        apartBy(way.from, way.end) > APART &&
        ways.every((other) => other === way || apartBy(other.end, way.end) > APART),
    )
    .map(({ name, end }) => ({ ...word(name), at: end, reach: 5, towardDeg: 0 }));
};

const signBox = (mark: Mark, ground: Ground): Box => {
  const [x, y] = ground.at(mark);
  return { x: x - SIGN, y: y - SIGN, width: 2 * SIGN, height: 2 * SIGN };
};

/** Free room of a size, the nearest to a spot; none where everything is taken. */
const roomFor = (
  width: number,
  height: number,
  room: Box,
  solid: readonly Box[],
  near: Spot,
): Box | null => {
  let best: { box: Box; off: number } | null = null;
  for (let x = room.x; x + width <= room.x + room.width; x += 12) {
    for (let y = room.y; y + height <= room.y + room.height; y += 12) {
      const box = { x, y, width, height };
      const off = Math.hypot(x + width / 2 - near[0], y + height / 2 - near[1]);
      if ((!best || off < best.off) && !solid.some((other) => meet(box, other, 4))) {
        best = { box, off };
      }
    }
  }
  return best?.box ?? null;
};

/** A crowd drawn larger, its numbers in it; null where that would not help. */
const insetOf = (
  prints: readonly Print[],
  ground: Ground,
  shoeM: number,
  letter: string,
): Omit<Inset, 'frame'> | null => {
  const places = prints.map((print) => print.fall);
  const of = around(
    prints.map((print) => print.box),
    3,
  );
  // The frame grows with what is in it; it must fit the drawing.
  const once = nearer(ground, places, ground.pixelsPerM, AROUND_M + shoeM / 2);
  const larger = Math.min(
    MOST_LARGER,
    Math.min(INSET.width, ground.width - 12) / once.width,
    INSET.height / once.height,
    INSET.largestPixelsPerM / ground.pixelsPerM,
  );
  if (larger < WORTH || prints[0]!.length > PLAIN) return null;
  const own = nearer(ground, places, ground.pixelsPerM * larger, AROUND_M + shoeM / 2);
  const large = places.map((fall) => printOf(fall, own, soleOn(own, shoeM)));
  const solid = large.map((print) => print.box);
  const room = { x: 2, y: 2, width: own.width - 4, height: own.height - 4 };
  const asks = [...spotsOf(large.filter((print) => print.fall.n > 0)).map(numberAsk)];
  const placed = placeLabels(asks, room, solid);
  // Every number must find its room, or the crowd stays as it is.
  if (placed.some((label) => !label)) return null;
  return {
    letter,
    ground: own,
    of,
    prints: large,
    tags: placed.flatMap((label): Tag[] => (label ? [{ ...label, kind: 'n' }] : [])),
  };
};

/** The bar of the scale: a metre, or three feet. */
const scalePixels = (ground: Ground, feet: boolean): number =>
  ground.pixelsPerM * (feet ? 0.9144 : 1);

/**
 * Composes the drawing of a layout: prints to scale, crowded places in insets, and every label where
 * nothing lies under it.
 *
 * @param over another layout that is laid over it, as faint prints without numbers
 */
export const pictureOf = ({
  layout,
  over = null,
  branches = [],
  shoeM,
  width,
  maxHeight,
  zoom = 1,
  feet = false,
}: {
  layout: Layout;
  over?: Layout | null;
  branches?: readonly Branch[];
  shoeM: number;
  width: number;
  maxHeight: number;
  zoom?: number;
  feet?: boolean;
}): Picture => {
  const ground = groundOf(over ? [layout, over] : [layout], shoeM, width, maxHeight, zoom);
  const prints = layout.footfalls.map((fall) => printOf(fall, ground, soleOn(ground, shoeM)));
  const numbered = spotsOf(prints.filter((print) => print.fall.n > 0));
  const signs = layout.marks.map((mark) => signBox(mark, ground));
  const lines = layout.others.flatMap((other) =>
    other.points.length > 1 ? [other.points.map(ground.at)] : [],
  );
  const ways = branches.map((branch) => branch.points.map(ground.at));
  const track = layout.track.map(ground.at);
  const thin = [...lines, ...ways, track].flatMap((spots) => alongLine(spots));
  const overPrints = (over?.footfalls ?? []).map((fall) =>
    printOf(fall, ground, soleOn(ground, shoeM)),
  );
  const stands = layout.others.flatMap((other) => standBoxes(other, ground));
  const beyond = layout.others
    .filter((other) => !isDrawn(other, ground) && !['edge', 'line'].includes(other.kind))
    .map((other) => pointerTo(other, layout, ground, feet));
  const solid = [
    ...[...prints, ...overPrints].map((print) => print.box),
    ...signs,
    ...stands,
    ...beyond.map(({ x, y }) => around([{ x, y, width: 0, height: 0 }], POINTER)),
  ];
  // Where the names of what lies outside will stand.
  const names = beyond.map(({ x, y, ask }) => ({
    ...{ x: x - ask.width - EDGE, y: y - 2 * LINE },
    ...{ width: 2 * (ask.width + EDGE), height: 4 * LINE },
  }));
  let height = ground.height;
  const room = (): Box => ({ x: 3, y: 3, width: width - 6, height: height - 6 });

  // A corner if one is free, else wherever along the lower or upper edge nothing lies, else a new row below.
  const corner = (wide: number, high: number): Box => {
    const clearAt = (y: number): Box | undefined => {
      const [right, left] = [width - wide - 8, 8];
      const between = Array.from({ length: 16 }, (_, i) => right + ((left - right) * (i + 1)) / 17);
      return [right, left, ...between]
        .map((x) => ({ x, y, width: wide, height: high }))
        .find((box) => ![...solid, ...thin, ...names].some((other) => meet(box, other, 3)));
    };
    const clear = clearAt(height - high - 6) ?? clearAt(6);
    if (clear) return clear;
    height += high + 8;
    const y = height - high - 4;
    return clearAt(y) ?? { x: width - wide - 8, y, width: wide, height: high };
  };
  const scaled = scalePixels(ground, feet);
  const scale = corner(Math.max(scaled, 30) + 4, 26);
  solid.push(scale);
  const compass = corner(62, 18);
  solid.push(compass);

  const drawnHeight = height;
  const insets: Inset[] = [];
  // Both rows of feet in one inset; where they are too many for it, what lies over one another.
  const crowds = crowdsOf(prints, numbered, ROWS_APART)
    .flatMap((rows) =>
      insetOf(rows, ground, shoeM, '')
        ? [rows]
        : crowdsOf(rows, spotsOf(rows.filter((print) => print.fall.n > 0)), TOUCHING),
    )
    .sort((a, b) => b.length - a.length);
  for (const crowd of crowds.slice(0, MOST_INSETS)) {
    const letter = String.fromCharCode(65 + insets.length);
    const found = insetOf(crowd, ground, shoeM, letter);
    if (!found) continue;
    const { width: wide, height: high } = found.ground;
    const from = middleOf(found.of);
    const free = roomFor(wide, high, room(), [...solid, ...thin], from);
    const under = {
      x: Math.max(4, Math.min(width - wide - 4, from[0] - wide / 2)),
      y: height + 4,
      width: wide,
      height: high,
    };
    // One row under the drawing is enough.
    if (!free && height > drawnHeight) continue;
    if (!free) height += high + 10;
    const frame = free ?? under;
    solid.push(frame);
    insets.push({ ...found, frame });
  }
  const inInset = new Set(insets.flatMap((inset) => inset.prints.map((print) => print.fall)));
  // Where an edge or a line lies outside the drawing its name would stand at nothing.
  const seen = layout.others.filter((other) => isDrawn(other, ground));
  // Things of one name, such as bags, are named once.
  const things = seen
    .filter(
      ({ name, kind }, i) =>
        seen.findIndex((path) => path.name === name && path.kind === kind) === i,
    )
    .map((other) => thingAsk(other, ground, feet));
  const called = new Set(layout.others.map((other) => other.name.toLowerCase()));
  const wordedMarks = layout.marks.filter(
    (mark, i) =>
      mark.label !== '' &&
      !['box', 'lane'].includes(mark.kind) &&
      !called.has(mark.label.toLowerCase()) &&
      !layout.marks
        .slice(0, i)
        .some((other) => other.label === mark.label && meet(signs[i]!, signBox(other, ground), 40)),
  );
  const asks: { kind: Tag['kind']; ask: LabelAsk }[] = [
    ...numbered
      .filter(([first]) => !inInset.has(first!.fall))
      .map((spot) => ({ kind: 'n' as const, ask: numberAsk(spot) })),
    ...insets.map((inset) => ({
      kind: 'letter' as const,
      ask: {
        text: inset.letter,
        at: middleOf(inset.of),
        reach: Math.min(inset.of.width, inset.of.height) / 2 + 2,
        towardDeg: -90,
        width: 12,
        height: LINE,
      },
    })),
    ...beyond.map(({ ask }) => ({ kind: 'thing' as const, ask })),
    ...things.map((ask) => ({ kind: 'thing' as const, ask })),
    ...wordedMarks.map((mark) => ({ kind: 'mark' as const, ask: markAsk(mark, ground) })),
    ...branchAsks(branches, ground).map((ask) => ({ kind: 'branch' as const, ask })),
  ];
  const placed = placeLabels(
    asks.map(({ ask }) => ask),
    room(),
    solid,
    thin,
    insets.map((inset) => inset.frame),
  );
  return {
    ground,
    height,
    prints,
    overPrints,
    tags: placed.flatMap((label, i): Tag[] => (label ? [{ ...label, kind: asks[i]!.kind }] : [])),
    insets,
    pointers: beyond.map(({ x, y, deg }) => ({ x, y, deg })),
    scale: { box: scale, pixels: scaled },
    compass,
  };
};
