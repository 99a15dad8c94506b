import type { Layout } from '@gravek/core/layout/shape';
import type { Branch } from '@gravek/library/planning/branches';
import { type Ground, groundOf } from './ground';
import { alongLine, type Box, type LabelAsk, meet, placeLabels } from './labels';
import { type Print, printOf } from './prints';
import {
  LINE,
  signBox,
  standBoxes,
  isDrawn,
  pointerTo,
  EDGE,
  thingAsk,
  markAsk,
  branchAsks,
} from './names';
import {
  type Tag,
  type Inset,
  soleOn,
  spotsOf,
  around,
  crowdsOf,
  ROWS_APART,
  insetOf,
  TOUCHING,
  middleOf,
  roomFor,
  numberAsk,
} from './insets';

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
const MOST_INSETS = 2;
/** The room of the arrow at what lies outside, to each side of its middle, pixels. */
const POINTER = 9;

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
