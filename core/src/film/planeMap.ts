import { Matrix, solve } from 'ml-matrix';
import { number } from '../check';

/** A place in a picture, pixels from its upper left corner, down positive. */
export type PicturePoint = { x: number; y: number };
/** A place on the ground, metres. */
export type GroundPoint = { alongM: number; acrossM: number };
/** A mark that is seen in the picture and known on the ground. */
export type MarkPair = { px: PicturePoint; ground: GroundPoint };

/** From picture to ground: (x, y, 1) times the three rows, the first two divided by the third. */
export type PlaneFit = {
  rows: readonly number[];
  /** how far marks lie from where the map puts them, root mean square, metres */
  rmsM: number;
};

type Flat = { x: number; y: number };

/** Points moved to their middle and scaled to about one: solving is exact to many more digits so. */
const normalising = (points: readonly Flat[]): { to: (p: Flat) => Flat; matrix: Matrix } => {
  const mx = points.reduce((sum, p) => sum + p.x, 0) / points.length;
  const my = points.reduce((sum, p) => sum + p.y, 0) / points.length;
  const spread = points.reduce((sum, p) => sum + Math.hypot(p.x - mx, p.y - my), 0) / points.length;
  const scale = Math.SQRT2 / (spread || 1);
  return {
    to: ({ x, y }) => ({ x: (x - mx) * scale, y: (y - my) * scale }),
    matrix: new Matrix([
      [scale, 0, -mx * scale],
      [0, scale, -my * scale],
      [0, 0, 1],
    ]),
  };
};

const through = (rows: readonly number[], { x, y }: Flat): Flat & { w: number } => {
  const [a, b, c, d, e, f, g, h, i] = rows as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const w = g * x + h * y + i;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w, w };
};

/** How far the flattest corner of three points is from lying on a line, 0 to 1. */
const openness = (a: Flat, b: Flat, c: Flat): number => {
  const cross = Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  const longest = Math.max(
    Math.hypot(a.x - b.x, a.y - b.y),
    Math.hypot(b.x - c.x, b.y - c.y),
    Math.hypot(c.x - a.x, c.y - a.y),
  );
  return longest === 0 ? 0 : cross / longest ** 2;
};

/** Under this three marks count as on a line: a pixel moves the ground by metres then. */
const ON_A_LINE = 2e-3;

/** Whether four of the points are such that no three of them lie on a line. */
const hasFourApart = (points: readonly Flat[]): boolean => {
  const apart = (i: number, j: number, k: number): boolean =>
    openness(points[i]!, points[j]!, points[k]!) > ON_A_LINE;
  const n = points.length;
  for (let i = 0; i < n; i += 1)
    for (let j = i + 1; j < n; j += 1)
      for (let k = j + 1; k < n; k += 1) {
        if (!apart(i, j, k)) continue;
        for (let l = k + 1; l < n; l += 1)
          if (apart(i, j, l) && apart(i, k, l) && apart(j, k, l)) return true;
      }
  return false;
};

/** The eight free numbers, the ninth being 1, that put `from` onto `to` best in their products. */
const linearFit = (from: readonly Flat[], to: readonly Flat[]): number[] => {
  const rows: number[][] = [];
  const right: number[][] = [];
  from.forEach(({ x, y }, i) => {
    const { x: u, y: v } = to[i]!;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push([u], [v]);
  });
  return [...solve(new Matrix(rows), new Matrix(right)).to1DArray(), 1];
};

/** Gauss and Newton on the distances themselves, which the products only stand for. */
const refined = (first: number[], from: readonly Flat[], to: readonly Flat[]): number[] => {
  let rows = first;
  for (let round = 0; round < 20; round += 1) {
    const slopes: number[][] = [];
    const misses: number[][] = [];
    from.forEach((p, i) => {
      const { x: u, y: v, w } = through(rows, p);
      const [x, y] = [p.x / w, p.y / w];
      slopes.push([x, y, 1 / w, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1 / w, -v * x, -v * y]);
      misses.push([to[i]!.x - u], [to[i]!.y - v]);
    });
    const step = solve(new Matrix(slopes), new Matrix(misses)).to1DArray();
    rows = rows.map((value, i) => value + (step[i] ?? 0));
    if (Math.max(...step.map(Math.abs)) < 1e-12) break;
  }
  return rows;
};

/**
 * The projective map from a picture to flat ground by marks that are known on both: exact with four,
 * least squares of the distances on the ground with more.
 *
 * @param pairs at least four, among them four of which no three lie on a line
 * @throws {RangeError} when there are too few, they lie on a line, or no camera could see them so
 * @example
 * const at = (x, y, alongM, acrossM) => ({ px: { x, y }, ground: { alongM, acrossM } });
 * const pairs = [at(0, 0, 0, 0), at(100, 0, 10, 0), at(100, 50, 10, 5), at(0, 50, 0, 5)];
 * fitPlane(pairs).rmsM < 1e-9 // true
 * Source: Hartley and Zisserman, Multiple View Geometry, ch. 4 (normalised direct linear transform,
 *   then Gauss-Newton)
 */
export const fitPlane = (pairs: readonly MarkPair[]): PlaneFit => {
  if (pairs.length < 4) throw new RangeError(`pairs must be at least four, got ${pairs.length}`);
  pairs.forEach(({ px, ground }, i) => {
    number(`pairs[${i}].px.x`, px?.x);
    number(`pairs[${i}].px.y`, px?.y);
    number(`pairs[${i}].ground.alongM`, ground?.alongM);
    number(`pairs[${i}].ground.acrossM`, ground?.acrossM);
  });
  const picture = pairs.map(({ px }) => px);
  const onGround = pairs.map(({ ground }) => ({ x: ground.alongM, y: ground.acrossM }));
  if (!hasFourApart(picture) || !hasFourApart(onGround)) {
    throw new RangeError('pairs must hold four marks of which no three lie on a line');
  }
  const a = normalising(picture);
  const b = normalising(onGround);
  const from = picture.map(a.to);
  const to = onGround.map(b.to);
  const linear = linearFit(from, to);
  const fitted = pairs.length > 4 ? refined(linear, from, to) : linear;
  const whole = new Matrix([fitted.slice(0, 3), fitted.slice(3, 6), fitted.slice(6, 9)]);
  const rows = solve(b.matrix, whole).mmul(a.matrix).to1DArray();
  const seen = picture.map((p) => through(rows, p));
  // Whatever is seen lies before the camera: the third row has one sign over all of it.
  if (seen.some(({ w }) => !Number.isFinite(w) || w * seen[0]!.w <= 0)) {
    throw new RangeError(
      'pairs must be seen as a camera sees flat ground; two may be changed over',
    );
  }
  const sign = Math.sign(seen[0]!.w);
  const squares = seen.reduce(
    (sum, { x, y }, i) => sum + (x - onGround[i]!.x) ** 2 + (y - onGround[i]!.y) ** 2,
    0,
  );
  return { rows: rows.map((value) => value * sign), rmsM: Math.sqrt(squares / pairs.length) };
};

/**
 * The place on the ground that is seen at a point of the picture.
 *
 * @throws {RangeError} when the point lies on or above the horizon
 * @example
 * const at = (x, y, alongM, acrossM) => ({ px: { x, y }, ground: { alongM, acrossM } });
 * const pairs = [at(0, 0, 0, 0), at(100, 0, 10, 0), at(100, 50, 10, 5), at(0, 50, 0, 5)];
 * groundAt(fitPlane(pairs), { x: 50, y: 25 }).alongM.toFixed(3) // '5.000'
 */
export const groundAt = ({ rows }: PlaneFit, point: PicturePoint): GroundPoint => {
  const { x, y, w } = through(rows, point);
  if (!(w > 0) || !Number.isFinite(x + y)) {
    throw new RangeError('point must lie on the ground, below the horizon');
  }
  return { alongM: x, acrossM: y };
};

/**
 * Where a place on the ground is seen in the picture; null behind the camera.
 *
 * @example
 * const at = (x, y, alongM, acrossM) => ({ px: { x, y }, ground: { alongM, acrossM } });
 * const pairs = [at(0, 0, 0, 0), at(100, 0, 10, 0), at(100, 50, 10, 5), at(0, 50, 0, 5)];
 * pictureAt(fitPlane(pairs), { alongM: 5, acrossM: 2.5 }).x.toFixed(1) // '50.0'
 */
export const pictureAt = (
  { rows }: PlaneFit,
  { alongM, acrossM }: GroundPoint,
): PicturePoint | null => {
  const m = new Matrix(
    [rows.slice(0, 3), rows.slice(3, 6), rows.slice(6, 9)].map((row) => [...row]),
  );
  const [x, y, w] = solve(m, new Matrix([[alongM], [acrossM], [1]])).to1DArray() as [
    number,
    number,
    number,
  ];
  // By the map's sign a place that is seen has a positive third number, and so has its way back.
  return w > 0 ? { x: x / w, y: y / w } : null;
};

/**
 * Fits the map and applies it to points: see `fitPlane` and `groundAt`.
 *
 * @example
 * const at = (x, y, alongM, acrossM) => ({ px: { x, y }, ground: { alongM, acrossM } });
 * const pairs = [at(0, 0, 0, 0), at(100, 0, 10, 0), at(100, 50, 10, 5), at(0, 50, 0, 5)];
 * planeMap({ pairs, points: [{ x: 50, y: 25 }] }).points[0].acrossM.toFixed(3) // '2.500'
 */
export const planeMap = ({
  pairs,
  points,
}: {
  pairs: readonly MarkPair[];
  points: readonly PicturePoint[];
}): { points: GroundPoint[]; rmsM: number } => {
  const fit = fitPlane(pairs);
  return { points: points.map((point) => groundAt(fit, point)), rmsM: fit.rmsM };
};
