/** Level lines of a chart with their figures at the left. */
export const GridLines = ({
  ticks,
  y,
  from,
  to,
  write,
}: {
  ticks: readonly number[];
  y: (value: number) => number;
  /** where the lines begin and end, pixels */
  from: number;
  to: number;
  write: (value: number) => string;
}) =>
  ticks.map((tick) => (
    <g key={tick}>
      <line x1={from} x2={to} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
      <text x={from - 6} y={y(tick) + 4} textAnchor="end">
        {write(tick)}
      </text>
    </g>
  ));
