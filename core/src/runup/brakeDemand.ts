import { number, whole } from '../check';

export type BrakeDemand = {
  /** the hardest braking between two successive steps, m/s²; 0 where nothing slows */
  demandMps2: number;
  /** the step, from 1, that brakes so; null where nothing slows */
  step: number | null;
};

/**
 * The hardest braking that running steps ask for: (v₍ᵢ₋₁₎² − vᵢ²) ÷ 2Lᵢ between two successive steps, v the step's
 * length times its cadence. The one definition for every warning and limit; of the steps as they are solved,
 * pins and fixed distances included. Feet that brace, as a plant or a landing, are no running steps.
 *
 * @param lengthsM of all steps, metres
 * @param cadencesSpm of the same steps, steps a minute
 * @param fromStep the first step, from 1, whose braking counts
 * @throws {RangeError} naming the field that is out of range
 * @example
 * brakeDemand({ lengthsM: [1.9, 1.5], cadencesSpm: [240, 246], fromStep: 1 }) // { demandMps2: 6.65, step: 2 }, nearly
 * brakeDemand({ lengthsM: [1.2, 1.5], cadencesSpm: [220, 230], fromStep: 1 }) // { demandMps2: 0, step: null }
 * Source: constant deceleration over the step, v² = v₀² − 2as; domain definitions, section 5.
 */
export const brakeDemand = ({
  lengthsM,
  cadencesSpm,
  fromStep,
}: {
  lengthsM: readonly number[];
  cadencesSpm: readonly number[];
  fromStep: number;
}): BrakeDemand => {
  whole('cadencesSpm.length', cadencesSpm.length, { min: lengthsM.length, max: lengthsM.length });
  whole('fromStep', fromStep, { min: 1, max: 1000 });
  lengthsM.forEach((lengthM, i) => number(`lengthsM[${i}]`, lengthM, { above: 0 }));
  const speeds = lengthsM.map(
    (lengthM, i) => (lengthM * number(`cadencesSpm[${i}]`, cadencesSpm[i]!, { min: 0 })) / 60,
  );
  let hardest: BrakeDemand = { demandMps2: 0, step: null };
  for (let i = Math.max(1, fromStep - 1); i < speeds.length; i += 1) {
    const demandMps2 = (speeds[i - 1]! ** 2 - speeds[i]! ** 2) / (2 * lengthsM[i]!);
    if (demandMps2 > hardest.demandMps2) hardest = { demandMps2, step: i + 1 };
  }
  return hardest;
};
