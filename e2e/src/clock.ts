import type { Browser } from '@playwright/test';

/** How far the clock of this run is from the machine's, in milliseconds; see `tools/otherTime.mjs`. */
const SHIFT_MS = Number(process.env.GRAVEK_SHIFT_S ?? 0) * 1000;

/** Gives every page of a browser the clock that server and tests have. */
export const shifted = (browser: Browser): Browser => {
  if (SHIFT_MS === 0) return browser;
  const newContext = browser.newContext.bind(browser);
  browser.newContext = async (options) => {
    const context = await newContext(options);
    await context.addInitScript((shiftMs) => {
      const Machine = Date;
      globalThis.Date = class extends Machine {
        constructor(...given: []) {
          if (given.length > 0) super(...given);
          else super(Machine.now() + shiftMs);
        }
        static override now(): number {
          return Machine.now() + shiftMs;
        }
      } as DateConstructor;
    }, SHIFT_MS);
    return context;
  };
  return browser;
};
