import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { StraightChoices } from '@gravek/contract/approach';
import type { GroundInput, OnGround } from '@gravek/contract/ground';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import {
  beyondLaneM,
  feetDiffer,
  fromLine,
  isStale,
  laneSentence,
  setOn,
  slotsOn,
  takenFrom,
} from '../src/planning/onGround';
import { atPace } from '../src/planning/pace';
import { laidOut } from '../src/planning/plan';
import { sequenceStart, straightStart } from '../src/planning/planStart';
import { groundMarks } from '../src/planning/sheet';
import { solve } from '../src/planning/solvePlan';
import { cautionsOf } from '../src/session/restrictions';
import { fitOf } from '../src/session/sessionFit';

const athlete = (heightM: number, hand: 'left' | 'right' = 'right') => ({
  trials: [],
  readings: [],
  heightM,
  legM: null,
  shoeM: null,
  hand,
  takeoffFoot: 'left' as const,
  ageYears: heightM < 1.5 ? 10 : null,
});
const body = (heightM: number, hand: 'left' | 'right' = 'right'): Body =>
  bodyOf(athlete(heightM, hand));

const hall: GroundInput = {
  id: '0191a6ee-7a36-7c7e-8a4f-6a3c5a1d0001',
  name: 'Old quay hall',
  note: '',
  surface: 'hall floor',
  lanes: 3,
  laneM: 20,
  goalM: 3,
  uprightGapM: 3.6,
  apron: { besideM: 9, outM: 8 },
  gapM: 0.7,
  baseM: null,
  rim: null,
  net: null,
  marks: [
    { name: 'area line', of: 'goal', fromM: 2.5 },
    { name: 'drain', of: 'board', fromM: 12 },
    { name: 'seam', of: 'bar', fromM: 5 },
  ],
  slots: [
    { day: 'Wednesday', from: '19:00', to: '20:15' },
    { day: 'Monday', from: '16:00', to: '17:00' },
    { day: 'Wednesday', from: '17:00', to: '18:30' },
  ],
};
const on = (change: Partial<GroundInput> = {}): OnGround => takenFrom({ ...hall, ...change });

const edges = (layout: Layout, name: string) =>
  layout.others.filter((other) => other.kind === 'edge' && other.name === name);

describe('a plan on a ground', () => {
  it('has the goal of the ground, and lanes deep enough to reach its posts, whatever the body', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 7.4, noNaN: true }),
        fc.double({ min: 1.25, max: 2.05, noNaN: true }),
        fc.constantFrom('left' as const, 'right' as const),
        (goalM, heightM, hand) => {
          const layout = laidOut(movementOf('goal-arc'), body(heightM, hand), {
            ground: on({ goalM }),
          });
          const [from, to] = layout.others.find((other) => other.kind === 'goal')!.points;
          expect(Math.hypot(to!.besideM - from!.besideM, to!.aheadM - from!.aheadM)).toBeCloseTo(
            goalM,
            6,
          );
          const lanes = layout.marks.filter((mark) => mark.kind === 'lane');
          const middle = (from!.besideM + to!.besideM) / 2;
          const reach = Math.max(...lanes.map((lane) => Math.abs(lane.besideM - middle)));
          expect(reach).toBeGreaterThanOrEqual(goalM / 2 - 1e-6);
          // A line of the goal lies as far before it as it was measured.
          const line = edges(layout, 'area line')[0];
          if (line) expect(Math.abs(line.points[0]!.aheadM - from!.aheadM)).toBeCloseTo(2.5, 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('has gaps as far apart as they lie there, for a child as for an adult', () => {
    for (const who of [body(1.3), body(1.8), body(1.8, 'left')]) {
      const layout = laidOut(movementOf('gaps'), who, { ground: on() });
      const gaps = layout.marks.filter((mark) => mark.kind === 'gap');
      const apart = gaps
        .slice(1)
        .map((mark, i) =>
          Math.hypot(mark.aheadM - gaps[i]!.aheadM, mark.besideM - gaps[i]!.besideM),
        );
      expect(gaps.length).toBeGreaterThan(3);
      for (const value of apart) expect(value).toBeCloseTo(0.7, 6);
      // Each is on the sheet, the first at the start mark.
      expect(groundMarks(layout).map(({ label, aheadM }) => [label, aheadM.toFixed(2)])).toEqual([
        ['start', '0.00'],
        ...[2, 3, 4, 5, 6].map((gap) => [`gap ${gap}`, (0.7 * (gap - 1)).toFixed(2)]),
        ['finish', '4.20'],
      ]);
    }
  });

  it('has its uprights, its apron and what leaves it, under what the coach asks of the curve', () => {
    const movement = movementOf('curved-run-up');
    const { layout } = solve(movement, { ...sequenceStart(), ground: on() }, body(1.85));
    const bar = layout!.others.find((other) => other.kind === 'bar')!.points;
    expect(
      Math.hypot(bar[1]!.besideM - bar[0]!.besideM, bar[1]!.aheadM - bar[0]!.aheadM),
    ).toBeCloseTo(3.6, 6);
    expect(edges(layout!, 'apron')).toHaveLength(2);
    expect(layout!.curve!.outside).toContain('start mark');
    const [seam] = edges(layout!, 'seam');
    expect(Math.abs(seam!.points[0]!.aheadM - bar[0]!.aheadM)).toBeCloseTo(5, 6);
    const wide = on({ apron: { besideM: 30, outM: 30 } });
    expect(
      solve(movement, { ...sequenceStart(), ground: wide }, body(1.85)).layout!.curve!.outside,
    ).toEqual([]);
  });

  it('puts no foot elsewhere where a movement takes nothing of it', () => {
    const nothing = MOVEMENTS.filter(
      (movement) => !['goal-arc', 'gaps', 'curved-run-up'].includes(movement.code),
    );
    expect(nothing).toHaveLength(17);
    for (const movement of nothing) {
      const here = laidOut(movement, body(1.8), { ground: on() });
      const nowhere = laidOut(movement, body(1.8));
      expect(here.footfalls).toEqual(nowhere.footfalls);
      expect(feetDiffer(movement, on(), null)).toBe(false);
    }
    expect(feetDiffer(movementOf('goal-arc'), on({ goalM: 2 }), on())).toBe(true);
    expect(feetDiffer(movementOf('goal-arc'), on({ gapM: 2 }), on())).toBe(false);
    expect(feetDiffer(movementOf('gaps'), on({ gapM: null }), on())).toBe(true);
  });

  it('stays on its own ground where a session is elsewhere, and at its pace on another', () => {
    const choices = { ...sequenceStart(), ground: on() };
    expect(setOn(choices, null)).toBe(choices);
    const movement = movementOf('goal-arc');
    const moved = atPace(movement, setOn(choices, on({ name: 'Shed', goalM: 2 })), 0.5);
    expect(moved.ground?.name).toBe('Shed');
    expect(cautionsOf(movement, moved).at(-1)).toContain('Hall floor');
    expect(cautionsOf(movement, sequenceStart()).join()).not.toContain('Hall floor');
  });
});

describe('a run-up and its lane', () => {
  const movement = movementOf('straight-run-up');
  const choices = (ground: OnGround | null): StraightChoices => ({
    ...straightStart(movement)!,
    steps: 14,
    ground,
  });

  it('says by how much it is too long, in the session too, and which count fits', () => {
    const tall = { ...athlete(1.9), id: 'a', name: 'Tove Ash' } as never;
    const style = { unit: 'metric' } as const;
    const short = fitOf(movement, { choices: choices(on()) }, tall, style);
    expect(short.fits).toBe(false);
    expect(short.mark).toMatch(/^\d+\.\d\d m, \d+\.\d\d m beyond the lane, estimate$/);
    expect(fitOf(movement, { choices: choices(on({ laneM: 60 })) }, tall, style).fits).toBe(true);
    expect(fitOf(movement, { choices: choices(on({ laneM: null })) }, tall, style).fits).toBe(true);
    expect(laneSentence(21.5, on(), style)).toBe(
      'The lane of Old quay hall ends after 20.00 m: 1.50 m too short for this start mark.',
    );
    expect(laneSentence(20, on(), style)).toBeNull();
    expect(laneSentence(21.5, on(), { unit: 'imperial' })).toContain('4′ 11');
    expect(beyondLaneM(null, on())).toBe(0);
  });

  it('tells a mark from the nearest line of its own target, before or beyond it', () => {
    expect(fromLine(12.4, 'board', on())).toEqual({
      name: 'drain',
      beforeM: expect.closeTo(0.4, 9) as number,
    });
    expect(fromLine(11.1, 'board', on())!.beforeM).toBeCloseTo(-0.9, 9);
    expect(fromLine(15, 'board', on())).toBeNull();
    expect(fromLine(12.4, 'take-off spot', on())).toBeNull();
    expect(fromLine(12.4, 'board', null)).toBeNull();
  });
});

describe('a ground', () => {
  it('knows when a plan took other figures of it, and does not mind note, lanes and slots', () => {
    const taken = on();
    const now = { ...hall, version: 4, archived: false };
    expect(isStale(taken, now)).toBe(false);
    expect(isStale(taken, { ...now, note: 'New key', lanes: 1, slots: [] })).toBe(false);
    expect(isStale(taken, { ...now, goalM: 2.4 })).toBe(true);
    expect(isStale(taken, { ...now, marks: now.marks.slice(1) })).toBe(true);
  });

  it('has its slots by the day of the week, earliest first', () => {
    expect(slotsOn(hall, '2031-05-14')).toEqual([
      { from: '17:00', to: '18:30', minutes: 90 },
      { from: '19:00', to: '20:15', minutes: 75 },
    ]);
    expect(slotsOn(hall, '2031-05-12').map((slot) => slot.minutes)).toEqual([60]);
    expect(slotsOn(hall, '2031-05-18')).toEqual([]);
  });
});

describe('what is built', () => {
  const base = (baseM: number | null, heightM = 1.75) =>
    laidOut(movementOf('corner-fielder'), body(heightM), {
      ground: { ...takenFrom(hall), baseM },
    }).others.find(({ kind }) => kind === 'base')!.points[0]!;

  it('puts the bases as far apart as they are on the ground, whoever runs', () => {
    expect(base(null).aheadM).toBeCloseTo(18.3, 6);
    expect(base(27.4).aheadM).toBeCloseTo(27.4, 6);
    expect(base(27.4, 1.35)).toEqual(base(27.4));
  });

  it('does not grow with the athlete: goals, nets, lines and bases of every movement', () => {
    for (const movement of MOVEMENTS) {
      const widths = (heightM: number): number[] =>
        laidOut(movement, body(heightM))
          .others.filter(({ kind, line }) => line && ['goal', 'net', 'bar'].includes(kind))
          .map(({ points: [a, b] }) => Math.hypot(a!.besideM - b!.besideM, a!.aheadM - b!.aheadM));
      widths(1.35).forEach((wide, i) => expect(wide).toBeCloseTo(widths(1.95)[i]!, 6));
    }
  });

  it('gives every mark its two tapes from the posts, which meet at it', () => {
    const layout = laidOut(movementOf('goal-arc'), body(1.8));
    const goal = layout.others.find(({ kind }) => kind === 'goal')!;
    const wideM = Math.hypot(
      goal.points[0]!.besideM - goal.points[1]!.besideM,
      goal.points[0]!.aheadM - goal.points[1]!.aheadM,
    );
    const marks = groundMarks(layout);
    expect(marks.length).toBeGreaterThan(5);
    for (const { tapes, aheadM, label } of marks) {
      const [left, right] = tapes!;
      expect([left.from, right.from]).toEqual(['left post', 'right post']);
      // From the posts the two tapes fix how far out the mark is.
      const alongM = (left.lengthM ** 2 - right.lengthM ** 2 + wideM ** 2) / (2 * wideM);
      const outM = Math.sqrt(left.lengthM ** 2 - alongM ** 2);
      const startM = marks[0]!.tapes![0].lengthM;
      expect(outM, label).toBeGreaterThan(0);
      expect(outM - aheadM).toBeCloseTo(
        Math.sqrt(
          startM ** 2 -
            ((startM ** 2 - marks[0]!.tapes![1].lengthM ** 2 + wideM ** 2) / (2 * wideM)) ** 2,
        ),
        6,
      );
    }
    expect(groundMarks(laidOut(movementOf('first-two-steps'), body(1.8)))[0]!.tapes).toBeNull();
  });
});
