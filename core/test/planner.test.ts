import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalBelow } from '../src/chance/normal';
import { studentQuantile } from '../src/chance/student';
import {
  countedCadence,
  currentReading,
  readingResult,
  runThroughs,
} from '../src/measuring/measures';
import { fitSprint } from '../src/measuring/sprint';
import { aimMargin } from '../src/runup/aimMargin';
import { landingSpread } from '../src/runup/landingSpread';
import { type Beat, playBeats, soundOf, steadyBeats, wavFile } from '../src/runup/rhythm';
import { shareMarks, tapeMarks, tapeStepM } from '../src/runup/setOut';
import { simulateRunUps } from '../src/runup/simulateRunUps';
import { evenly } from './evenly';

describe('simulated run-ups', () => {
  const lengthsM = Array.from({ length: 14 }, (_, i) => 2.1 - 0.9 * Math.exp(-i / 3));

  it('without steering agree with the closed form, step by step and at the line', () => {
    for (const [stepFraction, runFraction] of [
      [0.01, 0],
      [0.022, 0.01],
      [0, 0.02],
      [0.05, 0.02],
    ] as const) {
      const marginM = 0.1;
      const by = { stepFraction, runFraction, startSdM: 0.02 };
      const { blindSdM } = landingSpread({ ...by, lengthsM });
      const seen = simulateRunUps({
        ...by,
        lengthsM,
        marginM,
        steering: null,
        runs: 40_000,
        seed: 7,
      });
      expect(seen.sdM / blindSdM).toBeCloseTo(1, 1.5);
      expect(Math.abs(seen.foulChance - normalBelow(-marginM / blindSdM))).toBeLessThan(0.01);
      expect(Math.abs(seen.quantilesM[2])).toBeLessThan(0.03 * blindSdM + 0.005);
      seen.steps.forEach((step, k) => {
        const upTo = landingSpread({ ...by, lengthsM: lengthsM.slice(0, k + 1) });
        expect(step.sdM / upTo.blindSdM).toBeCloseTo(1, 1.3);
      });
    }
  });

  it('with unlimited full steering leave the last step’s own scatter, and its part of the run’s', () => {
    const seen = simulateRunUps({
      lengthsM,
      stepFraction: 0.03,
      runFraction: 0.02,
      startSdM: 0.1,
      marginM: 0,
      steering: { steps: 4, gain: 1, limit: 0.5 },
      runs: 20_000,
      seed: 3,
    });
    expect(seen.sdM / (Math.hypot(0.03, 0.02) * lengthsM.at(-1)!)).toBeCloseTo(1, 1.5);
  });

  it('are the same for the same seed, and count every run once', () => {
    const ask = {
      lengthsM,
      stepFraction: 0.03,
      runFraction: 0.01,
      startSdM: 0.02,
      marginM: 0.1,
      steering: null,
      runs: 3_000,
      seed: 11,
    };
    expect(simulateRunUps(ask)).toEqual(simulateRunUps(ask));
    expect(simulateRunUps(ask)).not.toEqual(simulateRunUps({ ...ask, seed: 12 }));
    expect(simulateRunUps(ask).bins.reduce((sum, bin) => sum + bin.count, 0)).toBe(3_000);
    expect(() => simulateRunUps({ ...ask, stepFraction: NaN })).toThrow('stepFraction');
  });
});

describe('measuring', () => {
  it('finds the sprinter that the splits came from', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 6, max: 11, noNaN: true }),
        fc.double({ min: 0.6, max: 1.8, noNaN: true }),
        (topSpeedMps, tauS) => {
          const timeS = (distanceM: number): number => {
            let [low, high] = [0, 60];
            for (let i = 0; i < 100; i += 1) {
              const t = (low + high) / 2;
              if (topSpeedMps * (t - tauS * (1 - Math.exp(-t / tauS))) < distanceM) low = t;
              else high = t;
            }
            return low;
          };
          const fit = fitSprint(
            [5, 10, 20].map((distanceM) => ({ distanceM, timeS: timeS(distanceM) })),
          );
          expect(fit.topSpeedMps).toBeCloseTo(topSpeedMps, 3);
          expect(fit.tauS).toBeCloseTo(tauS, 3);
          expect(fit.worstS).toBeLessThan(1e-4);
        },
      ),
    );
  });

  it('refuses splits that no start explains', () => {
    const at = (a: number, b: number, c: number) => () =>
      fitSprint([
        { distanceM: 5, timeS: a },
        { distanceM: 10, timeS: b },
        { distanceM: 20, timeS: c },
      ]);
    expect(at(1.5, 1.4, 3)).toThrow('farther and later');
    expect(at(2, 2.05, 2.1)).toThrow(/splits/);
    expect(() => fitSprint([{ distanceM: 5, timeS: 1.3 }])).toThrow('splits.length');
  });

  it('counts one foot, with mean and spread', () => {
    const { mean, sd, n } = countedCadence([
      { count: 27, seconds: 20 },
      { count: 28, seconds: 20 },
    ]);
    expect(mean).toBeCloseTo(165, 9);
    expect(sd).toBeCloseTo(Math.sqrt(18), 9);
    expect(n).toBe(2);
  });

  it('reads a stop, a test circle and a lane', () => {
    expect(readingResult({ kind: 'stop', speedMps: 6, distancesM: [4] })).toMatchObject({
      mean: 4.5,
      sd: null,
    });
    const curve = readingResult({ kind: 'curve', radiusM: 8, chordsM: [1.8] });
    expect(curve).toMatchObject({ mean: expect.closeTo(16 * Math.asin(1.8 / 16), 9) as number });
    expect(() => readingResult({ kind: 'lane', laneM: 4, steps: [0] })).toThrow('steps[0]');
  });

  it('moves the start mark only when the evidence beats the noise', () => {
    expect(runThroughs([0.1]).moveM).toBe(0);
    expect(runThroughs([0.1, -0.12, 0.05, -0.02]).moveM).toBe(0);
    const sure = runThroughs([0.14, 0.1, 0.12, 0.16]);
    expect(sure.moveM).toBeCloseTo(0.13, 9);
    expect(sure.interval!.lowM).toBeGreaterThan(0);
    expect(aimMargin({ jumpM: 6, sdM: sure.sdM! }).foulProbability).toBeLessThan(0.05);
  });

  it('has Student’s quantiles', () => {
    // From printed tables.
    expect(studentQuantile(0.95, 1)).toBeCloseTo(6.314, 3);
    expect(studentQuantile(0.95, 5)).toBeCloseTo(2.015, 3);
    expect(studentQuantile(0.95, 30)).toBeCloseTo(1.697, 3);
  });

  it('trusts a device before a helper before the runner, and forgets what is old', () => {
    const read = (takenOn: string, source: 'self' | 'other' | 'device') => ({ takenOn, source });
    expect(currentReading([])).toBeNull();
    expect(currentReading([read('2031-05-01', 'self'), read('2031-04-20', 'other')])?.source).toBe(
      'other',
    );
    expect(currentReading([read('2031-05-01', 'self'), read('2030-05-01', 'device')])?.source).toBe(
      'self',
    );
    expect(
      currentReading([read('2031-04-01', 'device'), read('2031-04-20', 'device')])?.takenOn,
    ).toBe('2031-04-20');
  });
});

describe('setting out', () => {
  it('rounds each mark from the datum, so that rounding never adds up', () => {
    fc.assert(
      fc.property(
        fc.array(evenly(0, 60), { minLength: 1, maxLength: 30 }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        (distances, unit) => {
          const stepM = tapeStepM(unit);
          const sheet = tapeMarks(distances, (m) => m, stepM);
          let sum = 0;
          for (const { mark, fromDatumM, onM, offM } of sheet) {
            sum += onM;
            expect(sum).toBeCloseTo(fromDatumM, 9);
            expect(Math.abs(offM)).toBeLessThanOrEqual(stepM / 2 + 1e-9);
            expect(fromDatumM - mark).toBeCloseTo(offM, 9);
            const units = fromDatumM / stepM;
            expect(Math.abs(units - Math.round(units))).toBeLessThan(1e-6);
          }
        },
      ),
    );
  });

  it('shares marks at no more than the tolerance each, with as few marks as can be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 40, noNaN: true }), { minLength: 1, maxLength: 9 }),
        evenly(0, 1),
        (marks, toleranceM) => {
          const shared = shareMarks(
            marks.map((atM, who) => ({ who, atM })),
            toleranceM,
          );
          const users = shared.flatMap((mark) => mark.users);
          expect(users.map((user) => user.who).sort()).toEqual(marks.map((_, i) => i).sort());
          for (const other of users)
            expect(Math.abs(other.givesM)).toBeLessThanOrEqual(toleranceM + 1e-9);
          // Fewest: points that pairwise lie more than two tolerances apart each need a mark.
          const sorted = [...marks].sort((a, b) => a - b);
          let apart = 0;
          let from = -Infinity;
          for (const m of sorted) {
            if (m - from > 2 * toleranceM + 1e-9) {
              apart += 1;
              from = m;
            }
          }
          expect(shared).toHaveLength(apart);
        },
      ),
    );
  });
});

describe('the rhythm', () => {
  const beats: Beat[] = [0.3, 0.58, 0.84, 1.08].map((timeS, i) => ({
    timeS,
    foot: i % 2 ? 'right' : 'left',
    special: i === 3,
  }));

  it('keeps its uneven gaps at any rate, and counts in at the first step’s tempo', () => {
    const { beats: heard, startS, roundS } = playBeats(beats, { rate: 0.5, countIn: 2 });
    expect(heard.map((beat) => beat.countIn)).toEqual([true, true, false, false, false, false]);
    expect(startS).toBeCloseTo(1.2, 9);
    expect(heard.slice(2).map((beat) => beat.timeS - startS)).toEqual(
      beats.map((beat) => expect.closeTo(beat.timeS * 2, 9) as number),
    );
    expect(roundS).toBeCloseTo(2.16, 9);
  });

  it('plays a part from its own beginning', () => {
    const { beats: heard } = playBeats(beats, { from: 3, to: 4 });
    expect(heard.map((beat) => beat.n)).toEqual([3, 4]);
    expect(heard[0]!.timeS).toBeCloseTo(0.26, 9);
  });

  it('sounds where the beats are and is silent between', () => {
    const { beats: heard } = playBeats(beats);
    const sound = soundOf(heard, 22_050);
    const loudness = (from: number, to: number): number =>
      Math.max(...sound.slice(Math.round(from * 22_050), Math.round(to * 22_050)).map(Math.abs));
    for (const beat of beats) {
      expect(loudness(beat.timeS, beat.timeS + 0.02)).toBeGreaterThan(0.2);
      expect(loudness(beat.timeS - 0.1, beat.timeS - 0.002)).toBeLessThan(0.05);
    }
  });

  it('is a WAV file that says how long it is', () => {
    const file = wavFile(soundOf(playBeats(steadyBeats(170, 3)).beats, 22_050), 22_050);
    const view = new DataView(file.buffer);
    expect(String.fromCharCode(...file.slice(0, 4), ...file.slice(8, 12))).toBe('RIFFWAVE');
    expect(view.getUint32(4, true)).toBe(file.length - 8);
    expect(view.getUint32(40, true)).toBe(file.length - 44);
    expect(steadyBeats(180, 60)).toHaveLength(180);
    expect(() => steadyBeats(0, 60)).toThrow('cadenceSpm');
  });
});
