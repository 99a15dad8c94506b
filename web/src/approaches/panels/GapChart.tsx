import { inFrontTracks, type RaceMoment } from '@gravek/core/curve/inFront';
import type { Body } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import {
  type Front,
  type FrontChoice,
  frontInput,
  HORIZON_S,
  type Turn,
} from '@gravek/library/planning/givingGround';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useWidth } from '../../drawing/useWidth';
import { type Player, useTime } from '../../hearing/player';

const HEIGHT = 300;
const PAD = { left: 44, right: 14, top: 22, bottom: 26 };
/** So far past the defender the curve is still drawn, metres. */
const BELOW_M = -0.8;

type Scale = (value: number) => number;

const Now = ({ player, x }: { player: Player; x: Scale }) => {
  const timeS = Math.min(HORIZON_S, useTime(player));
  return (
    <line
      x1={x(timeS)}
      x2={x(timeS)}
      y1={PAD.top}
      y2={HEIGHT - PAD.bottom}
      className="beat-cursor"
    />
  );
};

/** The gap over time: by both ways of turning at full speed, and to the runner who is held. */
export const Gaps = ({
  chosen,
  body,
  taught,
  front,
  style,
  player,
}: {
  chosen: FrontChoice;
  body: Body;
  taught: Turn;
  front: Front;
  style: LengthStyle;
  player: Player;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const tracks = (turn: Turn, fraction: number): RaceMoment[] =>
    inFrontTracks(frontInput(chosen, body, turn, { fraction }), 121);
  const other: Turn = taught === 'slide' ? 'open' : 'slide';
  const lines = [
    { key: 'held', className: 'held', at: tracks(taught, front.drawn) },
    { key: 'other', className: 'other', at: tracks(other, 1) },
    { key: 'me', className: 'me', at: tracks(taught, 1) },
  ];
  const most = Math.max(1, ...lines.flatMap(({ at }) => at.map(({ gapM }) => gapM)));
  const x = scaleLinear([0, HORIZON_S], [PAD.left, width - PAD.right]);
  const y = scaleLinear([BELOW_M, most], [HEIGHT - PAD.bottom, PAD.top]);
  const path = line<RaceMoment>(
    ({ timeS }) => x(timeS),
    ({ gapM }) => y(gapM),
  );
  /** A curve until it leaves the picture. */
  const drawn = (at: readonly RaceMoment[]): RaceMoment[] => {
    const gone = at.findIndex(({ gapM }) => gapM < BELOW_M);
    return gone < 0 ? [...at] : at.slice(0, gone);
  };
  return (
    <div ref={ref}>
      <svg
        className="chart race"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The gap over time. Against full speed beaten after ${front.frontS.toFixed(1)} s; the runner who is drawn runs at ${partWords(front.drawn)}.`}
      >
        <rect
          x={PAD.left}
          width={Math.max(0, width - PAD.left - PAD.right)}
          y={y(chosen.keepM)}
          height={Math.max(0, HEIGHT - PAD.bottom - y(chosen.keepM))}
          className="beaten"
        />
        <text x={PAD.left + 6} y={y(chosen.keepM) + 15} className="alert-text">
          beaten
        </text>
        {y.ticks(4).map((metre) => (
          <g key={metre}>
            <line
              x1={PAD.left}
              x2={width - PAD.right}
              y1={y(metre)}
              y2={y(metre)}
              className="grid"
            />
            <text x={PAD.left - 6} y={y(metre) + 4} textAnchor="end">
              {style.unit === 'metric' ? `${metre} m` : `${(metre / 0.3048).toFixed(1)} ft`}
            </text>
          </g>
        ))}
        {lines.map(({ key, className, at }) => (
          <path key={key} d={path(drawn(at)) ?? ''} className={className} />
        ))}
        <line
          x1={x(front.turnAtS)}
          x2={x(front.turnAtS)}
          y1={PAD.top}
          y2={HEIGHT - PAD.bottom}
          className="moment"
        />
        <text x={x(front.turnAtS) + 5} y={PAD.top - 6} className="strong">
          turn, {front.turnAtS.toFixed(2)} s
        </text>
        {x.ticks(6).map((second) => (
          <text key={second} x={x(second)} y={HEIGHT - 8} textAnchor="middle">
            {second} s
          </text>
        ))}
        <Now player={player} x={x} />
      </svg>
      <ul className="race-keys small-text" aria-label="The lines">
        <li className="me">{TURN_NAMES[taught]}, full speed</li>
        <li className="other">{TURN_NAMES[other]}, full speed</li>
        <li className="held">the runner who is drawn, {partWords(front.drawn)} of full speed</li>
      </ul>
    </div>
  );
};

export const TURN_NAMES: Record<Turn, string> = {
  slide: 'slide, then cross over',
  open: 'hips open at once',
};

/** A part of a runner's speed in hundredths, as it is told. */
export const partWords = (part: number | null): string =>
  part === null ? 'under 20 %' : `${Math.round(part * 100)} %`;
