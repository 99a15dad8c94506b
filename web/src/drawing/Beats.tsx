import type { StraightPlan } from '@gravek/core';
import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useTime, type Player } from '../hearing/player';
import { withRoom } from './room';
import { useWidth } from './useWidth';

const HEIGHT = 116;
const LEFT = 34;
const RIGHT = 26;
const AXIS_Y = 74;

const Cursor = ({ player, x }: { player: Player; x: (timeS: number) => number }) => {
  const at = x(useTime(player));
  return <line className="beat-cursor" x1={at} x2={at} y1={14} y2={AXIS_Y + 22} />;
};

/** One tick a step on a time axis, left above and right below, with the cadence over it. */
export const Beats = ({ plan, player }: { plan: StraightPlan; player?: Player }) => {
  const [ref, width] = useWidth<HTMLDivElement>(1100);
  const { steps, totalTimeS } = plan;
  const x = scaleLinear([0, totalTimeS], [LEFT, width - RIGHT]);
  const [low = 0, high = 1] = extent(steps, (step) => step.cadenceSpm);
  const y = scaleLinear([low, Math.max(high, low + 1)], [40, 20]);
  const path = line<(typeof steps)[number]>(
    (step) => x(step.timeS),
    (step) => y(step.cadenceSpm),
  )(steps);
  const every = Math.max(1, Math.ceil(steps.length / 6));
  const labelled = steps.filter(
    (step, i) => step.role !== 'build' || i % every === 0 || i === steps.length - 1,
  );
  const shown = withRoom(labelled, (step) => x(step.timeS), 34);
  const seconds = x.ticks(Math.min(8, Math.max(2, Math.floor(totalTimeS * 2))));
  return (
    <div ref={ref}>
      <svg
        className="strip"
        width={width}
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="img"
        aria-label={`The rhythm: ${steps.length} contacts in ${totalTimeS.toFixed(1)} seconds, cadence from ${Math.round(steps[0]!.cadenceSpm)} to ${Math.round(steps.at(-1)!.cadenceSpm)} steps a minute`}
      >
        <line x1={LEFT} x2={width - RIGHT} y1={AXIS_Y} y2={AXIS_Y} stroke="var(--ink-quiet)" />
        <path d={path ?? ''} fill="none" stroke="var(--ink-quiet)" strokeWidth="1.6" />
        {steps.map((step) => {
          const at = x(step.timeS);
          const color = step.role === 'build' ? 'var(--ink)' : 'var(--clay)';
          return (
            <g key={step.n}>
              <line
                x1={at}
                x2={at}
                y1={AXIS_Y}
                y2={step.foot === 'left' ? AXIS_Y - 22 : AXIS_Y + 18}
                stroke={color}
                strokeWidth="3"
              />
              {shown.has(step) && (
                <text
                  className="quiet-label"
                  x={at}
                  y={y(step.cadenceSpm) - 7}
                  textAnchor={step.n === steps.length ? 'end' : 'middle'}
                >
                  {Math.round(step.cadenceSpm)}
                </text>
              )}
            </g>
          );
        })}
        {seconds.map((second) => (
          <text
            key={second}
            className="quiet-label"
            x={x(second)}
            y={HEIGHT - 6}
            textAnchor="middle"
          >
            {second} s
          </text>
        ))}
        {player && <Cursor player={player} x={x} />}
        <text className="quiet-label" x={2} y={y(low) + 4}>
          spm
        </text>
      </svg>
    </div>
  );
};
