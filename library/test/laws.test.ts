import { type Body, bodyOf } from '@gravek/core/layout/body';
import { pathOf } from '@gravek/core/layout/sequence';
import { describe, expect, it } from 'vitest';
import { lawsBroken } from '../src/movement/laws';
import { MOVEMENTS } from '../src/movement/movements';
import { bySchools } from '../src/movement/schools';
import { laidOut } from '../src/planning/plan';

const bodies = [1.25, 1.45, 1.75, 2].flatMap((heightM) =>
  (['right', 'left'] as const).map((hand) =>
    bodyOf({
      trials: [],
      heightM,
      legM: null,
      shoeM: null,
      hand,
      takeoffFoot: hand === 'right' ? 'left' : 'right',
      ageYears: heightM < 1.3 ? 9 : heightM < 1.5 ? 12 : null,
    }),
  ),
);
/** One who was measured: quicker, with a short leg and a weak brake. */
const measured: Body = {
  ...bodies[4]!,
  model: {
    firstLengthM: 1.2,
    topLengthM: 2.25,
    lengthRate: 3.4,
    firstCadenceSpm: 214,
    topCadenceSpm: 256,
    cadenceRate: 2.1,
  },
  legM: 0.84,
  brakeMps2: 3.6,
};

/** A length in metres that is more than none. */
const METRES = /"value":(?!0,)[-\d.]+,"of":"m"/;

/** The same steps seen in a mirror. */
const mirrored = (steps: object): string =>
  JSON.stringify(steps).replace(/"(left|right)"/g, (_, side: string) =>
    side === 'left' ? '"right"' : '"left"',
  );

describe.each(MOVEMENTS.map((movement) => [movement.code, movement] as const))(
  'on the ground, %s',
  (_code, movement) => {
    it('breaks no law for any body, hand, exit, school, drill and side', () => {
      expect(lawsBroken(movement, [...bodies, measured])).toEqual([]);
    });

    it('counts every length in a measure of the body', () => {
      for (const { code, steps } of movement.phases) {
        expect(JSON.stringify(steps), code).not.toMatch(METRES);
      }
      expect(JSON.stringify(movement.schools)).not.toMatch(METRES);
    });

    it('looks for the same in phases that mirror each other', () => {
      for (const phase of movement.phases.filter(({ code }) => code.endsWith('-right'))) {
        const other = movement.phases.find(
          ({ code }) => code === phase.code.replace(/-right$/, '-left'),
        );
        if (other && mirrored(phase.steps) === JSON.stringify(other.steps)) {
          const own = (other: typeof phase) => other.checkpoints.map(({ look }) => look).sort();
          expect(own(other), phase.code).toEqual(own(phase));
        }
      }
    });
  },
);

it('holds back no run but those that have to stop for something', () => {
  const held = MOVEMENTS.flatMap((movement) =>
    laidOut(movement, bodies[4]!).held.map(({ phase }) => `${movement.code}: ${phase}`),
  );
  expect(held).toContain('close-and-shorten: sprint');
  for (const own of held) {
    const [code, phase] = own.split(': ');
    const movement = MOVEMENTS.find((movement) => movement.code === code)!;
    const path = pathOf(bySchools(movement).phases).map((phase) => phase.code);
    expect(path.indexOf(phase!), own).toBeLessThan(path.length - 1);
  }
});

it('asks three faults of a drill with steps of its own, and one of any other', () => {
  const cadence = structuredClone(MOVEMENTS.find(({ code }) => code === 'steady-cadence')!);
  for (const fault of cadence.faults) {
    fault.drills = fault.drills.filter(
      (code) => code !== 'wall-cycles' || fault.code === 'bounces',
    );
  }
  expect(lawsBroken(cadence, bodies.slice(4, 5)).map(({ sentence }) => sentence)).toEqual([
    expect.stringMatching(/^In the drill “.+” only 1 fault can be seen/),
  ]);
});
