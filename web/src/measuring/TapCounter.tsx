import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';

/** Taps along with one foot for a chosen time; the count goes into the form. */
export const TapCounter = ({
  seconds,
  onCount,
}: {
  seconds: number;
  onCount: (count: number) => void;
}) => {
  const [state, setState] = useState<{ count: number; endMs: number } | null>(null);
  const [leftS, setLeftS] = useState(seconds);
  const done = useRef(onCount);
  useEffect(() => {
    done.current = onCount;
  });
  const endMs = state?.endMs ?? null;
  const count = state?.count ?? 0;
  useEffect(() => {
    if (endMs === null) return undefined;
    const timer = setInterval(() => {
      const left = (endMs - Date.now()) / 1000;
      setLeftS(Math.max(0, left));
      if (left <= 0) {
        setState((now) => {
          if (now) done.current(now.count);
          return null;
        });
      }
    }, 50);
    return () => clearInterval(timer);
  }, [endMs]);
  return (
    <Button
      variant={state ? 'primary' : 'outline-dark'}
      className="tap-counter"
      onPointerDown={(event) => {
        event.preventDefault();
        setState((now) =>
          now ? { ...now, count: now.count + 1 } : { count: 1, endMs: Date.now() + seconds * 1000 },
        );
      }}
      onKeyDown={(event) => {
        if ((event.key !== ' ' && event.key !== 'Enter') || event.repeat) return;
        event.preventDefault();
        setState((now) =>
          now ? { ...now, count: now.count + 1 } : { count: 1, endMs: Date.now() + seconds * 1000 },
        );
      }}
    >
      {state
        ? `${count} · ${leftS.toFixed(0)} s left`
        : `Tap with one foot for ${seconds} s; the first tap starts it`}
    </Button>
  );
};
