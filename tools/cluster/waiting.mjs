import { say, Stop } from '../say.mjs';

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Looks again and again until something is there; a fault while looking counts as not there yet. */
export const until = async (what, look, ms = 60_000) => {
  const end = Date.now() + ms;
  for (;;) {
    const found = await look().catch((error) => {
      if (error instanceof Stop) throw error;
      return null;
    });
    if (found) return found;
    if (Date.now() > end) throw new Stop(`This did not come to pass: ${what}`);
    await pause(150);
  }
};

export const holds = (what, truth) => {
  if (!truth) throw new Stop(`This does not hold: ${what}`);
  say(`  holds: ${what}`);
};

export const seconds = (ms) => `${(ms / 1000).toFixed(1)} s`;
