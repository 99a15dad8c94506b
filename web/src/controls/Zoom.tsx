import { ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';

export const ZOOMS = [1, 1.5, 2, 3, 4, 6] as const;

/** Nearer and farther, by + and − too; what is nearer than the panel is moved by scrolling it. */
export const Zoom = ({ zoom, onZoom }: { zoom: number; onZoom: (zoom: number) => void }) => {
  const at = Math.max(0, ZOOMS.indexOf(zoom as (typeof ZOOMS)[number]));
  const go = (by: -1 | 1): void => onZoom(ZOOMS[Math.max(0, Math.min(ZOOMS.length - 1, at + by))]!);
  const press = useRef(go);
  useEffect(() => {
    press.current = go;
  });
  useEffect(() => {
    const key = (event: KeyboardEvent): void => {
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input, textarea, select');
      if (typing || event.ctrlKey || event.metaKey) return;
      if (event.key === '+' || event.key === '=') press.current(1);
      if (event.key === '-') press.current(-1);
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, []);
  return (
    <span className="d-inline-flex gap-1">
      <Button
        variant="outline-dark"
        aria-label="Farther"
        title="Farther (−)"
        disabled={at === 0}
        onClick={() => go(-1)}
      >
        <ZoomOut size={16} aria-hidden />
      </Button>
      <Button
        variant="outline-dark"
        aria-label="Nearer"
        title="Nearer (+)"
        disabled={at === ZOOMS.length - 1}
        onClick={() => go(1)}
      >
        <ZoomIn size={16} aria-hidden />
      </Button>
    </span>
  );
};
