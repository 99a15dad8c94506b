/**
 * Numbers in [0, 1) that are the same for the same seed.
 *
 * Source: sfc32, Chris Doty-Humphrey's small fast chaotic generator (public domain)
 */
export const seeded = (seed: number): (() => number) => {
  let a = 0x9e3779b9;
  let b = 0x243f6a88;
  let c = seed | 0;
  let d = 1;
  const next = (): number => {
    const t = (a + b + d) | 0;
    d = (d + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = ((c << 21) | (c >>> 11)) + t;
    return (t >>> 0) / 4294967296;
  };
  for (let i = 0; i < 12; i += 1) next();
  return next;
};

/**
 * Standard normal numbers from a source of uniform ones.
 *
 * Source: Marsaglia's polar method
 */
export const normals = (uniform: () => number): (() => number) => {
  let kept: number | null = null;
  return () => {
    if (kept !== null) {
      const value = kept;
      kept = null;
      return value;
    }
    for (;;) {
      const x = 2 * uniform() - 1;
      const y = 2 * uniform() - 1;
      const square = x * x + y * y;
      if (square >= 1 || square === 0) continue;
      const scale = Math.sqrt((-2 * Math.log(square)) / square);
      kept = y * scale;
      return x * scale;
    }
  };
};
