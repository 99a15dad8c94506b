import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anglesOf, figureOf, postureAngles, type Pose, type SidePoint } from '../src/body/posture';

const deg = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const leg = fc.record({ thighDeg: deg(-60, 100), shinDeg: deg(-40, 100), ankleDeg: deg(60, 150) });
const poses: fc.Arbitrary<Pose> = fc.record({ trunkDeg: deg(-30, 90), stance: leg, free: leg });
const bodies = fc
  .record({ heightM: deg(1.1, 2.1), ratio: deg(0.48, 0.57) })
  .map(({ heightM, ratio }) => ({ heightM, legM: heightM * ratio }));

describe('postureAngles', () => {
  it('names a point that is no number, and neighbours that lie on each other', () => {
    const at = (y: number): SidePoint => ({ x: 0, y });
    const points = { shoulder: at(1.4), hip: at(0.9), knee: at(0.5), ankle: at(0.1), toe: at(0) };
    expect(() =>
      postureAngles({ travel: 'right', points: { ...points, knee: { x: NaN, y: 0 } } }),
    ).toThrow('points.knee.x');
    expect(() => postureAngles({ travel: 'right', points: { ...points, hip: at(1.4) } })).toThrow(
      'points.hip must lie apart from shoulder',
    );
    expect(() => postureAngles({ travel: 'up' as 'left', points })).toThrow('travel');
  });
});

describe('a drawn body', () => {
  it('has the angles that it was drawn with, by either leg', () => {
    fc.assert(
      fc.property(poses, bodies, (pose, body) => {
        const figure = figureOf(pose, body);
        for (const which of ['stance', 'free'] as const) {
          const angles = anglesOf(figure, which);
          expect(angles.trunkLeanDeg).toBeCloseTo(pose.trunkDeg, 6);
          expect(angles.thighDeg).toBeCloseTo(pose[which].thighDeg, 6);
          expect(angles.shinLeanDeg).toBeCloseTo(pose[which].shinDeg, 6);
          expect(angles.ankleDeg).toBeCloseTo(pose[which].ankleDeg, 6);
        }
      }),
    );
  });

  it('is a mirror of itself moving to the left', () => {
    fc.assert(
      fc.property(poses, bodies, (pose, body) => {
        const figure = figureOf(pose, body);
        const flip = ({ x, y }: SidePoint): SidePoint => ({ x: -x, y });
        const { knee, ankle, toe } = figure.stance;
        const points = { shoulder: figure.shoulder, hip: figure.hip, knee, ankle, toe };
        const left = postureAngles({
          travel: 'left',
          points: {
            shoulder: flip(points.shoulder),
            hip: flip(points.hip),
            knee: flip(knee),
            ankle: flip(ankle),
            toe: flip(toe),
          },
        });
        const right = postureAngles({ travel: 'right', points });
        for (const [name, value] of Object.entries(right)) {
          expect(left[name as keyof typeof left]).toBeCloseTo(value, 9);
        }
      }),
    );
  });

  it('stands on the ground with its lowest sole, or as high as it is off it, to its own size', () => {
    fc.assert(
      fc.property(poses, bodies, deg(0, 0.5), (pose, body, liftM) => {
        const figure = figureOf(pose, body, liftM);
        const soles = [figure.stance, figure.free].flatMap((leg) => [leg.toe.y, leg.heel.y]);
        expect(Math.min(...soles)).toBeCloseTo(liftM, 9);
        const { hip, stance } = figure;
        const bones =
          Math.hypot(hip.x - stance.knee.x, hip.y - stance.knee.y) +
          Math.hypot(stance.knee.x - stance.ankle.x, stance.knee.y - stance.ankle.y);
        expect(bones).toBeCloseTo((body.legM * 0.491) / 0.53, 6);
      }),
    );
  });

  it('stands flat on a vertical shin when the ankle says so, its leg as long as the leg', () => {
    const upright = { thighDeg: 0, shinDeg: 0, ankleDeg: 109.83 };
    const figure = figureOf(
      { trunkDeg: 0, stance: upright, free: upright },
      { heightM: 1.8, legM: 0.954 },
    );
    expect(figure.hip.y).toBeCloseTo(0.954, 2);
    expect(figure.stance.toe.y).toBeCloseTo(figure.stance.heel.y, 3);
  });
});
