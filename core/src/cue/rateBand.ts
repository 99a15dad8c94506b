import { number } from '../check';
import { dayNumber } from '../days';
import {
  checkCount,
  HALF_LIFE_DAYS,
  posterior,
  PRIOR,
  type FaultRate,
  type SessionCount,
} from './faultRate';

export type RateBand = FaultRate & {
  /** 1 or more: by how much days differ more than chance alone lets them */
  spreadFactor: number;
};

/** What a fault's days are taken to scatter by before much has been seen: weight and worth of the guess. */
const USUAL_SPREAD = { sum: 9.6, days: 7 };

/** A session by the number of its day. */
type DayCount = { day: number; reps: number; faults: number };

/**
 * The posterior behind `rateBand`: α and β, without the bounds, which take far longer than all else.
 *
 * @param days of sessions with reps
 * @param weights what is left of each
 * @example
 * bandShape([{ reps: 8, faults: 2 }, { reps: 6, faults: 3 }], [1, 0.5])
 * // { alpha: 3.94, beta: 7.87, spreadFactor: 1.18 }
 */
export const bandShape = (
  days: readonly { reps: number; faults: number }[],
  weights: readonly number[],
): { alpha: number; beta: number; spreadFactor: number } => {
  // Weights of long ago are so small that their squares are none; only how they compare matters for k.
  const greatest = weights.reduce((most, weight) => Math.max(most, weight), 0);
  if (greatest === 0) return { alpha: PRIOR, beta: PRIOR, spreadFactor: 1 };
  let faults = 0;
  let reps = 0;
  let squares = 0;
  days.forEach((day, i) => {
    const weight = weights[i]! / greatest;
    faults += weight * day.faults;
    reps += weight * day.reps;
    squares += weight * weight * day.reps;
  });
  const p = (greatest * faults + PRIOR) / (greatest * reps + 2 * PRIOR);
  let scatter = 0;
  for (const other of days) {
    scatter += (other.faults - other.reps * p) ** 2 / (other.reps * p * (1 - p));
  }
  const spreadFactor = Math.max(
    1,
    (USUAL_SPREAD.sum + scatter) / (USUAL_SPREAD.days + days.length),
  );
  const k = reps / squares / spreadFactor;
  return { alpha: PRIOR + k * faults, beta: PRIOR + k * (reps - faults), spreadFactor };
};

/**
 * How often a fault shows, with its band: sessions fade by half for every half-life of age, and days that
 * differ more than chance alone lets them widen the band. Sessions after `onDate` do not count.
 *
 * @param input days as yyyy-mm-dd; half-life in days, 28 when absent
 * @returns mean and 5–95 % points; ½ and the widest band where nothing was seen
 * @throws {RangeError} naming the session and field that is out of range
 * @example
 * rateBand({ sessions: [{ date: '2031-03-21', reps: 12, faults: 4 }], onDate: '2031-03-28' }).rate // 0.349
 * Source: beta-binomial posterior of the effective number of reps (Kish), widened by Pearson's scatter
 */
export const rateBand = (input: {
  sessions: readonly SessionCount[];
  onDate: string;
  halfLifeDays?: number | undefined;
}): RateBand => {
  const halfLife = number('halfLifeDays', input.halfLifeDays ?? HALF_LIFE_DAYS, {
    above: 0,
    max: 3650,
  });
  const on = dayNumber('onDate', input.onDate);
  const days = input.sessions
    .map((session, i): DayCount => {
      checkCount(`sessions[${i}].`, session);
      const { reps, faults } = session;
      return { day: dayNumber(`sessions[${i}].date`, session.date), reps, faults };
    })
    .filter(({ day, reps }) => day <= on && reps > 0);
  const weights = days.map(({ day }) => 0.5 ** ((on - day) / halfLife));
  const { alpha, beta, spreadFactor } = bandShape(days, weights);
  return { ...posterior(alpha, beta), spreadFactor };
};
