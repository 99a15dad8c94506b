import type { Layout } from '@gravek/core';
import { scaleLinear } from 'd3-scale';
import { memo } from 'react';
import { useTime, type Player } from '../hearing/player';
import { useWidth } from './useWidth';

const HEIGHT = 92;
const LEFT = 12;
const RIGHT = 16;
const AXIS_Y = 34;

type Named = { code: string; name: string };

const Ticks = memo(
  ({ layout, width, phases }: { layout: Layout; width: number; phases: readonly Named[] }) => {
    const x = scaleLinear([0, Math.max(0.1, layout.totalTimeS)], [LEFT, width - RIGHT]);
    const nameOf = (code: string): string => phases.find((one) => one.code === code)?.name ?? code;
    return (
      <>
        <line x1={LEFT} x2={width - RIGHT} y1={AXIS_Y} y2={AXIS_Y} stroke="var(--ink-quiet)" />
        {layout.footfalls
          .filter((fall) => fall.n > 0)
          .map((fall, i) => (
            <line
              key={i}
              x1={x(fall.timeS)}
              x2={x(fall.timeS)}
              y1={AXIS_Y}
              y2={fall.foot === 'left' ? AXIS_Y - 20 : AXIS_Y + 16}
              stroke={fall.contact === 'step' ? 'var(--ink)' : 'var(--clay)'}
              strokeWidth="3"
            />
          ))}
        {layout.phases.map((phase, i) => {
          const [from, to] = [x(phase.fromS), x(Math.min(phase.toS, layout.totalTimeS))];
          const name = nameOf(phase.code);
          const fits = to - from > 6.3 * name.length;
          return (
            <g key={`${phase.code}${i}`}>
              <path
                d={`M${from + 1},58 V63 H${Math.max(from + 2, to - 1)} V58`}
                className="phase-span"
              />
              {fits && (
                <text className="quiet-label" x={(from + to) / 2} y={77} textAnchor="middle">
                  {name}
                </text>
              )}
            </g>
          );
        })}
        {x.ticks(Math.min(8, Math.max(2, Math.floor(width / 120)))).map((second) => (
          <text
            key={second}
            className="quiet-label"
            x={x(second)}
            y={HEIGHT - 2}
            textAnchor="middle"
          >
            {second} s
          </text>
        ))}
      </>
    );
  },
);

const Cursor = ({ layout, width, player }: { layout: Layout; width: number; player: Player }) => {
  const timeS = useTime(player);
  const at = LEFT + ((width - LEFT - RIGHT) * timeS) / Math.max(0.1, layout.totalTimeS);
  return <line className="beat-cursor" x1={at} x2={at} y1={6} y2={66} />;
};

/** One tick a contact on a time axis, left above and right below, and which phase they belong to. */
export const PhaseBeats = ({
  layout,
  phases,
  player,
}: {
  layout: Layout;
  phases: readonly Named[];
  player?: Player;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(900);
  return (
    <div ref={ref}>
      <svg
        className="strip"
        width={width}
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="img"
        aria-label={`The rhythm: ${layout.footfalls.filter((fall) => fall.n > 0).length} contacts in ${layout.totalTimeS.toFixed(1)} seconds, by phase`}
      >
        <Ticks layout={layout} width={width} phases={phases} />
        {player && <Cursor layout={layout} width={width} player={player} />}
      </svg>
    </div>
  );
};
