import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cadencePlan } from '../src/curve/cadencePlan';
import { otherFoot } from '../src/feet';
import { arcLanes, arcMove } from '../src/curve/goalArc';
import { inFront, inFrontTracks, type InFrontInput } from '../src/curve/inFront';
import { arcFromChord, solveCurve, type CurveInput } from '../src/curve/solveCurve';
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

describe('giving ground', () => {
  const duels = fc.record({
    depthM: fc.double({ min: 1, max: 6, noNaN: true }),
    keepM: evenly(0, 0.6),
    horizonS: fc.constant(3),
    runner: fc.record({
      topSpeedMps: fc.double({ min: 5, max: 9, noNaN: true }),
      tauS: fc.double({ min: 0.8, max: 1.6, noNaN: true }),
      fraction: fc.double({ min: 0.3, max: 1, noNaN: true }),
      dallySpeedMps: fc.double({ min: 0, max: 2, noNaN: true }),
      sideM: evenly(0, 1.6),
      releaseDeg: fc.double({ min: 20, max: 90, noNaN: true }),
    }),
    defender: fc.record({
      reactionS: fc.double({ min: 0.1, max: 0.4, noNaN: true }),
      steps: fc.integer({ min: 0, max: 8 }),
      stepM: fc.double({ min: 0.1, max: 0.3, noNaN: true }),
      cadenceSpm: fc.double({ min: 300, max: 480, noNaN: true }),
      turnS: fc.double({ min: 0.1, max: 0.5, noNaN: true }),
      turnBackM: evenly(0, 0.5),
      topSpeedMps: fc.double({ min: 5, max: 9, noNaN: true }),
      tauS: fc.double({ min: 0.8, max: 1.6, noNaN: true }),
    }),
  });

  /** The gap by small steps of time from the speeds alone, as an independent check on the closed form. */
  const gapsOf = ({ depthM, runner, defender: d, horizonS }: InFrontInput): number[] => {
    const dt = 0.0005;
    const stepsS = (d.steps * 60) / d.cadenceSpm;
    const release = (runner.releaseDeg * Math.PI) / 180;
    const roundM = runner.sideM / Math.sin(release);
    const turnMps = d.turnBackM / d.turnS;
    const gaps: number[] = [];
    let [gap, wayM] = [depthM, 0];
    for (let t = dt / 2; t < horizonS; t += dt) {
      const top = runner.fraction * runner.topSpeedMps;
      const mps = top - (top - runner.dallySpeedMps) * Math.exp(-(t - stepsS) / runner.tauS);
      const forward =
        t < stepsS ? runner.dallySpeedMps : wayM < roundM ? mps * Math.cos(release) : mps;
      if (t >= stepsS) wayM += mps * dt;
      const since = t - d.reactionS;
      const back =
        since < 0
          ? 0
          : since < stepsS
            ? (d.stepM * d.cadenceSpm) / 60
            : since < stepsS + d.turnS
              ? turnMps
              : d.topSpeedMps -
                (d.topSpeedMps - turnMps) * Math.exp(-(since - stepsS - d.turnS) / d.tauS);
      gap += (back - forward) * dt;
      gaps.push(gap);
    }
    return gaps;
  };

  it('is in front until the gap is too small, and holds whom it says and nobody faster', () => {
    fc.assert(
      fc.property(duels, (duel) => {
        const { frontS, gapM, holds } = inFront(duel);
        const gaps = gapsOf(duel);
        expect(gapM[1]).toBeCloseTo(gaps[4000 - 1]!, 1);
        const until = Math.floor(frontS / 0.0005) - 2;
        if (until > 0) {
          expect(Math.min(...gaps.slice(0, until))).toBeGreaterThan(duel.keepM - 0.01);
        }
        if (frontS < 3) {
          expect(Math.min(...gaps.slice(0, until + 10))).toBeLessThan(duel.keepM + 0.03);
        }
        const leastAt = (fraction: number, s: number): number =>
          Math.min(...gapsOf({ ...duel, runner: { ...duel.runner, fraction } }).slice(0, s * 2000));
        holds.forEach((part, i) => {
          if (part === null) expect(leastAt(0.2, i + 1)).toBeLessThan(duel.keepM + 0.01);
          else expect(leastAt(part, i + 1)).toBeGreaterThan(duel.keepM - 0.01);
          if (part !== null && part < 0.97) {
            expect(leastAt(part + 0.03, i + 1)).toBeLessThan(duel.keepM + 0.005);
          }
        });
        // Who is held for longer is held for less long as well.
        expect(holds[0] ?? 0).toBeGreaterThanOrEqual(holds[1] ?? 0);
        expect(holds[1] ?? 0).toBeGreaterThanOrEqual(holds[2] ?? 0);
      }),
      { numRuns: 30 },
    );
  });

  it('draws both where it reckons them', () => {
    const duel = fc.sample(duels, 1)[0]!;
    const tracks = inFrontTracks(duel, 3001);
    expect(tracks[0]).toMatchObject({ runnerM: -duel.depthM, runnerAsideM: 0, defenderM: 0 });
    expect(tracks[2000]!.gapM).toBeCloseTo(inFront(duel).gapM[1], 6);
    expect(Math.max(...tracks.map((at) => at.runnerAsideM))).toBeLessThanOrEqual(
      duel.runner.sideM + 1e-9,
    );
  });

  it('refuses by name', () => {
    const duel = fc.sample(duels, 1)[0]!;
    const slow = { ...duel, defender: { ...duel.defender, cadenceSpm: 0 } };
    expect(() => inFront(slow)).toThrow('defender.cadenceSpm');
    expect(() => inFront({ ...duel, depthM: -1 })).toThrow('depthM');
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
