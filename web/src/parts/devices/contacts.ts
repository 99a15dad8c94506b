import type { Hears } from './device';

/** A pause longer than this ends a run: what follows is another one. */
const PAUSE_MS = 2_000;
/** Nobody's feet land sooner one after the other: the thumb has slipped. */
const SLIPPED_MS = 150;

/** Makes readings of contacts: each says how fast the step was that it ends. The first of a run is a landing only. */
export const contactReadings = ({
  reading,
  landed,
}: Pick<Hears, 'reading' | 'landed'>): ((atMs: number) => void) => {
  let beforeMs: number | null = null;
  return (atMs) => {
    if (beforeMs !== null && atMs - beforeMs < SLIPPED_MS) return;
    landed(atMs);
    if (beforeMs !== null && atMs - beforeMs < PAUSE_MS) {
      reading({ atMs, count: 60_000 / (atMs - beforeMs), speedMps: null, running: null });
    }
    beforeMs = atMs;
  };
};
