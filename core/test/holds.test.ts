import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { athleteSpread, heldBy, simulationsOf } from '../src/runup/holding';
import { landingSpread } from '../src/runup/landingSpread';
import { runThroughs, takeOffMisses } from '../src/measuring/measures';
import { simulateRunUps, type RunUpSimulation } from '../src/runup/simulateRunUps';
import { spreadOf } from '../src/chance/spread';
import { normalBelow } from '../src/chance/normal';
import { normals, seeded } from '../src/chance/random';
import { evenly } from './evenly';

const runUps = fc.record({
  lengthsM: fc.array(fc.double({ min: 0.8, max: 2.5, noNaN: true }), {
    minLength: 2,
    maxLength: 24,
  }),
  stepFraction: fc.double({ min: 0.005, max: 0.06, noNaN: true }),
  runFraction: evenly(0, 0.03),
  seed: fc.integer({ min: 1, max: 1e6 }),
});

const BY = { stepFraction: 0.02, runFraction: 0, startSdM: 0 };

const simulate = (change: Partial<RunUpSimulation> & Pick<RunUpSimulation, 'lengthsM'>) =>
  simulateRunUps({ ...BY, marginM: 0, steering: null, runs: 3_000, seed: 1, ...change });

describe('chance', () => {
  it('is even between 0 and 1, and normal about 0', () => {
    const uniform = seeded(42);
    const even = Array.from({ length: 20_000 }, uniform);
    expect(even.every((value) => value >= 0 && value < 1)).toBe(true);
    const { mean, sd } = spreadOf(even);
    expect(mean).toBeCloseTo(0.5, 1.7);
    expect(sd).toBeCloseTo(Math.sqrt(1 / 12), 1.7);
  });

  it('is normal about 0: its moments, its body and its tails', () => {
    const list = new Float64Array(400_000);
    normals(43)(list);
    const moment = (power: number): number =>
      list.reduce((sum, x) => sum + x ** power, 0) / list.length;
    const beyond = (z: number): number =>
      list.reduce((count, x) => count + Number(Math.abs(x) > z), 0) / list.length;
    expect(Math.abs(moment(1))).toBeLessThan(0.006);
    expect(Math.abs(moment(2) - 1)).toBeLessThan(0.01);
    expect(Math.abs(moment(3))).toBeLessThan(0.02);
    expect(Math.abs(moment(4) - 3)).toBeLessThan(0.06);
    // Beyond 3.65 a draw of its own makes the tail.
    for (const z of [0.5, 1, 2, 3, 3.6541528853610088, 4]) {
      const expected = 2 * normalBelow(-z);
      const noise = Math.sqrt(expected / list.length);
      expect(Math.abs(beyond(z) - expected), String(z)).toBeLessThan(5 * noise);
    }
    const again = new Float64Array(400);
    normals(43)(again);
    expect([...again]).toEqual([...list.slice(0, 400)]);
  });

  it('repeats itself only for the same seed', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer(), (a, b) => {
        const take = (seed: number) => {
          const next = seeded(seed);
          return [next(), next(), next()];
        };
        expect(take(a)).toEqual(take(a));
        if ((a | 0) !== (b | 0)) expect(take(a)).not.toEqual(take(b));
      }),
    );
  });
});

describe('how well a run-up holds', () => {
  it('blind is as the sum of the steps says, whatever the run-up', () => {
    fc.assert(
      fc.property(runUps, (run) => {
        const { sdM } = simulate(run);
        const { blindSdM } = landingSpread({ ...run, startSdM: 0 });
        expect(sdM / blindSdM).toBeGreaterThan(0.93);
        expect(sdM / blindSdM).toBeLessThan(1.07);
      }),
      { numRuns: 40 },
    );
  });

  it('is never worse for steering by eye, and better the more of it is made up', () => {
    fc.assert(
      fc.property(runUps, (run) => {
        const at = (gain: number): number =>
          simulate({
            ...run,
            steering: { steps: Math.min(4, run.lengthsM.length), gain, limit: 0.5 },
          }).sdM;
        const [none, half, all] = [at(0), at(0.5), at(1)];
        expect(half).toBeLessThanOrEqual(none * 1.001);
        expect(all).toBeLessThanOrEqual(half * 1.001);
      }),
      { numRuns: 25 },
    );
  });

  it('fouls less the farther behind the line it aims', () => {
    const lengthsM = Array<number>(14).fill(2);
    const chances = [-0.2, 0, 0.1, 0.2, 0.5].map(
      (marginM) => simulate({ lengthsM, marginM }).foulChance,
    );
    expect([...chances].sort((a, b) => b - a)).toEqual(chances);
    expect(chances[1]).toBeCloseTo(0.5, 1);
    chances.forEach((chance, i) =>
      expect(
        Math.abs(
          chance -
            normalBelow(
              -[-0.2, 0, 0.1, 0.2, 0.5][i]! / landingSpread({ ...BY, lengthsM }).blindSdM,
            ),
        ),
      ).toBeLessThan(0.03),
    );
  });

  it('of steps without scatter lands where it is planned, every time', () => {
    const still = simulate({ lengthsM: [1.2, 1.5, 1.8], stepFraction: 0 });
    expect(still.sdM).toBe(0);
    expect(still.quantilesM).toEqual([0, 0, 0, 0, 0]);
    expect(still.wrongFootChance).toBe(0);
    expect(still.foulChance).toBe(0);
  });

  it('of one step is that step', () => {
    const spread = simulate({ lengthsM: [1.4], stepFraction: 0.1 });
    expect(spread.steps).toHaveLength(1);
    expect(spread.sdM / 0.14).toBeCloseTo(1, 1);
  });
});

describe('the spread that is shown', () => {
  const plans = [14, 12].map((n) => ({
    lengthsM: Array.from({ length: n }, (_, i) => 2.1 - 0.9 * Math.exp(-i / 3)),
    movedM: null,
  }));
  const by = { stepFraction: 0.022, runFraction: 0.01, steerSteps: 4, runs: 4_000, seed: 5 };
  const spreads = simulationsOf(plans, by).map(simulateRunUps);

  it('is the expected one without run-throughs, and between both with them', () => {
    const none = heldBy(plans, spreads, by, null)!;
    expect(none.shownSdM).toBe(none.expectedSdM);
    expect(none.held[0]!.shown).toEqual(spreads[1]);
    for (const sdM of [0.02, 0.5]) {
      const few = heldBy(plans, spreads, by, { n: 4, sdM })!;
      const many = heldBy(plans, spreads, by, { n: 40, sdM })!;
      const off = ({ shownSdM }: { shownSdM: number }) => Math.abs(shownSdM - sdM);
      expect(off(few)).toBeLessThan(off(none));
      expect(off(many)).toBeLessThan(off(few));
      // One run-up says it one way: its chart, its table and its chances are of the same spread.
      const { shown } = many.held[0]!;
      expect(shown.sdM).toBe(many.shownSdM);
      expect(shown.steps.at(-1)!.sdM).toBeCloseTo(many.shownSdM, 9);
      // Before the eyes come in, nobody is better or worse than blind.
      shown.steps
        .slice(0, 9)
        .forEach((step, k) => expect(step.sdM).toBe(spreads[0]!.steps[k]!.sdM));
      expect(shown.bins.at(-1)!.toM).toBeCloseTo(4 * many.shownSdM, 6);
      // Other plans by the same part, so that they stay in the order in which they were simulated.
      expect(many.held[1]!.shown.sdM / spreads[3]!.sdM).toBeCloseTo(
        many.shownSdM / many.expectedSdM,
        9,
      );
    }
  });

  it('waits for all that was asked', () => {
    expect(heldBy(plans, spreads.slice(0, 3), by, null)).toBeNull();
    expect(heldBy(plans, [], by, null)).toBeNull();
  });

  it('is of the athlete’s own runs, and a slip of the tape is no scatter', () => {
    const lengthOf = (run: number, k: number) => (1 + 0.01 * (run ? 1 : -1)) * (1.2 + 0.1 * k);
    const fit = (slip: number) => ({
      steps: [0, 1].flatMap((trial) =>
        Array.from({ length: 8 }, (_, i) => ({
          trial,
          k: i + 1,
          lengthM: lengthOf(trial, i + 1) + (trial === 1 && i === 3 ? slip : 0),
          cadenceSpm: 240,
          lengthErrorM: 0,
          cadenceErrorSpm: 0,
          oddLength: slip > 0 && trial === 1 && i === 3,
          oddCadence: false,
        })),
      ),
    });
    const own = athleteSpread({ fit: fit(0) as never });
    expect(own.runs).toBe(2);
    expect(own.runFraction).toBeCloseTo(Math.SQRT2 * 0.01, 6);
    expect(athleteSpread({ fit: fit(0.4) as never }).stepFraction).toBeCloseTo(0, 6);
    expect(athleteSpread({ fit: null })).toEqual({
      stepFraction: 0.022,
      runFraction: 0.01,
      runs: 0,
    });
  });
});

describe('run-throughs', () => {
  it('move the mark for a shift that is larger than the noise, and then by the mean', () => {
    fc.assert(
      fc.property(fc.array(evenly(-0.3, 0.3), { minLength: 2, maxLength: 20 }), (misses) => {
        const { moveM, meanM, interval, n } = runThroughs(misses);
        expect(n).toBe(misses.length);
        expect(interval!.lowM).toBeLessThanOrEqual(meanM + 1e-12);
        expect(interval!.highM).toBeGreaterThanOrEqual(meanM - 1e-12);
        const sure = interval!.lowM > 0 || interval!.highM < 0;
        expect(moveM).toBe(sure ? meanM : 0);
        // The same misses on the other side of the line say the same on the other side.
        expect(runThroughs(misses.map((miss) => -miss)).moveM).toBeCloseTo(-moveM, 12);
      }),
    );
  });

  it('at a bar are told both ways: too near and too far in, each by itself', () => {
    const planned = { alongM: 0.6, outM: 0.9 };
    const near = [0.8, 0.82, 0.79, 0.81, 0.8, 0.78].map((outM, i) => ({
      alongM: i % 2 ? 0.7 : 0.5,
      outM,
    }));
    const { out, along } = takeOffMisses(near, planned);
    expect(out.moveM).toBeCloseTo(-0.1, 9);
    expect(along).toMatchObject({ n: 6, moveM: 0 });
    expect(along.meanM).toBeCloseTo(0, 9);
    // Seen from a spot that is where the feet came down, nothing moves.
    expect(takeOffMisses(near, { alongM: 0.6, outM: 0.8 }).out.moveM).toBe(0);
  });

  it('are surer the more there are of them', () => {
    const width = (count: number): number => {
      const { interval } = runThroughs(
        Array.from({ length: count }, (_, i) => (i % 2 ? 0.1 : -0.1)),
      );
      return interval!.highM - interval!.lowM;
    };
    expect(width(20)).toBeLessThan(width(8));
    expect(width(8)).toBeLessThan(width(4));
  });
});
