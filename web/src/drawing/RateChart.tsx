import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import type { SessionCount } from '@gravek/core/cue/faultRate';
import type { RateBand } from '@gravek/core/cue/rateBand';
import { scaleLinear, scaleUtc } from 'd3-scale';
import { area, line } from 'd3-shape';
import { format } from 'date-fns';
import { GridLines } from './GridLines';
import { useWidth } from './useWidth';

const HEIGHT = 132;
const MARGIN = { left: 38, right: 46, top: 10, bottom: 22 };

/** The rate as it stood after a session, with what that session showed. */
export type RatePoint = SessionCount & Pick<RateBand, 'rate' | 'low' | 'high'>;

const date = (point: RatePoint): Date => new Date(`${point.date}T12:00:00`);

/** How often a fault shows, session by session: the rate, its 5–95 % band, and what was counted. */
export const RateChart = ({ name, points }: { name: string; points: readonly RatePoint[] }) => {
  const [ref, width] = useWidth<HTMLDivElement>(460);
  const first = date(points[0]!);
  const last = date(points.at(-1)!);
  const x = scaleUtc(
    [first, points.length > 1 ? last : new Date(first.getTime() + 864e5)],
    [MARGIN.left, width - MARGIN.right],
  );
  const y = scaleLinear([0, 1], [HEIGHT - MARGIN.bottom, MARGIN.top]);
  const band = area<RatePoint>()
    .x((point) => x(date(point)))
    .y0((point) => y(point.low))
    .y1((point) => y(point.high));
  const path = line<RatePoint>(
    (point) => x(date(point)),
    (point) => y(point.rate),
  );
  const now = points.at(-1)!;
  const months = points.length > 1 ? x.ticks(Math.max(2, Math.floor(width / 110))) : [first];
  const percent = (rate: number): string => `${Math.round(rate * 100)} %`;
  return (
    <div ref={ref}>
      <svg
        className="chart"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`${name}: ${percent(now.rate)} of reps, between ${percent(now.low)} and ${percent(now.high)}, over ${points.length} sessions`}
      >
        <GridLines
          ticks={[0, 0.5, 1]}
          y={y}
          from={MARGIN.left}
          to={width - MARGIN.right}
          write={percent}
        />
        <line
          x1={MARGIN.left}
          x2={width - MARGIN.right}
          y1={y(LIVE_RATE)}
          y2={y(LIVE_RATE)}
          stroke="var(--clay)"
          strokeDasharray="5 4"
        />
        <path d={band(points) ?? ''} fill="var(--mark)" fillOpacity="0.18" />
        <path d={path(points) ?? ''} fill="none" stroke="var(--mark)" strokeWidth="2.4" />
        {points.map((point, i) => (
          <circle
            key={i}
            cx={x(date(point))}
            cy={y(point.faults / point.reps)}
            r={Math.min(5, 1.6 + Math.sqrt(point.reps) * 0.6)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.3"
          >
            <title>{`${format(date(point), 'd MMM')}: ${point.faults} of ${point.reps} reps`}</title>
          </circle>
        ))}
        <text className="strong" x={width - MARGIN.right + 6} y={y(now.rate) + 4}>
          {percent(now.rate)}
        </text>
        {months.map((tick) => (
          <text key={tick.getTime()} x={x(tick)} y={HEIGHT - 5} textAnchor="middle">
            {format(tick, 'd MMM')}
          </text>
        ))}
      </svg>
    </div>
  );
};
