import { useEffect, useRef, useState, useSyncExternalStore, type RefObject } from 'react';

/** Between the margins of a sheet of paper, pixels. */
const PAPER = 840;

const watch = (onChange: () => void): (() => void) => {
  const print = window.matchMedia('print');
  print.addEventListener('change', onChange);
  return () => print.removeEventListener('change', onChange);
};

/** Width of an element in pixels, so that a drawing can be made to measure and its text stays in size. */
export const useWidth = <E extends HTMLElement>(first: number): [RefObject<E | null>, number] => {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(first);
  const printing = useSyncExternalStore(watch, () => window.matchMedia('print').matches);
  useEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const seen = new ResizeObserver(([entry]) => {
      const now = Math.round(entry!.contentRect.width);
      if (now > 0) setWidth(now);
    });
    seen.observe(element);
    return () => seen.disconnect();
  }, []);
  return [ref, printing ? PAPER : width];
};
