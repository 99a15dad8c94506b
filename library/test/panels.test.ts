import { bodyOf, cushion, type Body } from '@gravek/core';
import { describe, expect, it } from 'vitest';
import { cushionInput, groundMarks, laidOut, movementOf, usualCushion } from '../src';

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

describe('a race that is chosen for giving ground', () => {
  const movement = movementOf('give-ground');
  const usual = usualCushion(movement, body(1.8))!;

  it('lines the runner up as deep as asked, and turns in the drawing by the moment that it names', () => {
    for (const who of [body(1.35), body(1.8)]) {
      for (const depthM of [1.6, 2.4, 4, 6]) {
        const chosen = { ...usualCushion(movement, who)!, depthM };
        const plan = cushion(cushionInput(chosen, who));
        for (const option of ['right', 'left', 'stops']) {
          const layout = laidOut(movement, who, { cushion: chosen, reads: { give: option } });
          const runner = layout.others.find((other) => other.name === 'runner')!.points;
          expect(runner[0]!.timeS).toBeCloseTo(0, 6);
          expect(runner[0]!.aheadM).toBeCloseTo(depthM, 1);
          const turnS = layout.phases.find((phase) => phase.code === 'give')!.toS;
          if (plan.openByS !== null) {
            expect(turnS).toBeLessThanOrEqual(plan.openByS + 1e-9);
            expect(turnS).toBeGreaterThan(plan.openByS - 60 / chosen.cadenceSpm - 1e-9);
          }
        }
      }
    }
  });

  it('moves the feet with step and cadence', () => {
    const chosen = { ...usual, depthM: 6, stepM: 0.3, cadenceSpm: 300 };
    const layout = laidOut(movement, body(1.8), { cushion: chosen });
    const back = layout.footfalls.filter((fall) => fall.phase === 'give');
    expect(back.length).toBeGreaterThan(1);
    for (const fall of back.slice(1)) expect(fall.intervalS).toBeCloseTo(0.2, 6);
    const track = layout.track.filter((point) => point.timeS <= back.at(-1)!.timeS + 1e-9);
    expect(track.at(-1)!.aheadM).toBeCloseTo(-0.3 * back.length, 6);
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
