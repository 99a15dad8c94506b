import { solveStraight } from '@gravek/core/runup/solveStraight';
import type { StraightPlan } from '@gravek/core/runup/straightPlan';
import { INCH_M } from '@gravek/core/units';
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { freshReading, readReading } from '../src/measuring/readingText';
import { movementOf } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { groundMarks, sheetRows } from '../src/planning/sheet';
import { sheetCsv, sheetSvg } from '../src/planning/sheetFile';
import { squadLine, squadMarks } from '../src/planning/squad';

const ask = {
  model: {
    firstLengthM: 1.2,
    topLengthM: 2.2,
    lengthRate: 3,
    firstCadenceSpm: 205,
    topCadenceSpm: 250,
    cadenceRate: 2.4,
  },
  takeoffFoot: 'left' as const,
  steps: 12,
  checkMarks: [4],
};
const plan = solveStraight(ask) as StraightPlan;
const BODY = { model: ask.model, heightM: 1.8, legM: 0.95, shoeM: 0.29 };

describe('the sheet', () => {
  it('is walked from the target out, or from the start in', () => {
    const out = sheetRows(plan, { unit: 'metric' }, 'target', false);
    expect(out.map((row) => row.mark.label)).toEqual(['4 steps out', 'Start']);
    const back = sheetRows(plan, { unit: 'metric' }, 'start', false);
    expect(back.map((row) => row.mark.label)).toEqual(['4 steps out', 'Target']);
    expect(back.at(-1)!.fromDatumM).toBeCloseTo(plan.distanceM, 2);
  });

  it('is set to half an inch in feet, and every print is on it once', () => {
    const rows = sheetRows(plan, { unit: 'imperial' }, 'target', true);
    expect(rows).toHaveLength(12);
    for (const row of rows) {
      const halves = row.fromDatumM / (INCH_M / 2);
      expect(Math.abs(halves - Math.round(halves))).toBeLessThan(1e-6);
    }
  });

  it('says in table and drawing what it says on screen, whatever the plan is called', () => {
    const rows = sheetRows(plan, { unit: 'metric' }, 'target', false);
    expect(sheetCsv(rows, { unit: 'metric' }).split('\n')).toHaveLength(3);
    const svg = sheetSvg('A & B <run>', 'board', rows, { unit: 'metric' });
    expect(svg).toContain('A &amp; B &lt;run&gt;');
    expect(svg).toContain(`${rows[0]!.fromDatumM.toFixed(2)} m`);
  });
});

describe('what is saved of a sheet', () => {
  const rows = sheetRows(plan, { unit: 'metric' }, 'target', false);
  const labelled = (label: string) => rows.map((row) => ({ ...row, mark: { ...row.mark, label } }));

  it('is a drawing that can be read, whatever anything is called', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (title, label) => {
        const svg = sheetSvg(title, label, labelled(label), { unit: 'metric' });
        // What XML 1.0 allows, and no sign that begins anything but what was meant to begin.
        expect(svg).toMatch(/^[\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]*$/u);
        const texts = [...svg.matchAll(/<text[^<>]*>([^<>]*)<\/text>/g)].map((match) => match[1]!);
        expect(texts).toHaveLength(2 + 3 * rows.length);
        for (const text of texts) expect(text.replace(/&(amp|lt|gt);/g, '')).not.toContain('&');
        expect(svg.replace(/<(\/?(svg|text|rect)|line)[^<>]*>/g, '')).not.toMatch(/[<>]/);
      }),
    );
  });

  it('is a table in which nothing is run, and numbers stay numbers', () => {
    for (const label of ['=1+1', '+cmd', '-cmd', '@sum', '\t=1', '\r=1', '=a\n"b,']) {
      const table = sheetCsv(labelled(label), { unit: 'metric' });
      const read = Papa.parse<Record<string, string>>(table, { header: true }).data;
      expect(read).toHaveLength(rows.length);
      for (const line of read) {
        expect(line.mark).toBe(`'${label}`);
        for (const cell of Object.values(line)) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
        expect(Number(line['from datum, m'])).toBeGreaterThanOrEqual(0);
      }
    }
  });
});

describe('a line of the squad sheet', () => {
  it('takes the athlete’s own count where that is free, and says why there is none', () => {
    const fixed = { ...ask, distanceM: plan.distanceM + 4 };
    const held = squadLine({ athleteId: 'a', ask: fixed, counts: null, barred: null });
    expect(held).toMatchObject({ plan: null, reason: 'too-long' });
    expect(held.nearby).not.toBeNull();
    const own = squadLine({
      athleteId: 'a',
      ask: fixed,
      counts: { from: 10, to: 14 },
      barred: null,
    });
    expect(own.steps).toBe(14);
    expect(own.plan?.distanceM).toBeCloseTo(fixed.distanceM, 9);
  });

  it('lets everybody choose their own count though a step is pinned', () => {
    const pinned = { ...ask, distanceM: plan.distanceM, pins: [{ step: 12, lengthM: 2 }] };
    const line = squadLine({
      athleteId: 'a',
      ask: pinned,
      counts: { from: 8, to: 12 },
      barred: null,
    });
    expect(line.plan).not.toBeNull();
  });
});

it('keeps the pins of an athlete who starts from a shared mark', () => {
  const pins = [{ step: 6, lengthM: 0.9 * plan.steps[5]!.lengthM }];
  const lineOf = (athleteId: string, distanceM: number) =>
    squadLine({ athleteId, ask: { ...ask, distanceM, pins }, counts: null, barred: null });
  const lines = [lineOf('a', plan.distanceM), lineOf('b', plan.distanceM + 0.05)];
  const [mark] = squadMarks(lines, 0.25);
  expect(mark!.users).toHaveLength(2);
  for (const { plan: shared } of mark!.users) {
    expect(shared.steps[5]!.lengthM).toBeCloseTo(pins[0]!.lengthM, 9);
  }
});

describe('marks of a squad', () => {
  const lineAt = (athleteId: string, distanceM: number, tolerance = 0.1) =>
    squadLine({ athleteId, ask: { ...ask, distanceM, tolerance }, counts: null, barred: null });
  const whoAt = (marks: ReturnType<typeof squadMarks>) =>
    marks.map((mark) => mark.users.map(({ line }) => line.athleteId));

  it('are shared by neighbours, each with the check marks of just this start', () => {
    const marks = squadMarks(
      [lineAt('a', plan.distanceM), lineAt('b', plan.distanceM + 0.4)],
      0.25,
    );
    expect(whoAt(marks)).toEqual([['a', 'b']]);
    for (const { plan: own } of marks[0]!.users) {
      expect(own.distanceM).toBeCloseTo(marks[0]!.atM, 9);
      expect(own.checkMarks[0]!.toTargetM).toBeGreaterThan(0);
    }
  });

  it('stay the own one of whoever cannot run from the shared one', () => {
    const { minDistanceM, maxDistanceM } = plan;
    expect(minDistanceM).toBeLessThan(maxDistanceM);
    const stiff = lineAt('stiff', plan.distanceM, 0.005);
    const marks = squadMarks(
      [stiff, lineAt('b', plan.distanceM + 0.9), lineAt('c', plan.distanceM + 0.9)],
      0.45,
    );
    for (const { atM, users } of marks) {
      for (const { plan: own } of users) expect(own.distanceM).toBeCloseTo(atM, 9);
    }
    expect(whoAt(marks)).toEqual([['stiff'], ['b', 'c']]);
  });
});

describe('marks on the ground', () => {
  it('are told from the start, and where to shorten when it is done at once', () => {
    const movement = movementOf('close-and-shorten');
    const body = { hand: 'right', takeoffFoot: 'left', ...BODY } as const;
    const marks = groundMarks(
      laidOut(movement, body, {
        run: { ending: { kind: 'short', count: 3, taperSteps: 0, lengthM: 0.1, cadenceSpm: 360 } },
      }),
    );
    expect(marks[0]).toMatchObject({ label: 'start', aheadM: 0 });
    expect(marks.map((mark) => mark.label)).toContain('shorten here');
  });
});

describe('a test as it is typed', () => {
  const imperial = { unit: 'imperial' as const };

  it('reads misses on both sides of the line, in inches too', () => {
    const read = readReading(
      'run-through',
      { ...freshReading('run-through'), list: '+3\n-2 1/2\n−1' },
      imperial,
    );
    expect(read.ok && read.reading).toMatchObject({
      missesM: [3, -2.5, -1].map((inches) => expect.closeTo(inches * INCH_M, 9) as number),
    });
  });

  it('take-offs are two lengths a line, in the club’s unit; outside the upright is minus', () => {
    const read = (list: string, unit: 'metric' | 'imperial') => {
      const typed = { ...freshReading('take-offs'), list };
      return readReading('take-offs', typed, { unit });
    };
    expect(read('0.62 / 0.91\n-0.1/1', 'metric')).toEqual({
      ok: true,
      reading: {
        kind: 'take-offs',
        spots: [
          { alongM: 0.62, outM: 0.91 },
          { alongM: -0.1, outM: 1 },
        ],
      },
    });
    expect(read(`2' / 3'`, 'imperial')).toMatchObject({
      reading: { spots: [{ outM: expect.closeTo(0.9144, 4) as number }] },
    });
    for (const wrong of ['0.62', '0.62 / x', '1 / 2 / 3', '']) {
      expect(read(wrong, 'metric'), wrong).toMatchObject({ ok: false });
    }
  });

  it('leaves out splits that were not taken, and says which line cannot be read', () => {
    const typed = freshReading('sprint');
    typed.rows[0]!.b = '1,41';
    typed.rows[2]!.b = '3.4';
    const read = readReading('sprint', typed, imperial);
    expect(read.ok && read.reading).toEqual({
      kind: 'sprint',
      splits: [
        { distanceM: 5, timeS: 1.41 },
        { distanceM: 20, timeS: 3.4 },
      ],
    });
    const wrong = readReading(
      'reaction',
      { ...freshReading('reaction'), list: '0.3\nsoon' },
      imperial,
    );
    expect(wrong.ok ? null : wrong.messages.list).toContain('Line 2');
    expect(readReading('lane', freshReading('lane'), imperial)).toMatchObject({ ok: false });
  });
});
