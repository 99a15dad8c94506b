import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useWidth } from './useWidth';
import { dayName } from '../controls/dates';

const HEIGHT = 74;
const PAD = { left: 44, right: 60, top: 12, bottom: 20 };

type Point = { id: string; day: string; value: number; counts: boolean };

const time = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const written = (value: number): string =>
  Math.abs(value) >= 20 ? value.toFixed(0) : value.toFixed(2);

/** A measure over time; the reading that counts is filled. */
export const HistoryChart = ({ label, points }: { label: string; points: readonly Point[] }) => {
  const [ref, width] = useWidth<HTMLDivElement>(420);
  const sorted = [...points].sort((a, b) => time(a.day) - time(b.day));
  const [from = 0, to = 1] = extent(sorted, (point) => time(point.day));
  const [low = 0, high = 1] = extent(sorted, (point) => point.value);
  const room = Math.max((high - low) * 0.15, Math.abs(high) * 0.01, 1e-6);
  const x = scaleLinear([from, Math.max(to, from + 1)], [PAD.left, width - PAD.right]);
  const y = scaleLinear([low - room, high + room], [HEIGHT - PAD.bottom, PAD.top]);
  const path = line<Point>(
    (point) => x(time(point.day)),
    (point) => y(point.value),
  )(sorted);
  return (
    <div ref={ref}>
      <svg
        className="chart"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`${label}: ${sorted.map((point) => `${written(point.value)} on ${dayName(point.day)}`).join(', ')}`}
      >
        <path d={path ?? ''} fill="none" stroke="var(--ink-quiet)" strokeWidth="1.4" />
        {sorted.map((point) => (
          <circle
            key={point.id}
            cx={x(time(point.day))}
            cy={y(point.value)}
            r="4.5"
            fill={point.counts ? 'var(--ink)' : 'var(--surface)'}
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        ))}
        {[sorted[0]!, sorted.at(-1)!].map((point, i) => (
          <g key={point.id}>
            <text
              x={x(time(point.day)) + (i ? 9 : -9)}
              y={y(point.value) + 4}
              textAnchor={i ? 'start' : 'end'}
              className="strong"
            >
              {written(point.value)}
            </text>
            <text x={x(time(point.day))} y={HEIGHT - 4} textAnchor={i ? 'end' : 'start'}>
              {dayName(point.day)}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
};
