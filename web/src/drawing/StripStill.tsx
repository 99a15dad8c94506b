import type { OtherPath } from '@gravek/core/layout/otherThings';
import type { Layout } from '@gravek/core/layout/shape';
import type { Footfall } from '@gravek/core/layout/walker';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { memo } from 'react';
import { printOf, Prints } from './prints';
import { withRoom } from './room';
import { apart, ASIDE, LEFT, leftM, LINE_Y, RIGHT, runM, type Stretch } from './stretches';
import {
  Flag,
  FLAG_Y,
  flagWidth,
  HEIGHT,
  LINES,
  shortText,
  spacing,
  TAPE_Y,
  tapeUnit,
} from './StripFlag';

type LineAt = { name: string; fromM: number };

/** Lines of the ground on a stretch, the farthest from the target first. */
const linesOf = (layout: Layout, { fromM }: Stretch): LineAt[] =>
  layout.others
    .filter((other: OtherPath) => other.line)
    .map(({ name, points }) => ({ name, fromM: leftM(layout, points[0]!) }))
    .filter((line) => line.fromM < fromM)
    .sort((a, b) => b.fromM - a.fromM);

const nameWidth = ({ name }: LineAt): number => name.length * 7.2;

/** How high a stretch is: lines of the ground need room for their names. */
export const heightOf = (layout: Layout, stretch: Stretch): number =>
  HEIGHT + (linesOf(layout, stretch).length > 0 ? LINES : 0);

type StillProps = Props & {
  stretch: Stretch;
  /** the stretch that is drawn anew and larger below; its steps have no lengths here */
  opens: Stretch | null;
  width: number;
};

export const Still = memo(
  ({ layout, pinned, style, shoeM, laneM, stretch, opens, width }: StillProps) => {
    const height = heightOf(layout, stretch);
    const laneEndM = laneM ?? Infinity;
    const lines = linesOf(layout, stretch);
    const { falls, x, ground, fromM } = stretch;
    const nameX = (line: LineAt): number => {
      const half = nameWidth(line) / 2 + 2;
      return Math.max(half, Math.min(width - half, x(line.fromM)));
    };
    const whole = fromM === runM(layout);
    const n = layout.footfalls.length;
    const target = layout.marks.find(({ kind }) => kind === 'target')!.label;
    const printIn = (some: readonly Footfall[]): number =>
      Math.max(
        opens && some === opens.falls ? 7 : 13,
        Math.min(
          34,
          shoeM * ground.pixelsPerM * (whole ? 3 : 1),
          // The next of the same foot is two steps on.
          Math.min(...some.map((fall) => fall.lengthM)) * ground.pixelsPerM * 1.6,
        ),
      );
    const print = printIn(falls);
    const printsOf = (some: readonly Footfall[]) =>
      some.map((fall) => printOf(fall, ground, printIn(some)));
    const shown = new Set(
      (['left', 'right'] as const).flatMap((foot) => [
        ...withRoom(
          falls.filter((fall) => fall.foot === foot),
          (fall) => ground.at(fall)[0],
          apart(style),
        ),
      ]),
    );
    const tape = tapeUnit(style, fromM);
    const marks = fromM / tape.sizeM;
    const minor = spacing(tape.minor, tape.sizeM * ground.pixelsPerM, 9);
    const numbered = spacing(tape.numbered, tape.sizeM * ground.pixelsPerM, 64);
    const ticks = Array.from({ length: Math.floor(marks / minor + 1e-9) + 1 }, (_, i) => i * minor);
    const summary = whole
      ? `${n} steps over ${formatLength(fromM, style)} to the ${target}, ${layout.footfalls[0]!.foot} foot first`
      : `The last ${falls.length} steps to the ${target}, enlarged`;
    const checkMarks = layout.marks
      .filter(({ kind }) => kind === 'check')
      .map((mark) => ({ label: mark.label, toTargetM: leftM(layout, mark) }))
      .filter(({ toTargetM }) => toTargetM < fromM && toTargetM >= (opens?.fromM ?? 0));

    return (
      <svg
        className="strip"
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={summary}
      >
        {laneEndM < fromM && (
          <g className="beyond-lane">
            <rect x={0} y={FLAG_Y + 22} width={x(laneEndM)} height={TAPE_Y - FLAG_Y - 22} />
            <line x1={x(laneEndM)} x2={x(laneEndM)} y1={FLAG_Y + 22} y2={TAPE_Y} />
            <text
              className="flag-label"
              x={Math.max(x(laneEndM) + 5, LEFT + flagWidth('start') + 8)}
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
          const { label } = mark;
          const at = x(mark.toTargetM);
          const targetX = width - RIGHT + 9 - target.length * 6.4;
          const flipped = [targetX, ...checkMarks.map((other) => x(other.toTargetM))].some(
            (otherX) => otherX > at && otherX - at < flagWidth(label) + 4,
          );
          return <Flag key={label} x={at} label={label} flipped={flipped} />;
        })}
        <rect x={width - RIGHT} y={38} width="9" height={TAPE_Y - 37} fill="var(--ink)" />
        <text className="flag-label" x={width - RIGHT + 9} y={FLAG_Y + 12.5} textAnchor="end">
          {target}
        </text>
        {opens && (
          <g className="strip-frame">
            <rect
              x={x(opens.fromM)}
              y={LINE_Y - 32}
              width={x(0) - x(opens.fromM) + 14}
              height={64}
            />
            <text className="flag-label" x={x(opens.fromM) + 4} y={LINE_Y + 46}>
              A
            </text>
            <Prints prints={printsOf(opens.falls)} />
          </g>
        )}
        <Prints prints={printsOf(falls)} />
        {falls.map((fall) => {
          const [at, y] = ground.at(fall);
          return (
            <g key={fall.n} className={fall.contact === 'step' ? undefined : 'ending'}>
              {pinned.has(fall.n) && (
                <path className="pin" d={`M${at - print / 2},${LINE_Y - 5} l5,5 l-5,5 l-5,-5 Z`} />
              )}
              {shown.has(fall) && (
                <text
                  className="length"
                  x={fall.n === n ? at - 4 : at - print / 2}
                  y={y + (fall.foot === 'left' ? -ASIDE : ASIDE + 9)}
                  textAnchor={fall.n === n ? 'end' : 'middle'}
                  stroke="var(--surface)"
                  strokeWidth="5"
                  paintOrder="stroke"
                >
                  {shortText(fall.lengthM, style)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    );
  },
);

export type Props = {
  /** a straight run to its target */
  layout: Layout;
  /** numbers of steps whose length is set */
  pinned: ReadonlySet<number>;
  style: LengthStyle;
  shoeM: number;
  /** how long the lane is, metres before the target; null where it does not end */
  laneM?: number | null | undefined;
};
