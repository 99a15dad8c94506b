import {
  anglesOf,
  type PostureAngles,
  type SideFigure,
  type SideLeg,
  type SidePoint,
} from '@gravek/core/body/posture';
import type { PostureLook } from '@gravek/core/body/keyframes';
import type { Foot } from '@gravek/core/feet';
import type { Body } from '@gravek/core/layout/body';
import { formatLength } from '@gravek/core/units';
import { useLengthStyle } from '../member/member';
import { alongLine, type Box, type LabelAsk, placeLabels, type Spot } from './labels';

export const SIZE = { width: 380, height: 290 };
export const FRONT_WIDTH = 260;
export const GROUND = SIZE.height - 34;
const CHARACTER = 6.4;

export const LOOK_NAMES: Record<PostureLook, string> = {
  trunk: 'Trunk',
  hip: 'Hip',
  knee: 'Knee',
  shin: 'Shin',
  ankle: 'Ankle',
  foot: 'Foot to hip',
};

export const ANGLE: Record<Exclude<PostureLook, 'foot'>, keyof PostureAngles> = {
  trunk: 'trunkLeanDeg',
  hip: 'hipDeg',
  knee: 'kneeDeg',
  shin: 'shinLeanDeg',
  ankle: 'ankleDeg',
};

export const degrees = (angles: PostureAngles, look: Exclude<PostureLook, 'foot'>): string =>
  `${Math.round(angles[ANGLE[look]])}°`;

const Leg = ({
  leg,
  hip,
  hollow,
  at,
}: {
  leg: SideLeg;
  hip: SidePoint;
  hollow: boolean;
  at: At;
}) => {
  const bones = [hip, leg.knee, leg.ankle].map(at).join(' ');
  const foot = [leg.heel, leg.toe, leg.ankle].map(at).join(' ');
  return (
    <g className={hollow ? 'side-leg hollow' : 'side-leg'}>
      <polyline points={bones} className="side-bone" />
      <polygon points={foot} className="side-foot" />
      {hollow && <polyline points={bones} className="side-core" />}
    </g>
  );
};

export type At = (point: SidePoint) => Spot;

export const Arm = ({
  arm: { elbow, wrist, hand },
  shoulder,
  hollow,
  at,
}: {
  arm: { elbow: SidePoint; wrist: SidePoint; hand: SidePoint };
  shoulder: SidePoint;
  hollow: boolean;
  at: At;
}) => {
  const bones = [shoulder, elbow, wrist].map(at).join(' ');
  const palm = [wrist, hand].map(at).join(' ');
  return (
    <g className={hollow ? 'side-arm hollow' : 'side-arm'}>
      <polyline points={bones} className="side-bone" />
      <polyline points={palm} className="side-hand" />
      {hollow && <polyline points={bones} className="side-core" />}
    </g>
  );
};

/** The highest that it comes fits, so that the scale stays as it is while it plays. */
export const pixelsOf = (topM: number, { heightM }: Body): number =>
  (GROUND - 14) / Math.max(topM, ROOMY * heightM);
/** Nobody is drawn larger than standing upright would be. */
const ROOMY = 1.06;

/** The body at a moment: left limbs hollow, right ones filled, angles at the joints that are looked at. */
export const Figure = ({
  figure,
  on,
  looks,
  body,
  topM,
  wall = false,
  boxM = 0,
}: {
  figure: SideFigure;
  /** what it stands on */
  on: Foot;
  looks: readonly PostureLook[];
  body: Body;
  /** how high it ever comes, metres */
  topM: number;
  wall?: boolean;
  boxM?: number;
}) => {
  const style = useLengthStyle();
  const pixels = pixelsOf(topM, body);
  const at: At = ({ x, y }) => [SIZE.width / 2 - 20 + x * pixels, GROUND - y * pixels];
  const angles = anglesOf(figure);
  const legs = { stance: figure.stance, free: figure.free };
  const left = on === 'left' ? legs.stance : legs.free;
  const right = on === 'left' ? legs.free : legs.stance;
  const [hip, shoulder] = [at(figure.hip), at(figure.shoulder)];
  const head: Box = {
    x: at(figure.head)[0] - figure.head.radius * pixels,
    y: at(figure.head)[1] - figure.head.radius * pixels,
    width: 2 * figure.head.radius * pixels,
    height: 2 * figure.head.radius * pixels,
  };
  const thick = (spots: Spot[]): Box[] =>
    alongLine(spots).map((box) => ({ x: box.x - 4, y: box.y - 4, width: 10, height: 10 }));
  const solid = [
    head,
    ...[left, right].flatMap((leg) => [
      ...thick([hip, at(leg.knee), at(leg.ankle)]),
      ...thick([at(leg.heel), at(leg.toe)]),
    ]),
    ...thick([hip, at(figure.back), shoulder]),
    ...(figure.arms
      ? [figure.arms.stance, figure.arms.free].flatMap((arm) =>
          thick([shoulder, at(arm.elbow), at(arm.hand)]),
        )
      : []),
    { x: 0, y: GROUND, width: SIZE.width, height: SIZE.height - GROUND },
  ];
  const middle = (a: SidePoint, b: SidePoint): SidePoint => ({
    x: (a.x + b.x) / 2,
    y: (a.y + b.y) / 2,
  });
  const spots: Record<Exclude<PostureLook, 'foot'>, [SidePoint, number]> = {
    trunk: [middle(figure.hip, figure.shoulder), 190],
    hip: [figure.hip, 200],
    knee: [figure.stance.knee, -20],
    shin: [middle(figure.stance.knee, figure.stance.ankle), 0],
    ankle: [figure.stance.ankle, 180],
  };
  const angleLooks = looks.filter((look) => look !== 'foot');
  const labels = placeLabels(
    angleLooks.map((look): LabelAsk => {
      const text = `${LOOK_NAMES[look].toLowerCase()} ${degrees(angles, look)}`;
      const [point, towardDeg] = spots[look];
      return {
        text,
        at: at(point),
        reach: 8,
        towardDeg,
        width: text.length * CHARACTER + 4,
        height: 15,
      };
    }),
    { x: 2, y: 2, width: SIZE.width - 4, height: SIZE.height - 4 },
    solid,
  );
  const footX = at(figure.stance.ankle)[0];
  const behind = angles.footToHipM < -0.005;
  const ahead = angles.footToHipM > 0.005;
  const shown = formatLength(Math.abs(angles.footToHipM), { ...style, small: true });
  return (
    <>
      <line className="side-ground" x1={6} x2={SIZE.width - 6} y1={GROUND} y2={GROUND} />
      {wall && figure.arms && (
        <line
          className="side-wall"
          x1={at(figure.arms.stance.hand)[0] + 4}
          x2={at(figure.arms.stance.hand)[0] + 4}
          y1={8}
          y2={GROUND}
        />
      )}
      {boxM > 0 && (
        <rect
          className="side-box"
          x={at(figure.stance.heel)[0] - 14}
          y={GROUND - boxM * pixels}
          width={at(figure.stance.toe)[0] - at(figure.stance.heel)[0] + 34}
          height={boxM * pixels}
        />
      )}
      {figure.arms && (
        <Arm arm={figure.arms.free} shoulder={figure.shoulder} hollow={on !== 'left'} at={at} />
      )}
      <Leg leg={on === 'left' ? right : left} hip={figure.hip} hollow={on !== 'left'} at={at} />
      <Leg leg={on === 'left' ? left : right} hip={figure.hip} hollow={on === 'left'} at={at} />
      <path className="side-trunk" d={trunkPath(hip, at(figure.back), shoulder)} />
      <circle
        className="side-head"
        cx={at(figure.head)[0]}
        cy={at(figure.head)[1]}
        r={figure.head.radius * pixels}
      />
      {figure.arms && (
        <Arm arm={figure.arms.stance} shoulder={figure.shoulder} hollow={on === 'left'} at={at} />
      )}
      {looks.includes('foot') && (
        <g className="side-reach">
          <line x1={hip[0]} x2={hip[0]} y1={hip[1] + 8} y2={GROUND + 10} className="plan-lead" />
          <path d={`M${hip[0]},${GROUND + 8} H${footX}`} />
          <text
            className="side-angle"
            x={Math.max(70, Math.min(SIZE.width - 90, (hip[0] + footX) / 2))}
            y={GROUND + 26}
            textAnchor="middle"
          >
            foot{' '}
            {behind
              ? `${shown} behind the hip`
              : ahead
                ? `${shown} ahead of the hip`
                : 'under the hip'}
          </text>
        </g>
      )}
      {labels.map(
        (label) =>
          label && (
            <g key={label.text.split(' ')[0]}>
              {label.lead && (
                <line
                  className="plan-lead"
                  x1={label.lead[0][0]}
                  y1={label.lead[0][1]}
                  x2={label.lead[1][0]}
                  y2={label.lead[1][1]}
                />
              )}
              <text
                className="side-angle"
                x={label.box.x + label.box.width / 2}
                y={label.box.y + 12}
                textAnchor="middle"
              >
                {label.text}
              </text>
            </g>
          ),
      )}
    </>
  );
};

/** Through the middle of the back, bent where it is arched. */
const trunkPath = ([x, y]: Spot, [backX, backY]: Spot, [topX, topY]: Spot): string =>
  `M${x},${y} Q${2 * backX - (x + topX) / 2},${2 * backY - (y + topY) / 2} ${topX},${topY}`;
