import type { LengthStyle } from '@gravek/core/units';
import type { MeasuredBy } from '@gravek/contract/drillSet';

/** What a device says at a moment of the page's clock. */
export type Said = {
  atMs: number;
  /** steps a minute as it was sent: a pod may count one foot only */
  count: number;
  speedMps: number | null;
  /** the device's own word; null where it has none */
  running: boolean | null;
};

export type Hears = {
  reading: (said: Said) => void;
  /** a foot has landed at a moment of the page's clock */
  landed: (atMs: number) => void;
  /** the connection is gone; it is tried again */
  lost: () => void;
  back: () => void;
  /** gates: where they stand, and what they have timed of the run so far, seconds */
  gates: (typed: TypedGates) => void;
};

/** Gates as they are typed: figures in a row, a stroke for a beam that nobody broke. */
export type TypedGates = {
  distances: string;
  times: string;
  /** how bare distances are meant */
  style: LengthStyle;
};

/** A device that is connected, a real one or one that is made up. */
export type Device = {
  name: string;
  by: MeasuredBy;
  /** made up by the app, to try things out */
  simulated: boolean;
  /** each reading is a foot that lands */
  contacts: boolean;
  /** it goes with one athlete; others measure whoever runs */
  worn: boolean;
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
