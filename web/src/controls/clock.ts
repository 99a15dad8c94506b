/** The page's own clock, milliseconds: it never goes back, whatever the device's clock does. */
export const clockMs = (): number => performance.now();
