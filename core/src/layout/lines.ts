import type { GoalArc, Mark } from './ground';
import type { OtherPath } from './otherThings';
import type { Bar } from './runUp';
import { between, moved, type Place } from './walker';

/** A line that is on the ground already, so far before what it is measured from: goal, bar or a target. */
export type GroundLine = { name: string; of: string; fromM: number };

/** Beyond the feet by no more than this a line still helps to find a mark, metres. */
const BEYOND_M = 1;
/** How far a line is drawn to each side of a lane, metres. */
const HALF_WIDTH_M = 1;

const laid = (name: string, from: Place, to: Place): OtherPath => ({
  kind: 'edge',
  name,
  line: true,
  points: [from, to].map((end) => ({ ...end, timeS: 0 })),
});

/**
 * The lines of a ground as they lie in a layout: those measured from a keeper's goal, from a bar, or from
 * the target of the run, by its name. Lines out of reach are left out, and so is what is measured from
 * something else.
 */
export const groundLines = (
  lines: readonly GroundLine[],
  { arc, bar, marks }: { arc: GoalArc | null; bar: Bar | null; marks: readonly Mark[] },
): OtherPath[] => {
  const start = marks.find((mark) => mark.kind === 'start')!;
  const target = marks.find((mark) => mark.kind === 'target');
  return lines.flatMap(({ name, of, fromM }): OtherPath[] => {
    if (arc && of === 'goal') {
      if (fromM > arc.radiusM + BEYOND_M) return [];
      // As wide as the arc is there, and wide enough to be seen across a lane.
      const half = Math.sqrt(
        Math.max(HALF_WIDTH_M ** 2, (arc.radiusM + BEYOND_M) ** 2 - fromM ** 2),
      );
      const middle = moved(arc.centre, 0, fromM);
      return [laid(name, moved(middle, 90, -half), moved(middle, 90, half))];
    }
    if (bar && of === 'bar') {
      const { from, to, outDeg } = bar;
      if (fromM > between(start, from) + BEYOND_M) return [];
      return [laid(name, moved(from, outDeg, fromM), moved(to, outDeg, fromM))];
    }
    if (target?.label !== of || fromM > between(start, target) + BEYOND_M) return [];
    const at = moved(target, target.headingDeg, -fromM);
    const across = target.headingDeg + 90;
    return [laid(name, moved(at, across, -HALF_WIDTH_M), moved(at, across, HALF_WIDTH_M))];
  });
};
