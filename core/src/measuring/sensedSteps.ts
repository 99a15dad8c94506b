/** How loud it is at a moment: the root mean square of a few milliseconds, 1 the loudest that can be. */
export type SoundSample = { atS: number; level: number };

/** A landing is heard from this on; softer ones are lost in any room. */
const LEAST_LEVEL = 0.01;
/** So many times the noise around it stands a landing out. */
const OVER_NOISE = 4;
const NOISE_OVER_S = 1;
/** Before that nothing is known of the noise. */
const LISTENS_S = 0.2;

/**
 * Landings that a microphone hears: the moment at which it grows loud, many times over what went on before;
 * what rings on after it is no other one.
 *
 * @param samples in the order of time, a hundred a second or more
 * @returns moments of the landings, seconds
 * @example
 * stepsHeard(Array.from({ length: 100 }, (_, i) => ({ atS: i / 50, level: i % 25 === 24 ? 0.5 : 0.004 })))
 * // [0.48, 0.98, 1.48, 1.98]
 * Source: onset by energy over the median of the second before, with a refractory time
 */
export const stepsHeard = (samples: readonly SoundSample[]): number[] => {
  const steps: number[] = [];
  let from = 0;
  samples.forEach(({ atS, level }, i) => {
    while (samples[from]!.atS < atS - NOISE_OVER_S) from += 1;
    if (atS - samples[from]!.atS < LISTENS_S) return;
    if (level < LEAST_LEVEL || level <= samples[i - 1]!.level) return;
    if (steps.length > 0 && atS - steps.at(-1)! < LEAST_STEP_S) return;
    const around = samples
      .slice(from, i)
      .map((sample) => sample.level)
      .sort((a, b) => a - b);
    const noise = around[Math.floor(around.length / 2)] ?? 0;
    if (level > OVER_NOISE * noise) steps.push(atS);
  });
  return steps;
};

/** How hard the phone is shaken at a moment, without what gravity does. */
export type MotionSample = { atS: number; mps2: number };

/** Nobody's feet come faster than this, both counted. */
const LEAST_STEP_S = 0.18;
/** Softer than this is no step. */
const STEP_MPS2 = 2.5;

/**
 * Steps that a phone on the body feels: peaks of the shaking that stand out from what lies around them.
 *
 * @param samples in the order of time, some tens a second
 * @returns moments of the steps, seconds
 * @example
 * stepsFelt(Array.from({ length: 100 }, (_, i) => ({ atS: i / 50, mps2: i % 25 === 24 ? 12 : 0.2 })))
 * // [0.48, 0.98, 1.48, 1.98]
 * Source: peak picking with a moving threshold and a refractory time
 */
export const stepsFelt = (samples: readonly MotionSample[]): number[] => {
  const steps: number[] = [];
  samples.forEach(({ atS, mps2 }, i) => {
    const around = samples.slice(Math.max(0, i - 40), i + 41);
    const mean = around.reduce((sum, sample) => sum + sample.mps2, 0) / around.length;
    const sd = Math.sqrt(
      around.reduce((sum, sample) => sum + (sample.mps2 - mean) ** 2, 0) / around.length,
    );
    const isPeak =
      mps2 >= (samples[i - 1]?.mps2 ?? -Infinity) && mps2 > (samples[i + 1]?.mps2 ?? -Infinity);
    if (!isPeak || mps2 < STEP_MPS2 || mps2 < mean + 0.6 * sd) return;
    if (steps.length > 0 && atS - steps.at(-1)! < LEAST_STEP_S) return;
    steps.push(atS);
  });
  return steps;
};
