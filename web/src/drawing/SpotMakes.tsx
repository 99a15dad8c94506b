import type { Results } from '@gravek/contract/results';
import type { Movement } from '@gravek/contract/movement';
import type { OnGround } from '@gravek/contract/ground';
import { placeLines, spotsOf } from '@gravek/library/planning/place';

/** So near spots may stand to one another with their labels, pixels. */
const APART = { x: 84, y: 52 };
const PIXELS_PER_M = { least: 26, most: 70 };
/** Round the outermost spots, metres. */
const AROUND_M = 1.4;
const WIDEST = 560;
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
    const makes = results.find((result) => result.spot === name && result.tried > 0);
    return makes ? [{ name, at, ...makes }] : [];
  });
  if (!place || tried.length === 0) return null;
  const lines = placeLines(place, ground);
  const reachM = Math.max(...tried.map(({ at }) => Math.abs(at.besideM))) + AROUND_M;
  const deepM = Math.max(...tried.map(({ at }) => at.outM)) + AROUND_M;
  // So that no two spots lie over one another.
  const labels = tried.flatMap(({ at: a }, i) =>
    tried.slice(i + 1).map(({ at: b }) => {
      const [acrossM, outM] = [Math.abs(a.besideM - b.besideM), Math.abs(a.outM - b.outM)];
      return Math.min(APART.x / acrossM, APART.y / outM);
    }),
  );
  const pixelsPerM = Math.min(
    WIDEST / (2 * reachM),
    Math.max(PIXELS_PER_M.least, Math.min(PIXELS_PER_M.most, Math.max(0, ...labels))),
  );
  const width = 2 * reachM * pixelsPerM;
  const height = deepM * pixelsPerM + RADIUS;
  const x = (besideM: number): number => width / 2 + besideM * pixelsPerM;
  // As one faces it: what is built is up.
  const y = (outM: number): number => RADIUS + outM * pixelsPerM;
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
