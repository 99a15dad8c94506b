import type { Layout } from '@gravek/core/layout/shape';
import type { Footfall } from '@gravek/core/layout/walker';
import { memo } from 'react';
import { useTime, type Player } from '../hearing/player';
import { FootPrint } from './FootPrint';
import { bodyAt, otherAt, type Ground } from './ground';
import type { Box, Spot } from './labels';

/** A footfall as it lies in a drawing, pixels; its toe at (x, y). */
export type Print = {
  fall: Footfall;
  x: number;
  y: number;
  turnDeg: number;
  length: number;
  box: Box;
};

/** How wide a sole is to its length. */
export const SOLE = 0.4;

/** @param length of the sole, pixels */
export const printOf = (fall: Footfall, ground: Ground, length: number): Print => {
  const [x, y] = ground.at(fall);
  const turnDeg = ground.turn(fall.headingDeg);
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  const half = (length * SOLE) / 2;
  const wide = (Math.abs(length * cos) + Math.abs(2 * half * sin)) / 2;
  const high = (Math.abs(length * sin) + Math.abs(2 * half * cos)) / 2;
  const middle: Spot = [x - (length / 2) * cos, y - (length / 2) * sin];
  return {
    ...{ fall, x, y, turnDeg, length },
    box: { x: middle[0] - wide, y: middle[1] - high, width: 2 * wide, height: 2 * high },
  };
};

const colorOf = (fall: Footfall, phase: string | null): string => {
  if (fall.n === 0) return 'var(--ink-quiet)';
  if (phase !== null && fall.phase !== phase) return 'var(--rule)';
  return fall.contact === 'step' ? 'var(--ink)' : 'var(--clay)';
};

/**
 * Prints where they lie: left hollow, right filled, plain steps in ink.
 *
 * @param phase only this one is inked; null for all
 * @param color of all of them, where they are of something laid over
 */
export const Prints = memo(
  ({
    prints,
    phase = null,
    color,
  }: {
    prints: readonly Print[];
    phase?: string | null;
    color?: string;
  }) =>
    prints.map(({ fall, x, y, turnDeg, length }, i) => (
      <g key={i} transform={`rotate(${turnDeg} ${x} ${y})`}>
        <FootPrint
          x={x}
          y={y}
          length={length}
          foot={fall.foot}
          color={color ?? colorOf(fall, phase)}
        />
      </g>
    )),
);

/** The body, the foot that has just landed, and whoever else moves, at the moment that is played. */
export const Moving = ({
  layout,
  ground,
  player,
  fromM = -Infinity,
}: {
  layout: Layout;
  ground: Ground;
  player: Player;
  /** nothing is drawn while the body is not so far ahead */
  fromM?: number;
}) => {
  const timeS = useTime(player);
  // At rest nothing stands on the last print.
  if (timeS >= layout.totalTimeS) return null;
  const body = bodyAt(layout, timeS);
  if (body.aheadM < fromM) return null;
  const [x, y] = ground.at(body);
  const landed = layout.footfalls.findLast((fall) => fall.n > 0 && fall.timeS <= timeS + 1e-9);
  return (
    <g className="plan-moving">
      {layout.others.map((other, i) => {
        if (other.line) return null;
        const [ox, oy] = ground.at(otherAt(other, timeS));
        return (
          <circle
            key={i}
            className={`other-${other.kind}`}
            cx={ox}
            cy={oy}
            r={other.kind === 'ball' ? 5 : 9}
          />
        );
      })}
      {landed && landed.aheadM >= fromM && (
        <circle className="landed" cx={ground.at(landed)[0]} cy={ground.at(landed)[1]} r="15" />
      )}
      <g transform={`translate(${x},${y}) rotate(${ground.turn(body.facingDeg)})`}>
        <ellipse className="body" rx="6" ry="13" />
        <path className="nose" d="M6,-4 L12,0 L6,4" />
      </g>
    </g>
  );
};
