/** Does what can wait once the page has nothing else to do. Returns how to call it off. */
export const whenIdle = (work: () => void): (() => void) => {
  if (!('requestIdleCallback' in globalThis)) {
    const timer = setTimeout(work, 500);
    return () => clearTimeout(timer);
  }
  const callbackId = requestIdleCallback(work, { timeout: 2_000 });
  return () => cancelIdleCallback(callbackId);
};
