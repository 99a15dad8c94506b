import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  arcFromChord,
  arcLanes,
  arcMove,
  cadencePlan,
  cushion,
  otherFoot,
  solveCurve,
} from '../src';
import type { CurveInput, CushionInput } from '../src';
import { evenly } from './evenly';

const curves = fc.record({
  takeoff: fc.record({
    alongM: evenly(0, 1),
    outM: fc.double({ min: 0.5, max: 1.2, noNaN: true }),
  }),
  takeoffAngleDeg: fc.double({ min: 15, max: 40, noNaN: true }),
  curveSteps: fc.integer({ min: 3, max: 7 }),
  curveStepM: fc.double({ min: 1.2, max: 2.2, noNaN: true }),
  straightSteps: fc.integer({ min: 0, max: 8 }),
  straightStepM: fc.double({ min: 1.2, max: 2.2, noNaN: true }),
  speedMps: fc.double({ min: 3, max: 9, noNaN: true }),
  entryFlareDeg: evenly(0, 25),
});

describe('solveCurve', () => {
  it('mirrors: the other side has the same marks with the feet swapped', () => {
    fc.assert(
      fc.property(curves, (curve) => {
        const right = solveCurve({ ...curve, side: 'right' });
        const left = solveCurve({ ...curve, side: 'left' });
        expect(left.takeoffFoot).toBe(otherFoot(right.takeoffFoot));
        expect(left.footfalls).toEqual(
          right.footfalls.map((fall) => ({ ...fall, foot: otherFoot(fall.foot) })),
        );
      }),
    );
  });

  it('ends on the take-off spot, keeps the circle, and its tapes cross at each footfall', () => {
    fc.assert(
      fc.property(curves, (curve) => {
        const plan = solveCurve({ ...curve, side: 'right' });
        const last = plan.footfalls.at(-1)!;
        expect(last.besideM).toBeCloseTo(-curve.takeoff.alongM, 9);
        expect(last.outM).toBeCloseTo(curve.takeoff.outM, 9);
        expect(last.turnedDeg).toBeCloseTo(90 - curve.takeoffAngleDeg, 9);
        const onCurve = [plan.curveStart, ...plan.footfalls.filter((f) => f.zone === 'curve')];
        onCurve.slice(1).forEach((fall, i) => {
          const before = onCurve[i]!;
          const chord = Math.hypot(fall.besideM - before.besideM, fall.outM - before.outM);
          expect(arcFromChord(chord, plan.radiusM)).toBeCloseTo(curve.curveStepM, 6);
        });
        for (const { besideM, outM, tape } of plan.footfalls) {
          const beside = (tape.farM ** 2 - tape.nearM ** 2 - 16) / 8;
          expect(beside).toBeCloseTo(besideM, 6);
          expect(Math.sqrt(Math.max(0, tape.nearM ** 2 - beside ** 2))).toBeCloseTo(outM, 6);
        }
      }),
    );
  });

  const plain: CurveInput = {
    side: 'right',
    takeoff: { alongM: 0.5, outM: 0.9 },
    takeoffAngleDeg: 25,
    curveSteps: 5,
    curveStepM: 1.8,
    straightSteps: 4,
    straightStepM: 1.8,
    speedMps: 6.5,
  };

  it('says what leaves the apron', () => {
    expect(solveCurve({ ...plain, apron: { besideM: 10, outM: 14 } }).outside).toEqual([
      'start mark',
    ]);
    expect(solveCurve({ ...plain, apron: { besideM: 10, outM: 30 } }).outside).toEqual([]);
    expect(solveCurve({ ...plain, apron: { besideM: 3.9, outM: 30 } }).outside).toContain('step 1');
  });

  it.each([
    [{ takeoffAngleDeg: 0 }, 'takeoffAngleDeg'],
    [{ curveStepM: undefined }, 'curveStepM'],
    [{ straightStepM: undefined }, 'straightStepM or model'],
    [{ testCircle: { radiusM: 1, chordsM: [2.5] } }, 'chordM'],
    [{ testCircle: { radiusM: 7, chordsM: [] } }, 'testCircle.chordsM'],
  ])('refuses %o', (change, field) => {
    expect(() => solveCurve({ ...plain, ...change })).toThrow(field);
  });
});

describe('cushion', () => {
  const duels = fc.record({
    depthM: fc.double({ min: 1, max: 6, noNaN: true }),
    attacker: fc.record({
      topSpeedMps: fc.double({ min: 5, max: 9, noNaN: true }),
      tauS: fc.double({ min: 0.8, max: 1.6, noNaN: true }),
    }),
    defender: fc.record({
      reactionS: fc.double({ min: 0.1, max: 0.4, noNaN: true }),
      stepM: fc.double({ min: 0.1, max: 0.3, noNaN: true }),
      cadenceSpm: fc.double({ min: 300, max: 480, noNaN: true }),
      turnS: fc.double({ min: 0.1, max: 0.5, noNaN: true }),
      topSpeedMps: fc.double({ min: 5, max: 9, noNaN: true }),
      tauS: fc.double({ min: 0.8, max: 1.6, noNaN: true }),
    }),
    keepM: evenly(0, 0.6),
    horizonS: fc.constant(3),
  });

  /** Least gap by small steps of time, as an independent check on the closed form. */
  const leastGap = ({ depthM, attacker: a, defender: d, horizonS }: CushionInput, open: number) => {
    const dt = 0.0005;
    const back = (d.stepM * d.cadenceSpm) / 60;
    let gap = depthM;
    let least = gap;
    for (let t = dt / 2; t < horizonS; t += dt) {
      const speed =
        t < d.reactionS
          ? 0
          : t < open + d.turnS
            ? back
            : d.topSpeedMps - (d.topSpeedMps - back) * Math.exp(-(t - open - d.turnS) / d.tauS);
      gap += (speed - a.topSpeedMps * (1 - Math.exp(-t / a.tauS))) * dt;
      least = Math.min(least, gap);
    }
    return least;
  };

  it('opens at the last moment that keeps the distance', () => {
    fc.assert(
      fc.property(duels, (duel) => {
        const { openByS, minDepthM } = cushion(duel);
        if (openByS === null) {
          expect(leastGap(duel, duel.defender.reactionS)).toBeLessThan(duel.keepM + 0.003);
        } else {
          expect(openByS).toBeGreaterThanOrEqual(duel.defender.reactionS);
          expect(leastGap(duel, openByS)).toBeGreaterThan(duel.keepM - 0.003);
          if (openByS < duel.horizonS - 0.05) {
            expect(leastGap(duel, openByS + 0.05)).toBeLessThan(duel.keepM + 0.003);
          }
        }
        const enough = { ...duel, depthM: Math.max(0, minDepthM) };
        if (minDepthM > 0) {
          expect(leastGap(enough, duel.defender.reactionS)).toBeCloseTo(duel.keepM, 2);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('refuses by name', () => {
    const duel = fc.sample(duels, 1)[0]!;
    const slow = { ...duel, defender: { ...duel.defender, cadenceSpm: 0 } };
    expect(() => cushion(slow)).toThrow('defender.cadenceSpm');
    expect(() => cushion({ ...duel, depthM: -1 })).toThrow('depthM');
  });
});

describe('goal arc and cadence', () => {
  it('lays marks on the circle, mirrored about the middle, within one shuffle step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 4, noNaN: true }),
        fc.integer({ min: 2, max: 9 }),
        fc.double({ min: 10, max: 90, noNaN: true }),
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        (depthM, lanes, spreadDeg, shuffleStepM) => {
          const arc = arcLanes({ depthM, lanes, spreadDeg, shuffleStepM });
          arc.marks.forEach((mark, i) => {
            expect(Math.hypot(mark.acrossM, mark.outM)).toBeCloseTo(depthM, 9);
            expect(mark.acrossM).toBeCloseTo(-arc.marks[lanes - 1 - i]!.acrossM, 9);
          });
          expect(arc.stepM).toBeLessThanOrEqual(shuffleStepM + 1e-9);
          expect(arc.stepM * arc.stepsPerGap).toBeCloseTo(arc.gapM, 9);
        },
      ),
    );
  });

  it('is on angle sooner by the angle, set sooner straight, and alike both ways round', () => {
    const move = arcMove({ depthM: 1.7, fromDeg: -40, toDeg: 35, speedMps: 2.6 });
    expect(move.angleFirst.onAngleS).toBeLessThan(move.straight.onAngleS);
    expect(move.angleFirst.setS).toBeGreaterThan(move.straight.setS);
    expect(arcMove({ depthM: 1.7, fromDeg: 35, toDeg: -40, speedMps: 2.6 })).toEqual(move);
    expect(() => arcMove({ depthM: 1.7, fromDeg: -140, toDeg: 0, speedMps: 2 })).toThrow('fromDeg');
  });

  it('keeps the pace in every week', () => {
    for (const { cadenceSpm, stepM } of cadencePlan({
      baselineSpm: 158,
      increasePct: 10,
      weeks: 6,
      speedMps: 3.1,
    })) {
      expect((cadenceSpm * stepM) / 60).toBeCloseTo(3.1, 9);
    }
    expect(() => cadencePlan({ baselineSpm: 0, increasePct: 5, weeks: 4, speedMps: 3 })).toThrow(
      'baselineSpm',
    );
  });
});
