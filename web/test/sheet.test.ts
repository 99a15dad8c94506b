import { INCH_M, solveStraight, type StraightPlan } from '@gravek/core';
import { parseMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { sheetCsv, sheetRows, sheetSvg } from '../src/approaches/sheet';
import { fromShared, squadLine } from '../src/approaches/squad';
import { midiFile } from '../src/hearing/midi';
import { freshReading, readReading } from '../src/measuring/readingText';

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

  it('starts from a shared mark with the steps changed to fit it, check marks too', () => {
    const line = squadLine({ athleteId: 'a', ask, counts: null, barred: null });
    const shared = fromShared(line, plan.distanceM + 0.2)!;
    expect(shared.distanceM).toBeCloseTo(plan.distanceM + 0.2, 9);
    expect(shared.maxAdjust).toBeGreaterThan(0);
    expect(shared.checkMarks[0]!.toTargetM).toBeGreaterThan(plan.checkMarks[0]!.toTargetM);
    // Farther than the steps can stretch: the own plan stays.
    expect(fromShared(line, plan.distanceM + 9)).toBe(line.plan);
  });
});

it('a MIDI file holds every beat at its time', () => {
  const beats = [0.31, 0.58, 0.83].map((timeS, i) => ({
    timeS,
    foot: i % 2 ? ('right' as const) : ('left' as const),
    special: false,
    n: i + 1,
    countIn: false,
  }));
  const { tracks, header } = parseMidi(midiFile(beats, 'Three'));
  expect(header).toMatchObject({ format: 0, numTracks: 1, ticksPerBeat: 480 });
  let ticks = 0;
  const heard = tracks[0]!.flatMap((event) => {
    ticks += event.deltaTime;
    return event.type === 'noteOn' ? [ticks / 960] : [];
  });
  heard.forEach((at, i) => expect(at).toBeCloseTo(beats[i]!.timeS, 2));
  expect(heard).toHaveLength(3);
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
