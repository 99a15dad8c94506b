import type { Foot } from '@gravek/core/feet';

/** Heel and sole of a right foot that points to the right, its big toe above. */
const HEEL = 'M1,7 C1,4 2.6,3 5,3 L8.2,3.4 V10.6 L5,11 C2.6,11 1,10 1,7 Z';
const SOLE =
  'M10.4,3.7 C13.6,3.7 16.4,1.5 21,1.3 C26,1.2 29.8,3 29.8,6 C29.8,9.6 26.4,12.9 21.6,12.9 C17,12.9 14,10.6 10.4,10.4 Z';
const SOLE_LENGTH = 30;

/**
 * A print that runs to the right, its toe at (x, y), heel and sole apart so that it is seen which way it points.
 * Left is hollow, right is filled: told apart by shape, not by colour.
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
    <g
      className="foot-print"
      transform={`translate(${x - length},${y}) scale(${scale},${flip}) translate(0,-7)`}
      fill={foot === 'left' ? 'var(--surface)' : color}
      stroke={color}
      strokeWidth={1.5 / scale}
      strokeLinejoin="round"
    >
      <path d={HEEL} />
      <path d={SOLE} />
    </g>
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
