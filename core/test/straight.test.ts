import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { otherFoot } from '../src/feet';
import { solveStraight } from '../src/runup/solveStraight';
import {
  brakingOf,
  closableFraction,
  compareStepCounts,
  mendBraking,
  nearbyPlans,
} from '../src/runup/stepCounts';
import type { StepModel } from '../src/runup/stepModel';
import type {
  Absorb,
  Ending,
  StraightFailure,
  StraightInput,
  StraightPlan,
} from '../src/runup/straightPlan';
import { evenly } from './evenly';

const model: StepModel = {
  firstLengthM: 1.22,
  topLengthM: 2.26,
  lengthRate: 3.1,
  firstCadenceSpm: 208,
  topCadenceSpm: 250,
  cadenceRate: 2.4,
};

const models = fc
  .record({
    first: fc.double({ min: 0.6, max: 1.5, noNaN: true }),
    growth: fc.double({ min: 1.05, max: 2, noNaN: true }),
    lengthRate: fc.double({ min: 0.5, max: 8, noNaN: true }),
    firstCadenceSpm: fc.double({ min: 150, max: 230, noNaN: true }),
    topCadenceSpm: fc.double({ min: 235, max: 290, noNaN: true }),
    cadenceRate: fc.double({ min: 0.5, max: 8, noNaN: true }),
  })
  .map(({ first, growth, ...rest }): StepModel => ({
    firstLengthM: first,
    topLengthM: first * growth,
    ...rest,
  }));

const asks = fc
  .record({
    model: models,
    takeoffFoot: fc.constantFrom('left' as const, 'right' as const),
    steps: fc.integer({ min: 4, max: 24 }),
    tolerance: fc.double({ min: 0.02, max: 0.2, noNaN: true }),
    speedFraction: fc.double({ min: 0.4, max: 1, noNaN: true }),
    ending: fc.constantFrom<Ending>(
      { kind: 'even' },
      { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
      { kind: 'short', count: 1, taperSteps: 2, lengthM: 0.1, cadenceSpm: 360 },
    ),
    absorb: fc.constantFrom<Absorb>('even', 'early', { stepsOut: 1 }, { stepsOut: 3 }),
    /** where between its bounds the distance lies, −1 to 1 */
    reach: evenly(-0.999, 0.999),
  })
  .map(({ reach, ...ask }): StraightInput => {
    const free = solveStraight(ask) as StraightPlan;
    const slack = (free.maxDistanceM - free.minDistanceM) / 2;
    return { ...ask, distanceM: free.distanceM + reach * slack };
  });

const weightOf = (absorb: Absorb, n: number, i: number): number =>
  absorb === 'even'
    ? 1
    : absorb === 'early'
      ? 1 + 9 * (i / (n - 1)) ** 2
      : n - 1 - i === absorb.stepsOut
        ? 1
        : 25;

describe('a feasible straight plan', () => {
  it('adds up to the distance, alternates feet and ends on the take-off foot', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const plan = solveStraight(ask) as StraightPlan;
        expect(plan.feasible).toBe(true);
        const sum = plan.steps.reduce((total, step) => total + step.lengthM, 0);
        expect(sum).toBeCloseTo(ask.distanceM!, 9);
        expect(plan.steps.at(-1)!.foot).toBe(ask.takeoffFoot);
        expect(plan.steps[0]!.foot).toBe(plan.startFoot);
        plan.steps.slice(1).forEach((step, i) => {
          expect(step.foot).toBe(otherFoot(plan.steps[i]!.foot));
          expect(step.timeS).toBeGreaterThan(plan.steps[i]!.timeS);
        });
      }),
    );
  });

  it('changes no step beyond its tolerance, and short steps not at all', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const plan = solveStraight(ask) as StraightPlan;
        for (const step of plan.steps) {
          const change = Math.abs(step.lengthM / step.preferredM - 1);
          expect(change).toBeLessThanOrEqual((step.role === 'short' ? 0 : ask.tolerance!) + 1e-12);
        }
      }),
    );
  });

  it('is the cheapest: no exchange of length between two steps costs less', () => {
    fc.assert(
      fc.property(
        asks,
        fc.array(fc.tuple(fc.nat(), fc.nat(), evenly(-0.05, 0.05)), {
          minLength: 5,
          maxLength: 20,
        }),
        (ask, exchanges) => {
          const { steps, cost } = solveStraight(ask) as StraightPlan;
          const free = steps.map((_, i) => i).filter((i) => steps[i]!.role !== 'short');
          for (const [from, to, byM] of exchanges) {
            const [a, b] = [free[from % free.length]!, free[to % free.length]!];
            if (a === b) continue;
            const r = steps.map((step) => step.lengthM / step.preferredM - 1);
            r[a]! += byM / steps[a]!.preferredM;
            r[b]! -= byM / steps[b]!.preferredM;
            if (Math.max(Math.abs(r[a]!), Math.abs(r[b]!)) > ask.tolerance!) continue;
            const other = r.reduce(
              (sum, x, i) => sum + weightOf(ask.absorb!, steps.length, i) * x * x,
              0,
            );
            expect(other).toBeGreaterThanOrEqual(cost - 1e-12);
          }
        },
      ),
    );
  });

  it('seen in a mirror is the other foot’s plan', () => {
    fc.assert(
      fc.property(asks, (ask) => {
        const plan = solveStraight(ask) as StraightPlan;
        const mirror = solveStraight({
          ...ask,
          takeoffFoot: otherFoot(ask.takeoffFoot),
        }) as StraightPlan;
        expect(mirror.steps).toEqual(
          plan.steps.map((step) => ({ ...step, foot: otherFoot(step.foot) })),
        );
      }),
    );
  });
});

describe('impossible asks', () => {
  it('say how far could be run, and offer the nearest plans that work', () => {
    fc.assert(
      fc.property(asks, fc.double({ min: 1.002, max: 1.4, noNaN: true }), (ask, beyond) => {
        const free = solveStraight({ ...ask, distanceM: undefined }) as StraightPlan;
        const far = { ...ask, distanceM: free.maxDistanceM * beyond };
        const failure = solveStraight(far) as StraightFailure;
        expect(failure.reason).toBe('too-long');
        expect(failure.maxDistanceM).toBeCloseTo(free.maxDistanceM, 9);
        const offers = nearbyPlans(far, failure);
        expect(offers.some((offer) => offer.change === 'distance')).toBe(true);
        for (const offer of offers) {
          expect(offer.plan.steps.at(-1)!.foot).toBe(ask.takeoffFoot);
          if (offer.change === 'steps' || offer.change === 'tolerance') {
            expect(offer.plan.distanceM).toBe(far.distanceM);
          }
        }
      }),
    );
  });

  it('offers the foot that arrives right', () => {
    const ask: StraightInput = { model, takeoffFoot: 'left', startFoot: 'left', steps: 4 };
    const offers = nearbyPlans(ask, solveStraight(ask) as StraightFailure);
    expect(offers).toHaveLength(1);
    expect(offers[0]!.change).toBe('foot');
    expect(offers[0]!.plan.startFoot).toBe('right');
  });

  it.each([
    [{ steps: 400 }, 'steps'],
    [{ steps: 0 }, 'steps'],
    [{ steps: 7.5 }, 'steps'],
    [{ distanceM: -3 }, 'distanceM'],
    [{ distanceM: NaN }, 'distanceM'],
    [{ tolerance: 2 }, 'tolerance'],
    [{ speedFraction: 0 }, 'speedFraction'],
    [{ takeoffFoot: 'both' as 'left' }, 'takeoffFoot'],
    [{ absorb: { stepsOut: 8 } }, 'absorb.stepsOut'],
    [{ checkMarks: [4, 9] }, 'checkMarks[1]'],
    [{ model: { ...model, topLengthM: Infinity } }, 'model.topLengthM'],
    [{ ending: { kind: 'penultimate' as const, longer: 3, shorter: 0 } }, 'ending.longer'],
    [
      {
        ending: { kind: 'short' as const, count: 5, taperSteps: 3, lengthM: 0.1, cadenceSpm: 300 },
      },
      'ending.count',
    ],
  ])('%o is refused by name', (change, field) => {
    const ask = () => solveStraight({ model, takeoffFoot: 'left', steps: 8, ...change });
    expect(ask).toThrow(RangeError);
    expect(ask).toThrow(field);
  });
});

describe('step counts compared', () => {
  const ask = { model, takeoffFoot: 'left' as const, distanceM: 28.2, tolerance: 0.1 };

  it('recommends the fastest count that changes no step by more than 5 %', () => {
    fc.assert(
      fc.property(models, fc.double({ min: 8, max: 35, noNaN: true }), (m, distanceM) => {
        const { choices, recommended } = compareStepCounts({ ...ask, model: m, distanceM }, 4, 24);
        const fits = choices.flatMap(({ steps, result }) =>
          result.feasible ? [{ count: steps, ...result }] : [],
        );
        const chosen = fits.find((plan) => plan.count === recommended);
        if (fits.length === 0) {
          expect(recommended).toBeNull();
          return;
        }
        const easy = fits.filter((plan) => plan.maxAdjust <= 0.05);
        if (easy.length > 0) {
          expect(chosen!.endSpeedMps).toBeGreaterThanOrEqual(
            Math.max(...easy.map((plan) => plan.endSpeedMps)) - 1e-6,
          );
        } else {
          expect(chosen!.maxAdjust).toBe(Math.min(...fits.map((plan) => plan.maxAdjust)));
        }
      }),
    );
  });

  it('suggests no count that starts beyond the lane, and says when none starts on it', () => {
    const free = { ...ask, distanceM: undefined };
    fc.assert(
      fc.property(models, fc.double({ min: 3, max: 45, noNaN: true }), (m, laneM) => {
        const { choices, recommended, reason } = compareStepCounts(
          { ...free, model: m },
          4,
          24,
          laneM,
        );
        const starts = new Map(
          choices.map(({ steps, result }) => [steps, result.feasible ? result.distanceM : null]),
        );
        const onLane = [...starts.values()].filter((m) => m !== null && m <= laneM);
        if (onLane.length > 0) expect(starts.get(recommended!)).toBeLessThanOrEqual(laneM);
        else expect([recommended, reason]).toEqual([null, expect.stringContaining('beyond')]);
      }),
    );
  });

  it('keeps a fixed start foot: counts of the wrong parity drop out', () => {
    const { choices, recommended } = compareStepCounts({ ...ask, startFoot: 'right' }, 12, 16);
    const reasons = choices.map(({ result }) => (result.feasible ? 'fits' : result.reason));
    expect(reasons).toEqual(['too-long', 'wrong-foot', 'fits', 'wrong-foot', 'too-short']);
    expect(recommended).toBe(14);
  });
});

describe('braking', () => {
  const close: StraightInput = {
    model,
    takeoffFoot: 'left',
    steps: 12,
    ending: { kind: 'short', count: 3, taperSteps: 1, lengthM: 0.1, cadenceSpm: 360 },
  };

  it('closes as fast as no step brakes harder than the limit, and a hundredth more would', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: 3, max: 8, noNaN: true }),
        (count, taperSteps, limit) => {
          const ending: Ending = {
            kind: 'short',
            count,
            taperSteps,
            lengthM: 0.1,
            cadenceSpm: 330,
          };
          const ask = { ...close, ending };
          const hardest = (speedFraction: number): number => {
            const { steps } = solveStraight({ ...ask, speedFraction }) as StraightPlan;
            const speeds = steps.map((step) => step.lengthM / step.intervalS);
            return Math.max(
              ...steps
                .slice(1)
                .map((step, i) => (speeds[i]! ** 2 - speeds[i + 1]! ** 2) / (2 * step.lengthM)),
            );
          };
          const fraction = closableFraction(ask, limit);
          if (fraction === 1) {
            expect(Math.min(hardest(1), hardest(0.2) - limit)).toBeLessThanOrEqual(limit);
            return;
          }
          expect(hardest(fraction)).toBeLessThanOrEqual(limit + 1e-9);
          expect(hardest(fraction + 0.01)).toBeGreaterThan(limit);
        },
      ),
    );
  });

  it('is judged with pins and fixed distances: what asks for too much is mended by the smallest change', () => {
    const limit = 4.5;
    const free = { model, takeoffFoot: 'left' as const, steps: 12 };
    const natural = solveStraight(free) as StraightPlan;
    expect(brakingOf(natural).demandMps2).toBe(0);
    expect(mendBraking(free, limit)).toBeNull();
    // A step pinned far too short in full run, and one far too long: the step after it brakes.
    for (const lengthM of [1.2, 2.9]) {
      const pinned = { ...free, pins: [{ step: 8, lengthM }] };
      const plan = solveStraight(pinned) as StraightPlan;
      const { demandMps2, step } = brakingOf(plan);
      expect(demandMps2).toBeGreaterThan(limit);
      expect(step).toBe(lengthM < 2 ? 8 : 9);
      const mend = mendBraking(pinned, limit)!;
      expect(brakingOf(mend.plan).demandMps2).toBeLessThanOrEqual(limit + 1e-6);
    }
    // In the zone of a close a pin counts as well: it is not forgotten when the speed is chosen.
    const zone = { ...close, pins: [{ step: 9, lengthM: 1.4 }] };
    const fraction = closableFraction(zone, limit);
    const held = solveStraight({ ...zone, speedFraction: fraction }) as StraightPlan;
    expect(held.steps[8]!.lengthM).toBeCloseTo(1.4, 9);
    if (brakingOf(held).demandMps2 > limit + 1e-6) {
      const mend = mendBraking({ ...zone, speedFraction: fraction }, limit);
      expect(mend === null || brakingOf(mend.plan).demandMps2 <= limit + 1e-6).toBe(true);
    }
  });

  it('says where the short steps begin as they are run, also where they are pinned', () => {
    const ends = close.ending!;
    if (ends.kind !== 'short') throw new Error('the close shortens');
    const first = close.steps - ends.count;
    for (const pins of [
      [],
      [{ step: close.steps, lengthM: 1.1 }],
      [{ step: first + 1, lengthM: 0.3 }],
    ]) {
      const plan = solveStraight({ ...close, pins }) as StraightPlan;
      expect(plan.brake!.shortenAtM).toBeCloseTo(plan.steps[first - 1]!.toTargetM, 9);
    }
  });

  it('whatever is pinned or fixed, a mend brings the plan within the limit and changes one thing', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 11 }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        fc.option(fc.double({ min: 14, max: 24, noNaN: true })),
        fc.boolean(),
        (step, lengthM, distanceM, shortens) => {
          const ask: StraightInput = {
            ...(shortens ? close : { model, takeoffFoot: 'left', steps: 12 }),
            pins: [{ step, lengthM }],
            ...(distanceM === null ? {} : { distanceM }),
          };
          const plan = solveStraight(ask);
          if (!plan.feasible) return;
          const mend = mendBraking(ask, 4.5);
          const over = brakingOf(plan).demandMps2 > 4.5 + 1e-9;
          if (!over) expect(mend).toBeNull();
          if (mend) expect(brakingOf(mend.plan).demandMps2).toBeLessThanOrEqual(4.5 + 1e-6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('leaves a run that does not shorten, or slow enough, as it was asked', () => {
    expect(closableFraction({ ...close, ending: { kind: 'even' } })).toBe(1);
    expect(closableFraction({ ...close, speedFraction: 0.25 })).toBe(0.25);
  });
});
