import { bodyOf } from '@gravek/core/layout/body';
import { countSteps } from '@gravek/core/layout/shape';
import { describe, expect, it } from 'vitest';
import { MOVEMENTS } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { outlineOf } from '../src/planning/solvePlan';
import { stepsIn } from '../src/planning/stepWords';

const body = bodyOf({
  ...{ trials: [], heightM: 1.78, legM: null, shoeM: null, hand: 'right', takeoffFoot: 'left' },
});

describe('steps as a coach counts them', () => {
  it('are no landings and no stance, and the lead foot is that of the first of them', () => {
    for (const movement of MOVEMENTS) {
      for (const drill of [null, ...movement.drills.map(({ code }) => code)]) {
        const layout = laidOut(movement, body, { ...(drill && { drill }), side: 'own' });
        const outline = outlineOf({ layout, straight: null });
        const steps = layout.footfalls.filter(
          (fall) => fall.n > 0 && !fall.landing && fall.contact !== 'stand',
        );
        const together = new Set(steps.map(({ n }) => n)).size;
        expect(countSteps(layout), `${movement.code} ${drill}`).toBe(together);
        if (!outline) continue;
        expect(outline.steps).toBe(together);
        if (steps[0]) expect(outline.firstFoot).toBe(steps[0].foot);
      }
    }
  });

  it('are said as anybody says them', () => {
    expect(stepsIn(1, 0.42)).toBe('1 step in 0.4 s');
    expect(stepsIn(14, 3.456, 2)).toBe('14 steps in 3.46 s');
    expect(stepsIn(0, 3)).toBe('3.0 s, no step');
  });
});
