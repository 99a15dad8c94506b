import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { OnGround } from '@gravek/contract/ground';
import { describe, expect, it } from 'vitest';
import { frontOf, TURNS, usualFront, whatHelps } from '../src/planning/givingGround';
import { movementOf } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { groundMarks } from '../src/planning/sheet';
import { groundOf } from './grounds';

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
  const laid = (who: Body, ground: OnGround | null = null) => {
    const layout = laidOut(movementOf('slide-close-out'), who, { ground });
    const edges = layout.others
      .filter(({ name }) => name === 'lane')
      .map(({ points }) => points[0]!.besideM);
    const touching = layout.footfalls
      .filter(({ phase, foot }) => phase === 'slide-right' && foot === 'right')
      .map(({ besideM }) => besideM);
    return { edges, touching, wideM: Math.max(...edges) - Math.min(...edges) };
  };

  it('are as many as were counted', () => {
    expect(laid({ ...body(1.9), lane: { laneM: 4.9, slides: 3 } }).touching).toHaveLength(3);
    // Uncounted, a tall one needs fewer than a small one.
    expect(laid(body(1.9)).touching).toHaveLength(3);
    expect(laid(body(1.7)).touching).toHaveLength(4);
    // Counted on another lane, they go as far each as they went there.
    const narrow = laid(
      { ...body(1.9), lane: { laneM: 4.9, slides: 4 } },
      groundOf({ rim: { outM: 1.6, laneM: 3.6, laneOutM: 5.8 } }),
    );
    expect(narrow.touching).toHaveLength(3);
    expect(narrow.wideM).toBeCloseTo(3.6, 6);
  });

  it('reach from edge to edge of a lane that does not grow with the athlete', () => {
    for (const heightM of [1.3, 1.55, 1.75, 2]) {
      const { edges, touching, wideM } = laid(body(heightM));
      expect(wideM).toBeCloseTo(4.9, 6);
      // The outer foot stands inside the edge, within reach of a hand.
      const insideM = Math.max(...edges) - Math.max(...touching);
      expect(insideM).toBeGreaterThan(0.05);
      expect(insideM).toBeLessThan(0.3);
    }
    expect(laid(body(1.38)).touching).toHaveLength(5);
  });
});

describe('gaps sideways', () => {
  it('begin beside the first bag: nobody stands astride of it, and nobody is over it at once', () => {
    for (const hand of ['right', 'left'] as const) {
      for (const side of ['own', 'other'] as const) {
        const { footfalls, others, mirrored } = laidOut(
          movementOf('gaps'),
          { ...body(1.7), hand },
          { side, reads: { 'at-mark': 'sideways' } },
        );
        const bags = others.filter(({ name }) => name === 'bag').map(({ points }) => points[0]!);
        const way = bags.at(-1)!.besideM > bags[0]!.besideM ? 1 : -1;
        expect(way).toBe(mirrored ? -1 : 1);
        const past = (besideM: number): number => (besideM - bags[0]!.besideM) * way;
        const standing = footfalls.filter(({ phase }) => phase === 'at-mark');
        expect(standing).toHaveLength(2);
        for (const { besideM } of standing) expect(past(besideM)).toBeLessThan(-0.1);
        const first = footfalls.filter(({ phase }) => phase === 'side').slice(0, 2);
        for (const { besideM } of first) expect(past(besideM)).toBeGreaterThan(0.1);
      }
    }
  });
});
