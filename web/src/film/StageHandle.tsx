import {
  fitPlane,
  type GroundPoint,
  pictureAt,
  type PicturePoint,
} from '@gravek/core/film/planeMap';
import { useRef, useState } from 'react';
import type { Marks } from './useReview';

/** A mark that can be dragged, or moved by the arrow keys by a pixel, with Shift by ten. */
export const Handle = ({
  at,
  label,
  toPicture,
  onMove,
  onRemove,
  children,
}: {
  at: PicturePoint;
  label: string;
  toPicture: (event: { clientX: number; clientY: number }) => PicturePoint;
  onMove: (to: PicturePoint) => void;
  onRemove: () => void;
  children: React.ReactNode;
}) => {
  const [dragged, setDragged] = useState<PicturePoint | null>(null);
  const off = useRef<PicturePoint>({ x: 0, y: 0 });
  const { x, y } = dragged ?? at;
  return (
    <g
      className="film-handle"
      role="button"
      tabIndex={0}
      aria-label={label}
      transform={`translate(${x},${y})`}
      onClick={(event) => event.stopPropagation()}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        const from = toPicture(event);
        off.current = { x: at.x - from.x, y: at.y - from.y };
        setDragged(at);
      }}
      onPointerMove={(event) => {
        if (!dragged) return;
        const to = toPicture(event);
        setDragged({ x: to.x + off.current.x, y: to.y + off.current.y });
      }}
      onPointerUp={() => {
        if (dragged && (dragged.x !== at.x || dragged.y !== at.y)) onMove(dragged);
        setDragged(null);
      }}
      onPointerCancel={() => setDragged(null)}
      onKeyDown={(event) => {
        const by = event.shiftKey ? 10 : 1;
        const moves: Record<string, [number, number]> = {
          ArrowLeft: [-by, 0],
          ArrowRight: [by, 0],
          ArrowUp: [0, -by],
          ArrowDown: [0, by],
        };
        const move = moves[event.key];
        if (!move && event.key !== 'Delete') return;
        event.preventDefault();
        event.stopPropagation();
        if (move) onMove({ x: at.x + move[0], y: at.y + move[1] });
        else onRemove();
      }}
    >
      {children}
    </g>
  );
};

/** A net of metres over the ground that the marks span: where it lies askew, a mark is wrong. */
export const netOf = (view: Marks['view']): PicturePoint[][] => {
  if (view?.kind !== 'marks') return [];
  try {
    const fit = fitPlane(view.pairs);
    const along = view.pairs.map(({ ground }) => ground.alongM);
    const across = view.pairs.map(({ ground }) => ground.acrossM);
    const [from, to] = [Math.min(...along), Math.max(...along)];
    const [right, left] = [Math.min(...across), Math.max(...across)];
    const line = (a: GroundPoint, b: GroundPoint): PicturePoint[] =>
      [a, b].flatMap((place) => pictureAt(fit, place) ?? []);
    const metres = Array.from({ length: Math.floor(to - from) + 1 }, (_, i) => from + i);
    return [
      ...[right, left].map((acrossM) => line({ alongM: from, acrossM }, { alongM: to, acrossM })),
      ...metres.map((alongM) => line({ alongM, acrossM: right }, { alongM, acrossM: left })),
    ].filter((points) => points.length === 2);
  } catch {
    return [];
  }
};
