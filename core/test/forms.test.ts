import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arcFromChord, type CurveInput, solveCurve } from '../src/curve/solveCurve';
import { parseLength } from '../src/lengthText';
import { FOOT_M, formatLength, INCH_M, type LengthStyle, YARD_M } from '../src/units';
import { evenly } from './evenly';

/** Every way of writing a length, made at random, must be read as what was meant. */

type Written = { text: string; metres: number };

const space = fc.constantFrom('', ' ', '  ');
const eighths = fc.integer({ min: 0, max: 7 });
const GLYPHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'];

/** A number of inches, written as a decimal, with a fraction, or with the sign for one. */
const inches = fc
  .tuple(fc.integer({ min: 0, max: 11 }), eighths, fc.constantFrom('slash', 'glyph', 'decimal'))
  .filter(([whole, part]) => whole + part > 0)
  .map(([whole, part, how]) => {
    const size = whole + part / 8;
    const text =
      how === 'decimal' || part === 0
        ? String(size)
        : how === 'glyph'
          ? `${whole || ''}${GLYPHS[part]}`
          : `${whole ? `${whole} ` : ''}${part}/8`;
    return { size, text };
  });

const metric = fc
  .tuple(
    fc.integer({ min: 1, max: 9000 }),
    space,
    fc.constantFrom('m', 'cm', 'mm', 'metres', 'M'),
    fc.constantFrom('.', ','),
  )
  .map(([cm, gap, unit, mark]): Written => {
    const perUnit = unit === 'cm' ? 1 : unit === 'mm' ? 0.1 : 100;
    return { text: `${String(cm / perUnit).replace('.', mark)}${gap}${unit}`, metres: cm / 100 };
  });

const feetInches = fc
  .tuple(
    fc.integer({ min: 0, max: 120 }),
    inches,
    space,
    fc.constantFrom(
      ["'", '"'],
      ['′', '″'],
      ['’', '”'],
      ["'", "''"],
      [' ft', ' in'],
      [' feet', ' inches'],
      ['ft.', 'in.'],
    ),
  )
  .map(([feet, inch, gap, [foot, mark]]): Written => ({
    text: `${feet}${foot}${gap} ${inch.text}${mark}`,
    metres: feet * FOOT_M + inch.size * INCH_M,
  }));

const yards = fc
  .tuple(
    fc.integer({ min: 0, max: 60 }),
    fc.integer({ min: 0, max: 2 }),
    fc.option(inches),
    fc.constantFrom('yd', 'yds', 'yards'),
  )
  .map(([yd, ft, inch, word]): Written => ({
    text: `${yd} ${word} ${ft} ft${inch ? ` ${inch.text} in` : ''}`,
    metres: yd * YARD_M + ft * FOOT_M + (inch ? inch.size * INCH_M : 0),
  }));

const SHOE_M = 0.285;
const shoes = fc
  .tuple(
    fc.integer({ min: 0, max: 99 }),
    fc.constantFrom('', '½', '.5', ' 1/2'),
    fc.constantFrom('shoes', 'shoe'),
  )
  .map(([whole, half, word]): Written => ({
    text: `${whole}${half} ${word}`,
    metres: (whole + (half ? 0.5 : 0)) * SHOE_M,
  }));

const anyStyle = fc.constantFrom<LengthStyle>(
  { unit: 'metric', shoeM: SHOE_M },
  { unit: 'imperial', shoeM: SHOE_M },
  { unit: 'yards', shoeM: SHOE_M, small: true },
  { unit: 'shoes', shoeM: SHOE_M },
);

describe('a length with its units', () => {
  it.each([
    ['metric', metric],
    ['feet and inches', feetInches],
    ['yards', yards],
    ['shoes', shoes],
  ])('in %s is read the same, whatever unit the coach prefers', (_name, forms) => {
    fc.assert(
      fc.property(forms, anyStyle, ({ text, metres }, style) => {
        const read = parseLength(text, style);
        expect(read.ok, text).toBe(true);
        if (read.ok) expect(read.lengthM).toBeCloseTo(metres, 9);
      }),
      { numRuns: 300 },
    );
  });

  it('carried from unit to unit and back is the same to the last place of the coarsest', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6000 }), (cm) => {
        let lengthM = cm / 100;
        for (const unit of ['imperial', 'yards', 'metric', 'imperial', 'metric'] as const) {
          const read = parseLength(formatLength(lengthM, { unit }), { unit });
          if (!read.ok) throw new Error(read.message);
          lengthM = read.lengthM;
        }
        expect(Math.abs(lengthM - cm / 100)).toBeLessThanOrEqual(0.005 * 2 + 0.00635 * 2);
      }),
    );
  });
});

describe('the curve, whatever its figures', () => {
  const curves = fc.record({
    side: fc.constantFrom('left' as const, 'right' as const),
    takeoff: fc.constant({ alongM: 0.5, outM: 0.9 }),
    takeoffAngleDeg: fc.double({ min: 15, max: 40, noNaN: true }),
    curveSteps: fc.integer({ min: 3, max: 7 }),
    curveStepM: fc.double({ min: 1.3, max: 2.1, noNaN: true }),
    straightSteps: fc.integer({ min: 2, max: 8 }),
    straightStepM: fc.double({ min: 1.3, max: 2.1, noNaN: true }),
    speedMps: fc.double({ min: 4, max: 8, noNaN: true }),
    entryFlareDeg: evenly(0, 20),
  });
  const plan = (curve: CurveInput) => solveCurve(curve);

  it('has its straight part straight, at even steps, and joined to the curve without a kink', () => {
    fc.assert(
      fc.property(curves, (curve) => {
        const { startMark, curveStart, footfalls } = plan(curve);
        const line = [startMark, ...footfalls.filter((fall) => fall.zone === 'straight')];
        line.slice(1).forEach((fall, i) => {
          const before = line[i]!;
          expect(Math.hypot(fall.besideM - before.besideM, fall.outM - before.outM)).toBeCloseTo(
            curve.straightStepM,
            9,
          );
        });
        const last = line.at(-1)!;
        expect(last.besideM).toBeCloseTo(curveStart.besideM, 9);
        expect(last.outM).toBeCloseTo(curveStart.outM, 9);
        const heading =
          (Math.atan2(startMark.besideM - last.besideM, startMark.outM - last.outM) * 180) /
          Math.PI;
        expect(-heading).toBeCloseTo(curve.entryFlareDeg, 6);
      }),
    );
  });

  it('leans more the faster it is run and the tighter it turns', () => {
    fc.assert(
      fc.property(curves, (curve) => {
        const { leanDeg } = plan(curve);
        expect(plan({ ...curve, speedMps: curve.speedMps * 1.1 }).leanDeg).toBeGreaterThan(leanDeg);
        expect(plan({ ...curve, curveStepM: curve.curveStepM * 0.9 }).leanDeg).toBeGreaterThan(
          leanDeg,
        );
      }),
    );
  });

  it('takes its step from chords as the mean of their arcs, each longer than its chord', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 12, noNaN: true }),
        fc.array(fc.double({ min: 1, max: 2.4, noNaN: true }), { minLength: 1, maxLength: 8 }),
        (radiusM, chordsM) => {
          const arcs = chordsM.map((chord) => arcFromChord(chord, radiusM));
          arcs.forEach((arc, i) => expect(arc).toBeGreaterThanOrEqual(chordsM[i]!));
          const { curveStepM } = plan({
            side: 'left',
            takeoff: { alongM: 0.5, outM: 0.9 },
            takeoffAngleDeg: 25,
            curveSteps: 5,
            testCircle: { radiusM, chordsM },
            straightSteps: 4,
            straightStepM: 1.8,
            speedMps: 6,
          });
          expect(curveStepM).toBeCloseTo(arcs.reduce((sum, arc) => sum + arc, 0) / arcs.length, 9);
        },
      ),
    );
  });
});
