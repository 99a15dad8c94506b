import { BAND } from '@gravek/core/measuring/deviceCourse';
import { FOOT_M, formatLength, type LengthUnit } from '@gravek/core/units';
import type { MeasuredPer, MeasuredRow } from '@gravek/library/measuring/measuredRows';
import { extent, max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { area, curveStepAfter, line } from 'd3-shape';
import { useWidth } from './useWidth';

const PAD = { left: 34, right: 12, top: 8, bottom: 18 };

/** What is drawn of a row. */
export type MeasuredWhat = 'Spm' | 'Mps' | 'M';

const isMetric = (unit: LengthUnit): boolean => unit === 'metric' || unit === 'shoes';

/** What the figures of a chart are. */
export const chartUnit = (what: MeasuredWhat, unit: LengthUnit): string =>
  what === 'Spm'
    ? 'steps a minute'
    : `${isMetric(unit) ? 'metres' : 'feet'}${what === 'Mps' ? ' a second' : ''}`;

const DIGITS: Record<MeasuredWhat, number> = { Spm: 0, Mps: 1, M: 2 };
const UNITS: Record<MeasuredPer, (at: number, unit: LengthUnit) => string> = {
  step: (at) => `step ${at}`,
  second: (at) => `${at.toFixed(0)} s`,
  minute: (at) => `min ${at}`,
  gate: (at, unit) => formatLength(at, { unit }),
};

/** Rows that are read out one by one. */
const READ_OUT = 24;

type Drawn = { at: number; seen: number | null; planned: number | null };

/** A measured run over its plan: what was planned as a line with its band, what was run as dots. */
export const MeasuredChart = ({
  per,
  rows,
  what,
  unit,
  height = 96,
}: {
  per: MeasuredPer;
  rows: readonly MeasuredRow[];
  what: MeasuredWhat;
  unit: LengthUnit;
  height?: number;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(320);
  const inUnit = (figure: number | null): number | null =>
    figure === null || what === 'Spm' || isMetric(unit) ? figure : figure / FOOT_M;
  const drawn = rows.map((row): Drawn => ({
    at: row.at,
    seen: inUnit(row[`seen${what}`]),
    planned: inUnit(row[`planned${what}`]),
  }));
  const values = drawn.flatMap(({ seen, planned }) => [seen ?? [], planned ?? []].flat());
  const [low = 0, high = 1] = extent(values);
  const room = Math.max((high - low) * 0.12, high * 0.05, 0.01);
  const last = max(drawn, ({ at }) => at) ?? 1;
  const first = drawn[0]?.at ?? 0;
  // A row stands for what follows it, up to the next.
  const each = drawn.length > 1 ? (last - first) / (drawn.length - 1) : 1;
  const x = scaleLinear([first, last + each], [PAD.left, width - PAD.right]);
  const y = scaleLinear([Math.max(0, low - room), high + room], [height - PAD.bottom, PAD.top]);
  const plannedPoints = drawn.filter((point) => point.planned !== null);
  const end = plannedPoints.at(-1);
  // The last one is drawn as wide as the others.
  const steps = end ? [...plannedPoints, { ...end, at: end.at + each }] : [];
  const planned = line<Drawn>(
    ({ at }) => x(at),
    (point) => y(point.planned!),
  ).curve(curveStepAfter)(steps);
  const band = area<Drawn>()
    .x(({ at }) => x(at))
    .y0((point) => y(point.planned! * (1 - BAND)))
    .y1((point) => y(point.planned! * (1 + BAND)))
    .curve(curveStepAfter)(steps);
  const middle = (at: number): number => x(at + each / 2);
  const write = (value: number): string => value.toFixed(DIGITS[what]);
  const read = drawn
    .filter(({ seen }) => seen !== null)
    .slice(0, READ_OUT)
    .map(
      ({ at, seen, planned: was }) =>
        `${UNITS[per](at, unit)}: ${write(seen!)}${was === null ? '' : `, planned ${write(was)}`}`,
    );
  const ticks = y.ticks(3);
  return (
    <div ref={ref}>
      <svg
        className="chart"
        width={width}
        height={height}
        role="img"
        aria-label={`${chartUnit(what, unit)}. ${read.join('; ')}`}
      >
        {ticks.map((tick) => (
          <g key={tick}>
            <line
              x1={PAD.left}
              x2={width - PAD.right}
              y1={y(tick)}
              y2={y(tick)}
              stroke="var(--rule)"
              strokeWidth="0.8"
            />
            <text x={PAD.left - 5} y={y(tick) + 4} textAnchor="end">
              {write(tick)}
            </text>
          </g>
        ))}
        <path d={band ?? ''} fill="var(--ink-quiet)" fillOpacity="0.18" />
        <path d={planned ?? ''} fill="none" stroke="var(--ink-quiet)" strokeWidth="1.6" />
        {drawn.map(
          ({ at, seen, planned: was }, i) =>
            seen !== null && (
              <circle
                key={i}
                cx={middle(at)}
                cy={y(seen)}
                r={drawn.length > 40 ? 2.4 : 4}
                fill={
                  was !== null && Math.abs(seen - was) > BAND * was ? 'var(--clay)' : 'var(--ink)'
                }
              />
            ),
        )}
        {[drawn[0], drawn.length > 1 ? drawn.at(-1) : undefined].map(
          (point, i) =>
            point && (
              <text
                key={i}
                x={i === 0 ? PAD.left : width - PAD.right}
                y={height - 4}
                textAnchor={i === 0 ? 'start' : 'end'}
              >
                {UNITS[per](point.at, unit)}
              </text>
            ),
        )}
      </svg>
    </div>
  );
};
