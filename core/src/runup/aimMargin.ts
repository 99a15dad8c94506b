import { number } from '../check';
import { normalBelow, normalDensity } from '../chance/normal';

export type AimMargin = { marginM: number; foulProbability: number; expectedM: number };

/**
 * How far behind the line to aim when the foot lands with a spread: the margin that makes the
 * expected counted distance of one attempt largest. A foul counts nothing; a foot short of the line
 * loses what it falls short by.
 *
 * @param input jump from foot to mark and one standard deviation of where the foot lands, metres
 * @throws {RangeError} naming the field that is out of range
 * @example aimMargin({ jumpM: 6.2, sdM: 0.08 }).marginM // 0.21
 * Source: d/dm E = 0 gives Φ(z)/φ(z) = jump/σ with z = m/σ
 */
export const aimMargin = (input: { jumpM: number; sdM: number }): AimMargin => {
  const jumpM = number('jumpM', input.jumpM, { above: 0, max: 100 });
  const sdM = number('sdM', input.sdM, { above: 0, max: 5 });
  const want = Math.log(jumpM / sdM);
  // log Φ − log φ rises steadily in z.
  let low = -10;
  let high = 12;
  for (let i = 0; i < 60; i += 1) {
    const z = (low + high) / 2;
    const value = Math.log(normalBelow(z)) + (z * z) / 2 + 0.5 * Math.log(2 * Math.PI);
    if (value < want) low = z;
    else high = z;
  }
  const z = (low + high) / 2;
  const marginM = z * sdM;
  return {
    marginM,
    foulProbability: normalBelow(-z),
    expectedM: (jumpM - marginM) * normalBelow(z) - sdM * normalDensity(z),
  };
};
