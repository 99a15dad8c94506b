import { number, whole } from '../check';

export type SprintFit = {
  topSpeedMps: number;
  tauS: number;
  /** largest miss of a split, seconds */
  worstS: number;
};

const TAU_S = { min: 0.15, max: 4 };

/** Distance run in t seconds with a top speed of 1 m/s. */
const reach = (tauS: number, timeS: number): number => timeS - tauS * (1 - Math.exp(-timeS / tauS));

/** Time to a distance, by Newton's method on a rising, convex function. */
const timeTo = (topSpeedMps: number, tauS: number, distanceM: number): number => {
  let t = distanceM / topSpeedMps + tauS;
  for (let i = 0; i < 40; i += 1) {
    const speed = topSpeedMps * (1 - Math.exp(-t / tauS));
    const step = (topSpeedMps * reach(tauS, t) - distanceM) / Math.max(speed, 1e-9);
    t -= step;
    if (Math.abs(step) < 1e-12) break;
  }
  return t;
};

/**
 * Top speed and time constant from times over distances, speed v(1 − e^(−t/τ)) from the first movement:
 * least squares over the distances; the top speed is eliminated at each τ, which is found by golden
 * section.
 *
 * @param splits at least two, farther ones later; metres and seconds
 * @throws {RangeError} naming the split that cannot be, or when the times show no build-up
 * @example
 * fitSprint([{ distanceM: 5, timeS: 1.2 }, { distanceM: 20, timeS: 3.2 }]).topSpeedMps // 7.97
 * Source: first-order sprint model, separable least squares
 */
export const fitSprint = (splits: readonly { distanceM: number; timeS: number }[]): SprintFit => {
  whole('splits.length', splits.length, { min: 2, max: 12 });
  const sorted = [...splits].sort((a, b) => a.distanceM - b.distanceM);
  sorted.forEach(({ distanceM, timeS }, i) => {
    number(`splits[${i}].distanceM`, distanceM, { min: 1, max: 100 });
    number(`splits[${i}].timeS`, timeS, { min: 0.2, max: 30 });
    const before = sorted[i - 1];
    if (before && (before.distanceM === distanceM || before.timeS >= timeS)) {
      throw new RangeError(`splits[${i}] must be farther and later than the one before it`);
    }
  });
  const topFor = (tauS: number): number => {
    let over = 0;
    let under = 0;
    for (const { distanceM, timeS } of sorted) {
      const g = reach(tauS, timeS);
      over += distanceM * g;
      under += g * g;
    }
    return over / under;
  };
  const squares = (tauS: number): number => {
    const top = topFor(tauS);
    return sorted.reduce(
      (sum, { distanceM, timeS }) => sum + (distanceM - top * reach(tauS, timeS)) ** 2,
      0,
    );
  };
  const golden = (Math.sqrt(5) - 1) / 2;
  let low = TAU_S.min;
  let high = TAU_S.max;
  for (let i = 0; i < 80; i += 1) {
    const a = high - golden * (high - low);
    const b = low + golden * (high - low);
    if (squares(a) < squares(b)) high = b;
    else low = a;
  }
  const tauS = (low + high) / 2;
  const topSpeedMps = topFor(tauS);
  if (tauS > TAU_S.max * 0.99 || tauS < TAU_S.min * 1.02 || topSpeedMps > 13) {
    throw new RangeError(
      'splits must slow down in their gain as a start does, got times that no build-up of speed explains',
    );
  }
  const worstS = Math.max(
    ...sorted.map(({ distanceM, timeS }) => Math.abs(timeTo(topSpeedMps, tauS, distanceM) - timeS)),
  );
  return { topSpeedMps, tauS, worstS };
};
