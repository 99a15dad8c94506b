import type { MeasuredBy } from '@gravek/contract';

/** What a device says at a moment of the page's clock. */
export type Said = {
  atMs: number;
  cadenceSpm: number;
  speedMps: number | null;
  /** it counts one foot, and its count was doubled */
  oneFoot: boolean;
};

export type Hears = {
  reading: (said: Said) => void;
  /** the connection is gone; it is tried again */
  lost: () => void;
  back: () => void;
};

/** A device that is connected, a real one or one that is made up. */
export type Device = {
  name: string;
  by: MeasuredBy;
  /** made up by the app, to try things out */
  simulated: boolean;
  stop: () => void;
};

/** Why a device cannot be reached, as a sentence. */
export class DeviceProblem extends Error {}

/**
 * Connects to a device; readings come until it is stopped.
 *
 * @throws {DeviceProblem} when it cannot be reached
 */
export type Connect = (hears: Hears) => Promise<Device>;
