import {
  FOOT_M,
  formatLength,
  lengthParts,
  YARD_M,
  type GroundLine,
  type LengthStyle,
  type SolvedStep,
  type StraightPlan,
} from '@gravek/core';
import type { OnGround } from '@gravek/contract';
import { scaleLinear } from 'd3-scale';
import { memo } from 'react';
import { useTime, type Player } from '../hearing/player';
import { FootPrint } from './FootPrint';
import { PrintHandles } from './PrintHandles';
import { withRoom } from './room';
import { useWidth } from './useWidth';

const HEIGHT = 178;
const LEFT = 34;
const RIGHT = 26;
const LINE_Y = 86;
const TAPE_Y = 144;
const FLAG_Y = 6;
/** Under the tape, for the lines of a ground. */
const LINES = 22;

/** What one mark of the tape is worth, and which of them carry a number. */
const tapeUnit = (style: LengthStyle): { sizeM: number; minor: number[]; name: string } => {
  if (style.unit === 'imperial') return { sizeM: FOOT_M, minor: [1, 5, 10], name: 'ft' };
  if (style.unit === 'yards') return { sizeM: YARD_M, minor: [1, 5, 10], name: 'yd' };
  if (style.unit === 'shoes' && style.shoeM) {
    return { sizeM: style.shoeM, minor: [1, 5, 10, 20], name: 'shoes' };
  }
  return { sizeM: 1, minor: [0.2, 1, 2, 5], name: 'm' };
};

/** The first spacing whose marks stand far enough apart. */
const spacing = (steps: readonly number[], pixels: number, apart: number): number =>
  steps.find((step) => step * pixels >= apart) ?? steps.at(-1)!;

const shortText = (lengthM: number, style: LengthStyle): string => {
  if (style.unit === 'shoes' && style.shoeM) return (lengthM / style.shoeM).toFixed(1);
  if (style.unit === 'metric' || style.unit === 'shoes') return lengthM.toFixed(2);
  return lengthParts(lengthM, { unit: 'imperial' })
    .map(({ figure, unit }) => figure + unit)
    .join(' ');
};

const isEnding = (step: SolvedStep): boolean => step.role !== 'build';

const flagWidth = (label: string): number => label.length * 6.4 + 20;

const Flag = ({
  x,
  label,
  filled = false,
  flipped = false,
}: {
  x: number;
  label: string;
  filled?: boolean;
  /** flies to the left, where another flag stands close on the right */
  flipped?: boolean;
}) => {
  const width = flagWidth(label);
  const color = filled ? 'var(--ink)' : 'var(--mark)';
  const way = flipped ? -1 : 1;
  return (
    <g>
      <line x1={x} x2={x} y1={FLAG_Y} y2={TAPE_Y} stroke={color} strokeWidth="1.8" />
      <path
        d={`M${x},${FLAG_Y} h${way * width} l${-7 * way},8.5 l${7 * way},8.5 h${-width * way} z`}
        fill={filled ? color : 'var(--surface)'}
        stroke={color}
        strokeWidth="1.6"
      />
      <text
        className="flag-label"
        x={x + 7 * way}
        y={FLAG_Y + 12.5}
        textAnchor={flipped ? 'end' : 'start'}
        style={{ fill: filled ? 'var(--surface)' : color }}
      >
        {label}
      </text>
    </g>
  );
};

/** Metres run at a moment: steadily from contact to contact. */
const runAt = ({ steps }: StraightPlan, timeS: number): number => {
  const next = steps.find((step) => step.timeS >= timeS) ?? steps.at(-1)!;
  const before = steps[next.n - 2];
  const [fromS, fromM] = before ? [before.timeS, before.fromStartM] : [0, 0];
  const part = Math.max(0, Math.min(1, (timeS - fromS) / (next.timeS - fromS)));
  return fromM + part * (next.fromStartM - fromM);
};

/** Where the runner is, and the foot that is down. */
const Runner = ({
  plan,
  player,
  x,
}: {
  plan: StraightPlan;
  player: Player;
  x: (toTargetM: number) => number;
}) => {
  const timeS = useTime(player);
  const at = x(plan.distanceM - runAt(plan, timeS));
  const landed = plan.steps.findLast((step) => step.timeS <= timeS + 1e-9);
  return (
    <g className="plan-moving">
      <line className="beat-cursor" x1={at} x2={at} y1={LINE_Y - 46} y2={TAPE_Y} />
      {landed && (
        <circle
          className="landed"
          cx={x(landed.toTargetM) - 8}
          cy={landed.foot === 'left' ? LINE_Y - 17 : LINE_Y + 17}
          r="17"
        />
      )}
    </g>
  );
};

type Props = {
  plan: StraightPlan;
  style: LengthStyle;
  shoeM: number;
  target: string;
  /** where it is set out: its lines lie under the tape, and its lane may end */
  ground?: OnGround | null | undefined;
};

const linesOf = ({ plan, target, ground }: Pick<Props, 'plan' | 'target' | 'ground'>) =>
  (ground?.marks ?? [])
    .filter((mark) => mark.of === target && mark.fromM < plan.distanceM)
    .sort((a, b) => b.fromM - a.fromM);

const nameWidth = ({ name }: GroundLine): number => name.length * 7.2;

/** How high the strip is: lines of the ground need room for their names. */
const heightOf = (props: Pick<Props, 'plan' | 'target' | 'ground'>): number =>
  HEIGHT + (linesOf(props).length > 0 ? LINES : 0);

const widthScale = (plan: StraightPlan, width: number) =>
  scaleLinear([plan.distanceM, 0], [LEFT, width - RIGHT]);

/** The run-up to scale, target at the right: prints, tape in the coach's units, marks. */
export const Strip = ({
  player,
  zoom = 1,
  onPin,
  ...props
}: Props & {
  /** absent for a still drawing */
  player?: Player | undefined;
  zoom?: number;
  /** pins a step to a length, or lets go of it; absent where nothing may be changed */
  onPin?: ((step: number, lengthM: number | null) => void) | undefined;
}) => {
  const [ref, seen] = useWidth<HTMLDivElement>(1100);
  const width = Math.round(seen * zoom);
  const { plan } = props;
  const x = widthScale(plan, width);
  return (
    <div ref={ref} className="zoomed" tabIndex={zoom > 1 ? 0 : undefined}>
      <div style={{ width, position: 'relative' }}>
        <Still {...props} width={width} />
        {player && (
          <svg className="strip over" width={width} height={heightOf(props)} aria-hidden>
            <Runner plan={plan} player={player} x={x} />
          </svg>
        )}
        {onPin && (
          <PrintHandles
            plan={plan}
            style={props.style}
            pixels={(width - LEFT - RIGHT) / plan.distanceM}
            place={(step) => [
              x(step.toTargetM) - 10,
              step.foot === 'left' ? LINE_Y - 17 : LINE_Y + 17,
            ]}
            onPin={onPin}
          />
        )}
      </div>
    </div>
  );
};

const Still = memo(({ plan, style, shoeM, target, ground, width }: Props & { width: number }) => {
  const height = heightOf({ plan, target, ground });
  const laneM = ground?.laneM ?? Infinity;
  const lines = linesOf({ plan, target, ground });
  const nameX = (mark: GroundLine): number => {
    const half = nameWidth(mark) / 2 + 2;
    return Math.max(half, Math.min(width - half, x(mark.fromM)));
  };
  const x = widthScale(plan, width);
  const pixels = (width - LEFT - RIGHT) / plan.distanceM;
  const steps = plan.steps;
  const closest = Math.min(...steps.map((step) => step.lengthM));
  const print = Math.max(13, Math.min(34, shoeM * pixels * 3, closest * pixels * 1.6));
  const imperial = style.unit === 'imperial' || style.unit === 'yards';
  const shown = new Set(
    (['left', 'right'] as const).flatMap((foot) => [
      ...withRoom(
        steps.filter((step) => step.foot === foot),
        (step) => x(step.toTargetM),
        imperial ? 52 : 34,
      ),
    ]),
  );
  const tape = tapeUnit(style);
  const marks = plan.distanceM / tape.sizeM;
  const minor = spacing(tape.minor, tape.sizeM * pixels, 9);
  const numbered = spacing([1, 2, 5, 10, 20, 50, 100], tape.sizeM * pixels, 64);
  const ticks = Array.from({ length: Math.floor(marks / minor + 1e-9) + 1 }, (_, i) => i * minor);
  const summary = `${steps.length} steps over ${formatLength(plan.distanceM, style)} to the ${target}, ${steps[0]!.foot} foot first`;

  return (
    <svg
      className="strip"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={summary}
    >
      {laneM < plan.distanceM && (
        <g className="beyond-lane">
          <rect x={0} y={FLAG_Y + 22} width={x(laneM)} height={TAPE_Y - FLAG_Y - 22} />
          <line x1={x(laneM)} x2={x(laneM)} y1={FLAG_Y + 22} y2={TAPE_Y} />
          <text
            className="flag-label"
            x={Math.max(x(laneM) + 5, LEFT + flagWidth('start') + 8)}
            y={FLAG_Y + 12.5}
          >
            lane ends
          </text>
        </g>
      )}
      {lines.map(({ name, fromM }) => (
        // Broken where the tape has its number.
        <path
          key={name}
          className="ground-line"
          d={`M${x(fromM)},${LINE_Y - 40} V${TAPE_Y} M${x(fromM)},${TAPE_Y + 33} V${height - 15}`}
        />
      ))}
      {[...withRoom(lines, (mark) => nameX(mark), Math.max(...lines.map(nameWidth)) + 8)].map(
        (mark) => (
          <text
            key={mark.name}
            className="tick-label"
            x={nameX(mark)}
            y={height - 4}
            textAnchor="middle"
          >
            {mark.name}
          </text>
        ),
      )}
      <line
        x1={LEFT}
        x2={width - RIGHT}
        y1={LINE_Y}
        y2={LINE_Y}
        stroke="var(--rule)"
        strokeWidth="2"
        strokeDasharray="2 6"
      />
      <line
        x1={LEFT - 22}
        x2={width - RIGHT}
        y1={TAPE_Y}
        y2={TAPE_Y}
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {ticks.map((tick) => {
        const big = Math.abs(tick / numbered - Math.round(tick / numbered)) < 1e-9;
        const at = x(tick * tape.sizeM);
        return (
          <g key={tick}>
            <line
              x1={at}
              x2={at}
              y1={TAPE_Y}
              y2={TAPE_Y + (big ? 13 : 6)}
              stroke="var(--ink)"
              strokeWidth={big ? 1.8 : 1}
            />
            {big && (
              <text className="tick-label" x={at} y={TAPE_Y + 28} textAnchor="middle">
                {tick}
                {tick === 0 ? ` ${tape.name}` : ''}
              </text>
            )}
          </g>
        );
      })}
      <Flag x={LEFT} label="start" filled />
      {plan.checkMarks.map((mark) => {
        const label = `${mark.stepsOut} out`;
        const at = x(mark.toTargetM);
        const targetX = width - RIGHT + 9 - target.length * 6.4;
        const flipped = [targetX, ...plan.checkMarks.map((other) => x(other.toTargetM))].some(
          (otherX) => otherX > at && otherX - at < flagWidth(label) + 4,
        );
        return <Flag key={mark.stepsOut} x={at} label={label} flipped={flipped} />;
      })}
      <rect x={width - RIGHT} y={38} width="9" height={TAPE_Y - 37} fill="var(--ink)" />
      <text className="flag-label" x={width - RIGHT + 9} y={FLAG_Y + 12.5} textAnchor="end">
        {target}
      </text>
      {steps.map((step) => {
        const at = x(step.toTargetM);
        const left = step.foot === 'left';
        return (
          <g key={step.n} className={isEnding(step) ? 'ending' : undefined}>
            <FootPrint
              x={at}
              y={left ? LINE_Y - 17 : LINE_Y + 17}
              length={print}
              foot={step.foot}
              color={isEnding(step) ? 'var(--clay)' : 'var(--ink)'}
            />
            {step.pinned && (
              <path className="pin" d={`M${at - print / 2},${LINE_Y - 5} l5,5 l-5,5 l-5,-5 Z`} />
            )}
            {shown.has(step) && (
              <text
                className="length"
                x={step.n === steps.length ? at - 4 : at - print / 2}
                y={left ? LINE_Y - 34 : LINE_Y + 43}
                textAnchor={step.n === steps.length ? 'end' : 'middle'}
                stroke="var(--surface)"
                strokeWidth="5"
                paintOrder="stroke"
              >
                {shortText(step.lengthM, style)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
});
