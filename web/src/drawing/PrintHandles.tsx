import type { Footfall } from '@gravek/core/layout/walker';
import { formatLength, INCH_M, type LengthStyle } from '@gravek/core/units';
import { useRef, useState } from 'react';

const SHORTEST_M = 0.03;
const LONGEST_M = 3.5;
/** Less than this is a press, not a drag, pixels. */
const STILL_PX = 3;

/** How far one press of an arrow key changes a step. */
const nudgeM = (style: LengthStyle): number =>
  style.unit === 'metric' || style.unit === 'shoes' ? 0.01 : INCH_M / 2;

/**
 * The prints of a strip to take hold of: dragged toward the target a step gets longer, away from it
 * shorter. Left and right arrow keys do the same, up and down go to the next print, Delete lets it go.
 */
export const PrintHandles = ({
  falls,
  pinned,
  style,
  place,
  onPin,
}: {
  falls: readonly Footfall[];
  /** numbers of steps whose length is set */
  pinned: ReadonlySet<number>;
  style: LengthStyle;
  /** middle of a print, and what a metre is there, pixels */
  place: (fall: Footfall) => { x: number; y: number; pixels: number };
  onPin: (step: number, lengthM: number | null) => void;
}) => {
  const drag = useRef<{ step: number; x: number; lengthM: number; pixels: number } | null>(null);
  // One stop for Tab; up and down go from print to print.
  const [active, setActive] = useState(1);
  const handles = useRef<HTMLDivElement>(null);
  const go = (step: number): void => {
    const next = Math.max(1, Math.min(falls.length, step));
    setActive(next);
    handles.current?.querySelectorAll<HTMLElement>('[role=slider]')[next - 1]?.focus();
  };
  const stop = Math.min(active, falls.length);
  const pin = (step: number, lengthM: number): void =>
    onPin(step, Number(Math.max(SHORTEST_M, Math.min(LONGEST_M, lengthM)).toFixed(4)));
  return (
    <div ref={handles}>
      {falls.map((step) => {
        const { x, y, pixels } = place(step);
        return (
          <div
            key={step.n}
            className={pinned.has(step.n) ? 'print-handle pinned' : 'print-handle'}
            style={{ left: x - 15, top: y - 15 }}
            role="slider"
            tabIndex={step.n === stop ? 0 : -1}
            onFocus={() => setActive(step.n)}
            aria-label={`Length of step ${step.n}`}
            aria-orientation="horizontal"
            aria-valuemin={SHORTEST_M}
            aria-valuemax={LONGEST_M}
            aria-valuenow={Number(step.lengthM.toFixed(3))}
            aria-valuetext={`${formatLength(step.lengthM, style)}${pinned.has(step.n) ? ', pinned' : ''}`}
            title={`Step ${step.n}: ${formatLength(step.lengthM, style)}${pinned.has(step.n) ? ', pinned; double-click lets it go' : ''}`}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              drag.current = { step: step.n, x: event.clientX, lengthM: step.lengthM, pixels };
            }}
            onPointerMove={(event) => {
              const from = drag.current;
              if (from?.step !== step.n || Math.abs(event.clientX - from.x) < STILL_PX) return;
              pin(step.n, from.lengthM + (event.clientX - from.x) / from.pixels);
            }}
            onPointerUp={() => {
              drag.current = null;
            }}
            onPointerCancel={() => {
              drag.current = null;
            }}
            onDoubleClick={() => onPin(step.n, null)}
            onKeyDown={(event) => {
              const by = nudgeM(style) * (event.shiftKey ? 5 : 1);
              if (event.key === 'ArrowRight') pin(step.n, step.lengthM + by);
              else if (event.key === 'ArrowLeft') pin(step.n, step.lengthM - by);
              else if (event.key === 'ArrowUp') go(step.n + 1);
              else if (event.key === 'ArrowDown') go(step.n - 1);
              else if (event.key === 'Delete' || event.key === 'Backspace') {
                onPin(step.n, null);
              } else return;
              event.preventDefault();
            }}
          />
        );
      })}
    </div>
  );
};
