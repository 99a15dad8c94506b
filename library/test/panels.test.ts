import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { describe, expect, it } from 'vitest';
import { frontOf, TURNS, usualFront, whatHelps } from '../src/planning/givingGround';
import { movementOf } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { groundMarks } from '../src/planning/sheet';

const body = (heightM: number): Body =>
  bodyOf({
    trials: [],
    heightM,
    legM: null,
    shoeM: null,
    hand: 'right',
    takeoffFoot: 'left',
    ageYears: heightM < 1.5 ? 11 : null,
  });

describe('a race with a runner while giving ground', () => {
  const movement = movementOf('give-ground');
  const usual = usualFront(movement, body(1.8))!;
  const runnerOf = (layout: Layout) =>
    layout.others.find((other) => other.name === 'runner')!.points;
  const at = (points: readonly { timeS: number; aheadM: number }[], timeS: number): number => {
    const i = points.findLastIndex((point) => point.timeS <= timeS + 1e-9);
    const [from, to] = [points[Math.max(0, i)]!, points[i + 1]];
    const part = to ? (timeS - from.timeS) / (to.timeS - from.timeS) : 0;
    return from.aheadM + (to ? (to.aheadM - from.aheadM) * part : 0);
  };

  it('lines the runner up head to head, lays the coach’s own steps, and stays ahead to the end', () => {
    for (const who of [body(1.3), body(1.8)]) {
      for (const turn of TURNS) {
        for (const [depthM, steps] of [
          [1.4, 4],
          [1.8, 2],
          [3, 6],
        ] as const) {
          const inFront = { ...usualFront(movement, who)!, depthM, steps };
          const schools = { turn };
          for (const option of ['right', 'left', 'stops']) {
            const layout = laidOut(movement, who, { inFront, schools, reads: { give: option } });
            const points = runnerOf(layout);
            expect(points[0]!.besideM).toBeCloseTo(0, 9);
            expect(points[0]!.aheadM).toBeCloseTo(depthM, 6);
            expect(layout.footfalls.filter((fall) => fall.phase === 'give')).toHaveLength(steps);
            for (const { timeS, aheadM } of layout.track) {
              const gapM = at(points, timeS) - aheadM;
              expect(gapM, `${option} ${turn} ${timeS}`).toBeGreaterThan(0.25);
            }
          }
        }
      }
    }
  });

  it('begins the turn in the drawing when the race does, with the stamp or without it, at any speed', () => {
    for (const trigger of ['with-trigger', 'no-trigger']) {
      for (const speedFraction of [1, 0.5]) {
        const who = body(1.8);
        const layout = laidOut(movement, who, { schools: { trigger }, speedFraction });
        const { turnAtS } = frontOf(usual, who, 'slide', speedFraction);
        expect(layout.phases.find(({ code }) => code === 'give')!.toS).toBeCloseTo(turnAtS, 6);
      }
    }
  });

  it('stamps with the stronger foot of whoever does it', () => {
    for (const takeoffFoot of ['left', 'right'] as const) {
      const { footfalls } = laidOut(movement, { ...body(1.8), takeoffFoot });
      expect(footfalls.find((fall) => fall.phase === 'trigger')!.foot).toBe(takeoffFoot);
    }
  });

  it('ranks what would help by whom it holds, and opening at once most', () => {
    const helps = whatHelps(usual, body(1.8), 'slide');
    expect(helps[0]!.change).toEqual({ turn: 'open' });
    expect(helps.map(({ holds }) => holds)).toEqual(
      helps.map(({ holds }) => holds).sort((a, b) => b - a),
    );
    const now = frontOf(usual, body(1.8), 'slide').holds[1]!;
    for (const { change, holds } of helps) {
      if (!('turn' in change)) {
        expect(frontOf({ ...usual, ...change }, body(1.8), 'slide').holds[1]).toBeCloseTo(holds, 6);
      }
      expect(holds).toBeGreaterThan(now);
    }
  });
});

describe('a keeper’s lanes', () => {
  it('stand where depth, lanes and spread put them, for the marks as for the feet', () => {
    const movement = movementOf('goal-arc');
    const arc = {
      goalM: 3,
      depthM: 2,
      lanes: 7,
      spreadDeg: 60,
      fromLane: 2,
      toLane: 6,
      speedMps: 2,
    };
    const layout = laidOut(movement, body(1.8), { arc });
    const usual = laidOut(movement, body(1.8));
    const lanes = (of: typeof layout) => groundMarks(of).filter(({ label }) => /lane/.test(label));
    expect(lanes(layout)).toHaveLength(7);
    expect(lanes(usual)).toHaveLength(5);
    expect(layout.footfalls).not.toEqual(usual.footfalls);
  });
});

describe('the mark to shorten at', () => {
  it('stands only where somebody comes out of a run', () => {
    const shortens = (code: string): boolean =>
      laidOut(movementOf(code), body(1.8)).marks.some((mark) => mark.kind === 'shorten');
    expect(shortens('close-and-shorten')).toBe(true);
    expect(shortens('slide-close-out')).toBe(true);
    expect(shortens('wall-switches')).toBe(false);
    expect(shortens('line-first-steps')).toBe(false);
  });
});

describe('slides across a lane', () => {
  const slidesOf = (who: Body) =>
    laidOut(movementOf('slide-close-out'), who).footfalls.filter(
      ({ phase, foot }) => phase === 'slide-right' && foot === 'right',
    );

  it('are as many as were counted, and reach from edge to edge', () => {
    const counted: Body = { ...body(1.9), lane: { laneM: 4.9, slides: 3 } };
    const slides = slidesOf(counted);
    expect(slides).toHaveLength(3);
    // The edge is where the outer foot lands, as far from the other edge as the lane is wide.
    const outer = Math.max(...slides.map(({ besideM }) => besideM));
    const start = laidOut(movementOf('slide-close-out'), counted).footfalls[0]!;
    expect(outer - -Math.abs(start.besideM)).toBeCloseTo(4.9, 6);
    expect(slidesOf(body(1.9)).length).toBe(4);
  });
});
