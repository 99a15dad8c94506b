import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { movementOf, MOVEMENTS } from '@gravek/library/movement/movements';
import { laidOut } from '@gravek/library/planning/plan';
import { branchesOf } from '@gravek/library/planning/branches';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { meet, placeLabels, type Box, type LabelAsk } from '../src/drawing/labels';
import { pictureOf, type Picture } from '../src/drawing/picture';

const bodyFor = (heightM: number, ageYears: number | null, hand: 'left' | 'right'): Body =>
  bodyOf({
    trials: [],
    heightM,
    legM: null,
    shoeM: null,
    hand,
    takeoffFoot: hand === 'right' ? 'left' : 'right',
    ageYears,
  });
const adult = bodyFor(1.8, null, 'right');
const bodies = [adult, bodyFor(1.38, 10, 'right'), bodyFor(1.72, null, 'left')];

/** A laptop’s panel, a sheet of paper, a phone. */
const ROOMS = [
  [1112, 380],
  [700, 420],
  [330, 380],
] as const;

const inside = (box: Box, width: number, height: number): boolean =>
  box.x >= 0 && box.y >= 0 && box.x + box.width <= width && box.y + box.height <= height;

const boxName = ({ text }: { text: string }): string => text.replaceAll('\n', ', ');

/** What lies over what in a drawing; nothing, when it is right. */
const overlaps = (picture: Picture): string[] => {
  const sheets = [
    {
      prints: picture.prints,
      tags: picture.tags,
      frames: picture.insets.map((inset) => inset.frame),
    },
    ...picture.insets.map(({ prints, tags }) => ({ prints, tags, frames: [] })),
  ];
  return sheets.flatMap(({ prints, tags, frames }) => [
    ...tags.flatMap((tag, i) =>
      tags
        .slice(i + 1)
        .filter((other) => meet(tag.box, other.box))
        .map((other) => `${boxName(tag)} / ${boxName(other)}`),
    ),
    ...tags.flatMap((tag) => [
      ...prints
        .filter((print) => meet(tag.box, print.box))
        .map((print) => `${boxName(tag)} over print ${print.fall.n}`),
      ...frames.filter((frame) => meet(tag.box, frame)).map(() => `${boxName(tag)} over an inset`),
    ]),
    ...prints.flatMap((print) =>
      frames
        .filter((frame) => meet(print.box, frame))
        .map(() => `print ${print.fall.n} under inset`),
    ),
  ]);
};

const numbersOf = (picture: Picture): number[] =>
  [...picture.tags, ...picture.insets.flatMap((inset) => inset.tags)]
    .filter((tag) => tag.kind === 'n')
    .flatMap((tag) => tag.text.split('·').map(Number));

const check = (layout: Layout, picture: Picture, width: number): void => {
  expect(overlaps(picture)).toEqual([]);
  for (const tag of picture.tags)
    expect(inside(tag.box, width, picture.height), tag.text).toBe(true);
  for (const { frame } of picture.insets) expect(inside(frame, width, picture.height)).toBe(true);
  expect(new Set(numbersOf(picture))).toEqual(
    new Set(layout.footfalls.map((fall) => fall.n).filter((n) => n > 0)),
  );
  expect(picture.height).toBeLessThan(720);
};

describe('a plan from above', () => {
  it.each(MOVEMENTS.map((movement) => [movement.name, movement] as const))(
    'lays no label of %s over another, a print or an inset, and leaves no number out',
    (_name, movement) => {
      for (const body of bodies) {
        for (const side of ['own', 'other'] as const) {
          const layout = laidOut(movement, body, { side });
          for (const [width, maxHeight] of ROOMS) {
            const picture = pictureOf({
              layout,
              branches: branchesOf(movement, body, { side }),
              shoeM: body.shoeM,
              width,
              maxHeight,
            });
            check(layout, picture, width);
          }
        }
      }
    },
  );

  it('finds room for the lines of a ground, and for none where they lie outside', () => {
    const marks = (['board', 'line', 'bar', 'goal'] as const).flatMap((of) =>
      [0.5, 1.6, 2.2, 4, 6, 9].map((fromM) => ({ name: `${of} at ${fromM}`, of, fromM })),
    );
    const ground = {
      groundId: '0191a6ee-7a36-7c7e-8a4f-6a3c5a1d0001',
      name: 'Old quay hall',
      surface: 'hall floor' as const,
      laneM: null,
      goalM: 4,
      uprightGapM: 3.6,
      apron: { besideM: 9, outM: 8 },
      gapM: 0.5,
      baseM: null,
      rim: null,
      net: null,
      marks,
    };
    for (const code of ['goal-arc', 'curved-run-up', 'straight-run-up', 'gaps']) {
      const movement = movementOf(code);
      for (const body of bodies) {
        const layout = laidOut(movement, body, { ground });
        for (const [width, maxHeight] of ROOMS) {
          const picture = pictureOf({
            layout,
            shoeM: body.shoeM,
            width,
            maxHeight,
          });
          check(layout, picture, width);
          const lines = picture.tags.filter((tag) => / at \d/.test(tag.text));
          if (code !== 'gaps') expect(lines.length).toBeGreaterThan(0);
          // What is named is drawn: some of it lies within.
          for (const { text } of lines) {
            const { points } = layout.others.find((other) => other.name === text)!;
            const spots = points.map(picture.ground.at);
            expect(Math.max(...spots.map(([x]) => x))).toBeGreaterThan(0);
            expect(Math.min(...spots.map(([x]) => x))).toBeLessThan(width);
            expect(Math.max(...spots.map(([, y]) => y))).toBeGreaterThan(0);
            expect(Math.min(...spots.map(([, y]) => y))).toBeLessThan(picture.height);
          }
        }
      }
    }
  });

  it('does so for every exit and every school, also laid over the usual way', () => {
    const body = adult;
    for (const movement of MOVEMENTS) {
      const usual = laidOut(movement, body);
      const others = [
        ...movement.phases.flatMap(
          ({ code, read }) =>
            read?.options.map((option) =>
              laidOut(movement, body, { reads: { [code]: option.code } }),
            ) ?? [],
        ),
        ...movement.schools.flatMap((school) =>
          school.options.map((option) =>
            laidOut(movement, body, { schools: { [school.code]: option.code } }),
          ),
        ),
      ];
      for (const layout of others) {
        const asked = {
          layout,
          shoeM: body.shoeM,
          width: 1112,
          maxHeight: 380,
        };
        check(layout, pictureOf(asked), 1112);
        check(layout, pictureOf({ ...asked, over: usual }), 1112);
      }
    }
  });

  it('opens short steps in an inset on a phone, and has them once', () => {
    const movement = movementOf('close-and-shorten');
    const body = adult;
    const layout = laidOut(movement, body);
    const picture = pictureOf({ layout, shoeM: body.shoeM, width: 330, maxHeight: 380 });
    expect(picture.insets.length).toBeGreaterThan(0);
    const [inset] = picture.insets;
    expect(inset!.ground.pixelsPerM).toBeGreaterThan(1.5 * picture.ground.pixelsPerM);
    const own = new Set(inset!.tags.map((tag) => tag.text));
    expect(picture.tags.some((tag) => tag.kind === 'n' && own.has(tag.text))).toBe(false);
  });

  it('says of somebody who comes how fast, and of somebody who stands nothing', () => {
    const said = (code: string, feet: boolean): string[] => {
      const movement = movementOf(code);
      const layout = laidOut(movement, adult);
      const picture = pictureOf({ layout, shoeM: 0.27, width: 1112, maxHeight: 380, feet });
      return picture.tags.map(boxName);
    };
    expect(said('stutter-read-go', false)).toContain('defender, 1.2 m/s');
    expect(said('stutter-read-go', true)).toContain('defender, 4 ft/s');
    expect(said('slide-close-out', false)).toContain('shooter');
  });

  it('turns so that the way runs along the long side', () => {
    const sideways = laidOut(movementOf('block-jump'), adult);
    const along = (layout: Layout, width: number, maxHeight: number): number => {
      const { ground, prints } = pictureOf({ layout, shoeM: 0.27, width, maxHeight });
      expect(ground.width).toBe(width);
      const xs = prints.map((print) => print.x);
      const ys = prints.map((print) => print.y);
      return (Math.max(...xs) - Math.min(...xs)) / (Math.max(...ys) - Math.min(...ys) + 1);
    };
    expect(along(laidOut(movementOf('straight-run-up'), adult), 1112, 380)).toBeGreaterThan(5);
    expect(along(laidOut(movementOf('straight-run-up'), adult), 330, 700)).toBeLessThan(0.2);
    expect(sideways.footfalls.length).toBeGreaterThan(0);
  });
});

describe('labels', () => {
  it('never lie over one another or over what is taken, wherever they are asked', () => {
    const spot = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 300 }));
    const ask = fc.record({
      text: fc.constant('label'),
      at: spot,
      reach: fc.integer({ min: 0, max: 20 }),
      towardDeg: fc.integer({ min: -180, max: 180 }),
      width: fc.integer({ min: 8, max: 90 }),
      height: fc.constant(14),
    }) as fc.Arbitrary<LabelAsk>;
    fc.assert(
      fc.property(
        fc.array(ask, { maxLength: 40 }),
        fc.array(spot, { maxLength: 20 }),
        (asks, taken) => {
          const solid = taken.map(([x, y]) => ({ x, y, width: 20, height: 8 }));
          const room = { x: 0, y: 0, width: 400, height: 300 };
          const placed = placeLabels(asks, room, solid).filter((label) => label !== null);
          placed.forEach(({ box, lead }, i) => {
            expect(inside(box, 400, 300)).toBe(true);
            expect(solid.some((other) => meet(box, other))).toBe(false);
            expect(placed.slice(0, i).some((other) => meet(box, other.box))).toBe(false);
            const end = lead?.[1];
            if (end) expect(meet({ x: end[0], y: end[1], width: 0, height: 0 }, box, 1)).toBe(true);
          });
          // With nothing in the way the first finds its place.
          if (solid.length === 0 && asks.length > 0) expect(placed.length).toBeGreaterThan(0);
        },
      ),
    );
  });
});
