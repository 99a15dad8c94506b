import { bodyOf, brakesOver, pathOf, type Body, type Footfall, type Layout } from '@gravek/core';
import type { Movement } from '@gravek/contract';
import { describe, expect, it } from 'vitest';
import { bySchools, laidOut, MOVEMENTS } from '../src';

/** Each way of a movement on the ground: bodies, hands, exits, schools, drills and sides. */
type Way = { body: Body; layout: Layout; told: string; drill: string | null };

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

const waysOf = (movement: Movement): Way[] => {
  const exits: Record<string, string>[] = [
    {},
    ...movement.phases.flatMap((phase) =>
      (phase.read?.options ?? []).map((option) => ({ [phase.code]: option.code })),
    ),
  ];
  const schools: Record<string, string>[] = [
    {},
    ...movement.schools.flatMap((one) =>
      one.options.map((option) => ({ [one.code]: option.code })),
    ),
  ];
  const asked = [
    ...exits.flatMap((reads) => schools.map((school) => ({ reads, schools: school, drill: null }))),
    ...movement.drills.flatMap((drill) =>
      schools.map((school) => ({ reads: {}, schools: school, drill: drill.code })),
    ),
  ];
  return [...bodies, measured].flatMap((body) =>
    asked.flatMap((choices) =>
      (['own', 'other'] as const).map((side) => ({
        body,
        layout: laidOut(movement, body, { ...choices, side }),
        told: `${body.heightM} m, ${body.hand}, ${side}: ${JSON.stringify(choices)}`,
        drill: choices.drill,
      })),
    ),
  );
};

const stepsOf = ({ footfalls }: Layout): Footfall[] =>
  footfalls.filter((fall) => fall.n > 0 && fall.contact !== 'stand');

/** The same foot lands twice running though its phase does not say so. */
const landsTwice = (movement: Movement, { layout }: Way): string[] => {
  const says = new Map(movement.phases.map((phase) => [phase.code, phase.again === true]));
  const { footfalls } = layout;
  const steps = stepsOf(layout);
  return steps.slice(1).flatMap((fall, i) => {
    const before = steps[i]!;
    const together = footfalls.filter((one) => one.n === fall.n || one.n === before.n).length > 2;
    return before.n !== fall.n &&
      before.foot === fall.foot &&
      !fall.landing &&
      !together &&
      !says.get(fall.phase)
      ? [`${before.phase} → ${fall.phase}`]
      : [];
  });
};

/** A foot beyond a line that nobody crosses. */
const beyondLine = ({ layout }: Way): string[] =>
  layout.others
    .filter((other) => other.line && other.name !== 'apron')
    .flatMap(({ name, points: [p, q] }) => {
      const [x, y] = [q!.besideM - p!.besideM, q!.aheadM - p!.aheadM];
      const off = (at: { besideM: number; aheadM: number }): number =>
        (x * (at.aheadM - p!.aheadM) - y * (at.besideM - p!.besideM)) / Math.hypot(x, y);
      const along = (at: { besideM: number; aheadM: number }): number =>
        (x * (at.besideM - p!.besideM) + y * (at.aheadM - p!.aheadM)) / (x * x + y * y);
      const own = Math.sign(off(layout.track[0]!));
      return layout.footfalls
        .filter((fall) => !fall.landing && off(fall) * own < -0.02)
        .filter((fall) => along(fall) > -0.3 && along(fall) < 1.3)
        .map((fall) => `${fall.phase} past the ${name}`);
    });

const placeAt = (points: Layout['others'][number]['points'], timeS: number) => {
  const i = points.findLastIndex((one) => one.timeS <= timeS + 1e-9);
  const [from, to] = [points[Math.max(0, i)]!, points[i + 1]];
  const part = to && to.timeS > from.timeS ? (timeS - from.timeS) / (to.timeS - from.timeS) : 0;
  return {
    besideM: from.besideM + (to ? (to.besideM - from.besideM) * Math.max(0, part) : 0),
    aheadM: from.aheadM + (to ? (to.aheadM - from.aheadM) * Math.max(0, part) : 0),
  };
};

const apart = (
  a: { besideM: number; aheadM: number },
  b: { besideM: number; aheadM: number },
): number => Math.hypot(a.besideM - b.besideM, a.aheadM - b.aheadM);

/** Nobody runs through somebody else: there is a foot's breadth between them at every contact. */
const runsThrough = ({ layout }: Way): string[] =>
  layout.others
    .filter(({ kind }) => kind === 'opponent' || kind === 'teammate')
    .flatMap((other) =>
      stepsOf(layout)
        .filter((fall) => apart(fall, placeAt(other.points, fall.timeS)) < 0.22)
        .map((fall) => `${fall.phase} on the ${other.name}`),
    );

/** A ball that comes is where the feet take it: before the foot, at its moment. */
const missesBall = (movement: Movement, { layout, body, drill }: Way): string[] =>
  drill
    ? []
    : movement.others.flatMap((other, i) => {
        if (other.kind !== 'ball' || !other.comes) return [];
        const falls = stepsOf(layout).filter((fall) => fall.phase === other.from);
        const took = falls[0]?.contact === 'gather' ? falls.at(-1) : falls[0];
        if (!took) return [];
        const onWay = movement.others
          .slice(0, i)
          .filter((one) => one.from === 'start' || layout.phases.some((p) => p.code === one.from));
        const path = layout.others.filter((one) => one.kind !== 'bar')[onWay.length];
        const arrives = path?.points.find((point) => Math.abs(point.timeS - took.timeS) < 0.15);
        const reach = 0.3 + 0.45 * body.legM;
        return arrives && apart(arrives, took) < reach
          ? []
          : [`${other.from}: no ball at the feet`];
      });

const tooFast = ({ layout, body }: Way): string[] => {
  const topMps = (body.model.topLengthM * body.model.topCadenceSpm) / 60;
  return stepsOf(layout)
    .filter((fall) => !fall.landing && fall.speedMps > topMps * 1.02)
    .map((fall) => `${fall.phase} at ${fall.speedMps.toFixed(1)} m/s`);
};

const brakesTooHard = ({ layout, body }: Way): string[] =>
  brakesOver(layout, body.brakeMps2 ?? 4.5).map(
    ({ from, fall, decelMps2 }) => `${from.phase} → ${fall.phase}: ${decelMps2.toFixed(1)} m/s²`,
  );

/** A drill lays out its phases, as far as the way of teaching has them, and nothing else. */
const otherPhases = (movement: Movement, { layout, drill }: Way): string[] => {
  const part = movement.drills.find((one) => one.code === drill)?.part;
  if (part?.kind !== 'phases') return [];
  const order = movement.phases.map((phase) => phase.code);
  const named = order.slice(order.indexOf(part.from), order.indexOf(part.to) + 1);
  const laid = [
    ...layout.phases.map((phase) => phase.code),
    ...stepsOf(layout).map((fall) => fall.phase),
  ];
  return laid.length === 0 ? ['nothing'] : laid.filter((code) => !named.includes(code));
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
    it('keeps every law for every body, hand, exit, school, drill and side', () => {
      const ways = waysOf(movement);
      const found = (law: (way: Way) => string[]): string[] => {
        const seen = new Map<string, string>();
        for (const way of ways) for (const what of law(way)) seen.set(what, way.told);
        return [...seen].map(([what, told]) => `${what} (${told})`);
      };
      expect(
        found((way) => landsTwice(movement, way)),
        'the same foot twice',
      ).toEqual([]);
      expect(found(beyondLine), 'beyond a line').toEqual([]);
      expect(found(runsThrough), 'through somebody').toEqual([]);
      expect(
        found((way) => missesBall(movement, way)),
        'the ball',
      ).toEqual([]);
      expect(found(tooFast), 'faster than the body').toEqual([]);
      expect(found(brakesTooHard), 'harder braking than the body’s').toEqual([]);
      expect(
        found((way) => otherPhases(movement, way)),
        'what a drill lays out',
      ).toEqual([]);
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
          const own = (one: typeof phase) => one.checkpoints.map(({ look }) => look).sort();
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
    const movement = MOVEMENTS.find((one) => one.code === code)!;
    const path = pathOf(bySchools(movement).phases).map((one) => one.code);
    expect(path.indexOf(phase!), own).toBeLessThan(path.length - 1);
  }
});
