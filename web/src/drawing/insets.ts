import { type Ground, nearer } from './ground';
import { type Label, type Box, type Spot, type LabelAsk, meet, placeLabels } from './labels';
import { CHARACTER, LINE } from './names';
import { type Print, SOLE, printOf } from './prints';

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

const MIN_PRINT = 12;
/** Prints nearer than this to each other are one spot: they get one number, metres. */
const SAME_SPOT_M = 0.05;
/** An inset is worth its room from so much larger. */
const WORTH = 1.5;
/** Prints of this length are large enough, pixels. */
const PLAIN = 36;
const MOST_LARGER = 3.6;
const INSET = { width: 420, height: 200, largestPixelsPerM: 320 };
const AROUND_M = 0.24;
/** Spots that touch, from so many on, are a crowd. */
const CROWD = 3;
export const TOUCHING = -1;
export const ROWS_APART = 4;
/** Crowds nearer than this to each other are one, pixels. */
const BETWEEN = 16;

/** How long a sole is drawn on a ground, pixels. */
export const soleOn = (ground: Ground, shoeM: number): number =>
  Math.max(MIN_PRINT, shoeM * ground.pixelsPerM);

export const middleOf = ({ x, y, width, height }: Box): Spot => [x + width / 2, y + height / 2];

export const around = (boxes: readonly Box[], by: number): Box => {
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
export const spotsOf = (prints: readonly Print[]): Print[][] => {
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
export const numberAsk = (spot: readonly Print[]): LabelAsk => {
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
export const crowdsOf = (
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

/** Free room of a size, the nearest to a spot; none where everything is taken. */
export const roomFor = (
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
export const insetOf = (
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
  const insetGround = nearer(ground, places, ground.pixelsPerM * larger, AROUND_M + shoeM / 2);
  const large = places.map((fall) => printOf(fall, insetGround, soleOn(insetGround, shoeM)));
  const solid = large.map((print) => print.box);
  const room = { x: 2, y: 2, width: insetGround.width - 4, height: insetGround.height - 4 };
  const asks = [...spotsOf(large.filter((print) => print.fall.n > 0)).map(numberAsk)];
  const placed = placeLabels(asks, room, solid);
  // Every number must find its room, or the crowd stays as it is.
  if (placed.some((label) => !label)) return null;
  return {
    letter,
    ground: insetGround,
    of,
    prints: large,
    tags: placed.flatMap((label): Tag[] => (label ? [{ ...label, kind: 'n' }] : [])),
  };
};
