import type { Layout } from '@gravek/core/layout/shape';
import { groundOf } from './ground';
import { printOf, Prints } from './prints';

const WIDTH = 168;
const HEIGHT = 92;
/** How long a sole is drawn, pixels: larger than to scale, or it would be a dot. */
const SOLE_PX = 11;

/** A sequence as small as a stamp: hollow left feet, filled right ones, and the way between them. */
export const PlanThumb = ({ layout }: { layout: Layout }) => {
  const near = { ...layout, others: [], marks: [] };
  const ground = groundOf([near], 0, WIDTH + 58, HEIGHT + 50);
  const shift = `translate(${(WIDTH - ground.width) / 2},${(HEIGHT - ground.height) / 2})`;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden
      className="thumb"
    >
      <g transform={shift}>
        <polyline
          className="plan-track"
          points={layout.track.map((point) => ground.at(point).join(',')).join(' ')}
        />
        <Prints prints={layout.footfalls.map((fall) => printOf(fall, ground, SOLE_PX))} />
      </g>
    </svg>
  );
};
