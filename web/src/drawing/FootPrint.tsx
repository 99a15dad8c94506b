import type { Foot } from '@gravek/core/feet';

const SOLE =
  'M2,7 C2,3 6,2 9,3 C12,4 14,5 17,4 C20,2.5 25,1.5 28,4 C30.5,6.5 29.5,10.5 26,11.5 C21,12.5 17,11 13,11 C9,11 3,12.5 2,7 Z';
const SOLE_LENGTH = 30;

/**
 * A print that runs to the right, its toe at (x, y). Left is hollow, right is filled: told apart by
 * shape, not by colour.
 */
export const FootPrint = ({
  x,
  y,
  length,
  foot,
  color = 'var(--ink)',
}: {
  x: number;
  y: number;
  length: number;
  foot: Foot;
  color?: string;
}) => {
  const scale = length / SOLE_LENGTH;
  const flip = foot === 'left' ? -scale : scale;
  return (
    <path
      d={SOLE}
      transform={`translate(${x - length},${y}) scale(${scale},${flip}) translate(0,-7)`}
      fill={foot === 'left' ? 'var(--surface)' : color}
      stroke={color}
      strokeWidth={1.9 / scale}
    />
  );
};

/** A foot named in a line of text: its print and the word. */
export const FootWord = ({ foot }: { foot: Foot }) => (
  <span style={{ whiteSpace: 'nowrap' }}>
    <svg width="20" height="11" viewBox="0 0 20 11" aria-hidden="true" style={{ marginRight: 5 }}>
      <FootPrint x={19} y={5.5} length={18} foot={foot} color="currentColor" />
    </svg>
    {foot}
  </span>
);
