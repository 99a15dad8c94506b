import { FOOT_M, lengthParts, type LengthStyle, YARD_M } from '@gravek/core/units';

export const HEIGHT = 178;
export const TAPE_Y = 144;
export const FLAG_Y = 6;
/** Under the tape, for the lines of a ground. */
export const LINES = 22;
/** Over the stretch that is drawn anew. */
export const END_HEAD = 26;

const NUMBERED = [1, 2, 5, 10, 20, 50, 100];
/** A stretch shorter than this has a finer tape, metres. */
const FINE_BELOW_M = 3;

/** What one mark of the tape is worth, and which of them may be drawn and may carry a number. */
export const tapeUnit = (
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
export const spacing = (steps: readonly number[], pixels: number, apart: number): number =>
  steps.find((step) => step * pixels >= apart) ?? steps.at(-1)!;

export const shortText = (lengthM: number, style: LengthStyle): string => {
  if (style.unit === 'shoes' && style.shoeM) return (lengthM / style.shoeM).toFixed(1);
  if (style.unit === 'metric' || style.unit === 'shoes') return lengthM.toFixed(2);
  return lengthParts(lengthM, { unit: 'imperial' })
    .map(({ figure, unit }) => figure + unit)
    .join(' ');
};

export const flagWidth = (label: string): number => label.length * 6.4 + 20;

export const Flag = ({
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
