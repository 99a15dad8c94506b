import { bodyOf } from '@gravek/core/layout/body';
import { straightLayout } from '@gravek/core/layout/straightLayout';
import { solveStraight } from '@gravek/core/runup/solveStraight';
import type { Side } from '@gravek/core/session/repLog';
import { straightChoices, type StraightChoices } from '@gravek/contract/approach';
import { check } from '@gravek/contract/problem';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../../core/test/evenly';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { sequenceStart, straightStart } from '../src/planning/planStart';
import { mirrorOutline, outlineOf, solve, straightAsk } from '../src/planning/solvePlan';

const choices: StraightChoices = {
  target: 'board',
  takeoffFoot: 'own',
  startFoot: null,
  steps: 12,
  distanceM: null,
  ending: { kind: 'even' },
  absorb: 'early',
  tolerance: 0.1,
  speedFraction: 1,
  checkMarks: [4, 14],
  pins: [],
};
const body = (takeoffFoot: 'left' | 'right', heightM = 1.74) =>
  bodyOf({ hand: 'right', takeoffFoot, trials: [], heightM, legM: null, shoeM: null });
const { model } = body('left');

describe('straightAsk', () => {
  it('takes the athlete’s own foot, and drops check marks beyond the start', () => {
    const ask = straightAsk(choices, { takeoffFoot: 'right' }, model);
    expect(ask).toMatchObject({ takeoffFoot: 'right', startFoot: undefined, checkMarks: [4] });
    expect(solveStraight(ask)).toMatchObject({ feasible: true, startFoot: 'left' });
  });

  it('mirrors both feet for the other side', () => {
    const fixed = { ...choices, takeoffFoot: 'left' as const, startFoot: 'right' as const };
    const ask = straightAsk(fixed, { takeoffFoot: 'left' }, model, 'other');
    expect(ask).toMatchObject({ takeoffFoot: 'right', startFoot: 'left' });
    expect(solveStraight(ask).feasible).toBe(true);
  });
});

describe('what a plan comes to', () => {
  const runUps = MOVEMENTS.filter((movement) => straightStart(movement));
  const endings = fc.oneof(
    fc.constant({ kind: 'even' as const }),
    fc.record({
      kind: fc.constant('penultimate' as const),
      longer: evenly(0, 0.2),
      shorter: evenly(0, 0.2),
    }),
    fc.record({
      kind: fc.constant('short' as const),
      count: fc.integer({ min: 1, max: 4 }),
      taperSteps: fc.integer({ min: 0, max: 3 }),
      lengthM: fc.double({ min: 0.08, max: 0.4, noNaN: true }),
      cadenceSpm: fc.constant(360),
    }),
  );

  it('is laid out foot for foot as the straight run is solved, for any run-up, body and side', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...runUps),
        fc.integer({ min: 9, max: 20 }),
        endings,
        fc.constantFrom('own' as const, 'left' as const, 'right' as const),
        fc.constantFrom('left' as const, 'right' as const),
        fc.constantFrom<Side>('own', 'other'),
        fc.double({ min: 1.25, max: 2, noNaN: true }),
        fc.constantFrom(0.6, 0.9, 1),
        (movement, steps, ending, takeoffFoot, foot, side, heightM, speedFraction) => {
          const asked = { ...choices, steps, ending, takeoffFoot, speedFraction };
          expect(check(straightChoices, asked).ok).toBe(true);
          const { layout, straight } = solve(movement, asked, body(foot, heightM), side);
          if (!straight?.feasible) throw new Error('a free start must fit');
          const falls = layout!.footfalls.filter((fall) => fall.n > 0).slice(0, steps);
          expect(falls.map((fall) => fall.foot)).toEqual(straight.steps.map((step) => step.foot));
          falls.forEach((fall, i) => {
            expect(fall.lengthM).toBeCloseTo(straight.steps[i]!.lengthM, 9);
            expect(fall.timeS).toBeCloseTo(straight.steps[i]!.timeS, 9);
            expect(fall.toLineM).toBeCloseTo(straight.steps[i]!.toTargetM, 9);
          });
          // The strip shows the same run, its target where the tape ends.
          const strip = straightLayout(straight, { target: asked.target, widthM: 0.2 });
          const [start, ...marks] = strip.marks;
          expect([start!.kind, marks.at(-1)!.label]).toEqual(['start', asked.target]);
          strip.footfalls.forEach((fall, i) => {
            expect([fall.foot, fall.n]).toEqual([falls[i]!.foot, i + 1]);
            expect(fall.aheadM + falls[i]!.toLineM!).toBeCloseTo(marks.at(-1)!.aheadM, 9);
            expect(strip.track[i + 1]).toMatchObject({ aheadM: fall.aheadM, timeS: fall.timeS });
          });
          for (const { label, n, aheadM } of marks.slice(0, -1)) {
            expect(Number(label.split(' ')[0])).toBe(steps - n);
            expect(aheadM).toBeCloseTo(n === 0 ? 0 : strip.footfalls[n - 1]!.aheadM, 9);
          }
        },
      ),
    );
  });

  it('keeps the asked first foot, and says why there is none', () => {
    const movement = movementOf('straight-run-up');
    const right = solve(movement, { ...choices, startFoot: 'right' }, body('left'));
    expect(right.straight).toMatchObject({ feasible: true, startFoot: 'right' });
    expect(right.layout!.footfalls.find((fall) => fall.n === 1)!.foot).toBe('right');
    const wrong = solve(movement, { ...choices, startFoot: 'left' }, body('left'));
    expect(wrong).toMatchObject({ layout: null, straight: { reason: 'wrong-foot' } });
    expect(outlineOf(wrong)).toBeNull();
  });

  it('has on the other side the outline of its mirror, for every movement', () => {
    for (const movement of MOVEMENTS) {
      const plan = straightStart(movement) ?? sequenceStart();
      const own = outlineOf(solve(movement, plan, body('left')))!;
      const other = outlineOf(solve(movement, plan, body('left'), 'other'))!;
      expect(other.firstFoot, movement.code).toBe(mirrorOutline(own).firstFoot);
      expect(other.contacts.map(({ foot }) => foot)).toEqual(
        mirrorOutline(own).contacts.map(({ foot }) => foot),
      );
      expect(other.totalTimeS).toBeCloseTo(own.totalTimeS, 9);
      expect(mirrorOutline(mirrorOutline(own))).toEqual(own);
    }
  });
});
