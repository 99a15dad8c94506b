/**
 * Density of the standard normal distribution.
 *
 * @example normalDensity(0) // 0.399
 */
export const normalDensity = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);

/**
 * Distribution function of the standard normal, to about 1e-15 relative in the body and 1e-12 in the
 * tails that occur here.
 *
 * @example normalBelow(1.645) // 0.95
 * Source: series Φ(z) = ½ + φ(z)·Σ z^(2k+1)/(1·3·5…); continued fraction (Laplace) beyond |z| = 4
 */
export const normalBelow = (z: number): number => {
  const x = Math.abs(z);
  if (x > 38) return z > 0 ? 1 : 0;
  let upper: number;
  if (x < 4) {
    let term = x;
    let sum = x;
    for (let k = 1; term > sum * 1e-17; k += 1) {
      term *= (x * x) / (2 * k + 1);
      sum += term;
    }
    upper = 0.5 - normalDensity(x) * sum;
  } else {
    let tail = x;
    for (let k = 60; k >= 1; k -= 1) tail = x + k / tail;
    upper = normalDensity(x) / tail;
  }
  return z > 0 ? 1 - upper : upper;
};
