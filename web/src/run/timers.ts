import { useEffect, useRef, useState } from 'react';

/** Seconds until a moment, counting down; 0 once it has come. */
export const useSecondsTo = (atMs: number | null): number => {
  const [now, setNow] = useState(Date.now);
  const over = atMs === null || now >= atMs;
  useEffect(() => {
    if (over) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, [over]);
  return over ? 0 : Math.ceil((atMs - now) / 1000);
};

/** Counts how long a press lasts. */
export const useHold = (onHeld: (seconds: number) => void) => {
  const since = useRef<number | null>(null);
  const [seconds, setSeconds] = useState<number | null>(null);
  const holding = seconds !== null;
  useEffect(() => {
    if (!holding) return undefined;
    const timer = setInterval(
      () => setSeconds((performance.now() - (since.current ?? performance.now())) / 1000),
      100,
    );
    return () => clearInterval(timer);
  }, [holding]);
  const begin = (): void => {
    since.current ??= performance.now();
    setSeconds(0);
  };
  const end = (): void => {
    if (since.current === null) return;
    const heldS = (performance.now() - since.current) / 1000;
    since.current = null;
    setSeconds(null);
    onHeld(Math.round(heldS * 10) / 10);
  };
  return { seconds, begin, end };
};
