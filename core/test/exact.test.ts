import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaBelow, betaQuantile, logGamma } from '../src/chance/beta';
import { normalBelow, normalDensity } from '../src/chance/normal';
import { chooseCue, type LiveFault } from '../src/cue/chooseCue';
import { solveStraight } from '../src/runup/solveStraight';
import { modelLengthM, type StepModel } from '../src/runup/stepModel';
import type { Absorb, StraightInput, StraightPlan } from '../src/runup/straightPlan';
import { evenly } from './evenly';

/** Independent computations that the closed forms must agree with. */

const model: StepModel = {
  firstLengthM: 1.1,
  topLengthM: 2.1,
  lengthRate: 2.8,
  firstCadenceSpm: 205,
  topCadenceSpm: 252,
  cadenceRate: 2.2,
};

const weight = (absorb: Absorb, n: number, k: number): number => {
  if (absorb === 'even') return 1;
  if (absorb === 'early') return n === 1 ? 1 : 1 + 9 * ((k - 1) / (n - 1)) ** 2;
  return n - k === absorb.stepsOut ? 1 : 25;
};

describe('the straight solver against its optimality conditions', () => {
  const asks = fc.record({
    steps: fc.integer({ min: 2, max: 20 }),
    tolerance: fc.double({ min: 0.02, max: 0.2, noNaN: true }),
    absorb: fc.constantFrom<Absorb>('even', 'early', { stepsOut: 0 }, { stepsOut: 1 }),
    reach: evenly(-0.999, 0.999),
  });
  const solved = ({
    reach,
    ...ask
  }: {
    steps: number;
    tolerance: number;
    absorb: Absorb;
    reach: number;
  }) => {
    const input: StraightInput = { model, takeoffFoot: 'left', ...ask };
    const free = solveStraight(input) as StraightPlan;
    const distanceM = free.distanceM * (1 + reach * ask.tolerance);
    return {
      input: { ...input, distanceM },
      plan: solveStraight({ ...input, distanceM }) as StraightPlan,
    };
  };

  it('has one price of length for all steps that are free to give', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const { plan } = solved(ask);
        const n = plan.steps.length;
        const prices: number[] = [];
        const atBound: { price: number; sign: number }[] = [];
        plan.steps.forEach((step) => {
          const r = step.lengthM / step.preferredM - 1;
          const price = (weight(ask.absorb, n, step.n) * r) / step.preferredM;
          if (Math.abs(r) < ask.tolerance - 1e-9) prices.push(price);
          else atBound.push({ price, sign: Math.sign(r) });
        });
        const lambda = prices[0] ?? 0;
        for (const price of prices) expect(price).toBeCloseTo(lambda, 9);
        // A step at its bound would give still more if it might.
        if (prices.length > 0) {
          for (const { price, sign } of atBound)
            expect(sign * (lambda - price)).toBeGreaterThanOrEqual(-1e-9);
        }
      }),
    );
  });

  it('costs more the farther the mark is from the natural one, never in jumps', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const { plan } = solved(ask);
        const { plan: nearer } = solved({ ...ask, reach: ask.reach * 0.9 });
        expect(nearer.cost).toBeLessThanOrEqual(plan.cost + 1e-12);
        const { plan: beside } = solved({ ...ask, reach: ask.reach * (1 - 1e-7) });
        plan.steps.forEach((step, i) => {
          expect(Math.abs(step.lengthM - beside.steps[i]!.lengthM)).toBeLessThan(1e-4);
        });
      }),
    );
  });

  it('agrees with trying every split of a two-step run', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const { plan, input } = solved({ ...ask, steps: 2, absorb: ask.absorb });
        const [p1, p2] = [modelLengthM(model, 1), modelLengthM(model, 2)];
        let best = Infinity;
        for (let i = 0; i <= 2000; i += 1) {
          const r1 = ask.tolerance * (-1 + i / 1000);
          const r2 = (input.distanceM - p1 * (1 + r1)) / p2 - 1;
          if (Math.abs(r2) > ask.tolerance + 1e-12) continue;
          best = Math.min(
            best,
            weight(ask.absorb, 2, 1) * r1 ** 2 + weight(ask.absorb, 2, 2) * r2 ** 2,
          );
        }
        expect(plan.cost).toBeLessThanOrEqual(best + 1e-9);
      }),
    );
  });

  it('puts check marks where the prints are, and the start mark at the whole distance', () => {
    const plan = solveStraight({
      model,
      takeoffFoot: 'right',
      steps: 9,
      checkMarks: [2, 4, 9],
    }) as StraightPlan;
    expect(plan.checkMarks.map((mark) => mark.toTargetM)).toEqual([
      plan.steps[6]!.toTargetM,
      plan.steps[4]!.toTargetM,
      plan.distanceM,
    ]);
    expect(plan.checkMarks.map((mark) => mark.foot)).toEqual(['right', 'right', 'left']);
  });

  it('runs the same rhythm faster at a higher fraction of speed, square root of it in both', () => {
    const at = (speedFraction: number) =>
      solveStraight({ model, takeoffFoot: 'left', steps: 10, speedFraction }) as StraightPlan;
    expect(at(0.64).distanceM).toBeCloseTo(0.8 * at(1).distanceM, 9);
    expect(at(0.64).totalTimeS).toBeCloseTo(at(1).totalTimeS / 0.8, 9);
    expect(at(0.64).endSpeedMps).toBeCloseTo(0.64 * at(1).endSpeedMps, 9);
  });

  it('runs a single step, and thirty', () => {
    for (const steps of [1, 30]) {
      for (const ending of [
        { kind: 'even' },
        { kind: 'penultimate', longer: 0.05, shorter: 0.05 },
      ] as const) {
        for (const absorb of ['even', 'early', { stepsOut: 0 }] as const) {
          const plan = solveStraight({
            model,
            takeoffFoot: 'left',
            steps,
            ending,
            absorb,
          }) as StraightPlan;
          expect(plan.steps).toHaveLength(steps);
          expect(
            plan.steps.every((step) => Number.isFinite(step.lengthM) && step.lengthM > 0),
          ).toBe(true);
        }
      }
    }
  });
});

describe('the root cause against following every chain', () => {
  const graphs = fc.array(
    fc.record({
      phase: fc.integer({ min: 0, max: 3 }),
      severity: fc.integer({ min: 1, max: 3 }),
      rate: evenly(0, 1),
      links: fc.array(fc.nat({ max: 6 }), { maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 7 },
  );

  it('chooses the fault whose own weight and followers, halved per link, come to most', () => {
    fc.assert(
      fc.property(graphs, (nodes) => {
        const faults = nodes.map((node, i): LiveFault => ({
          code: `f${i}`,
          phase: node.phase,
          severity: node.severity,
          rate: node.rate,
          safety: false,
          leadsTo: node.links.filter((to) => to > i && to < nodes.length).map((to) => `f${to}`),
        }));
        const byCode = new Map(faults.map((fault) => [fault.code, fault]));
        const nearest = (from: LiveFault): Map<string, number> => {
          const links = new Map<string, number>();
          const walk = (fault: LiveFault, depth: number): void => {
            for (const to of fault.leadsTo) {
              links.set(to, Math.min(links.get(to) ?? Infinity, depth));
              walk(byCode.get(to)!, depth + 1);
            }
          };
          walk(from, 1);
          return links;
        };
        const score = (fault: LiveFault): number =>
          [...nearest(fault)].reduce((sum, [code, links]) => {
            const below = byCode.get(code)!;
            return below.rate < 0.15 ? sum : sum + (below.rate * below.severity) / 2 ** links;
          }, fault.rate * fault.severity);
        const live = faults.filter((fault) => fault.rate >= 0.15);
        const { code, score: won } = chooseCue({ faults });
        if (live.length === 0) {
          expect(code).toBeNull();
          return;
        }
        const best = Math.max(...live.map(score));
        expect(won).toBeCloseTo(best, 9);
        expect(score(byCode.get(code!)!)).toBeCloseTo(best, 9);
      }),
    );
  });

  it('gives a tie to the earlier phase', () => {
    const twin = { severity: 2, rate: 0.5, leadsTo: [], safety: false };
    const faults = [
      { ...twin, code: 'late', phase: 3 },
      { ...twin, code: 'early', phase: 1 },
    ];
    expect(chooseCue({ faults }).code).toBe('early');
  });
});

describe('distributions against plain integration', () => {
  it('Beta: F from its density, and the quantile undoes F', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.2, max: 40, noNaN: true }),
        fc.double({ min: 1.2, max: 40, noNaN: true }),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (a, b, x) => {
          const n = 4000;
          let below = 0;
          let all = 0;
          for (let i = 0; i < n; i += 1) {
            const t = (i + 0.5) / n;
            const p = Math.exp((a - 1) * Math.log(t) + (b - 1) * Math.log1p(-t));
            all += p;
            if (t < x) below += p;
          }
          expect(betaBelow(x, a, b)).toBeCloseTo(below / all, 2);
          expect(betaBelow(betaQuantile(x, a, b), a, b)).toBeCloseTo(x, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('Beta: symmetric, rising, and exact where it is known', () => {
    expect(betaBelow(0.3, 1, 1)).toBeCloseTo(0.3, 12);
    expect(betaBelow(0.25, 0.5, 0.5)).toBeCloseTo((2 / Math.PI) * Math.asin(0.5), 12);
    expect(betaBelow(0.4, 3, 1)).toBeCloseTo(0.064, 12);
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 300, noNaN: true }),
        fc.double({ min: 0.5, max: 300, noNaN: true }),
        fc.double({ min: 1e-6, max: 1 - 1e-6, noNaN: true }),
        (a, b, x) => {
          expect(betaBelow(x, a, b) + betaBelow(1 - x, b, a)).toBeCloseTo(1, 9);
          expect(betaQuantile(0.05, a, b)).toBeLessThan(betaQuantile(0.95, a, b));
        },
      ),
    );
  });

  it('Gamma: factorials and halves', () => {
    for (let n = 1, factorial = 1; n < 15; n += 1) {
      expect(logGamma(n)).toBeCloseTo(Math.log(factorial), 9);
      factorial *= n;
    }
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12);
  });

  it('normal: known points, symmetry, and the slope is the density', () => {
    expect(normalBelow(0)).toBeCloseTo(0.5, 14);
    expect(normalBelow(1.959963984540054)).toBeCloseTo(0.975, 12);
    expect(normalBelow(-5)).toBeCloseTo(2.866515718791939e-7, 16);
    for (let z = -6; z <= 6; z += 0.37) {
      expect(normalBelow(z) + normalBelow(-z)).toBeCloseTo(1, 12);
      const slope = (normalBelow(z + 1e-5) - normalBelow(z - 1e-5)) / 2e-5;
      expect(slope).toBeCloseTo(normalDensity(z), 7);
    }
  });
});
