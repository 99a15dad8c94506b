import type { Layout } from '@gravek/core/layout/shape';
import { groundOf } from './ground';

const WIDTH = 168;
const HEIGHT = 92;

/** A sequence as small as a stamp: hollow left feet, filled right ones, and the way between them. */
export const PlanThumb = ({ layout }: { layout: Layout }) => {
  const near = { ...layout, others: [], marks: [] };
  const ground = groundOf([near], 0, WIDTH + 70, HEIGHT + 56);
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
        {layout.footfalls.map((fall, i) => {
          const [x, y] = ground.at(fall);
          const color = fall.contact === 'step' ? 'var(--ink)' : 'var(--clay)';
          return (
            <ellipse
              key={i}
              cx={x}
              cy={y}
              rx="4.6"
              ry="2.5"
              transform={`rotate(${ground.turn(fall.headingDeg)} ${x} ${y})`}
              fill={fall.foot === 'left' ? 'var(--surface)' : color}
              stroke={color}
              strokeWidth="1.2"
            />
          );
        })}
      </g>
    </svg>
  );
};
