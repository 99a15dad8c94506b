import { number, oneOf } from '../check';
import type { Foot } from '../feet';
import { fitPlane, groundAt, type GroundPoint, type MarkPair, type PicturePoint } from './planeMap';
import { stepTrace, type TracedStep } from './stepTrace';

/**
 * How a picture is read as ground: by marks that lie on it, or, seen square from the side, by one known
 * length along the way that is run.
 */
export type FilmView =
  | { kind: 'marks'; pairs: readonly MarkPair[] }
  | { kind: 'side'; from: PicturePoint; to: PicturePoint; lengthM: number };

/** The moment of a frame, and how long before it the frame before was taken; seconds. */
export type FrameTime = { atS: number; gapS: number };

/** A foot as it was marked on a film: where, on which frame first down, on which first up again. */
export type FilmContact = { foot: Foot; at: PicturePoint; on: FrameTime; off: FrameTime | null };

/** A step with what each figure may be off by, one standard deviation. */
export type WatchedStep = TracedStep & {
  lengthSdM: number;
  intervalSdS: number;
  cadenceSdSpm: number;
  speedSdMps: number;
  contactSdS: number | null;
  flightSdS: number | null;
};

export type Watched = {
  contacts: (GroundPoint & { foot: Foot; onS: number; offS: number | null })[];
  steps: WatchedStep[];
  /** how far the marks on the ground lie from the map, root mean square, metres; null from the side */
  rmsM: number | null;
};

/** By how much a press misses what it aims at in a picture, pixels, one standard deviation. */
export const MARK_PX = 1.5;

type Reading = { at: (point: PicturePoint) => GroundPoint; rmsM: number | null };

/**
 * From picture to ground.
 *
 * @throws {RangeError} naming what cannot be: see `fitPlane`; from the side a length that is no length
 */
export const readingOf = (view: FilmView): Reading => {
  if (oneOf('view.kind', view.kind, ['marks', 'side'] as const) === 'marks') {
    const { pairs } = view as Extract<FilmView, { kind: 'marks' }>;
    const fit = fitPlane(pairs);
    return { at: (point) => groundAt(fit, point), rmsM: fit.rmsM };
  }
  const { from, to, lengthM } = view as Extract<FilmView, { kind: 'side' }>;
  number('view.lengthM', lengthM, { above: 0 });
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const lengthPx = Math.hypot(dx, dy);
  number('view.to', lengthPx, { above: 0 });
  const perPx = lengthM / lengthPx;
  return {
    at: ({ x, y }) => ({
      alongM: (((x - from.x) * dx + (y - from.y) * dy) / lengthPx) * perPx,
      // Seen from the side nothing is known of how far apart the feet are.
      acrossM: 0,
    }),
    rmsM: null,
  };
};

/** The same view with one coordinate of one of its marks a little elsewhere, for each of them. */
const nudged = (view: FilmView, px: number): FilmView[] => {
  const move = (point: PicturePoint): PicturePoint[] => [
    { ...point, x: point.x + px },
    { ...point, y: point.y + px },
  ];
  if (view.kind === 'side') {
    return [
      ...move(view.from).map((from) => ({ ...view, from })),
      ...move(view.to).map((to) => ({ ...view, to })),
    ];
  }
  return view.pairs.flatMap((pair, i) =>
    move(pair.px).map((moved) => ({
      ...view,
      pairs: view.pairs.map((pair, k) => (k === i ? { ...pair, px: moved } : pair)),
    })),
  );
};

const lengthsOf = ({ at }: Reading, points: readonly PicturePoint[]): number[] => {
  const ground = points.map(at);
  return ground
    .slice(1)
    .map((to, i) => Math.hypot(to.alongM - ground[i]!.alongM, to.acrossM - ground[i]!.acrossM));
};

/** What steps may be off by, since every press may be off by some pixels: first order, press by press. */
const lengthSds = (view: FilmView, points: readonly PicturePoint[], markPx: number): number[] => {
  const reading = readingOf(view);
  const base = lengthsOf(reading, points);
  const squares = base.map(() => 0);
  const add = (lengths: readonly number[]): void =>
    lengths.forEach((lengthM, i) => {
      squares[i]! += (lengthM - base[i]!) ** 2;
    });
  // A press near the horizon may fall beyond it on one side; where both are impossible a length is not known.
  const addEitherWay = (lengths: (px: number) => number[]): void => {
    for (const px of [markPx, -markPx]) {
      try {
        add(lengths(px));
        return;
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
      }
    }
    add(base.map(() => 0));
  };
  nudged(view, markPx).forEach((_, i) =>
    addEitherWay((px) => lengthsOf(readingOf(nudged(view, px)[i]!), points)),
  );
  points.forEach((point, i) => {
    addEitherWay((px) => lengthsOf(reading, points.with(i, { ...point, x: point.x + px })));
    addEitherWay((px) => lengthsOf(reading, points.with(i, { ...point, y: point.y + px })));
  });
  return squares.map(Math.sqrt);
};

/** Something that happened at any moment since the frame before: evenly spread over that time. */
const gapVariance = ({ gapS }: FrameTime): number => gapS ** 2 / 12;

/**
 * Steps measured on a film, each figure with what it may be off by: a press by some pixels, and
 * what happens between two frames by when it did.
 *
 * @param contacts two or more, in the order of time
 * @param markPx by how much a press misses, one standard deviation
 * @throws {RangeError} when marks cannot be read as ground, or contacts are out of order
 * Source: propagation of errors, first order; a uniform time within a frame has variance gap² ÷ 12
 */
export const watchedSteps = ({
  view,
  contacts,
  markPx = MARK_PX,
}: {
  view: FilmView;
  contacts: readonly FilmContact[];
  markPx?: number;
}): Watched => {
  number('markPx', markPx, { above: 0 });
  const reading = readingOf(view);
  const points = contacts.map((contact) => contact.at);
  const onGround = contacts.map(({ foot, at, on, off }) => ({
    ...reading.at(at),
    foot,
    onS: on.atS,
    offS: off?.atS ?? null,
  }));
  const { steps } = stepTrace({ contacts: onGround });
  const sds = lengthSds(view, points, markPx);
  return {
    contacts: onGround,
    rmsM: reading.rmsM,
    steps: steps.map((step, i): WatchedStep => {
      const [before, now] = [contacts[i]!, contacts[i + 1]!];
      const lengthSdM = sds[i]!;
      const intervalSdS = Math.sqrt(gapVariance(before.on) + gapVariance(now.on));
      const part = intervalSdS / step.intervalS;
      return {
        ...step,
        lengthSdM,
        intervalSdS,
        cadenceSdSpm: step.cadenceSpm * part,
        speedSdMps: step.speedMps * Math.hypot(part, lengthSdM / Math.max(step.lengthM, 1e-9)),
        contactSdS: now.off && Math.sqrt(gapVariance(now.on) + gapVariance(now.off)),
        flightSdS: before.off && Math.sqrt(gapVariance(before.off) + gapVariance(now.on)),
      };
    }),
  };
};
