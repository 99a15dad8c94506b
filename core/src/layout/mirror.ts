import { otherFoot } from '../feet';
import { turned } from './walker';
import type { Layout } from './shape';

const across = <T extends { besideM: number }>(place: T): T => ({
  ...place,
  besideM: place.besideM === 0 ? 0 : -place.besideM,
});
const turn = (deg: number): number => (deg === 0 ? 0 : turned(-deg));

/**
 * The whole layout seen in a mirror that stands along the starting line: right becomes left and each
 * foot the other. The mirror of the mirror is the original.
 */
export const mirrorLayout = (layout: Layout): Layout => ({
  ...layout,
  mirrored: !layout.mirrored,
  footfalls: layout.footfalls.map((fall) => ({
    ...across(fall),
    foot: otherFoot(fall.foot),
    headingDeg: turn(fall.headingDeg),
    facingDeg: turn(fall.facingDeg),
  })),
  marks: layout.marks.map((mark) => ({ ...across(mark), headingDeg: turn(mark.headingDeg) })),
  track: layout.track.map((point) => ({ ...across(point), facingDeg: turn(point.facingDeg) })),
  others: layout.others.map((other) => ({
    ...other,
    ...(other.twin && { name: other.twin, twin: other.name }),
    points: other.points.map(across),
  })),
  curve: layout.curve && {
    ...layout.curve,
    takeoffFoot: otherFoot(layout.curve.takeoffFoot),
    footfalls: layout.curve.footfalls.map((fall) => ({ ...fall, foot: otherFoot(fall.foot) })),
  },
  failure: layout.failure && {
    ...layout.failure,
    startFoot: otherFoot(layout.failure.startFoot),
  },
});
