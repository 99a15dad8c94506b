import { solveStraight } from '@gravek/core/runup/solveStraight';
import { nearbyPlans } from '@gravek/core/runup/stepCounts';
import type { StraightFailure, StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import type { StraightChoices } from '@gravek/contract/approach';
import { describe, expect, it } from 'vitest';
import { offer, whatChanges, whyNot, withOffer } from '../src/planning/offers';

const metric = { unit: 'metric' as const };
const model = {
  firstLengthM: 1.22,
  topLengthM: 2.26,
  lengthRate: 3.1,
  firstCadenceSpm: 208,
  topCadenceSpm: 250,
  cadenceRate: 2.4,
};
const choices: StraightChoices = {
  target: 'board',
  takeoffFoot: 'left',
  startFoot: null,
  steps: 14,
  distanceM: null,
  ending: { kind: 'even' },
  absorb: 'early',
  tolerance: 0.1,
  speedFraction: 1,
  checkMarks: [],
  pins: [],
};
const ask = (change: Partial<StraightChoices>): [StraightInput, StraightChoices] => {
  const all = { ...choices, ...change };
  return [
    {
      model,
      takeoffFoot: 'left',
      steps: all.steps,
      distanceM: all.distanceM ?? undefined,
      startFoot: all.startFoot ?? undefined,
      absorb: all.absorb,
      tolerance: all.tolerance,
      pins: all.pins,
    },
    all,
  ];
};
const failing = (change: Partial<StraightChoices>) => {
  const [input, all] = ask(change);
  return { input, all, failure: solveStraight(input) as StraightFailure };
};

describe('why a plan cannot be run', () => {
  it('says how far the steps reach, and what is missing', () => {
    const { failure, all } = failing({ distanceM: 35 });
    const why = whyNot(failure, all, metric);
    expect(why).toMatch(
      /^14 steps reach at most \d\d\.\d\d m when no step changes by more than 10\.0 %/,
    );
    const [reach, missing] = [...why.matchAll(/(\d+\.\d\d) m/g)]
      .map((found) => Number(found[1]))
      .filter((m) => m !== 35);
    expect(reach! + missing!).toBeCloseTo(35, 1);
  });

  it('says how much room the steps need', () => {
    const { failure, all } = failing({ distanceM: 20 });
    expect(whyNot(failure, all, metric)).toMatch(
      /^14 steps need at least .* 20\.00 m is .* too short\.$/,
    );
  });

  it.each([
    [14, 'left' as const, 'an even count has to start with the right'],
    [13, 'right' as const, 'an odd count has to start with the left'],
  ])('names the foot that %i steps must start with', (steps, startFoot, part) => {
    const { failure, all } = failing({ steps, startFoot });
    expect(whyNot(failure, all, metric)).toContain(part);
  });

  it('writes in the coach’s units', () => {
    const { failure, all } = failing({ distanceM: 35 });
    expect(whyNot(failure, all, { unit: 'imperial' })).toMatch(/114′ 10″ is \d+′ \d*½?″ too far/);
  });
});

describe('what is offered', () => {
  it.each<Partial<StraightChoices>>([
    { distanceM: 35 },
    { distanceM: 22 },
    { steps: 13, startFoot: 'right' },
    { distanceM: 31.2, startFoot: 'left' },
  ])('works when taken: %o', (change) => {
    const { failure, all, input } = failing(change);
    const offers = nearbyPlans(input, failure);
    expect(offers.length).toBeGreaterThan(0);
    for (const nearby of offers) {
      expect(offer(nearby, metric)).not.toBe('');
      const taken = withOffer(all, nearby);
      const [again] = ask(taken);
      const plan = solveStraight(again);
      expect(plan.feasible, offer(nearby, metric)).toBe(true);
      expect((plan as StraightPlan).distanceM).toBeCloseTo(nearby.plan.distanceM, 9);
    }
  });
});

describe('what a plan asks of the steps', () => {
  const said = (change: Partial<StraightChoices>): string =>
    whatChanges(solveStraight(ask(change)[0]) as StraightPlan, metric);

  it('is nothing when the start is free', () => {
    expect(said({})).toBe('Every step at its natural length.');
  });

  it('names the steps that give, which way, and the natural mark', () => {
    const natural = (solveStraight(ask({})[0]) as StraightPlan).distanceM;
    const longer = said({ distanceM: natural + 0.4 });
    expect(longer).toMatch(/^Steps \d+ to \d+ stretch by up to \d\.\d %\./);
    expect(longer).toContain(`${natural.toFixed(2)} m would leave every step`);
    expect(said({ distanceM: natural - 0.4 })).toMatch(/shorten by up to/);
    // A step that is pinned longer stretches, though the whole is shorter than it would be.
    const sixth = (solveStraight(ask({})[0]) as StraightPlan).steps[5]!.lengthM;
    const pins = [{ step: 6, lengthM: 1.15 * sixth }];
    expect(said({ pins, distanceM: natural - 0.1 })).toMatch(/^Step 6 stretches by/);
    expect(said({ distanceM: natural + 0.1, absorb: { stepsOut: 1 } })).toMatch(
      /^Step 13 stretches by/,
    );
  });
});
