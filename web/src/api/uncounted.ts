import { create } from 'zustand';

/** What the server has logged and not counted yet, as its latest answer said. */
export const useUncounted = create<{ rows: number; askedMs: number }>(() => ({
  rows: 0,
  askedMs: 0,
}));

/** Takes note of what an answer said; one that was asked for earlier says nothing any more. */
export const hearUncounted = (rows: number, askedMs: number): void =>
  useUncounted.setState((before) => (askedMs < before.askedMs ? before : { rows, askedMs }));

/** The server counts within about this time. */
const COUNTED_MS = 1_500;

/**
 * Asks again for what is counted meanwhile: a moment after an answer said that rows wait, and at once when one
 * says that none do any more. Word that they were counted may have come while nobody listened.
 *
 * @returns a function that stops it
 */
export const whenCounted = (ask: () => void): (() => void) => {
  let again: ReturnType<typeof setTimeout> | undefined;
  const look = (rows: number, before: number): void => {
    clearTimeout(again);
    if (rows > 0) again = setTimeout(ask, COUNTED_MS);
    else if (before > 0) ask();
  };
  look(useUncounted.getState().rows, 0);
  const stop = useUncounted.subscribe((now, before) => look(now.rows, before.rows));
  return () => {
    clearTimeout(again);
    stop();
  };
};
