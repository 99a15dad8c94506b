export type Spread = {
  mean: number;
  /** null for a single value */
  sd: number | null;
  n: number;
};

/**
 * Mean and sample standard deviation.
 *
 * @example spreadOf([7.9, 8, 8.1]) // { mean: 8, sd: 0.1, n: 3 }
 */
export const spreadOf = (values: readonly number[]): Spread => {
  const n = values.length;
  const mean = values.reduce((sum, value) => sum + value, 0) / n;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, sd: n > 1 ? Math.sqrt(squares / (n - 1)) : null, n };
};
