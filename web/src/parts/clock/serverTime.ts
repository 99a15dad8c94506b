import { clockMs } from '../../controls/clock';

/** What a round trip to the server told of its time. */
type Measured = {
  /** the server's time less the page's own clock, milliseconds */
  aheadMs: number;
  /** how long the round trip took; the server's time is right to within half of it */
  tripMs: number;
  atMs: number;
};

/** Clocks drift apart; what was measured longer ago no longer counts, milliseconds. */
const DRIFTS_AFTER_MS = 15 * 60_000;
const KEPT_AS = 'gravek.serverAhead';

let measured: Measured[] = [];

/** The round trip that was shortest, of those that still count. */
const best = (): Measured | undefined => measured.toSorted((a, b) => a.tripMs - b.tripMs)[0];

/**
 * Takes note of the server's time.
 *
 * @param serverMs what it said, milliseconds since 1970
 * @param askedMs when it was asked, by `clockMs`
 */
export const noteServerTime = (serverMs: number, askedMs: number): void => {
  const atMs = clockMs();
  const tripMs = atMs - askedMs;
  measured = [
    ...measured.filter((one) => atMs - one.atMs < DRIFTS_AFTER_MS),
    { aheadMs: serverMs - (askedMs + tripMs / 2), tripMs, atMs },
  ];
  try {
    // For a page that is opened anew where there is no network.
    localStorage.setItem(KEPT_AS, String(serverNowMs() - Date.now()));
  } catch {
    // Without it this device's own clock has to do.
  }
};

/** The server's time as this device knows it, milliseconds since 1970; without any word of it the device's own. */
export const serverNowMs = (): number => {
  const found = best();
  if (found) return clockMs() + found.aheadMs;
  return Date.now() + (Number(localStorage.getItem(KEPT_AS)) || 0);
};

/** How far off this device's idea of the server's time can be, seconds; null where it was never asked. */
export const serverTimeErrorS = (): number | null => {
  const found = best();
  return found ? found.tripMs / 2000 : null;
};

/** Whether the server has told its time to this page. */
export const isTimeKnown = (): boolean => measured.length > 0;
