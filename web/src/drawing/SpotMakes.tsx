import type { Results } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import type { OnGround } from '@gravek/contract/ground';
import { placeLines, spotsOf } from '@gravek/library/place';

const PIXELS_PER_M = 26;
const PAD = { x: 92, top: 14, bottom: 44 };
const RADIUS = 12;

type Makes = Pick<Results, 'spot' | 'tried' | 'made'>;

/** Makes at the spots of a movement's place, each where it lies, seen from above; nothing where none was tried there. */
export const SpotMakes = ({
  movement,
  ground,
  results,
}: {
  movement: Movement;
  ground: OnGround | null | undefined;
  /** one a spot */
  results: readonly Makes[];
}) => {
  const { place } = movement;
  const tried = spotsOf(movement, ground).flatMap(({ name, at }) => {
    const makes = results.find((one) => one.spot === name && one.tried > 0);
    return makes ? [{ name, at, ...makes }] : [];
  });
  if (!place || tried.length === 0) return null;
  const lines = placeLines(place, ground);
  const points = [...lines.flatMap(({ ends }) => ends), ...tried.map(({ at }) => at)];
  const reachM = Math.max(...points.map(({ besideM }) => Math.abs(besideM)));
  const deepM = Math.max(...points.map(({ outM }) => outM));
  const width = 2 * reachM * PIXELS_PER_M + 2 * PAD.x;
  const height = deepM * PIXELS_PER_M + PAD.top + PAD.bottom;
  const x = (besideM: number): number => width / 2 + besideM * PIXELS_PER_M;
  // As one faces it: what is built is up.
  const y = (outM: number): number => PAD.top + outM * PIXELS_PER_M;
  return (
    <svg
      className="spot-makes"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Makes where they were tried: ${tried.map(({ name, made, tried: of }) => `${name} ${made} of ${of}`).join(', ')}`}
    >
      {lines.map(({ name, ends: [a, b] }, i) => (
        <line
          key={`${name} ${i}`}
          x1={x(a.besideM)}
          y1={y(a.outM)}
          x2={x(b.besideM)}
          y2={y(b.outM)}
          className={['rim', 'goal', 'net'].includes(name) ? 'built' : undefined}
        />
      ))}
      {tried.map(({ name, at, made, tried: of }) => {
        const share = made / of;
        const deg = 2 * Math.PI * Math.min(0.9999, share);
        const [cx, cy] = [x(at.besideM), y(at.outM)];
        const end = [cx + RADIUS * Math.sin(deg), cy - RADIUS * Math.cos(deg)];
        return (
          <g key={name}>
            <circle cx={cx} cy={cy} r={RADIUS} />
            {share > 0 && (
              <path
                d={`M${cx},${cy} L${cx},${cy - RADIUS} A${RADIUS},${RADIUS} 0 ${share > 0.5 ? 1 : 0} 1 ${end.join(',')} Z`}
              />
            )}
            <text x={cx} y={cy + RADIUS + 14} textAnchor="middle">
              {name}
            </text>
            <text x={cx} y={cy + RADIUS + 28} textAnchor="middle" className="strong">
              {made} of {of}
            </text>
          </g>
        );
      })}
    </svg>
  );
};
