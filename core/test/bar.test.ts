import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Foot } from '../src/feet';
import { bodyOf } from '../src/layout/body';
import { layOut } from '../src/layout/layOut';
import type { BarAsk } from '../src/layout/runUp';
import type { Sequence } from '../src/layout/sequence';
import { solveCurve } from '../src/curve/solveCurve';
import { evenly } from './evenly';

const sequence: Sequence = {
  writtenFor: { by: 'take-off foot', side: 'left' },
  others: [],
  phases: [
    {
      code: 'straight',
      steps: { kind: 'build-up', first: null, steps: 5, fill: true, target: null },
      turn: null,
      ball: null,
      then: null,
      read: null,
    },
    {
      code: 'curve',
      steps: {
        kind: 'curve',
        to: 'left',
        steps: 5,
        turnDeg: 66,
        step: { value: 1, of: 'height' },
        cadenceSpm: 220,
        bar: { alongM: 0.6, outM: 0.9, takeoffAngleDeg: 24 },
      },
      turn: null,
      ball: null,
      then: null,
      read: null,
    },
  ],
};

const body = (takeoffFoot: Foot = 'left', chordsM?: number[]) =>
  bodyOf({
    trials: [],
    heightM: 1.76,
    legM: null,
    shoeM: null,
    hand: 'right',
    takeoffFoot,
    readings: chordsM
      ? [
          {
            takenOn: '2031-05-01',
            source: 'device',
            reading: { kind: 'curve', radiusM: 8, chordsM },
          },
        ]
      : [],
  });

const asks: fc.Arbitrary<BarAsk> = fc.record({
  alongM: evenly(0, 1.5),
  outM: fc.double({ min: 0.5, max: 1.5, noNaN: true }),
  takeoffAngleDeg: fc.double({ min: 10, max: 40, noNaN: true }),
  entryFlareDeg: evenly(0, 30),
  curveSteps: fc.integer({ min: 2, max: 8 }),
  straightSteps: fc.integer({ min: 0, max: 10 }),
  uprightGapM: fc.double({ min: 3, max: 5, noNaN: true }),
});

const between = (
  a: { besideM: number; aheadM: number },
  b: { besideM: number; aheadM: number },
): number => Math.hypot(a.besideM - b.besideM, a.aheadM - b.aheadM);

describe('a curved run-up as it is asked for', () => {
  it('has as many steps as asked, and its bar is as long as the uprights stand apart', () => {
    fc.assert(
      fc.property(asks, (bar) => {
        const layout = layOut(sequence, body(), { bar });
        expect(layout.footfalls.filter((fall) => fall.n > 0)).toHaveLength(
          bar.curveSteps! + bar.straightSteps!,
        );
        const drawn = layout.others.find((other) => other.kind === 'bar')!;
        expect(between(drawn.points[0]!, drawn.points[1]!)).toBeCloseTo(bar.uprightGapM!, 9);
      }),
    );
  });

  it('lies on the ground where both tapes say, whatever the flare', () => {
    fc.assert(
      fc.property(asks, (bar) => {
        const layout = layOut(sequence, body(), { bar });
        const [near, far] = layout.others.find((other) => other.kind === 'bar')!.points;
        const centres = layout.track.filter((point) => point.timeS > 0);
        layout.curve!.footfalls.forEach((fall, i) => {
          const at = centres[i]!;
          expect(between(at, near!)).toBeCloseTo(fall.tape.nearM, 6);
          expect(between(at, far!)).toBeCloseTo(fall.tape.farM, 6);
        });
      }),
    );
  });

  it('arrives at the angle to the bar that was asked', () => {
    fc.assert(
      fc.property(asks, (bar) => {
        const layout = layOut(sequence, body(), { bar });
        const [near, far] = layout.others.find((other) => other.kind === 'bar')!.points;
        const along = Math.atan2(far!.besideM - near!.besideM, far!.aheadM - near!.aheadM);
        const facing = (layout.footfalls.at(-1)!.facingDeg * Math.PI) / 180;
        const apart = Math.abs(Math.atan2(Math.sin(facing - along), Math.cos(facing - along)));
        expect((apart * 180) / Math.PI).toBeCloseTo(bar.takeoffAngleDeg!, 6);
      }),
    );
  });

  it('is the other foot’s in the mirror', () => {
    fc.assert(
      fc.property(asks, (bar) => {
        const own = layOut(sequence, body('left'), { bar });
        const other = layOut(sequence, body('right'), { bar });
        expect(own.curve!.takeoffFoot).toBe('left');
        expect(other.curve!.takeoffFoot).toBe('right');
        own.footfalls.forEach((fall, i) => {
          expect(other.footfalls[i]!.besideM).toBeCloseTo(-fall.besideM, 9);
          expect(other.footfalls[i]!.foot).not.toBe(fall.foot);
        });
        expect(other.curve!.startMark.tape).toEqual(own.curve!.startMark.tape);
      }),
    );
  });

  it('takes the athlete’s own step on a curve once it was measured', () => {
    const guessed = layOut(sequence, body()).curve!;
    const measured = layOut(sequence, body('left', [1.5, 1.6])).curve!;
    const arc = (c: number): number => 16 * Math.asin(c / 16);
    expect(guessed.curveStepM).toBeCloseTo(1.76, 9);
    expect(measured.curveStepM).toBeCloseTo((arc(1.5) + arc(1.6)) / 2, 9);
    expect(measured.radiusM).toBeLessThan(guessed.radiusM);
  });

  it('draws where the apron ends, and says what leaves it', () => {
    const apron = { besideM: 4, outM: 8 };
    const layout = layOut(sequence, body(), { bar: { apron } });
    const edges = layout.others.filter((other) => other.name === 'apron');
    expect(edges).toHaveLength(2);
    const [near] = layout.others.find((other) => other.kind === 'bar')!.points;
    expect(between(edges[0]!.points[0]!, near!)).toBeCloseTo(apron.besideM, 9);
    expect(between(edges[0]!.points[0]!, edges[0]!.points[1]!)).toBeCloseTo(apron.outM, 9);
    expect(layout.curve!.outside).toContain('start mark');
    expect(layOut(sequence, body()).others.some((other) => other.name === 'apron')).toBe(false);
  });

  it('leans more, the tighter and the faster it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 9, noNaN: true }),
        fc.integer({ min: 3, max: 7 }),
        (speedMps, curveSteps) => {
          const at = (steps: number, speed: number): number =>
            solveCurve({
              side: 'right',
              takeoff: { alongM: 0.6, outM: 0.9 },
              takeoffAngleDeg: 24,
              curveSteps: steps,
              curveStepM: 1.8,
              straightSteps: 4,
              straightStepM: 1.8,
              speedMps: speed,
            }).leanDeg;
          expect(at(curveSteps, speedMps)).toBeGreaterThan(at(curveSteps + 1, speedMps));
          expect(at(curveSteps, speedMps + 0.5)).toBeGreaterThan(at(curveSteps, speedMps));
        },
      ),
    );
  });
});
