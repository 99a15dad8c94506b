import type { Mark } from '@gravek/core/layout/ground';
import type { OtherPath } from '@gravek/core/layout/otherThings';
import type { Ground } from './ground';

/** What lies on the floor is drawn thinner than what stands on it. */
const LINE_CLASS: Partial<Record<OtherPath['kind'], string>> = {
  edge: 'plan-edge',
  line: 'plan-line',
};

export const Other = ({ other, ground }: { other: OtherPath; ground: Ground }) => {
  const spots = other.points.map(ground.at);
  if (other.line) {
    const [[x, y], [x2, y2]] = [spots[0]!, spots[1]!];
    return (
      <g>
        <line x1={x} y1={y} x2={x2} y2={y2} className={LINE_CLASS[other.kind] ?? 'plan-thing'} />
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
      </g>
    );
  }
  const [[x, y]] = spots as [[number, number]];
  return (
    <g className={`stands-${other.kind}`}>
      {spots.length > 1 && (
        <polyline className="plan-way" points={spots.map((spot) => spot.join(',')).join(' ')} />
      )}
      <Stands kind={other.kind} x={x} y={y} />
    </g>
  );
};

/** Whoever or whatever stands at a spot: a base and a ball by their shape, people by head and shoulders. */
const Stands = ({ kind, x, y }: { kind: OtherPath['kind']; x: number; y: number }) => {
  if (kind === 'ball') return <circle className="ball" cx={x} cy={y} r="5" />;
  if (kind === 'base') {
    return <rect className="base" x={x - 6} y={y - 6} width="12" height="12" />;
  }
  return (
    <>
      <rect className="person" x={x - 10} y={y - 5} width="20" height="10" rx="5" />
      <circle className="person" cx={x} cy={y} r="5" />
    </>
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

export const MarkSign = ({ mark, ground }: { mark: Mark; ground: Ground }) => {
  const [x, y] = ground.at(mark);
  return (
    <path
      className="plan-sign"
      d={MARK_SIGNS[mark.kind]}
      transform={`translate(${x},${y}) rotate(${ground.turn(mark.headingDeg)})`}
    />
  );
};
