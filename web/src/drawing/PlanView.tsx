import type { Layout, Mark, OtherPath } from '@gravek/core';
import type { Branch } from '@gravek/library';
import { memo } from 'react';
import { FootPrint } from './FootPrint';
import { bodyAt, groundOf, otherAt, type Ground } from './ground';
import { useTime, type Player } from '../hearing/player';
import { useWidth } from './useWidth';

const MIN_PRINT = 13;
const MAX_PRINT = 40;
const LABEL_ROOM = 15;

const Other = ({ other, ground }: { other: OtherPath; ground: Ground }) => {
  const spots = other.points.map(ground.at);
  const [x, y] = spots[0]!;
  if (other.line) {
    const [x2, y2] = spots[1]!;
    const nearX = Math.max(8, Math.min(ground.width - 8, (x + x2) / 2));
    const topY = Math.max(14, Math.min(y, y2) + 12);
    return (
      <g>
        <line
          x1={x}
          y1={y}
          x2={x2}
          y2={y2}
          className={other.name === 'apron' ? 'plan-edge' : 'plan-thing'}
        />
        {other.kind === 'bar' &&
          spots.map(([ux, uy]) => (
            <rect
              key={`${ux}/${uy}`}
              className="plan-upright"
              x={ux - 5}
              y={uy - 5}
              width="10"
              height="10"
            />
          ))}
        <text className="flag-label" x={nearX + 7} y={topY}>
          {other.name}
        </text>
      </g>
    );
  }
  return (
    <g>
      {spots.length > 1 && (
        <polyline className="plan-way" points={spots.map((spot) => spot.join(',')).join(' ')} />
      )}
      <text className="quiet-label" x={x} y={y - 12} textAnchor="middle">
        {other.name}
      </text>
    </g>
  );
};

const MARK_SIGNS: Record<Mark['kind'], string> = {
  start: 'M-5,-9 L-5,9 M-5,-9 L5,-6 L-5,-2',
  check: 'M0,-7 L7,0 L0,7 L-7,0 Z',
  target: 'M0,-12 L0,12',
  shorten: 'M-3,-8 L3,0 L-3,8',
  curve: 'M-6,5 Q2,4 4,-6',
  box: 'M-11,-9 H11 V9 H-11 Z',
  gap: 'M0,-13 L0,13',
  lane: 'M0,-13 L0,13',
  read: 'M-8,0 Q0,-8 8,0 Q0,8 -8,0 Z',
  'take-off': 'M-6,-6 L6,6 M-6,6 L6,-6',
};

const MarkSign = ({ mark, ground }: { mark: Mark; ground: Ground }) => {
  const [x, y] = ground.at(mark);
  // Words stand clear of the prints, which lie along the way.
  const [dx, dy] = ground.ahead === 'right' ? [0, 30] : [26, 4];
  const worded = mark.label !== '' && !['box', 'lane'].includes(mark.kind);
  return (
    <g className="plan-mark">
      <path
        d={MARK_SIGNS[mark.kind]}
        transform={`translate(${x},${y}) rotate(${ground.turn(mark.headingDeg)})`}
      />
      {worded && (
        <text
          className="quiet-label"
          x={x + dx}
          y={y + dy}
          textAnchor={dx > 0 ? 'start' : 'middle'}
        >
          {mark.label}
        </text>
      )}
    </g>
  );
};

/** Everything that does not move. */
const Still = memo(
  ({
    layout,
    ground,
    shoeM,
    phase,
  }: {
    layout: Layout;
    ground: Ground;
    shoeM: number;
    phase: string | null;
  }) => {
    const print = Math.max(MIN_PRINT, Math.min(MAX_PRINT, shoeM * ground.pixelsPerM));
    const labelled: [number, number][] = [];
    const taken: [number, number][] = [];
    return (
      <>
        {layout.others.map((other, i) => (
          <Other key={i} other={other} ground={ground} />
        ))}
        {layout.marks.map((mark, i) => {
          const [x, y] = ground.at(mark);
          const clear = !taken.some(([tx, ty]) => Math.hypot(tx - x, ty - y) < 46);
          if (mark.label) taken.push([x, y]);
          return <MarkSign key={i} mark={clear ? mark : { ...mark, label: '' }} ground={ground} />;
        })}
        <polyline
          className="plan-track"
          points={layout.track.map((point) => ground.at(point).join(',')).join(' ')}
        />
        {layout.footfalls.map((fall, i) => {
          const [x, y] = ground.at(fall);
          const color =
            fall.n === 0
              ? 'var(--ink-quiet)'
              : phase === null || fall.phase === phase
                ? fall.contact === 'step'
                  ? 'var(--ink)'
                  : 'var(--clay)'
                : 'var(--rule)';
          const clear =
            fall.n > 0 && !labelled.some(([lx, ly]) => Math.hypot(lx - x, ly - y) < LABEL_ROOM);
          if (clear) labelled.push([x, y]);
          const side = (fall.foot === 'left' ? -1 : 1) * (print * 0.25 + 9);
          const angle = (ground.turn(fall.headingDeg) * Math.PI) / 180;
          const back = -print * 0.5;
          return (
            <g key={i}>
              <g transform={`rotate(${ground.turn(fall.headingDeg)} ${x} ${y})`}>
                <FootPrint x={x} y={y} length={print} foot={fall.foot} color={color} />
              </g>
              {clear && (
                <text
                  className="plan-n"
                  x={x + back * Math.cos(angle) - side * Math.sin(angle)}
                  y={y + back * Math.sin(angle) + side * Math.cos(angle) + 4}
                  textAnchor="middle"
                >
                  {fall.n}
                </text>
              )}
            </g>
          );
        })}
      </>
    );
  },
);

/** The body, the foot that has just landed, and whoever else moves, at the moment that is played. */
const Moving = ({ layout, ground, player }: { layout: Layout; ground: Ground; player: Player }) => {
  const timeS = useTime(player);
  const body = bodyAt(layout, timeS);
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
      {landed && (
        <circle className="landed" cx={ground.at(landed)[0]} cy={ground.at(landed)[1]} r="15" />
      )}
      <g transform={`translate(${x},${y}) rotate(${ground.turn(body.facingDeg)})`}>
        <ellipse className="body" rx="6" ry="13" />
        <path className="nose" d="M6,-4 L12,0 L6,4" />
      </g>
    </g>
  );
};

const NO_BRANCHES: readonly Branch[] = [];

/** Where the other exits lead. */
const Branches = ({ branches, ground }: { branches: readonly Branch[]; ground: Ground }) => (
  <>
    {branches.map(({ name, points }) => {
      const spots = points.map(ground.at);
      const [x, y] = spots.at(-1)!;
      const inside = x > 20 && x < ground.width - 60 && y > 12 && y < ground.height - 6;
      return (
        <g key={name}>
          <polyline
            className="plan-branch"
            points={spots.map((spot) => spot.join(',')).join(' ')}
          />
          {inside && (
            <text className="quiet-label" x={x + 6} y={y + 4}>
              {name}
            </text>
          )}
        </g>
      );
    })}
  </>
);

/** A sequence on the ground to scale, seen from above. */
export const PlanView = ({
  layout,
  player,
  shoeM,
  label,
  phase = null,
  maxHeight = 380,
  zoom = 1,
  branches = NO_BRANCHES,
}: {
  layout: Layout;
  /** absent for a still drawing */
  player?: Player;
  shoeM: number;
  label: string;
  /** only this phase is inked */
  phase?: string | null;
  maxHeight?: number;
  /** other exits, drawn faintly */
  branches?: readonly Branch[];
  /** nearer than the panel; it scrolls then */
  zoom?: number;
}) => {
  const [ref, seen] = useWidth<HTMLDivElement>(900);
  const width = Math.round(seen * zoom);
  const ground = groundOf(layout, width, maxHeight * zoom, zoom);
  const metre = ground.pixelsPerM;
  return (
    <div
      ref={ref}
      className="zoomed"
      tabIndex={zoom > 1 ? 0 : undefined}
      style={{ maxHeight: maxHeight + 60, overflowY: zoom > 1 ? 'auto' : 'hidden' }}
    >
      <svg
        className="strip plan-view"
        width={width}
        height={ground.height}
        viewBox={`0 0 ${width} ${ground.height}`}
        role="img"
        aria-label={label}
      >
        <Branches branches={branches} ground={ground} />
        <Still layout={layout} ground={ground} shoeM={shoeM} phase={phase} />
        {player && <Moving layout={layout} ground={ground} player={player} />}
        <g
          className="plan-scale"
          transform={`translate(${width - metre - 12},${ground.height - 10})`}
        >
          <path d={`M0,-4 V4 M0,0 H${metre} M${metre},-4 V4`} />
          <text className="quiet-label" x={metre / 2} y={-6} textAnchor="middle">
            1 m
          </text>
        </g>
        <text className="quiet-label" x={6} y={14}>
          ahead {ground.ahead === 'right' ? '→' : '↑'}
        </text>
      </svg>
    </div>
  );
};
