import { clockMs } from '../controls/clock';
import type { Connect } from './device';

/** A pause longer than this ends a run: what follows is another one. */
const PAUSE_MS = 2_000;

let heard: ((atMs: number) => void) | null = null;

/** A tap as a foot lands; counts only while taps measure. */
export const tap = (): void => heard?.(clockMs());

/** Contacts marked by a thumb, one tap each. */
export const taps: Connect = ({ reading }) => {
  let beforeMs: number | null = null;
  heard = (atMs) => {
    if (beforeMs !== null && atMs - beforeMs < PAUSE_MS) {
      reading({ atMs, cadenceSpm: 60_000 / (atMs - beforeMs), speedMps: null, oneFoot: false });
    }
    beforeMs = atMs;
  };
  return Promise.resolve({
    name: 'Taps',
    by: 'taps',
    simulated: false,
    stop: () => {
      heard = null;
    },
  });
};
