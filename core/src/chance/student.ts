import { betaBelow } from './beta';

/**
 * Quantile of Student's t distribution.
 *
 * @param p 0.5–0.9999
 * @param freedom degrees of freedom, at least 1
 * @example studentQuantile(0.95, 5) // 2.02
 * Source: P(T > t) = ½·I(ν/(ν+t²); ν/2, ½)
 */
export const studentQuantile = (p: number, freedom: number): number => {
  const above = (t: number): number =>
    0.5 * betaBelow(freedom / (freedom + t * t), freedom / 2, 0.5);
  let low = 0;
  let high = 1;
  while (above(high) > 1 - p) high *= 2;
  for (let i = 0; i < 80; i += 1) {
    const middle = (low + high) / 2;
    if (above(middle) > 1 - p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
};
