/** The page's own clock, milliseconds: it never goes back, whatever the device's clock does. */
export const clockMs = (): number => performance.now();

/** Whole seconds as minutes and seconds. */
export const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
