/**
 * Numbers in [0, 1) that are the same for the same seed.
 *
 * @example
 * const next = seeded(7);
 * [next(), next()] // [0.207, 0.391]
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

/** Layers of equal area under the bell, and where the lowest of them ends. */
const LAYERS = 256;
const TAIL_FROM = 3.6541528853610088;
const AREA = 0.00492867323399;

const bell = (x: number): number => Math.exp(-0.5 * x * x);

/** Right edge of each layer, from the lowest up, and how much of it lies under the layer above. */
const EDGES = new Float64Array(LAYERS + 1);
const INSIDE = new Float64Array(LAYERS);
const HEIGHTS = new Float64Array(LAYERS + 1);
EDGES[0] = AREA / bell(TAIL_FROM);
EDGES[1] = TAIL_FROM;
for (let i = 2; i < LAYERS; i += 1) {
  EDGES[i] = Math.sqrt(-2 * Math.log(AREA / EDGES[i - 1]! + bell(EDGES[i - 1]!)));
}
EDGES[LAYERS] = 0;
for (let i = 0; i <= LAYERS; i += 1) HEIGHTS[i] = bell(EDGES[i]!);
for (let i = 0; i < LAYERS; i += 1) INSIDE[i] = EDGES[i + 1]! / EDGES[i]!;

/**
 * Standard normal numbers, many at a time, the same for the same seed.
 *
 * @returns a function that fills a list with the next ones
 * @example
 *   const fill = normals(7);
 *   fill(new Float64Array(1000)); // mean about 0, standard deviation about 1
 * Source: Marsaglia and Tsang's ziggurat of 256 layers, with Doornik's separate draws for layer and
 *   place; uniform numbers as `seeded`
 */
export const normals = (seed: number): ((out: Float64Array) => void) => {
  const uniform = seeded(seed);
  // The generator again, its state in one place, so that the loop below calls nothing.
  const state = Int32Array.from({ length: 4 }, () => (uniform() * 4294967296) | 0);
  const beyond = (negative: boolean): number => {
    for (;;) {
      const x = Math.log(1 - uniform()) / TAIL_FROM;
      const y = Math.log(1 - uniform());
      if (-2 * y >= x * x) return negative ? x - TAIL_FROM : TAIL_FROM - x;
    }
  };
  return (out) => {
    let a = state[0]!;
    let b = state[1]!;
    let c = state[2]!;
    let d = state[3]!;
    for (let i = 0; i < out.length; i += 1) {
      for (;;) {
        let t = (a + b + d) | 0;
        d = (d + 1) | 0;
        a = b ^ (b >>> 9);
        b = (c + (c << 3)) | 0;
        c = (((c << 21) | (c >>> 11)) + t) | 0;
        const layer = t & 255;
        t = (a + b + d) | 0;
        d = (d + 1) | 0;
        a = b ^ (b >>> 9);
        b = (c + (c << 3)) | 0;
        c = (((c << 21) | (c >>> 11)) + t) | 0;
        // Within (−1, 1), never 0.
        const u = (t + 0.5) / 2147483648;
        const x = u * EDGES[layer]!;
        if (u < INSIDE[layer]! && u > -INSIDE[layer]!) {
          out[i] = x;
          break;
        }
        if (layer === 0) {
          out[i] = beyond(u < 0);
          break;
        }
        const low = HEIGHTS[layer]!;
        if (low + uniform() * (HEIGHTS[layer + 1]! - low) < bell(x)) {
          out[i] = x;
          break;
        }
      }
    }
    state[0] = a;
    state[1] = b;
    state[2] = c;
    state[3] = d;
  };
};
