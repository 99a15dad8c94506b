import type { Layout, OtherPath, Place, TrackPoint } from '@gravek/core';
import { bisector } from 'd3-array';

/** Where places of a layout lie in a drawing, and how headings turn there. */
export type Ground = {
  width: number;
  height: number;
  pixelsPerM: number;
  /** ahead runs to the right, or up */
  ahead: 'right' | 'up';
  at: (place: Place) => [x: number, y: number];
  /** degrees to turn something that is drawn pointing to the right */
  turn: (headingDeg: number) => number;
};

const MARGIN = { x: 46, y: 34 };
const MAX_PIXELS_PER_M = 190;
const ALONG = 1.25;

/** Far things are drawn, but do not make the feet small: so far around the feet still counts, metres. */
const NEAR_M = 1.6;

const boundsOf = (layout: Layout): { low: Place; high: Place } => {
  const feet: Place[] = [...layout.footfalls, ...layout.track, ...layout.marks];
  const reach = (pick: (place: Place) => number): [number, number] => {
    const own = feet.map(pick);
    const [low, high] = [Math.min(...own), Math.max(...own)];
    const others = layout.others.flatMap((other) => other.points.map(pick));
    const bars = layout.others.flatMap((other) =>
      other.kind === 'bar' ? other.points.map(pick) : [],
    );
    return [
      Math.min(low, ...bars, ...others.filter((value) => value > low - NEAR_M)),
      Math.max(high, ...bars, ...others.filter((value) => value < high + NEAR_M)),
    ];
  };
  const beside = reach((place) => place.besideM);
  const ahead = reach((place) => place.aheadM);
  return {
    low: { besideM: beside[0], aheadM: ahead[0] },
    high: { besideM: beside[1], aheadM: ahead[1] },
  };
};

/** Fits a layout into a drawing of a width, at most so high, the longer way across. */
export const groundOf = (layout: Layout, width: number, maxHeight: number, zoom = 1): Ground => {
  const { low, high } = boundsOf(layout);
  const beside = Math.max(0.6, high.besideM - low.besideM);
  const ahead = Math.max(0.6, high.aheadM - low.aheadM);
  const across = ahead > ALONG * beside || width > 620;
  const [wideM, highM] = across ? [ahead, beside] : [beside, ahead];
  const pixelsPerM = Math.min(
    MAX_PIXELS_PER_M * zoom,
    (width - 2 * MARGIN.x) / wideM,
    (maxHeight - 2 * MARGIN.y) / highM,
  );
  const height = Math.max(150, Math.round(highM * pixelsPerM + 2 * MARGIN.y));
  const middle = {
    besideM: (low.besideM + high.besideM) / 2,
    aheadM: (low.aheadM + high.aheadM) / 2,
  };
  return {
    width,
    height,
    pixelsPerM,
    ahead: across ? 'right' : 'up',
    at: ({ besideM, aheadM }) =>
      across
        ? [
            width / 2 + (aheadM - middle.aheadM) * pixelsPerM,
            height / 2 + (besideM - middle.besideM) * pixelsPerM,
          ]
        : [
            width / 2 + (besideM - middle.besideM) * pixelsPerM,
            height / 2 - (aheadM - middle.aheadM) * pixelsPerM,
          ],
    turn: (headingDeg) => (across ? headingDeg : headingDeg - 90),
  };
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
