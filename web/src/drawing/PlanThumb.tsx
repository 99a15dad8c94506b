import type { Layout } from '@gravek/core/layout/shape';
import { smallGround } from './ground';
import { printOf, Prints } from './prints';

const WIDTH = 168;
const HEIGHT = 92;
/** How long a sole is drawn, pixels: larger than to scale, or it would be a dot. */
const SOLE_PX = 11;

/** A sequence as small as a stamp: hollow left feet, filled right ones, and the way between them. */
export const PlanThumb = ({ layout }: { layout: Layout }) => {
  const near = { ...layout, others: [], marks: [] };
  const ground = smallGround(near, { width: WIDTH, height: HEIGHT, margin: 14 });
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden
      className="thumb"
    >
      <polyline
        className="plan-track"
        points={layout.track.map((point) => ground.at(point).join(',')).join(' ')}
      />
      <Prints prints={layout.footfalls.map((fall) => printOf(fall, ground, SOLE_PX))} />
    </svg>
  );
};
