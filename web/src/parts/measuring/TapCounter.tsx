import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';

/** Taps that come so soon after the time is over still belong to the count that has ended. */
const LATE_MS = 1_500;

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
  /** when the last count ended, milliseconds: a foot that comes down late starts no new one */
  const endedMs = useRef(-Infinity);
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
          endedMs.current = Date.now();
          return null;
        });
      }
    }, 50);
    return () => clearInterval(timer);
  }, [endMs]);
  const tap = (): void => {
    if (!state && Date.now() - endedMs.current < LATE_MS) return;
    setState((now) =>
      now ? { ...now, count: now.count + 1 } : { count: 1, endMs: Date.now() + seconds * 1000 },
    );
  };
  return (
    <Button
      variant={state ? 'primary' : 'outline-dark'}
      className="tap-counter"
      onPointerDown={(event) => {
        event.preventDefault();
        tap();
      }}
      onKeyDown={(event) => {
        if ((event.key !== ' ' && event.key !== 'Enter') || event.repeat) return;
        event.preventDefault();
        tap();
      }}
    >
      {state
        ? `${count} · ${leftS.toFixed(0)} s left`
        : `Tap with one foot for ${seconds} s; the first tap starts it`}
    </Button>
  );
};
