import { useEffect, useRef, useState, type RefObject } from 'react';

/** Width of an element in pixels, so that a drawing can be made to measure and its text stays in size. */
export const useWidth = <E extends HTMLElement>(first: number): [RefObject<E | null>, number] => {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(([entry]) => {
      const now = Math.round(entry!.contentRect.width);
      if (now > 0) setWidth(now);
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [ref, width];
};
