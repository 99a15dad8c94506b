import { number } from '../check';

/** Braking limit of an athlete who was never measured, m/s². */
export const USUAL_BRAKING_MPS2 = 4.5;

export type ClosingSpeed = {
  /** fastest close that can still be braked in the zone, m/s */
  closeMps: number;
  /** of top speed */
  fraction: number;
  /** what top speed would ask for, m/s² */
  demandMps2: number;
};

/**
 * How fast to close when the speed must be gone within a zone: √(short² + 2·brake·zone), at most top
 * speed. Shortening before the zone is never the answer; a slower close is.
 *
 * @param input speeds in m/s, braking in m/s², the zone in metres (three own walking paces as a rule)
 * @throws {RangeError} naming the field that is out of range
 * @example closingSpeed({ topSpeedMps: 7.4, shortSpeedMps: 0.6, brakeMps2: 4.5, zoneM: 2.4 }).closeMps // 4.69
 * Source: constant deceleration over a distance
 */
export const closingSpeed = (input: {
  topSpeedMps: number;
  shortSpeedMps: number;
  brakeMps2: number;
  zoneM: number;
}): ClosingSpeed => {
  const top = number('topSpeedMps', input.topSpeedMps, { above: 0, max: 13 });
  const short = number('shortSpeedMps', input.shortSpeedMps, { min: 0, max: top });
  const brake = number('brakeMps2', input.brakeMps2, { above: 0, max: 20 });
  const zoneM = number('zoneM', input.zoneM, { above: 0, max: 60 });
  const closeMps = Math.min(top, Math.sqrt(short ** 2 + 2 * brake * zoneM));
  return {
    closeMps,
    fraction: closeMps / top,
    demandMps2: (top ** 2 - short ** 2) / (2 * zoneM),
  };
};
