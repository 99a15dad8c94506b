import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bodyFigure } from '../src/body/bodyFigures';
import { feetAt, frontFigureOf } from '../src/body/frontView';
import { figureOf, type ArmPose, type Pose } from '../src/body/posture';

const deg = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const arm: fc.Arbitrary<ArmPose> = fc.record({
  raiseDeg: deg(-90, 190),
  elbowDeg: deg(30, 180),
  asideDeg: deg(-20, 80),
});
const bodies = deg(1.1, 2.1).map((heightM) => ({ heightM, legM: heightM * 0.53 }));
const STANDING: Pose = {
  trunkDeg: 10,
  stance: { thighDeg: 20, shinDeg: 12, ankleDeg: 97 },
  free: { thighDeg: 30, shinDeg: 12, ankleDeg: 97 },
};
const FEET = {
  left: { rightM: -0.2, toesOutDeg: 0 },
  right: { rightM: 0.2, toesOutDeg: 30 },
};

describe('arms', () => {
  it('keep their length and the bend of the elbow, wherever they are held', () => {
    fc.assert(
      fc.property(arm, arm, bodies, (stance, free, body) => {
        const { arms, shoulder } = figureOf({ ...STANDING, arms: { stance, free } }, body);
        for (const { elbow, wrist, hand } of [arms!.stance, arms!.free]) {
          const long = (a: typeof elbow, b: typeof elbow): number =>
            Math.hypot(a.x - b.x, a.y - b.y, a.outM - b.outM) / body.heightM;
          expect(long({ ...shoulder, outM: 0 }, elbow)).toBeCloseTo(0.186, 9);
          expect(long(elbow, wrist)).toBeCloseTo(0.146, 9);
          expect(long(wrist, hand)).toBeCloseTo(0.108, 9);
        }
      }),
    );
  });

  it('hang down at 0, point ahead at 90 and overhead at 180', () => {
    const handAt = (raiseDeg: number) => {
      const straight = { raiseDeg, elbowDeg: 180, asideDeg: 0 };
      const body = { heightM: 1.8, legM: 0.95 };
      const { arms, shoulder } = figureOf(
        { ...STANDING, arms: { stance: straight, free: straight } },
        body,
      );
      return [arms!.stance.hand.x - shoulder.x, arms!.stance.hand.y - shoulder.y];
    };
    const long = 0.44 * 1.8;
    for (const { raiseDeg, x, y } of [
      { raiseDeg: 0, x: 0, y: -long },
      { raiseDeg: 90, x: long, y: 0 },
      { raiseDeg: 180, x: 0, y: long },
    ]) {
      expect(handAt(raiseDeg)[0]).toBeCloseTo(x, 9);
      expect(handAt(raiseDeg)[1]).toBeCloseTo(y, 9);
    }
  });

  it('are not read off a body whose arms are free', () => {
    const body = { heightM: 1.8, legM: 0.95 };
    expect(bodyFigure('hands', figureOf(STANDING, body), body)).toBeNull();
    expect(bodyFigure('trunk', figureOf(STANDING, body), body)).toBeCloseTo(10, 6);
  });
});

describe('a body from the front', () => {
  it('has its feet where they are laid out and its joints as high as from the side', () => {
    fc.assert(
      fc.property(
        arm,
        bodies,
        fc.constantFrom('left' as const, 'right' as const),
        (held, body, on) => {
          const side = figureOf({ ...STANDING, arms: { stance: held, free: held } }, body);
          const { sides } = frontFigureOf(side, on, FEET, body.heightM);
          expect(sides.left.ankle.x).toBe(-0.2);
          expect(sides.right.ankle.x).toBe(0.2);
          expect(sides[on].knee.y).toBe(side.stance.knee.y);
          expect(sides.right.toe.x).toBeGreaterThan(sides.right.ankle.x);
          expect(sides.left.toe.x).toBeCloseTo(sides.left.ankle.x, 9);
          expect(sides.left.arm!.hand.y).toBe(side.arms!.free.hand.y);
          // What is out on one side is as far out on the other.
          expect(sides.left.arm!.hand.x).toBeCloseTo(-sides.right.arm!.hand.x, 9);
        },
      ),
    );
  });

  it('turns with the athlete: across is across the way that the chest faces', () => {
    const fall = (foot: 'left' | 'right', besideM: number, aheadM: number, facingDeg: number) => ({
      ...{ foot, besideM, aheadM, facingDeg, headingDeg: facingDeg, timeS: 0 },
    });
    const facing = (deg: number, left: [number, number], right: [number, number]) =>
      feetAt(
        { footfalls: [fall('left', ...left, deg), fall('right', ...right, deg)] as never },
        1,
      )!;
    expect(facing(0, [-0.3, 0], [0.3, 0]).right.rightM).toBeCloseTo(0.3, 9);
    // Facing right, the left foot is the farther one.
    expect(facing(90, [0, 0.3], [0, -0.3]).right.rightM).toBeCloseTo(0.3, 9);
    expect(feetAt({ footfalls: [] }, 1)).toBeNull();
  });
});
