import type { FrontFigure } from '@gravek/core/body/frontView';
import type { SideFigure } from '@gravek/core/body/posture';
import type { PostureLook } from '@gravek/core/body/keyframes';
import type { Body } from '@gravek/core/layout/body';
import { formatLength } from '@gravek/core/units';
import { useLengthStyle } from '../member/member';
import { Arm, type At, Figure, FRONT_WIDTH, GROUND, pixelsOf, SIZE } from './BodyFigure';

/** The body as somebody in front of it sees it, on its feet as they are laid out. */
export const Front = ({
  figure,
  body,
  topM,
}: {
  figure: FrontFigure;
  body: Body;
  topM: number;
}) => {
  const style = useLengthStyle();
  const pixels = pixelsOf(topM, body);
  // Whoever faces the athlete has the athlete's right on the left.
  const at: At = ({ x, y }) => [FRONT_WIDTH / 2 - x * pixels, GROUND - y * pixels];
  const { left, right } = figure.sides;
  const [head, headY] = at(figure.head);
  const apartM = Math.abs(right.ankle.x - left.ankle.x);
  return (
    <>
      <line className="side-ground" x1={6} x2={FRONT_WIDTH - 6} y1={GROUND} y2={GROUND} />
      {([left, right] as const).map((side) => {
        const hollow = side === left;
        const bones = [side.hip, side.knee, side.ankle].map(at).join(' ');
        return (
          <g key={hollow ? 'left' : 'right'}>
            <g className={hollow ? 'side-leg hollow' : 'side-leg'}>
              <polyline points={bones} className="side-bone" />
              <polyline points={[side.ankle, side.toe].map(at).join(' ')} className="side-hand" />
              {hollow && <polyline points={bones} className="side-core" />}
            </g>
            {side.arm && <Arm arm={side.arm} shoulder={side.shoulder} hollow={hollow} at={at} />}
          </g>
        );
      })}
      <polygon
        className="front-trunk"
        points={[left.shoulder, right.shoulder, right.hip, left.hip].map(at).join(' ')}
      />
      <circle className="side-head" cx={head} cy={headY} r={figure.head.radius * pixels} />
      <g className="side-reach">
        <path d={`M${at(right.ankle)[0]},${GROUND + 8} H${at(left.ankle)[0]}`} />
        <text className="side-angle" x={FRONT_WIDTH / 2} y={GROUND + 26} textAnchor="middle">
          feet {formatLength(apartM, { ...style, small: true })} apart
        </text>
      </g>
    </>
  );
};

export const Sheet = ({
  label,
  width = SIZE.width,
  children,
}: {
  label: string;
  width?: number;
  children: React.ReactNode;
}) => (
  <svg
    className="strip side-view"
    viewBox={`0 0 ${width} ${SIZE.height}`}
    width={width}
    height={SIZE.height}
    role="img"
    aria-label={label}
  >
    {children}
  </svg>
);

/** A body that is held, by itself. */
export const SideStill = ({
  figure,
  looks,
  body,
  wall = false,
  boxM = 0,
}: {
  figure: SideFigure;
  looks: readonly PostureLook[];
  body: Body;
  wall?: boolean | undefined;
  boxM?: number | undefined;
}) => (
  <Sheet label="The body as it is held">
    <Figure
      figure={figure}
      on="right"
      looks={looks}
      body={body}
      topM={Math.max(
        figure.head.y + figure.head.radius,
        ...(figure.arms ? [figure.arms.stance.hand.y, figure.arms.free.hand.y] : []),
      )}
      wall={wall}
      boxM={boxM}
    />
  </Sheet>
);
