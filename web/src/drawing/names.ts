import type { Mark } from '@gravek/core/layout/ground';
import type { OtherPath } from '@gravek/core/layout/otherThings';
import type { Layout } from '@gravek/core/layout/shape';
import type { Branch } from '@gravek/library/planning/branches';
import type { Ground } from './ground';
import type { LabelAsk, Spot, Box } from './labels';
export const CHARACTER = { n: 7.4, word: 6.2 };
export const LINE = 14;
const SIGN = 11;
/** What lies outside the drawing is pointed at from so far inside its edge, pixels. */
export const EDGE = 13;
/** How large whoever stands there is drawn, pixels. */
const STANDS = 11;

const word = (...lines: string[]): Pick<LabelAsk, 'text' | 'width' | 'height'> => ({
  text: lines.join('\n'),
  width: Math.max(...lines.map((line) => line.length)) * CHARACTER.word + 4,
  height: lines.length * LINE,
});

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

export const thingAsk = (other: OtherPath, ground: Ground, feet: boolean): LabelAsk => {
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

export const isDrawn = (other: OtherPath, ground: Ground): boolean => {
  if (other.line) return seenPart(endsOf(other, ground), ground) !== null;
  // What moves is drawn from where it begins.
  const [x, y] = ground.at(other.points[0]!);
  return x > 0 && x < ground.width && y > 0 && y < ground.height;
};

/** An arrow on the edge towards what lies outside the drawing, with its name and how far it is from the last foot. */
export const pointerTo = (
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
export const standBoxes = (other: OtherPath, ground: Ground): Box[] =>
  other.line || other.points.length === 0
    ? []
    : [ground.at(other.points[0]!)].map(([x, y]) => ({
        x: x - STANDS,
        y: y - STANDS,
        width: 2 * STANDS,
        height: 2 * STANDS,
      }));

export const markAsk = (mark: Mark, ground: Ground): LabelAsk => ({
  ...word(mark.label),
  at: ground.at(mark),
  reach: SIGN + 2,
  towardDeg: 90,
});

/** Ways that end nearer than this to each other, or to where they part, are not told apart by a name: pixels. */
const APART = 56;

const apartBy = ([x, y]: Spot, [x2, y2]: Spot): number => Math.hypot(x - x2, y - y2);

/** The names of other exits, at the end of what is seen of each; in a heap none could be read. */
export const branchAsks = (branches: readonly Branch[], ground: Ground): LabelAsk[] => {
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

export const signBox = (mark: Mark, ground: Ground): Box => {
  const [x, y] = ground.at(mark);
  return { x: x - SIGN, y: y - SIGN, width: 2 * SIGN, height: 2 * SIGN };
};
