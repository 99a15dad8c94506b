import { bodyOf, type Body } from '@gravek/core/layout/body';
import { sideAt } from '@gravek/core/body/sideView';
import { describe, expect, it } from 'vitest';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { bySchools } from '../src/movement/schools';
import { sideOf } from '../src/movement/sideOf';

const body = (heightM: number, legM: number | null = null): Body =>
  bodyOf({
    trials: [],
    heightM,
    legM,
    shoeM: null,
    hand: 'right',
    takeoffFoot: 'left',
    ageYears: heightM < 1.5 ? 11 : null,
  });

const seen = (code: string, who: Body, schools: Record<string, string> = {}) => {
  const movement = movementOf(code);
  const layout = laidOut(movement, who, { schools });
  return { layout, view: sideOf(bySchools(movement, schools), layout, who)! };
};

describe('a movement from the side', () => {
  it('is there wherever posture counts: at every moment of a phase that says so, and nowhere else', () => {
    for (const movement of MOVEMENTS) {
      const layout = laidOut(movement, body(1.75));
      const view = sideOf(bySchools(movement), layout, body(1.75));
      expect(view, movement.code).not.toBeNull();
      const held = new Set(
        movement.phases.filter((phase) => phase.posture).map((phase) => phase.code),
      );
      for (const { code, fromS, toS } of layout.phases) {
        if (toS - fromS < 0.01) continue;
        const moment = sideAt(view!, layout, body(1.75), (fromS + toS) / 2);
        expect(moment !== null, `${movement.code}: ${code}`).toBe(held.has(code));
      }
    }
  });

  it('stands on the foot that has just landed, for either side', () => {
    const movement = movementOf('first-two-steps');
    for (const side of ['own', 'other'] as const) {
      const layout = laidOut(movement, body(1.75), { side });
      const view = sideOf(movement, layout, body(1.75))!;
      for (const fall of layout.footfalls.filter((fall) => fall.n > 0)) {
        const moment = sideAt(view, layout, body(1.75), fall.timeS)!;
        expect(moment).toMatchObject({ on: fall.foot, contact: fall.n });
      }
    }
  });

  it('keeps the first two feet behind the hip and brings the trunk up a little each step', () => {
    for (const who of [body(1.3), body(1.75), body(2), body(1.8, 0.88)]) {
      const { view } = seen('first-two-steps', who);
      const [contact, two] = view.contacts;
      expect(contact!.footToHipM).toBeLessThan(0);
      expect(two!.footToHipM).toBeLessThan(0);
      expect(view.contacts.at(-1)!.footToHipM).toBeGreaterThan(0);
      for (const { trunkRiseDeg } of view.contacts.slice(1)) {
        expect(trunkRiseDeg).toBeGreaterThan(0);
        expect(trunkRiseDeg).toBeLessThan(12);
      }
    }
  });

  it('grows with the body, and the hip’s way is the step less what the foot gained on the hip', () => {
    const small = seen('first-two-steps', body(1.3));
    const tall = seen('first-two-steps', body(1.95));
    expect(Math.abs(tall.view.contacts[0]!.footToHipM)).toBeGreaterThan(
      Math.abs(small.view.contacts[0]!.footToHipM),
    );
    const [first, second] = tall.view.contacts;
    const step = tall.layout.footfalls.find((fall) => fall.n === 2)!.lengthM;
    expect(second!.hipTravelM).toBeCloseTo(step - (second!.footToHipM - first!.footToHipM), 9);
  });

  it('differs by school where the schools differ in it', () => {
    const knee = (way: string): number => {
      const { layout, view } = seen('first-two-steps', body(1.75), { extension: way });
      const firstS = layout.footfalls.find((fall) => fall.n === 1)!.timeS;
      // On the way to the first contact the back leg pushes.
      const moments = Array.from({ length: 40 }, (_, i) =>
        sideAt(view, layout, body(1.75), (firstS * i) / 40)!,
      );
      return Math.max(
        ...moments.map(({ figure: { hip, stance } }) => {
          const [a, b] = [
            Math.atan2(hip.x - stance.knee.x, hip.y - stance.knee.y),
            Math.atan2(stance.ankle.x - stance.knee.x, stance.ankle.y - stance.knee.y),
          ];
          const between = (Math.abs(a - b) * 180) / Math.PI;
          return between > 180 ? 360 - between : between;
        }),
      );
    };
    expect(knee('full')).toBeGreaterThan(knee('quick') + 5);
  });

  it('leaves the ground in a jump and comes back to it', () => {
    const { layout, view } = seen('block-jump', body(1.85));
    const land = layout.footfalls.find((fall) => fall.landing)!;
    const sole = (timeS: number): number => {
      const { figure } = sideAt(view, layout, body(1.85), timeS)!;
      return Math.min(...[figure.stance, figure.free].flatMap((leg) => [leg.toe.y, leg.heel.y]));
    };
    expect(sole(land.timeS)).toBeCloseTo(0, 6);
    const high = Math.max(...Array.from({ length: 30 }, (_, i) => sole(land.timeS - 0.02 * i)));
    expect(high).toBeGreaterThan(0.1);
  });
});

it('in a run the arm swings against the leg of its side', () => {
  const RUNS = ['build-up', 'recover', 'gaps'];
  let seen = 0;
  for (const movement of MOVEMENTS) {
    for (const phase of [
      ...movement.phases,
      ...movement.drills.flatMap(({ phases }) => phases ?? []),
    ]) {
      const { posture, steps, name } = phase;
      if (!posture || !RUNS.includes(steps.kind)) continue;
      for (const pose of [posture.contact, posture.last, posture.push]) {
        const arms = pose?.arms;
        if (!arms || arms.stance.raiseDeg === arms.free.raiseDeg) continue;
        seen += 1;
        const legAhead = pose.stance.thighDeg > pose.free.thighDeg;
        const armAhead = arms.stance.raiseDeg > arms.free.raiseDeg;
        expect(armAhead, `${movement.code}: ${name}`).toBe(!legAhead);
      }
    }
  }
  expect(seen).toBeGreaterThan(15);
});
