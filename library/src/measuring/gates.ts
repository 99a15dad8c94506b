import { parseLength } from '@gravek/core/lengthText';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { MeasuredRun } from '@gravek/contract/session';
import { secondsOf } from './figure';
import type { PlannedRun } from './measuredRun';
import type { Split } from './recorded';

/**
 * When a plan passes a gate, seconds from its start.
 *
 * @param distanceM from the start, along the run
 * @returns null beyond its end, or where its lengths are not known
 * @example
 * const plan = { steps: [{ lengthM: 1.2, intervalS: 0.3 }, { lengthM: 1.5, intervalS: 0.28 }], steady: null };
 * passedAt(plan.steps, 1.2) // 0.3
 */
export const passedAt = (steps: PlannedRun['steps'], distanceM: number): number | null => {
  let [wayM, timeS] = [0, 0];
  for (const { lengthM, intervalS } of steps) {
    if (lengthM === null) return null;
    if (wayM + lengthM >= distanceM - 1e-9) {
      const part = lengthM > 0 ? Math.min(1, Math.max(0, (distanceM - wayM) / lengthM)) : 1;
      return timeS + part * intervalS;
    }
    wayM += lengthM;
    timeS += intervalS;
  }
  return null;
};

/** Nobody passes from gate to gate faster than this, metres a second. */
const MOST_MPS = 12.5;

/**
 * What gates measured of a run, stretch by stretch, beside its plan.
 *
 * @param splits times at gates since the start, in any order
 * @param style in which a gate that cannot be is named
 * @throws {RangeError} naming the place that cannot be: two gates there, times that do not rise
 * @example
 * const splits = [{ distanceM: 5, timeS: 1.2 }, { distanceM: 10, timeS: 1.95 }];
 * gatesMeasured(splits, null, false).course.map(({ speedMps }) => speedMps) // [4.17, 6.67]
 */
export const gatesMeasured = (
  splits: readonly Split[],
  plan: PlannedRun | null,
  simulated: boolean,
  style: LengthStyle = { unit: 'metric' },
): MeasuredRun => {
  const sorted = [...splits].sort((a, b) => a.distanceM - b.distanceM);
  const course = sorted.map(({ distanceM, timeS }, i) => {
    const place = formatLength(distanceM, style);
    const before = sorted[i - 1] ?? { distanceM: 0, timeS: 0 };
    const [wayM, forS] = [distanceM - before.distanceM, timeS - before.timeS];
    if (!(wayM > 0)) throw new RangeError(`two gates stand at ${place}`);
    if (!(forS > 0) || wayM / forS > MOST_MPS)
      throw new RangeError(`nobody is at ${place} after ${timeS} s`);
    const [from, to] = plan
      ? [passedAt(plan.steps, before.distanceM), passedAt(plan.steps, distanceM)]
      : [null, null];
    return {
      atS: Number(timeS.toFixed(3)),
      cadenceSpm: null,
      speedMps: Number((wayM / forS).toFixed(3)),
      plannedSpm: null,
      plannedMps: from === null || to === null ? null : Number((wayM / (to - from)).toFixed(3)),
    };
  });
  return { by: 'gates', simulated, steps: [], perMinute: false, course };
};

/** No run through gates takes longer. */
const LONGEST_S = 600;

const SILENT = /^[-–—]$/;

/** No gate stands farther off, metres. */
const FARTHEST_M = 400;

const parts = (text: string): string[] =>
  text
    .trim()
    .split(/\s*;\s*|,?\s+/)
    .filter(Boolean);

/**
 * Gates as they are typed beside the track: where they stand, and the times of a run, a stroke for a beam
 * that nobody broke. Fewer times than gates are a run that is not over.
 *
 * @param style how bare distances are meant
 * @example readPasses('5 10 20', '1,31 - 3,40', { unit: 'metric' }) // two splits, at 5 m and at 20 m
 */
export const readPasses = (
  distances: string,
  times: string,
  style: LengthStyle,
): { ok: true; splits: Split[] } | { ok: false; why: string } => {
  const at = parts(distances).map((part) => {
    const read = parseLength(part, style);
    return read.ok ? read.lengthM : NaN;
  });
  const timed = parts(times).map((part) => (SILENT.test(part) ? null : secondsOf(part)));
  if (at.length === 0 || at.some((value) => !(value > 0 && value <= FARTHEST_M)))
    return { ok: false, why: 'Write how far from the start the gates stand, such as 5 10 20.' };
  if (timed.some((seconds) => seconds !== null && !(seconds >= 0 && seconds <= LONGEST_S)))
    return { ok: false, why: 'Write the times in seconds, such as 1.31 2.05, a stroke for none.' };
  if (timed.length > at.length)
    return { ok: false, why: `${timed.length} times, but ${at.length} gates.` };
  return {
    ok: true,
    splits: timed.flatMap((timeS, i) => (timeS === null ? [] : [{ distanceM: at[i]!, timeS }])),
  };
};
