import { whole } from '../check';

/** What a step pod says at a moment. */
export type PodReading = {
  speedMps: number;
  /** steps a minute as it was sent, of one foot or of both: `footCount` tells which */
  count: number;
  /** two steps, metres; null where it does not say */
  strideM: number | null;
  /** since it was switched on or set back; null where it does not say */
  distanceM: number | null;
  running: boolean;
};

/**
 * Reads one measurement of a running speed and cadence sensor.
 *
 * @param bytes as they came: flags, speed, cadence, then stride and distance where the flags say so
 * @throws {RangeError} when it is shorter than its own flags say, or holds no bytes
 * @example podReading({ bytes: [0, 64, 4, 176] }).count // 176
 * Source: Bluetooth SIG, RSC Measurement (0x2A53): speed 1/256 m/s, cadence 1/min, stride cm,
 *   distance dm, little endian
 */
export const podReading = ({ bytes }: { bytes: ArrayLike<number> }): PodReading => {
  const flags = whole('bytes[0]', bytes[0], { min: 0, max: 255 });
  let at = 1;
  const next = (count: number): number => {
    let value = 0;
    for (let i = 0; i < count; i += 1) {
      value += whole(`bytes[${at}]`, bytes[at], { min: 0, max: 255 }) * 256 ** i;
      at += 1;
    }
    return value;
  };
  const speedMps = next(2) / 256;
  const count = next(1);
  const strideM = flags & 1 ? next(2) / 100 : null;
  const distanceM = flags & 2 ? next(4) / 10 : null;
  return {
    speedMps,
    count,
    strideM,
    distanceM,
    running: (flags & 4) !== 0,
  };
};
