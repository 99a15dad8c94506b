const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
  -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
  1.5056327351493116e-7,
];

/**
 * Natural logarithm of the gamma function for x > 0. Source: Lanczos approximation, g = 7, n = 9.
 *
 * @example logGamma(5) // 3.18
 */
export const logGamma = (x: number): number => {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const y = x - 1;
  let sum = LANCZOS[0]!;
  for (let i = 1; i < LANCZOS.length; i += 1) sum += LANCZOS[i]! / (y + i);
  const t = y + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (y + 0.5) * Math.log(t) - t + Math.log(sum);
};

/**
 * @example Math.exp(logBeta(2, 3)) // 0.0833
 */
export const logBeta = (a: number, b: number): number =>
  logGamma(a) + logGamma(b) - logGamma(a + b);

/** Continued fraction of the incomplete beta function (Lentz), good for x < (a+1)/(a+b+2). */
const betaFraction = (x: number, a: number, b: number): number => {
  const TINY = 1e-300;
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < TINY ? TINY : d);
  let h = d;
  for (let m = 1; m <= 500; m += 1) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 + even * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + even / c;
    if (Math.abs(c) < TINY) c = TINY;
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 + odd * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + odd / c;
    if (Math.abs(c) < TINY) c = TINY;
    const delta = d * c;
    h *= delta;
    if (Math.abs(delta - 1) < 1e-15) break;
  }
  return h;
};

/**
 * Distribution function of Beta(a, b): the regularised incomplete beta function.
 *
 * @param x 0–1; a, b > 0
 * @param logB log B(a, b), when the caller asks for many x of one distribution
 * @example betaBelow(0.5, 2, 3) // 0.688
 * Source: continued fraction by Lentz's method, with the symmetry I_x(a,b) = 1 − I_(1−x)(b,a)
 */
export const betaBelow = (x: number, a: number, b: number, logB = logBeta(a, b)): number => {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(a * Math.log(x) + b * Math.log1p(-x) - logB);
  return x < (a + 1) / (a + b + 2)
    ? (front * betaFraction(x, a, b)) / a
    : 1 - (front * betaFraction(1 - x, b, a)) / b;
};

/**
 * Quantile of Beta(a, b): Newton steps kept inside a shrinking bracket.
 *
 * @param p 0–1
 * @example betaQuantile(0.95, 2.5, 8.5) // 0.452
 */
export const betaQuantile = (p: number, a: number, b: number): number => {
  if (p <= 0) return 0;
  if (p >= 1) return 1;
  const logB = logBeta(a, b);
  let low = 0;
  let high = 1;
  // In the far corners the distribution is x^a / (a·B); elsewhere start at the mean.
  const corner = Math.exp((Math.log(p * a) + logB) / a);
  const mirror = Math.exp((Math.log((1 - p) * b) + logB) / b);
  let x = corner < 0.05 ? corner : mirror < 0.05 ? 1 - mirror : a / (a + b);
  for (let i = 0; i < 80; i += 1) {
    const error = betaBelow(x, a, b, logB) - p;
    if (error > 0) high = x;
    else low = x;
    const slope = Math.exp((a - 1) * Math.log(x) + (b - 1) * Math.log1p(-x) - logB);
    let next = x - error / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (Math.abs(next - x) <= 1e-13 * Math.max(x, 1e-6)) return next;
    x = next;
  }
  return x;
};
