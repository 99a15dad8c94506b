import { expect, it } from 'vitest';
import { calibrate } from '../src/calibration';

/** A smaller part of what `npm run calibrate` prints; what follows from the seed is always the same. */

it('seldom calls clearing what has not changed, finds most of what was halved, and its bands hold', () => {
  const figures = calibrate({ seasons: 120, seed: 0.31, reps: 6, wobble: 0.05 });
  expect(figures.falseLooks).toBeLessThanOrEqual(0.03);
  expect(figures.falseSeasons).toBeLessThanOrEqual(0.07);
  // Four in five of many; of 120 as many as that less two standard errors.
  expect(figures.found).toBeGreaterThanOrEqual(0.73);
  expect(figures.held).toBeGreaterThanOrEqual(0.88);
  expect(figures.held).toBeLessThanOrEqual(0.92 + 0.02);
  expect(figures.rootFound).toBeGreaterThanOrEqual(0.95);
  expect(figures.falseAfterRelapse).toBeLessThanOrEqual(0.09);
  expect(figures.foundAfterRelapse).toBeGreaterThanOrEqual(0.7);
  // Counted over reps that could not show it, or that nobody watched, a band is wrong nearly always.
  expect(figures.heldExposed).toBeGreaterThanOrEqual(0.84);
  expect(figures.heldByAll).toBeLessThan(0.2);
});

it('finds nearly all of what was halved with twelve reps a session', () => {
  const figures = calibrate({ seasons: 60, seed: 0.77, reps: 12, wobble: 0 });
  expect(figures.found).toBeGreaterThanOrEqual(0.9);
  expect(figures.medianSessions).toBeLessThanOrEqual(4);
});
