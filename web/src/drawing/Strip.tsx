import type { GroundLine } from '@gravek/core/layout/lines';
import type { SolvedStep, StraightPlan } from '@gravek/core/solveStraight';
import { FOOT_M, formatLength, lengthParts, YARD_M, type LengthStyle } from '@gravek/core/units';
import type { OnGround } from '@gravek/contract/ground';
import { Fragment, memo, useMemo } from 'react';
import { useTime, type Player } from '../hearing/player';
import { FootPrint } from './FootPrint';
import { PrintHandles } from './PrintHandles';
import { withRoom } from './room';
import { apart, LEFT, RIGHT, stretchesOf, type Stretch } from './stretches';
import { useWidth } from './useWidth';

const HEIGHT = 178;
const LINE_Y = 86;
const TAPE_Y = 144;
const FLAG_Y = 6;
/** Under the tape, for the lines of a ground. */
const LINES = 22;
/** Over the stretch that is drawn anew. */
const END_HEAD = 26;

const NUMBERED = [1, 2, 5, 10, 20, 50, 100];
/** A stretch shorter than this has a finer tape, metres. */
const FINE_BELOW_M = 3;

/** What one mark of the tape is worth, and which of them may be drawn and may carry a number. */
const tapeUnit = (
  style: LengthStyle,
  lengthM: number,
): { sizeM: number; minor: number[]; numbered: number[]; name: string } => {
  const fine = lengthM < FINE_BELOW_M;
  const inches = fine ? [1 / 12, 1 / 4] : [];
  if (style.unit === 'imperial') {
    return { sizeM: FOOT_M, minor: [...inches, 1, 5, 10], numbered: NUMBERED, name: 'ft' };
  }
  if (style.unit === 'yards') {
    const feet = fine ? [1 / 12, 1 / 3] : [];
    return { sizeM: YARD_M, minor: [...feet, 1, 5, 10], numbered: NUMBERED, name: 'yd' };
  }
  if (style.unit === 'shoes' && style.shoeM) {
    return { sizeM: style.shoeM, minor: [1, 5, 10, 20], numbered: NUMBERED, name: 'shoes' };
  }
  return {
    sizeM: 1,
    minor: [...(fine ? [0.02, 0.05, 0.1] : []), 0.2, 1, 2, 5],
    numbered: [...(fine ? [0.1, 0.2, 0.5] : []), ...NUMBERED],
    name: 'm',
  };
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

/** Where the runner is, and the foot that is down; nothing while that is not on this stretch. */
const Runner = ({
  plan,
  stretch: { fromM, x },
  player,
}: {
  plan: StraightPlan;
  stretch: Stretch;
  player: Player;
}) => {
  const timeS = useTime(player);
  const toTargetM = plan.distanceM - runAt(plan, timeS);
  if (toTargetM > fromM + 1e-9) return null;
  const at = x(toTargetM);
  const landed = plan.steps.findLast(
    (step) => step.timeS <= timeS + 1e-9 && step.toTargetM <= fromM,
  );
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

const linesOf = ({ target, ground }: Pick<Props, 'target' | 'ground'>, { fromM }: Stretch) =>
  (ground?.marks ?? [])
    .filter((mark) => mark.of === target && mark.fromM < fromM)
    .sort((a, b) => b.fromM - a.fromM);

const nameWidth = ({ name }: GroundLine): number => name.length * 7.2;

/** How high a stretch is: lines of the ground need room for their names. */
const heightOf = (props: Pick<Props, 'target' | 'ground'>, stretch: Stretch): number =>
  HEIGHT + (linesOf(props, stretch).length > 0 ? LINES : 0);

/** The run-up to scale, target at the right: prints, tape in the coach's units, marks; short steps anew below. */
export const Strip = ({
  plan,
  style,
  shoeM,
  target,
  ground,
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
  const { main, end } = useMemo(() => stretchesOf(plan, style, width), [plan, style, width]);
  const mainHeight = heightOf({ target, ground }, main);
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
              plan={plan}
              style={style}
              shoeM={shoeM}
              target={target}
              ground={ground}
              stretch={stretch}
              opens={stretch === main ? end : null}
              width={width}
            />
            {player && (
              <svg
                className="strip over"
                style={{ top }}
                width={width}
                height={heightOf({ target, ground }, stretch)}
                aria-hidden
              >
                <Runner plan={plan} player={player} stretch={stretch} />
              </svg>
            )}
          </Fragment>
        ))}
        {onPin && (
          <PrintHandles
            plan={plan}
            style={style}
            place={(step) => {
              const { stretch, top } = stretches.find(({ stretch: one }) =>
                one.steps.includes(step),
              )!;
              return {
                x: stretch.x(step.toTargetM) - 10,
                y: top + (step.foot === 'left' ? LINE_Y - 17 : LINE_Y + 17),
                pixels: stretch.pixels,
              };
            }}
            onPin={onPin}
          />
        )}
      </div>
    </div>
  );
};

type StillProps = Props & {
  stretch: Stretch;
  /** the stretch that is drawn anew and larger below; its steps have no lengths here */
  opens: Stretch | null;
  width: number;
};

const Still = memo(({ plan, style, shoeM, target, ground, stretch, opens, width }: StillProps) => {
  const height = heightOf({ target, ground }, stretch);
  const laneM = ground?.laneM ?? Infinity;
  const lines = linesOf({ target, ground }, stretch);
  const nameX = (mark: GroundLine): number => {
    const half = nameWidth(mark) / 2 + 2;
    return Math.max(half, Math.min(width - half, x(mark.fromM)));
  };
  const { steps, x, pixels, fromM } = stretch;
  const whole = fromM === plan.distanceM;
  const n = plan.steps.length;
  const printIn = (some: readonly SolvedStep[]): number =>
    Math.max(
      opens && some === opens.steps ? 7 : 13,
      Math.min(
        34,
        shoeM * pixels * (whole ? 3 : 1),
        // The next of the same foot is two steps on.
        Math.min(...some.map((step) => step.lengthM)) * pixels * 1.6,
      ),
    );
  const print = printIn(steps);
  const shown = new Set(
    (['left', 'right'] as const).flatMap((foot) => [
      ...withRoom(
        steps.filter((step) => step.foot === foot),
        (step) => x(step.toTargetM),
        apart(style),
      ),
    ]),
  );
  const tape = tapeUnit(style, fromM);
  const marks = fromM / tape.sizeM;
  const minor = spacing(tape.minor, tape.sizeM * pixels, 9);
  const numbered = spacing(tape.numbered, tape.sizeM * pixels, 64);
  const ticks = Array.from({ length: Math.floor(marks / minor + 1e-9) + 1 }, (_, i) => i * minor);
  const summary = whole
    ? `${n} steps over ${formatLength(fromM, style)} to the ${target}, ${plan.steps[0]!.foot} foot first`
    : `The last ${steps.length} steps to the ${target}, enlarged`;
  const checkMarks = plan.checkMarks.filter(
    (mark) => mark.toTargetM < fromM && mark.toTargetM >= (opens?.fromM ?? 0),
  );

  return (
    <svg
      className="strip"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={summary}
    >
      {laneM < fromM && (
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
          key={`${name}/${fromM}`}
          className="ground-line"
          d={`M${x(fromM)},${LINE_Y - 40} V${TAPE_Y} M${x(fromM)},${TAPE_Y + 33} V${height - 15}`}
        />
      ))}
      {[...withRoom(lines, (mark) => nameX(mark), Math.max(...lines.map(nameWidth)) + 8)].map(
        (mark) => (
          <text
            key={`${mark.name}/${mark.fromM}`}
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
                {Number(tick.toFixed(2))}
                {tick === 0 ? ` ${tape.name}` : ''}
              </text>
            )}
          </g>
        );
      })}
      {whole && <Flag x={LEFT} label="start" filled />}
      {checkMarks.map((mark) => {
        const label = `${mark.stepsOut} out`;
        const at = x(mark.toTargetM);
        const targetX = width - RIGHT + 9 - target.length * 6.4;
        const flipped = [targetX, ...checkMarks.map((other) => x(other.toTargetM))].some(
          (otherX) => otherX > at && otherX - at < flagWidth(label) + 4,
        );
        return <Flag key={mark.stepsOut} x={at} label={label} flipped={flipped} />;
      })}
      <rect x={width - RIGHT} y={38} width="9" height={TAPE_Y - 37} fill="var(--ink)" />
      <text className="flag-label" x={width - RIGHT + 9} y={FLAG_Y + 12.5} textAnchor="end">
        {target}
      </text>
      {opens && (
        <g className="strip-frame">
          <rect x={x(opens.fromM)} y={LINE_Y - 32} width={x(0) - x(opens.fromM) + 14} height={64} />
          <text className="flag-label" x={x(opens.fromM) + 4} y={LINE_Y + 46}>
            A
          </text>
          {opens.steps.map((step) => (
            <FootPrint
              key={step.n}
              x={x(step.toTargetM)}
              y={step.foot === 'left' ? LINE_Y - 17 : LINE_Y + 17}
              length={printIn(opens.steps)}
              foot={step.foot}
              color={isEnding(step) ? 'var(--clay)' : 'var(--ink)'}
            />
          ))}
        </g>
      )}
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
                x={step.n === n ? at - 4 : at - print / 2}
                y={left ? LINE_Y - 34 : LINE_Y + 43}
                textAnchor={step.n === n ? 'end' : 'middle'}
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
