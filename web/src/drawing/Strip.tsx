import { formatLength } from '@gravek/core/units';
import { Fragment, useMemo } from 'react';
import type { Player } from '../hearing/player';
import { PrintHandles } from './PrintHandles';
import { Moving } from './prints';
import { runM, stretchesOf } from './stretches';
import { END_HEAD } from './StripFlag';
import { heightOf, type Props, Still } from './StripStill';
import { useWidth } from './useWidth';

/** The run-up to scale, target at the right: prints, tape in the coach's units, marks; short steps anew below. */
export const Strip = ({
  layout,
  pinned,
  style,
  shoeM,
  laneM,
  player,
  zoom = 1,
  onPin,
}: Props & {
  /** absent for a still drawing */
  player?: Player | undefined;
  zoom?: number;
  /** pins a step to a length, or lets go of it; absent where nothing may be changed */
  onPin?: ((step: number, lengthM: number | null) => void) | undefined;
}) => {
  const [ref, seen] = useWidth<HTMLDivElement>(1100);
  const width = Math.round(seen * zoom);
  const { main, end } = useMemo(() => stretchesOf(layout, style, width), [layout, style, width]);
  const mainHeight = heightOf(layout, main);
  const stretches = [
    { stretch: main, top: 0 },
    ...(end ? [{ stretch: end, top: mainHeight + END_HEAD }] : []),
  ];
  return (
    <div ref={ref} className="zoomed" tabIndex={zoom > 1 ? 0 : undefined}>
      <div style={{ width, position: 'relative' }}>
        {stretches.map(({ stretch, top }) => (
          <Fragment key={top}>
            {stretch === end && (
              <div className="strip-end" style={{ height: END_HEAD }}>
                <strong>A</strong> the last {formatLength(end.fromM, style)}, enlarged
              </div>
            )}
            <Still
              layout={layout}
              pinned={pinned}
              style={style}
              shoeM={shoeM}
              laneM={laneM}
              stretch={stretch}
              opens={stretch === main ? end : null}
              width={width}
            />
            {player && (
              <svg
                className="strip over"
                style={{ top }}
                width={width}
                height={heightOf(layout, stretch)}
                aria-hidden
              >
                <Moving
                  layout={layout}
                  ground={stretch.ground}
                  player={player}
                  fromM={runM(layout) - stretch.fromM - 1e-9}
                />
              </svg>
            )}
          </Fragment>
        ))}
        {onPin && (
          <PrintHandles
            falls={layout.footfalls}
            pinned={pinned}
            style={style}
            place={(fall) => {
              const { stretch, top } = stretches.find(({ stretch: { falls } }) =>
                falls.includes(fall),
              )!;
              const [x, y] = stretch.ground.at(fall);
              return { x: x - 10, y: top + y, pixels: stretch.ground.pixelsPerM };
            }}
            onPin={onPin}
          />
        )}
      </div>
    </div>
  );
};
