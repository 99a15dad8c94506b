import type { RunUpSpread } from '@gravek/core/runup/simulateRunUps';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { useWidth } from './useWidth';

const HEIGHT = 132;
const LEFT = 8;
const HISTOGRAM = 150;
const BASE = 104;

/** How the spread grows step by step, blind and steered, and where the last foot falls. */
export const SpreadChart = ({
  blind,
  shown,
  style,
}: {
  blind: RunUpSpread;
  shown: RunUpSpread;
  style: LengthStyle;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const right = width - HISTOGRAM - 40;
  const n = blind.steps.length;
  const most = Math.max(...blind.steps.map((step) => step.sdM), 0.01);
  const x = scaleLinear([0, n], [LEFT, right]);
  const y = scaleLinear([0, most], [BASE, 22]);
  const points = [{ n: 0, sdM: 0 }, ...blind.steps];
  const steered = [{ n: 0, sdM: 0 }, ...shown.steps];
  const blindArea = area<{ n: number; sdM: number }>()
    .x((step) => x(step.n))
    .y0(BASE)
    .y1((step) => y(step.sdM))(points);
  const shownLine = line<{ n: number; sdM: number }>(
    (step) => x(step.n),
    (step) => y(step.sdM),
  )(steered);
  const bins = shown.bins;
  const tallest = Math.max(...bins.map((bin) => bin.count));
  const bx = scaleLinear([bins[0]!.fromM, bins.at(-1)!.toM], [width - HISTOGRAM, width - 6]);
  const small = { ...style, small: true };
  return (
    <div ref={ref}>
      <svg
        className="chart"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The spread grows to ${formatLength(blind.sdM, small)} blind and ${formatLength(shown.sdM, small)} steered by eye`}
      >
        <path d={blindArea ?? ''} className="spread-blind" />
        <path d={shownLine ?? ''} className="spread-eyed" />
        <line x1={LEFT} x2={right} y1={BASE} y2={BASE} stroke="var(--ink-quiet)" />
        {points
          .filter((step) => step.n > 0 && (step.n === n || step.n % Math.ceil(n / 8) === 0))
          .map((step) => (
            <text key={step.n} x={x(step.n)} y={BASE + 16} textAnchor="middle">
              {step.n}
            </text>
          ))}
        <text x={LEFT} y={14}>
          spread after each step: blind (area), by eye (line)
        </text>
        <text x={right + 6} y={y(blind.sdM) + 4}>
          {formatLength(blind.sdM, small)}
        </text>
        {Math.abs(y(shown.sdM) - y(blind.sdM)) > 12 && (
          <text x={right + 6} y={y(shown.sdM) + 4} className="strong">
            {formatLength(shown.sdM, small)}
          </text>
        )}
        {bins.map((bin) => (
          <rect
            key={bin.fromM}
            x={bx(bin.fromM) + 0.4}
            width={Math.max(0.5, bx(bin.toM) - bx(bin.fromM) - 0.8)}
            y={BASE - (72 * bin.count) / tallest}
            height={(72 * bin.count) / tallest}
            className="spread-bin"
          />
        ))}
        <line x1={bx(0)} x2={bx(0)} y1={26} y2={BASE} stroke="var(--ink)" strokeWidth="1.6" />
        <text x={bx(0)} y={BASE + 16} textAnchor="middle">
          aim
        </text>
        <text x={width - HISTOGRAM} y={BASE + 16}>
          short
        </text>
        <text x={width - 6} y={BASE + 16} textAnchor="end">
          past
        </text>
      </svg>
    </div>
  );
};
