import { create } from 'zustand';

/** What the server has logged and not counted yet, as its latest answer said. */
export const useUncounted = create<{ rows: number; askedMs: number }>(() => ({
  rows: 0,
  askedMs: 0,
}));

/** Takes note of what an answer said; one that was asked for earlier says nothing any more. */
export const hearUncounted = (rows: number, askedMs: number): void =>
  useUncounted.setState((known) => (askedMs < known.askedMs ? known : { rows, askedMs }));
