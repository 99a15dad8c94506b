import { bodyOf } from '@gravek/core/layout/body';
import type { Movement } from '@gravek/contract/movement';
import { movementSchema } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOVEMENTS, movementOf } from '../src/movement/movements';
import { placeLines, spotCalled, spotsOf } from '../src/planning/place';
import { laidOut } from '../src/planning/plan';
import { groundMarks } from '../src/planning/sheet';
import { asVaried, baseOf } from '../src/session/work';
import { groundOf } from './grounds';
import { variantFrom } from '@gravek/core/session/variants';

type Point = { besideM: number; aheadM: number };

const athleteOf = (heightM: number, hand: 'left' | 'right') =>
  bodyOf({
    ...{ trials: [], heightM, legM: null, shoeM: null },
    ...{ hand, takeoffFoot: hand === 'right' ? 'left' : 'right' },
  });

const between = (a: Point, b: Point): number =>
  Math.hypot(a.besideM - b.besideM, a.aheadM - b.aheadM);
const middle = ([p, q]: readonly Point[]): Point => ({
  besideM: (p!.besideM + q!.besideM) / 2,
  aheadM: (p!.aheadM + q!.aheadM) / 2,
});
/** Off the line through two points, metres; to its left negative. */
const offLine = ([p, q]: readonly Point[], at: Point): number => {
  const [x, y] = [q!.besideM - p!.besideM, q!.aheadM - p!.aheadM];
  return (y * (at.besideM - p!.besideM) - x * (at.aheadM - p!.aheadM)) / Math.hypot(x, y);
};
const builtIn = (layout: ReturnType<typeof laidOut>, name: string) =>
  layout.others.filter((other) => other.name === name && other.line);

const PLACED = MOVEMENTS.filter(({ place }) => place).map(({ code }) => code);
const people = fc.record({
  code: fc.constantFrom(...PLACED),
  heightM: fc.double({ min: 1.2, max: 2.1, noNaN: true }),
  hand: fc.constantFrom('left' as const, 'right' as const),
  pick: fc.nat(),
});

describe('a movement in its place', () => {
  it('stands where its spot is, whoever does it with whichever hand', () => {
    fc.assert(
      fc.property(people, ({ code, heightM, hand, pick }) => {
        const movement = movementOf(code);
        const spots = spotsOf(movement);
        const spot = spots[pick % spots.length]!;
        const layout = laidOut(movement, athleteOf(heightM, hand), { spot: spot.choice });
        const built = placeLines(movement.place!);
        // All of it lies as it is built, one thing to another.
        const widths = (lines: number[]) => lines.map((m) => m.toFixed(2)).sort();
        for (const { name } of built) {
          const asBuilt = built
            .filter((one) => one.name === name)
            .map(({ ends: [p, q] }) => Math.hypot(p.besideM - q.besideM, p.outM - q.outM));
          const drawn = builtIn(layout, name).map(({ points: [p, q] }) => between(p!, q!));
          expect(widths(drawn)).toEqual(widths(asBuilt));
        }
        // From the spot the middle of the first thing is as far as the spot says.
        const [first] = built;
        const { at } = movement.place!;
        const fall = layout.footfalls.find((footfall) => footfall.phase === at && footfall.n > 0);
        const moment = at === 'start' ? 0 : (fall?.timeS ?? 0);
        const body = layout.track.find(({ timeS }) => timeS >= moment - 1e-9)!;
        const [p, q] = first!.ends;
        const middleOf = { besideM: (p.besideM + q.besideM) / 2, outM: (p.outM + q.outM) / 2 };
        const farM = Math.hypot(spot.at.besideM - middleOf.besideM, spot.at.outM - middleOf.outM);
        const isAsFar = builtIn(layout, first!.name).map(
          ({ points }) => Math.abs(between(middle(points), body) - farM) < 0.05,
        );
        expect(isAsFar).toContain(true);
      }),
      { numRuns: 60 },
    );
  });

  it('is on the side of the place that was chosen, not on that of the hand', () => {
    const post = movementOf('post-footwork');
    for (const hand of ['left', 'right'] as const) {
      for (const side of ['left', 'right'] as const) {
        const body = athleteOf(1.9, hand);
        const layout = laidOut(post, body, { spot: { code: 'block', side } });
        const [endLine] = builtIn(layout, 'end line');
        const [rim] = builtIn(layout, 'rim');
        const towards = middle(rim!.points);
        const line = middle(endLine!.points);
        // The way out into the court; the right of who faces the rim lies to the left of it.
        const out = [line, towards];
        const spot = layout.footfalls.find(({ phase }) => phase === 'land')!;
        expect(offLine(out, spot) < 0, `${hand} hand, ${side} block`).toBe(side === 'right');
        expect(layout.mirrored).toBe(hand === 'left');
      }
    }
  });

  it('an exit to the middle goes to the middle at either block, with either hand', () => {
    const post = movementOf('post-footwork');
    for (const hand of ['left', 'right'] as const) {
      for (const side of ['left', 'right'] as const) {
        const outOf = (land: string): number => {
          const layout = laidOut(post, athleteOf(1.9, hand), {
            ...{ spot: { code: 'block', side }, reads: { land } },
          });
          const [endLine] = builtIn(layout, 'end line');
          const last = layout.footfalls.filter(({ phase }) => phase.startsWith('power')).at(-1)!;
          return Math.abs(offLine(endLine!.points, last));
        };
        // Leaned on from the side of the end line one spins to the middle: farther from the end line.
        expect(outOf('low'), `${hand} hand, ${side} block`).toBeGreaterThan(outOf('high') + 0.3);
      }
    }
  });

  it('a ball to the antenna lies outside at either end of the net, with either hand', () => {
    const approach = movementOf('four-step-approach');
    for (const hand of ['left', 'right'] as const) {
      for (const side of ['left', 'right'] as const) {
        const ballOff = (second: string): number => {
          const layout = laidOut(approach, athleteOf(1.8, hand), {
            ...{ spot: { code: 'end', side }, reads: { second } },
          });
          const net = middle(builtIn(layout, 'net')[0]!.points);
          return Math.abs(
            layout.others.find(({ kind }) => kind === 'ball')!.points[0]!.besideM - net.besideM,
          );
        };
        expect(ballOff('wide'), `${hand} hand, ${side} end`).toBeGreaterThan(ballOff('inside') + 1);
      }
    }
  });

  it('goes by what the ground has: its lane, its net, its goal where it has no rim', () => {
    const body = athleteOf(1.8, 'right');
    const wide = groundOf({ rim: { outM: 1.2, laneM: 5.8, laneOutM: 6 } });
    const post = laidOut(movementOf('post-footwork'), body, { ground: wide });
    const corner = (layout: typeof post) => builtIn(layout, 'end line')[0]!.points;
    expect(between(corner(post)[0]!, corner(post)[1]!)).toBeCloseTo(5.8, 3);
    const hall = laidOut(movementOf('post-footwork'), body, { ground: groundOf({ goalM: 3 }) });
    expect(builtIn(hall, 'goal')).toHaveLength(1);
    expect(builtIn(hall, 'lane')).toHaveLength(0);
    const net = groundOf({ net: { heightM: 2, wideM: 6, lineM: 2 } });
    const block = laidOut(movementOf('block-jump'), body, { ground: net });
    const [own] = builtIn(block, 'net');
    expect(between(own!.points[0]!, own!.points[1]!)).toBeCloseTo(6, 3);
    expect(builtIn(block, '2 m line')).toHaveLength(1);
  });

  it('is set out by two tapes that meet at the spot', () => {
    const layout = laidOut(movementOf('jab-and-go'), athleteOf(1.8, 'right'), {
      spot: { code: 'wing', side: 'left' },
    });
    const [start] = groundMarks(layout);
    expect(start!.tapes!.map(({ from }) => from)).toEqual([
      'left lane corner',
      'right lane corner',
    ]);
    const wing = spotsOf(movementOf('jab-and-go')).find(({ name }) => name === 'left wing')!.at;
    const far = [-2.45, 2.45].map((corner) => Math.hypot(wing.besideM - corner, wing.outM));
    expect(start!.tapes!.map(({ lengthM }) => lengthM).sort()).toEqual(
      far.map((m) => expect.closeTo(m, 2)).sort(),
    );
    expect(start!.tapes!.map(({ lengthM }) => lengthM).sort((a, b) => a - b)[0]).toBeCloseTo(
      Math.min(...far),
      2,
    );
  });

  it('a set goes to a spot by its name, and one of the coach’s own stays a name', () => {
    const jab = movementOf('jab-and-go');
    expect(spotCalled(jab, 'left wing')).toEqual({ code: 'wing', side: 'left' });
    expect(spotCalled(jab, 'by the clock')).toBeUndefined();
    const base = baseOf(
      { kind: 'movement', movement: jab.code, drill: null },
      { planOf: () => undefined, movementOf },
    )!;
    const run = asVaried(
      { movement: jab, choices: base.choices! },
      variantFrom('spot=left_wing', 'own'),
    );
    expect('why' in run ? null : run.choices).toMatchObject({
      spot: { code: 'wing', side: 'left' },
    });
  });

  it('a phase that is not there, at the spot or to change over, is told', () => {
    const post = movementOf('post-footwork');
    const fields = (place: Partial<NonNullable<Movement['place']>>) => {
      const checked = check(movementSchema, { ...post, place: { ...post.place, ...place } });
      return checked.ok ? {} : checked.fields;
    };
    expect(fields({ at: 'nowhere' })).toHaveProperty(['place.at']);
    expect(fields({ swaps: [{ a: 'land', b: 'gone' }] })).toHaveProperty(['place.swaps[0]']);
    expect(fields({ spots: [] })).toHaveProperty(['place.spots']);
    const otherSide = { changes: [], turns: [], checkpoints: [], others: [] };
    const gone = { phase: 'gone', set: { steps: 2 } };
    expect(fields({ otherSide: { ...otherSide, changes: [gone] } })).toHaveProperty([
      'place.otherSide.changes[0].phase',
    ]);
    const untaught = { phase: 'land', set: {}, taughtBy: 'no:school' };
    expect(fields({ otherSide: { ...otherSide, changes: [untaught] } })).toHaveProperty([
      'place.otherSide.changes[0].taughtBy',
    ]);
    expect(fields({})).toEqual({});
  });
});

describe('a fielder at either corner', () => {
  const fielder = movementOf('corner-fielder');
  const thrownTo = (hand: 'left' | 'right', corner: string | null, prep: string): string[] =>
    laidOut(fielder, athleteOf(1.8, hand), {
      ...{ reads: { prep, charge: 'near' }, spot: spotCalled(fielder, corner) },
    })
      .others.filter(({ kind }) => kind === 'base')
      .map(({ name }) => name);

  it('throws to what lies there, with either hand', () => {
    expect(spotsOf(fielder).map(({ name }) => name)).toEqual(['first base', 'third base']);
    expect(thrownTo('right', null, 'drop')).toEqual(['first base']);
    expect(thrownTo('left', null, 'drop')).toEqual(['third base']);
    expect(thrownTo('right', 'third base', 'drop')).toEqual(['first base']);
    expect(thrownTo('right', 'first base', 'drop')).toEqual(['second base']);
    expect(thrownTo('left', 'third base', 'drop')).toEqual(['second base']);
    expect(thrownTo('right', 'first base', 'slow')).toEqual(['first base']);
    expect(thrownTo('left', 'third base', 'slow')).toEqual(['third base']);
  });

  it('sets the feet in three ways there too, and goes to the line with the glove', () => {
    const at = (schools: Record<string, string>, prep: string) =>
      laidOut(fielder, athleteOf(1.8, 'right'), {
        ...{ schools, reads: { prep }, spot: spotCalled(fielder, 'first base') },
      });
    const ways = fielder.schools
      .find(({ code }) => code === 'at-you')!
      .options.map(({ code }) => JSON.stringify(at({ 'at-you': code }, 'drop').footfalls));
    expect(new Set(ways).size).toBe(3);
    const gather = at({}, 'line').footfalls.find(({ ball }) => ball === 'gather')!;
    // The line to home lies to the left of who faces it from second: the ball is outside of it.
    expect(gather.foot).toBe('left');
    expect(gather.besideM).toBeLessThan(-0.5);
  });

  it('stands on the bag of the ground: the lines go out from it', () => {
    for (const baseM of [18.3, 27.4]) {
      const layout = laidOut(fielder, athleteOf(1.8, 'right'), { ground: groundOf({ baseM }) });
      const start = layout.track[0]!;
      const lines = builtIn(layout, 'base line').map(({ points }) => points);
      const ending = lines.filter((ends) => ends.some((end) => between(end, start) < 0.1));
      expect(ending).toHaveLength(2);
      for (const [p, q] of lines) expect(between(p!, q!)).toBeCloseTo(baseM, 3);
    }
  });
});
