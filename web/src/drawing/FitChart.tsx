import type { StepModelFit } from '@gravek/core/runup/fitStepModel';
import { modelCadenceSpm, modelLengthM } from '@gravek/core/runup/stepModel';
import { lengthParts, type LengthStyle } from '@gravek/core/units';
import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { GridLines } from './GridLines';
import { useWidth } from './useWidth';

const HEIGHT = 210;
const MARGIN = { left: 46, right: 12, top: 14, bottom: 30 };

type Mark = { k: number; value: number; outlier: boolean };

const Panel = ({
  title,
  last,
  marks,
  curve,
  write,
}: {
  title: string;
  /** the last step that was measured */
  last: number;
  marks: readonly Mark[];
  curve: (k: number) => number;
  write: (value: number) => string;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(420);
  const ks = Array.from({ length: (last - 1) * 8 + 1 }, (_, i) => 1 + i / 8);
  const [low = 0, high = 1] = extent([...marks.map((m) => m.value), ...ks.map(curve)]);
  const x = scaleLinear([0.6, last + 0.4], [MARGIN.left, width - MARGIN.right]);
  const y = scaleLinear([low, high], [HEIGHT - MARGIN.bottom - 8, MARGIN.top + 6]).nice(4);
  const path = line<number>(
    (k) => x(k),
    (k) => y(curve(k)),
  )(ks);
  const odd = marks.filter((mark) => mark.outlier).length;
  return (
    <div ref={ref}>
      <h2>{title}</h2>
      <svg
        className="chart"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={
          marks.length === 0
            ? `${title}: the estimate, no step was timed`
            : `${title}: ${marks.length} measured steps and the fitted curve${odd ? `, ${odd} far from it` : ''}`
        }
      >
        <GridLines
          ticks={y.ticks(4)}
          y={y}
          from={MARGIN.left}
          to={width - MARGIN.right}
          write={write}
        />
        {Array.from({ length: last }, (_, i) => i + 1)
          .filter((k) => last <= 16 || k % 5 === 0 || k === 1)
          .map((k) => (
            <text key={k} x={x(k)} y={HEIGHT - 10} textAnchor="middle">
              {k}
            </text>
          ))}
        <path d={path ?? ''} fill="none" stroke="var(--mark)" strokeWidth="2.2" />
        {marks.map((mark, i) =>
          mark.outlier ? (
            <g key={i} stroke="var(--clay)" strokeWidth="2.4">
              <path
                d={`M${x(mark.k) - 5},${y(mark.value) - 5} l10,10 m0,-10 l-10,10`}
                fill="none"
              />
              <text
                x={x(mark.k) + (mark.k > last * 0.7 ? -9 : 9)}
                y={y(mark.value) + 4}
                textAnchor={mark.k > last * 0.7 ? 'end' : 'start'}
                stroke="none"
                className="strong"
              >
                step {mark.k}: check
              </text>
            </g>
          ) : (
            <circle
              key={i}
              cx={x(mark.k)}
              cy={y(mark.value)}
              r="3.6"
              fill="var(--ink)"
              fillOpacity="0.75"
            />
          ),
        )}
      </svg>
    </div>
  );
};

/**
 * Measured steps with the fitted curve through them: lengths and cadence by step number; the cadence
 * without marks where no step was timed.
 */
export const FitChart = ({ fit, style }: { fit: StepModelFit; style: LengthStyle }) => {
  const last = Math.max(...fit.steps.map((step) => step.k));
  return (
    <div className="fit-charts">
      <Panel
        title="Step length by step"
        last={last}
        marks={fit.steps.map(({ k, lengthM, oddLength }) => ({
          k,
          value: lengthM,
          outlier: oddLength,
        }))}
        curve={(k) => modelLengthM(fit, k)}
        write={(value) =>
          lengthParts(value, { unit: style.unit === 'shoes' ? 'metric' : style.unit })
            .map(({ figure, unit }) => figure + (unit === '′' || unit === '″' ? unit : ` ${unit}`))
            .join('')
        }
      />
      <Panel
        title={fit.timed ? 'Cadence by step, steps/min' : 'Cadence by step, steps/min (estimate)'}
        last={last}
        marks={fit.steps.flatMap(({ k, cadenceSpm, oddCadence }) =>
          cadenceSpm === null ? [] : [{ k, value: cadenceSpm, outlier: oddCadence }],
        )}
        curve={(k) => modelCadenceSpm(fit, k)}
        write={(value) => String(Math.round(value))}
      />
    </div>
  );
};
