/** So long a page may be busy before it looks whether somebody has touched it, milliseconds. */
const SLICE_MS = 5;

/**
 * Does long work a little at a time, so that a page draws and answers in between.
 *
 * @param isOver whether nobody waits for it any more
 */
export const inSlices = async (work: Iterator<unknown>, isOver: () => boolean): Promise<void> => {
  for (;;) {
    const until = performance.now() + SLICE_MS;
    while (performance.now() < until) if (work.next().done) return;
    await new Promise((resolve) => setTimeout(resolve));
    if (isOver()) return;
  }
};

/** Does what can wait once the page has nothing else to do. Returns how to call it off. */
export const whenIdle = (work: () => void): (() => void) => {
  if (!('requestIdleCallback' in globalThis)) {
    const timer = setTimeout(work, 500);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(work, { timeout: 2_000 });
  return () => cancelIdleCallback(asked);
};
