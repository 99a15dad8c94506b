import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveStraight } from '../src/runup/solveStraight';
import { nearbyPlans } from '../src/runup/stepCounts';
import type { StepModel } from '../src/runup/stepModel';
import type {
  Pin,
  StepBound,
  StraightFailure,
  StraightInput,
  StraightPlan,
} from '../src/runup/straightPlan';
import { evenly } from './evenly';

const model: StepModel = {
  firstLengthM: 1.2,
  topLengthM: 2.2,
  lengthRate: 3,
  firstCadenceSpm: 205,
  topCadenceSpm: 250,
  cadenceRate: 2.4,
};

const free = (ask: StraightInput): StraightPlan => {
  const plan = solveStraight(ask);
  if (!plan.feasible) throw new Error('a free start must be feasible');
  return plan;
};

/** Asks with some steps pinned, some bounded, and a distance somewhere within what is left. */
const asks = fc
  .record({
    steps: fc.integer({ min: 3, max: 20 }),
    tolerance: fc.double({ min: 0.02, max: 0.2, noNaN: true }),
    absorb: fc.constantFrom('even' as const, 'early' as const),
    ending: fc.constantFrom(
      { kind: 'even' as const },
      { kind: 'penultimate' as const, longer: 0.06, shorter: 0.05 },
    ),
    pinned: fc.uniqueArray(
      fc.record({
        step: fc.integer({ min: 1, max: 20 }),
        factor: fc.double({ min: 0.7, max: 1.3, noNaN: true }),
      }),
      { maxLength: 4, selector: (one) => one.step },
    ),
    bounded: fc.uniqueArray(
      fc.record({
        step: fc.integer({ min: 1, max: 20 }),
        low: fc.double({ min: 0.75, max: 1.1, noNaN: true }),
        room: evenly(0, 0.3),
      }),
      { maxLength: 4, selector: (one) => one.step },
    ),
    reach: fc.double({ min: 0.001, max: 0.999, noNaN: true }),
  })
  .map(({ pinned, bounded, reach, ...own }) => {
    const base: StraightInput = { model, takeoffFoot: 'left', ...own };
    const natural = free(base).steps;
    const pins: Pin[] = pinned
      .filter(({ step }) => step <= own.steps)
      .map(({ step, factor }) => ({ step, lengthM: natural[step - 1]!.preferredM * factor }));
    const bounds: StepBound[] = bounded
      .filter(({ step }) => step <= own.steps)
      .map(({ step, low, room }) => ({
        step,
        minM: natural[step - 1]!.preferredM * low,
        maxM: natural[step - 1]!.preferredM * (low + room),
      }));
    const ask = { ...base, pins, bounds };
    const { minDistanceM, maxDistanceM } = free(ask);
    return { ...ask, distanceM: minDistanceM + reach * (maxDistanceM - minDistanceM) };
  });

const weightOf = (ask: StraightInput, i: number): number =>
  ask.absorb === 'early' ? 1 + 9 * (i / (ask.steps - 1)) ** 2 : 1;

describe('pins and bounds', () => {
  it('keep pins to the millimetre, bounds exactly, and still add up to the distance', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const plan = solveStraight(ask) as StraightPlan;
        expect(plan.feasible).toBe(true);
        const sum = plan.steps.reduce((total, step) => total + step.lengthM, 0);
        expect(sum).toBeCloseTo(ask.distanceM, 8);
        const pinned = new Set(ask.pins.map((pin) => pin.step));
        for (const { step, lengthM } of ask.pins) {
          expect(plan.steps[step - 1]!.lengthM).toBeCloseTo(lengthM, 9);
          expect(plan.steps[step - 1]!.pinned).toBe(true);
        }
        for (const { step, minM, maxM } of ask.bounds) {
          if (pinned.has(step)) continue;
          const { lengthM } = plan.steps[step - 1]!;
          expect(lengthM).toBeGreaterThanOrEqual(minM! - 1e-9);
          expect(lengthM).toBeLessThanOrEqual(maxM! + 1e-9);
        }
        const bounded = new Set(ask.bounds.map((bound) => bound.step));
        for (const step of plan.steps) {
          if (pinned.has(step.n) || bounded.has(step.n)) continue;
          expect(Math.abs(step.lengthM / step.preferredM - 1)).toBeLessThanOrEqual(
            ask.tolerance! + 1e-9,
          );
        }
      }),
    );
  });

  it('have one optimum: one multiplier explains every step that is free to move', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const plan = solveStraight(ask) as StraightPlan;
        const pinned = new Set(ask.pins.map((pin) => pin.step));
        const multipliers: { value: number; atLow: boolean; atHigh: boolean }[] = [];
        plan.steps.forEach((step, i) => {
          if (pinned.has(step.n)) return;
          const r = step.lengthM / step.preferredM - 1;
          const bound = ask.bounds.find((bound) => bound.step === step.n);
          let low = Math.max(-ask.tolerance!, bound ? bound.minM! / step.preferredM - 1 : -1);
          let high = Math.min(ask.tolerance!, bound ? bound.maxM! / step.preferredM - 1 : 1);
          if (low > high) low = high = r;
          multipliers.push({
            value: (weightOf(ask, i) * r) / step.preferredM,
            atLow: r <= low + 1e-7,
            atHigh: r >= high - 1e-7,
          });
        });
        // KKT: λ lies above the value of a step at its low limit never, below one at its high never.
        const least = Math.max(
          -Infinity,
          ...multipliers.filter((one) => !one.atLow).map((one) => one.value),
        );
        const most = Math.min(
          Infinity,
          ...multipliers.filter((one) => !one.atHigh).map((one) => one.value),
        );
        expect(least).toBeLessThanOrEqual(most + 1e-6);
      }),
      { numRuns: 300 },
    );
  });

  it('say how far could be run when they contradict, and offer to let go of the pins', () => {
    const ask: StraightInput = {
      model,
      takeoffFoot: 'left',
      steps: 2,
      distanceM: 2.6,
      pins: [
        { step: 1, lengthM: 1.2 },
        { step: 2, lengthM: 1.6 },
      ],
    };
    const failure = solveStraight(ask) as StraightFailure;
    expect(failure.reason).toBe('too-short');
    expect(failure.minDistanceM).toBeCloseTo(2.8, 9);
    expect(failure.maxDistanceM).toBeCloseTo(2.8, 9);
    const offers = nearbyPlans(ask, failure).map((plan) => plan.change);
    expect(offers).toContain('distance');
    expect(offers).toContain('pins');
    expect(offers).not.toContain('tolerance');
  });

  it('are refused by name', () => {
    const ask = { model, takeoffFoot: 'left' as const, steps: 4 };
    expect(() => solveStraight({ ...ask, pins: [{ step: 5, lengthM: 1 }] })).toThrow(
      'pins[0].step',
    );
    expect(() => solveStraight({ ...ask, pins: [{ step: 1, lengthM: NaN }] })).toThrow(
      'pins[0].lengthM',
    );
    expect(() =>
      solveStraight({
        ...ask,
        pins: [
          { step: 1, lengthM: 1 },
          { step: 1, lengthM: 1.1 },
        ],
      }),
    ).toThrow('pinned twice');
    expect(() => solveStraight({ ...ask, bounds: [{ step: 1, minM: 2, maxM: 1 }] })).toThrow(
      'bounds[0].maxM',
    );
  });
});
