import { number, whole } from '../check';

export type CadenceWeek = { week: number; cadenceSpm: number; stepM: number };

/**
 * A steady-run cadence raised week by week at the same pace: a straight ramp from the baseline,
 * rounded to whole beats, with the step length that keeps the pace.
 *
 * @returns weeks 0 (baseline) to `weeks`
 * @throws {RangeError} naming the field that is out of range
 * @example
 * cadencePlan({ baselineSpm: 162, increasePct: 8, weeks: 5, speedMps: 3.4 }).at(-1)
 * // { week: 5, cadenceSpm: 175, stepM: 1.17 }
 * Source: speed = cadence × step length
 */
export const cadencePlan = (input: {
  baselineSpm: number;
  increasePct: number;
  weeks: number;
  speedMps: number;
}): CadenceWeek[] => {
  const baselineSpm = number('baselineSpm', input.baselineSpm, { min: 60, max: 300 });
  const increasePct = number('increasePct', input.increasePct, { min: -30, max: 30 });
  const weeks = whole('weeks', input.weeks, { min: 1, max: 52 });
  const speedMps = number('speedMps', input.speedMps, { above: 0, max: 13 });
  return Array.from({ length: weeks + 1 }, (_, week) => {
    const cadenceSpm = Math.round(baselineSpm * (1 + ((increasePct / 100) * week) / weeks));
    return { week, cadenceSpm, stepM: (speedMps * 60) / cadenceSpm };
  });
};
