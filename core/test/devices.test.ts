import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../src/chance/random';
import {
  beatFor,
  courseOf,
  type DeviceReading,
  isInBand,
  minutesOf,
  rampStep,
  runsIn,
  steadyRun,
  type SteadyRun,
} from '../src/measuring/deviceCourse';
import { stepsFelt, stepsHeard } from '../src/measuring/sensedSteps';
import { footCount } from '../src/runup/footCount';
import { evenly } from './evenly';

const said = (atS: number, cadenceSpm = 172, speedMps: number | null = 3.2): DeviceReading => ({
  atS,
  cadenceSpm,
  speedMps,
});

describe('what a device has sent', () => {
  it('is a course: twice, too late and impossible left out and counted, silences told', () => {
    const course = courseOf([
      said(0),
      said(1),
      said(1),
      said(3),
      said(2),
      said(4, 172, 11.5),
      said(5, 900),
      said(6),
      said(14),
    ]);
    expect(course.readings.map(({ atS }) => atS)).toEqual([0, 1, 3, 6, 14]);
    expect(course).toMatchObject({ doubled: 1, late: 1, impossible: 2 });
    expect(course.gaps).toEqual([{ fromS: 6, toS: 14 }]);
    expect(() => courseOf([said(NaN)])).toThrow('readings[0].atS');
    expect(courseOf([])).toMatchObject({ readings: [], gaps: [] });
  });

  it('whatever comes in whatever order, times rise and nothing is lost without a count', () => {
    const arbitrary = fc.record({
      atS: fc.integer({ min: 0, max: 30 }),
      cadenceSpm: fc.integer({ min: -10, max: 500 }),
      speedMps: fc.option(evenly(-1, 20)),
    });
    fc.assert(
      fc.property(fc.array(arbitrary), (sent) => {
        const { readings, doubled, late, impossible } = courseOf(sent);
        expect(readings.length + doubled + late + impossible).toBe(sent.length);
        readings
          .slice(1)
          .forEach((reading, i) => expect(reading.atS).toBeGreaterThan(readings[i]!.atS));
      }),
    );
  });

  it('comes to minutes, of which those that were hardly measured or stood still are left out', () => {
    const all = Array.from({ length: 190 }, (_, atS) =>
      said(atS, atS < 60 ? 170 : atS < 120 ? 0 : 176),
    );
    const cadences = (readings: DeviceReading[]): [number, number][] =>
      minutesOf({ readings }).map(({ at, cadenceSpm }) => [at, cadenceSpm]);
    expect(cadences(all)).toEqual([
      [0, 170],
      [2, 176],
    ]);
    // Lost for most of the first minute.
    expect(cadences(all.filter(({ atS }) => atS < 10 || atS > 55))).toEqual([[2, 176]]);
    // A speed that is known for a few seconds only is none of the minute.
    const speeds = (known: number) =>
      minutesOf({
        readings: all
          .slice(0, 60)
          .map((reading, i) => ({ ...reading, speedMps: i < known ? 3 : null })),
      })[0]!.speedMps;
    expect(speeds(40)).toBeCloseTo(3, 9);
    expect(speeds(10)).toBeNull();
  });

  it('is one run also where a device speaks every four or five seconds', () => {
    const sent = Array.from({ length: 60 }, (_, i) => said(i * 4 + (i % 3 === 0 ? 1 : 0)));
    const course = courseOf(sent);
    expect(course.gaps).toEqual([]);
    expect(minutesOf(course).map(({ at }) => at)).toEqual([0, 1, 2, 3]);
    expect(runsIn(course.readings, 100)).toHaveLength(1);
    // Of two readings nobody knows how often it speaks.
    expect(courseOf([said(0), said(9)]).gaps).toHaveLength(1);
    // What was walked is no minute of a run.
    const walked = sent.map((reading) => ({ ...reading, running: reading.atS > 120 }));
    expect(minutesOf(courseOf(walked)).map(({ at }) => at)).toEqual([2, 3]);
  });

  it('counts one foot or both, decided once, whoever speeds up or walks in between', () => {
    const moment = fc.record({
      // Both feet; standing, walking, running.
      spm: fc.oneof(
        fc.constant(0),
        fc.integer({ min: 90, max: 125 }),
        fc.integer({ min: 150, max: 200 }),
      ),
    });
    fc.assert(
      fc.property(
        fc.array(moment, { minLength: 1, maxLength: 40 }),
        fc.boolean(),
        fc.boolean(),
        (moments, oneFoot, says) => {
          const readings = moments.map(({ spm }) => ({
            cadence: oneFoot ? spm / 2 : spm,
            ...(says ? { running: spm >= 150 } : { speedMps: spm / 60 }),
          }));
          const read = footCount({ readings });
          expect(read.factor === 2).toBe(oneFoot && moments.some(({ spm }) => spm > 0));
          expect(read.spm).toEqual(
            moments.map(({ spm }) => (read.factor === 2 || !oneFoot ? spm : spm / 2)),
          );
          expect(read.running).toEqual(moments.map(({ spm }) => spm >= 150));
        },
      ),
    );
    expect(() => footCount({ readings: [{ cadence: -1 }] })).toThrow('readings[0].cadence');
    expect(footCount({ readings: [] })).toEqual({ factor: 1, spm: [], running: [] });
  });

  it('falls into the runs between which somebody stood, walked or was not heard', () => {
    const spm = [0, 60, 180, 182, 0, 0, 0, 0, 181, 60, 183];
    const runs = runsIn(
      spm.map((cadence, atS) => said(atS, cadence)),
      100,
    );
    // One slow second in between is still the same run.
    expect(runs.map((run) => run.map(({ atS }) => atS))).toEqual([
      [2, 3],
      [8, 10],
    ]);
    expect(runsIn([said(0), said(9)], 100)).toHaveLength(2);
    expect(runsIn([], 100)).toEqual([]);
  });
});

describe('a beat that follows', () => {
  it('leads to the target from either side in few steps, and stays there', () => {
    for (const from of [150, 200]) {
      let spm = from;
      let changes = 0;
      while (beatFor(spm, 174) !== 174) {
        const next = beatFor(spm, 174);
        expect(Math.abs(next - spm)).toBeLessThanOrEqual(0.03 * spm + 1e-9);
        expect(Math.abs(next - 174)).toBeLessThan(Math.abs(spm - 174));
        spm = next;
        changes += 1;
      }
      expect(changes).toBeLessThan(8);
    }
    expect(beatFor(0, 174)).toBe(174);
  });
});

describe('a steady run', () => {
  it('counts its minutes in the band of its target', () => {
    expect(steadyRun({ targetSpm: 170, minutesSpm: [164, 165, 170, 175, 176] }).inBand).toBe(3);
    expect(steadyRun({ targetSpm: null, minutesSpm: [164] })).toMatchObject({
      inBand: null,
      sd: null,
    });
    expect(isInBand(165, 170)).toBe(true);
    expect(isInBand(164.8, 170)).toBe(false);
    expect(() => steadyRun({ targetSpm: 170, minutesSpm: [] })).toThrow(RangeError);
    expect(() => steadyRun({ targetSpm: 170, minutesSpm: [20] })).toThrow('minutesSpm[0]');
  });

  it('lets the ramp go on after two that held, at one target, long enough', () => {
    const run = (targetSpm: number | null, held: number, of = 10): SteadyRun => ({
      targetSpm,
      minutesSpm: Array.from({ length: of }, (_, i) => (i < held ? (targetSpm ?? 170) : 150)),
    });
    expect(rampStep([])).toBe('too-few');
    expect(rampStep([run(174, 10)])).toBe('too-few');
    expect(rampStep([run(174, 10), run(174, 5, 5)])).toBe('too-few');
    expect(rampStep([run(174, 8), run(174, 9)])).toBe('go-on');
    expect(rampStep([run(174, 9), run(174, 7)])).toBe('stay');
    expect(rampStep([run(174, 10), run(174, 10), run(178, 10)])).toBe('too-few');
    expect(rampStep([run(174, 2), run(174, 10), run(null, 0), run(174, 10)])).toBe('go-on');
  });
});

describe('landings that a microphone hears', () => {
  /** Landings that ring off, in the noise of a hall. */
  const heard = (atS: readonly number[], noise: number, loud = 0.3) => {
    const random = seeded(7);
    const samples = Array.from({ length: 4 * 375 }, (_, i) => {
      const t = i / 375;
      const ringing = atS
        .filter((value) => value <= t)
        .reduce((sum, value) => sum + loud * Math.exp(-(t - value) / 0.03), 0);
      return { atS: t, level: ringing + noise * (0.5 + random()) };
    });
    return stepsHeard(samples);
  };

  it('are found within a hundredth of a second, a trot to a sprint, in a quiet hall and a loud one', () => {
    for (const spm of [150, 180, 270]) {
      const landings = Array.from({ length: 8 }, (_, i) => 0.4 + (i * 60) / spm);
      for (const noise of [0.001, 0.02]) {
        const found = heard(landings, noise);
        expect(found).toHaveLength(landings.length);
        found.forEach((atS, i) => expect(Math.abs(atS - landings[i]!)).toBeLessThan(0.01));
      }
    }
  });

  it('are none in noise alone, in silence, and before anything is known of the noise', () => {
    expect(heard([], 0.1)).toEqual([]);
    expect(heard([0.05], 0.001)).toEqual([]);
    expect(heard([1], 0, 0.004)).toEqual([]);
    expect(stepsHeard([])).toEqual([]);
  });
});

describe('steps that a phone feels', () => {
  it('are as many as were run, at cadences from a walk to a sprint, with shaking in between', () => {
    for (const spm of [110, 165, 180, 240]) {
      const random = seeded(spm);
      const stepS = 60 / spm;
      const samples = Array.from({ length: 60 * 10 }, (_, i) => {
        const atS = i / 60;
        const since = (atS % stepS) / stepS;
        const landing = 14 * Math.exp(-(((since - 0.3) / 0.1) ** 2));
        return { atS, mps2: 1 + landing + 0.8 * random() };
      });
      const steps = stepsFelt(samples);
      expect(Math.abs(steps.length - 10 / stepS)).toBeLessThanOrEqual(2);
    }
    const still = Array.from({ length: 300 }, (_, i) => ({
      atS: i / 60,
      mps2: 0.3 + (i % 3) / 10,
    }));
    expect(stepsFelt(still)).toEqual([]);
    expect(stepsFelt([])).toEqual([]);
  });
});
