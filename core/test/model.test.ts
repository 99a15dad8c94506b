import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../src/chance/random';
import { currentModel, estimateStepModel, usualHeightM } from '../src/runup/currentModel';
import { fitStepModel } from '../src/runup/fitStepModel';
import { solveStraight } from '../src/runup/solveStraight';
import {
  type MeasuredStep,
  modelCadenceSpm,
  modelLengthM,
  type StepModel,
} from '../src/runup/stepModel';
import { evenly } from './evenly';

const truth: StepModel = {
  firstLengthM: 1.2,
  topLengthM: 2.2,
  lengthRate: 3,
  firstCadenceSpm: 205,
  topCadenceSpm: 248,
  cadenceRate: 2.5,
};

type TimedStep = { lengthM: number; intervalS: number };

const run = (model: StepModel, n: number): TimedStep[] =>
  Array.from({ length: n }, (_, i) => ({
    lengthM: modelLengthM(model, i + 1),
    intervalS: 60 / modelCadenceSpm(model, i + 1),
  }));

const squares = (model: StepModel, steps: readonly MeasuredStep[]): number =>
  steps.reduce((sum, step, i) => sum + (step.lengthM - modelLengthM(model, i + 1)) ** 2, 0);

describe('fitStepModel', () => {
  it('finds the model that made the steps', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.7, max: 1.4, noNaN: true }),
        fc.double({ min: 0.3, max: 1.2, noNaN: true }),
        fc.double({ min: 0.8, max: 6, noNaN: true }),
        fc.integer({ min: 6, max: 20 }),
        (first, growth, rate, n) => {
          const made = {
            ...truth,
            firstLengthM: first,
            topLengthM: first + growth,
            lengthRate: rate,
          };
          const fit = fitStepModel({ trials: [{ steps: run(made, n) }] });
          expect(fit.firstLengthM).toBeCloseTo(first, 4);
          expect(fit.lengthRmsM).toBeLessThan(1e-5);
          for (let k = 1; k <= n; k += 1) {
            expect(modelLengthM(fit, k)).toBeCloseTo(modelLengthM(made, k), 4);
          }
        },
      ),
    );
  });

  it('is not beaten by any model nearby', () => {
    fc.assert(
      fc.property(
        fc.array(evenly(-0.08, 0.08), {
          minLength: 8,
          maxLength: 14,
        }),
        fc.tuple(evenly(-0.05, 0.05), evenly(-0.05, 0.05), evenly(-0.3, 0.3)),
        (noise, [a, b, c]) => {
          const steps = run(truth, noise.length).map((step, i) => ({
            ...step,
            lengthM: step.lengthM + noise[i]!,
          }));
          const fit = fitStepModel({ trials: [{ steps }] });
          const other = {
            ...fit,
            firstLengthM: fit.firstLengthM + a,
            topLengthM: fit.topLengthM + b,
            lengthRate: Math.min(20, Math.max(0.3, fit.lengthRate + c)),
          };
          expect(squares(fit, steps)).toBeLessThanOrEqual(squares(other, steps) + 1e-9);
        },
      ),
    );
  });

  it('marks the step that was read wrong, and only that one', () => {
    const steps = run(truth, 12).map((step, i) => ({
      ...step,
      lengthM: step.lengthM + (i % 2 ? 0.01 : -0.012) + (i === 6 ? 0.5 : 0),
    }));
    const fit = fitStepModel({ trials: [{ steps }] });
    expect(fit.steps.filter((step) => step.oddLength).map((step) => step.k)).toEqual([7]);
  });

  it.each([6, 7, 8, 12])('finds the slip among %i steps too', (n) => {
    const steps = run(truth, n).map((step, i) => ({
      lengthM: step.lengthM + (i % 2 ? 0.01 : -0.01) - (i === n - 2 ? 0.35 : 0),
      intervalS: step.intervalS + (i % 3 ? 0.001 : -0.002),
    }));
    const { steps: fitted } = fitStepModel({ trials: [{ steps }] });
    expect(fitted.filter((step) => step.oddLength).map((step) => step.k)).toEqual([n - 1]);
    expect(fitted.filter((step) => step.oddCadence)).toEqual([]);
  });

  it('accuses hardly a step of honest runs, whose tape and watch were a little off', () => {
    const random = seeded(20);
    const off = (most: number): number => (2 * random() - 1) * most;
    let accused = 0;
    for (let n = 0; n < 400; n += 1) {
      const steps = run(truth, 8 + (n % 9)).map(({ lengthM, intervalS }) => ({
        lengthM: lengthM + off(0.02),
        intervalS: intervalS + off(0.003),
      }));
      const { steps: fitted } = fitStepModel({ trials: [{ steps }] });
      if (fitted.some((step) => step.oddLength || step.oddCadence)) accused += 1;
    }
    // Where nearly all of the others are off to one side, the first step can stand out: once in 1,500 runs.
    expect(accused).toBeLessThanOrEqual(1);
  });

  it('says when the top is only extrapolated', () => {
    const slow = { ...truth, lengthRate: 7 };
    expect(fitStepModel({ trials: [{ steps: run(slow, 6) }] }).stillBuilding).toBe(true);
    expect(fitStepModel({ trials: [{ steps: run(truth, 14) }] }).stillBuilding).toBe(false);
  });

  it.each([
    [{ lengthM: 9, intervalS: 0.25 }, 'trials[0].steps[2].lengthM'],
    [{ lengthM: -1, intervalS: 0.25 }, 'trials[0].steps[2].lengthM'],
    [{ lengthM: 1.5, intervalS: -0.2 }, 'trials[0].steps[2].intervalS'],
    [{ lengthM: 1.5, intervalS: NaN }, 'trials[0].steps[2].intervalS'],
  ])('refuses a step of %o', (step, field) => {
    const steps = run(truth, 6);
    steps[2] = step;
    expect(() => fitStepModel({ trials: [{ steps }] })).toThrow(field);
  });

  it('refuses a trial too short to tell three numbers from', () => {
    expect(() => fitStepModel({ trials: [{ steps: run(truth, 3) }] })).toThrow(RangeError);
    expect(() => fitStepModel({ trials: [] })).toThrow('trials');
  });
});

describe('estimateStepModel', () => {
  it('is of the body and the age: full-grown from sixteen, a little slower at ten and under', () => {
    const top = (heightM: number, age?: number | null): number => {
      const { topLengthM, topCadenceSpm } = estimateStepModel(heightM, age);
      return (topLengthM * topCadenceSpm) / 60;
    };
    expect(top(1.8)).toBeCloseTo(7.9, 9);
    expect(top(1.4, 10)).toBeCloseTo(5.65, 2);
    expect(estimateStepModel(1.4, 10).topLengthM).toBeCloseTo(1.384, 3);
    expect(top(1.4, 7)).toBe(top(1.4, 10));
    expect(top(1.4, 16)).toBe(top(1.4, 40));
    expect(top(1.4, 13) / top(1.4, 16)).toBeCloseTo(0.96, 9);
    expect([usualHeightM(10), usualHeightM(4), usualHeightM(30), usualHeightM(null)]).toEqual([
      1.38, 1.1, 1.7, 1.7,
    ]);
  });

  it('grows with height and stays a step that people make', () => {
    const short = estimateStepModel(1.5);
    const tall = estimateStepModel(1.95);
    expect(tall.topLengthM).toBeGreaterThan(short.topLengthM);
    expect(short.topLengthM).toBeGreaterThan(short.firstLengthM);
    expect(() => estimateStepModel(17)).toThrow('heightM');
  });
});

describe('currentModel', () => {
  it('can be planned with, whatever steps were measured', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            lengthM: fc.double({ min: 0.05, max: 4, noNaN: true }),
            intervalS: fc.double({ min: 0.08, max: 2, noNaN: true }),
          }),
          { minLength: 4, maxLength: 16 },
        ),
        (steps) => {
          const { model } = currentModel({
            trials: [{ takenOn: '2031-05-01', steps }],
            heightM: 1.8,
          });
          const plan = solveStraight({ model, takeoffFoot: 'left', steps: 10 });
          expect(plan.feasible).toBe(true);
        },
      ),
    );
  });

  it('takes the lengths of a run that was only taped, and the cadence of the estimate', () => {
    const taped = run(truth, 12).map(({ lengthM }) => ({ lengthM, intervalS: null }));
    const day = { takenOn: '2031-05-01' };
    const { model, source, fit } = currentModel({
      trials: [{ ...day, steps: taped }],
      heightM: 1.5,
    });
    const estimate = estimateStepModel(1.5);
    expect(source).toBe('measured');
    expect(model.topLengthM).toBeCloseTo(truth.topLengthM, 3);
    expect(model.topCadenceSpm).toBe(estimate.topCadenceSpm);
    expect([fit!.timed, fit!.cadenceRmsSpm, fit!.steps[0]!.cadenceSpm]).toEqual([
      false,
      null,
      null,
    ]);
    // A timed run beside it gives the cadence, and both give the lengths.
    const both = currentModel({
      trials: [
        { ...day, steps: taped },
        { ...day, steps: run({ ...truth, topCadenceSpm: 270 }, 12) },
      ],
      heightM: 1.5,
    });
    expect(both.fit!.timed).toBe(true);
    expect(both.model.topCadenceSpm).toBeCloseTo(270, 2);
    expect(() => fitStepModel({ trials: [{ steps: taped }] })).toThrow('cadence');
  });

  it('forgets runs of long ago once there is a newer one', () => {
    const old = { takenOn: '2030-05-01', steps: run({ ...truth, topLengthM: 1.5 }, 12) };
    const now = { takenOn: '2031-05-01', steps: run(truth, 12) };
    const both = currentModel({ trials: [now, old], heightM: null });
    expect(both.source).toBe('measured');
    expect(both.model.topLengthM).toBeCloseTo(2.2, 3);
    expect(currentModel({ trials: [], heightM: null }).source).toBe('estimate');
  });
});
