import type { Layout } from '@gravek/core/layout/shape';
import type { Branch } from '@gravek/library/planning/branches';
import { memo, useId, useMemo, useState } from 'react';
import type { Player } from '../hearing/player';
import { useLengthStyle } from '../member/member';
import type { Ground } from './ground';
import type { Box } from './labels';
import { type NamedPhase, PhaseLegend } from './PhaseLegend';
import { type Picture, pictureOf } from './picture';
import type { Inset, Tag } from './insets';
import { LINE } from './names';
import { MarkSign, Other } from './PlanThings';
import { Moving, type Print, Prints } from './prints';
import { useWidth } from './useWidth';

const Tags = ({ tags }: { tags: readonly Tag[] }) =>
  tags.map(({ kind, text, box, lead }, i) => (
    <g key={i}>
      {lead && (
        <line
          className="plan-lead"
          x1={lead[0][0]}
          y1={lead[0][1]}
          x2={lead[1][0]}
          y2={lead[1][1]}
        />
      )}
      {text.split('\n').map((line, k) => (
        <text
          key={k}
          className={`plan-tag plan-tag-${kind}`}
          x={box.x + box.width / 2}
          y={box.y + (k + 1) * LINE - 3}
          textAnchor="middle"
        >
          {line}
        </text>
      ))}
    </g>
  ));

const trackPoints = (layout: Layout, ground: Ground): string =>
  layout.track.map((point) => ground.at(point).join(',')).join(' ');

const InsetFrame = ({
  inset: { ground, frame, prints, tags, letter },
  layout,
  phase,
  player,
}: {
  inset: Inset;
  layout: Layout;
  phase: string | null;
  player: Player | undefined;
}) => {
  const id = useId();
  return (
    <g transform={`translate(${frame.x},${frame.y})`}>
      <clipPath id={id}>
        <rect width={frame.width} height={frame.height} />
      </clipPath>
      <rect className="plan-frame" width={frame.width} height={frame.height} />
      <g clipPath={`url(#${id})`}>
        <polyline className="plan-track" points={trackPoints(layout, ground)} />
        <Prints prints={prints} phase={phase} />
        {player && <Moving layout={layout} ground={ground} player={player} />}
      </g>
      <Tags tags={tags} />
      <text className="plan-tag plan-tag-letter" x={9} y={15} textAnchor="middle">
        {letter}
      </text>
    </g>
  );
};

/** Everything that does not move. */
const Still = memo(
  ({
    layout,
    over,
    branches,
    picture: { ground, prints, tags, insets, pointers, scale, compass },
    overPrints,
    phase,
    feet,
  }: {
    layout: Layout;
    over: Layout | null;
    branches: readonly Branch[];
    picture: Picture;
    overPrints: readonly Print[];
    phase: string | null;
    feet: boolean;
  }) => (
    <>
      {branches.map(({ name, points }) => (
        <polyline
          key={name}
          className="plan-branch"
          points={points.map((point) => ground.at(point).join(',')).join(' ')}
        />
      ))}
      {layout.others.map((other, i) => (
        <Other key={i} other={other} ground={ground} />
      ))}
      {layout.marks.map((mark, i) => (
        <MarkSign key={i} mark={mark} ground={ground} />
      ))}
      {over && (
        <g className="plan-over">
          <polyline points={trackPoints(over, ground)} />
          <Prints prints={overPrints} color="var(--mark)" />
        </g>
      )}
      <polyline className="plan-track" points={trackPoints(layout, ground)} />
      <Prints prints={prints} phase={phase} />
      {insets.map(({ of, letter }) => (
        <rect key={letter} className="plan-frame open" {...of} />
      ))}
      {pointers.map(({ x, y, deg }) => (
        <path
          key={`${x}/${y}`}
          className="plan-pointer"
          d="M-10,0 H7 M1,-5 L8,0 L1,5"
          transform={`translate(${x},${y}) rotate(${deg})`}
        />
      ))}
      <Tags tags={tags} />
      <Scale box={scale.box} pixels={scale.pixels} feet={feet} />
      <g transform={`translate(${compass.x},${compass.y})`}>
        <path
          className="plan-lead"
          d="M-9,0 H8 M3,-4 L9,0 L3,4"
          transform={`translate(12,9) rotate(${ground.turn(0)})`}
        />
        <text className="plan-tag" x={25} y={13}>
          ahead
        </text>
      </g>
    </>
  ),
);

const Scale = ({ box, pixels, feet }: { box: Box; pixels: number; feet: boolean }) => (
  <g
    className="plan-scale"
    transform={`translate(${box.x + (box.width - pixels) / 2},${box.y + box.height - 5})`}
  >
    <path d={`M0,-4 V4 M0,0 H${pixels} M${pixels},-4 V4`} />
    <text className="plan-tag" x={pixels / 2} y={-7} textAnchor="middle">
      {feet ? '3 ft' : '1 m'}
    </text>
  </g>
);

const NO_BRANCHES: readonly Branch[] = [];
const NO_PHASES: readonly NamedPhase[] = [];

/** A sequence on the ground to scale, seen from above. */
export const PlanView = ({
  layout,
  player,
  shoeM,
  label,
  phase = null,
  phases = NO_PHASES,
  maxHeight = 380,
  zoom = 1,
  branches = NO_BRANCHES,
  over = null,
}: {
  layout: Layout;
  /** absent for a still drawing */
  player?: Player;
  shoeM: number;
  label: string;
  /** only this phase is inked, and whichever is pointed at in the legend */
  phase?: string | null;
  /** the phases by name, under the drawing */
  phases?: readonly NamedPhase[];
  maxHeight?: number;
  /** other exits, drawn faintly */
  branches?: readonly Branch[];
  /** another layout, laid over this one */
  over?: Layout | null;
  /** nearer than the panel; it scrolls then */
  zoom?: number;
}) => {
  const [ref, seen] = useWidth<HTMLDivElement>(900);
  const { unit } = useLengthStyle();
  const feet = unit !== 'metric' && unit !== 'shoes';
  const width = Math.round(seen * zoom);
  const [pointed, setPointed] = useState<string | null>(null);
  const inked = pointed ?? phase;
  const picture = useMemo(
    () =>
      pictureOf({
        layout,
        over,
        branches,
        shoeM,
        width,
        maxHeight: maxHeight * zoom,
        zoom,
        feet,
      }),
    [layout, over, branches, shoeM, width, maxHeight, zoom, feet],
  );
  return (
    <>
      <div
        ref={ref}
        className="zoomed"
        tabIndex={zoom > 1 ? 0 : undefined}
        style={zoom > 1 ? { maxHeight: maxHeight + 60, overflowY: 'auto' } : undefined}
      >
        <svg
          className="strip plan-view"
          width={width}
          height={picture.height}
          viewBox={`0 0 ${width} ${picture.height}`}
          role="img"
          aria-label={label}
        >
          <Still
            layout={layout}
            over={over}
            overPrints={picture.overPrints}
            branches={branches}
            picture={picture}
            phase={inked}
            feet={feet}
          />
          {player && <Moving layout={layout} ground={picture.ground} player={player} />}
          {picture.insets.map((inset) => (
            <InsetFrame
              key={inset.letter}
              inset={inset}
              layout={layout}
              phase={inked}
              player={player}
            />
          ))}
        </svg>
      </div>
      {phases.length > 0 && (
        <PhaseLegend layout={layout} phases={phases} player={player} onPoint={setPointed} />
      )}
    </>
  );
};
