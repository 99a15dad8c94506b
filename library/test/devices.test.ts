import { bodyOf } from '@gravek/core/layout/body';
import { type DeviceReading, rampStep } from '@gravek/core/measuring/deviceCourse';
import { variantFrom } from '@gravek/core/session/variants';
import type { LengthUnit } from '@gravek/core/units';
import { check } from '@gravek/contract/problem';
import { repInput } from '@gravek/contract/repSchema';
import { PLAIN_REP } from '@gravek/contract/session';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatesMeasured, passedAt, readPasses } from '../src/measuring/gates';
import { courseSuggestions, measuredMeans, steadyRunOf } from '../src/measuring/measuredRows';
import {
  measuredOf,
  plannedCadence,
  plannedRun,
  type PlannedRun,
} from '../src/measuring/measuredRun';
import { guessGates, guessUnit, readGates, readRecorded } from '../src/measuring/recorded';
import { simulatedGates, simulatedPass, simulatedPod } from '../src/measuring/simulated';
import { movementOf } from '../src/movement/movements';
import { straightStart } from '../src/planning/planStart';
import { distinctRuns, easyBeat, steadyTarget, steadyWeeks } from '../src/planning/steadyCadence';
import { readTable } from '../src/roster/csv';
import { variedRun } from '../src/session/work';

const at = (s: number): string => new Date(Date.UTC(2031, 4, 1, 7) + s * 1000).toISOString();

const tcx = (points: string): string =>
  `<?xml version="1.0"?><TrainingCenterDatabase xmlns="x" xmlns:ns3="y"><Activities><Activity Sport="Running"><Lap><Track>${points}</Track></Lap></Activity></Activities></TrainingCenterDatabase>`;

describe('a run recorded elsewhere', () => {
  it('is read from TCX, one foot counted, with its way', () => {
    const points = [0, 1, 2]
      .map(
        (s) =>
          `<Trackpoint><Time>${at(s)}</Time><DistanceMeters>${s * 3}</DistanceMeters><Extensions><ns3:TPX><ns3:RunCadence>87</ns3:RunCadence></ns3:TPX></Extensions></Trackpoint>`,
      )
      .join('');
    const read = readRecorded(tcx(points));
    expect(read).toEqual({
      ok: true,
      readings: [
        { atS: 0, cadenceSpm: 174, speedMps: null, running: true },
        { atS: 1, cadenceSpm: 174, speedMps: 3, running: true },
        { atS: 2, cadenceSpm: 174, speedMps: 3, running: true },
      ],
    });
  });

  it('is walked where it is walked: no walk is doubled to a run', () => {
    const points = [112, 110, 114, 113, 166, 168, 170, 168, 166, 112]
      .map(
        (spm, s) =>
          `<Trackpoint><Time>${at(s)}</Time><DistanceMeters>${s < 4 ? s * 1.4 : 6 + s * 3}</DistanceMeters><Cadence>${spm}</Cadence></Trackpoint>`,
      )
      .join('');
    const read = readRecorded(tcx(points));
    if (!read.ok) throw new Error(read.why);
    expect(read.readings.map(({ cadenceSpm }) => cadenceSpm)).toEqual([
      ...[112, 110, 114, 113, 166, 168, 170, 168, 166, 112],
    ]);
    expect(read.readings.slice(0, 4).map(({ running }) => running)).toEqual([
      ...[false, false, false, false],
    ]);
  });

  it('is read from GPX, its speed by where it was', () => {
    const points = [0, 1, 2]
      .map(
        (s) =>
          `<trkpt lat="${55 + s * 0.00003}" lon="10"><time>${at(s)}</time><extensions><x:cad>172</x:cad></extensions></trkpt>`,
      )
      .join('');
    const read = readRecorded(`<gpx xmlns:x="y"><trk><trkseg>${points}</trkseg></trk></gpx>`);
    expect(read.ok).toBe(true);
    if (!read.ok) return;
    expect(read.readings.map((reading) => reading.cadenceSpm)).toEqual([172, 172, 172]);
    expect(read.readings[1]!.speedMps).toBeCloseTo(3.34, 1);
  });

  it('is refused in a sentence: entities, no XML, no run, no times, no cadence, too large', () => {
    const why = (text: string): string => {
      const read = readRecorded(text);
      return read.ok ? '' : read.why;
    };
    const bomb = `<!DOCTYPE gpx [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><gpx>&b;</gpx>`;
    expect(why(bomb)).toMatch(/declares entities/);
    expect(why('steps, time')).toMatch(/not well-formed|no run/);
    expect(why('<gpx><trk></gpx>')).toMatch(/not well-formed/);
    expect(why('<kml></kml>')).toMatch(/There is no run/);
    expect(why(tcx('<Trackpoint><Cadence>80</Cadence></Trackpoint>'))).toMatch(/no times/);
    expect(why(tcx(`<Trackpoint><Time>${at(0)}</Time></Trackpoint>`))).toMatch(/no cadence/);
    expect(why(' '.repeat(20_000_001))).toMatch(/over 20 MB/);
  });
});

describe('times from gates', () => {
  const gates = (text: string, clock: 'since' | 'each' = 'since') => {
    const table = readTable(text)!;
    return readGates(table, guessGates(table.heads), clock);
  };

  it('are read with semicolons and decimal commas, in seconds, clock and thousandths', () => {
    const splits = [
      { distanceM: 5, timeS: 1.4 },
      { distanceM: 10, timeS: 2.1 },
    ];
    const read = { ok: true, splits, silent: [] };
    expect(gates('Distance (m);Time (s)\n0;0,000\n5;1,400\n10;2,100')).toEqual(read);
    expect(gates('gate,split\n5 m,1400\n10 m,2100')).toEqual(read);
    expect(gates('dist\ttime\n5\t0:01.4\n10\t0:02.1')).toEqual(read);
    expect(gates('distance,time\n5,1.4\n10,0.7', 'each')).toEqual(read);
    // A minute and a half is no thousandths of a second.
    expect(gates('distance,time\n200,0:45.1\n400,1:35.2')).toMatchObject({
      splits: [
        { distanceM: 200, timeS: 45.1 },
        { distanceM: 400, timeS: 95.2 },
      ],
    });
    expect(gates('distance,time\n200,45.1\n400,95.2')).toMatchObject({
      splits: [{ timeS: 45.1 }, { timeS: 95.2 }],
    });
    expect(gates('distance,time\n5,1.4\n7,\n10,2.1')).toEqual({ ...read, silent: [7] });
    // A stretch that was not timed takes all after it with it.
    expect(gates('distance,time\n5,1.4\n7,\n10,2.1', 'each')).toMatchObject({ ok: false });
  });

  it('say which row is no figure, and what is missing', () => {
    expect(gates('distance,time\n5,1.4\n10,late')).toEqual({
      ok: false,
      why: 'Row 3: “10” and “late” are not two numbers.',
    });
    expect(gates('a,b\n5,1.4\n10,2.1')).toMatchObject({ ok: false, why: /which column/ });
    expect(gates('distance,time\n5,1.4')).toMatchObject({ ok: false, why: /Two gates/ });
  });
});

const movement = movementOf('steady-cadence');

const NOTHING = { voids: null, cue: null, part: null, leadFoot: null, speedPct: null };
const ID = '0190a000-0000-7000-8000-00000000abcd';
const STEADY: PlannedRun = { steps: [], steady: { cadenceSpm: 176, speedMps: 3.2 } };
const POD = { by: 'pod', simulated: false, contacts: false } as const;
const TAPS = { by: 'taps', simulated: false, contacts: true } as const;

describe('a course beside its plan', () => {
  const course = (cadenceSpm: number, speedMps: number | null = null, fromS = 0) =>
    [0, 1, 2, 3].map((s) => ({ atS: fromS + s, cadenceSpm, speedMps }));
  const codes = (readings: DeviceReading[]): string[] => {
    const run = measuredOf(POD, readings, STEADY);
    return run ? courseSuggestions(movement, run).map(({ fault }) => fault.code) : [];
  };

  it('suggests the fault that the figures speak for, and nothing within the band', () => {
    expect(codes(course(176))).toEqual([]);
    expect(codes(course(172))).toEqual([]);
    expect(codes(course(164))).toEqual(['drops-back']);
    expect(codes(course(176, 3.6))).toEqual(['speeds-up']);
    expect(codes(course(190))).toEqual([]);
    expect(codes([])).toEqual([]);
  });

  it('leaves out standing and walking between reps', () => {
    const rested = [
      ...course(0),
      ...course(60, null, 4),
      ...course(176, null, 8),
      ...course(0, null, 12),
    ];
    expect(codes(rested)).toEqual([]);
    expect(measuredOf(POD, course(0), STEADY)).toBeNull();
  });

  it('keeps a steady run by minutes, however long, and a short rep second by second', () => {
    const long = Array.from({ length: 40 * 60 + 1 }, (_, atS) => ({
      atS,
      cadenceSpm: atS < 1200 ? 176 : 165,
      speedMps: 3,
    }));
    const run = measuredOf(POD, long, STEADY)!;
    expect(run).toMatchObject({ perMinute: true, steps: [] });
    expect(run.course).toHaveLength(40);
    expect(measuredMeans(run)).toMatchObject({ per: 'minute', inBand: 20, compared: 40 });
    expect(steadyRunOf(run)).toMatchObject({ targetSpm: 176 });
    expect(steadyRunOf({ ...run, simulated: true })).toBeNull();
    // Without a plan walking is measured too, and is no steady run.
    const walked = long.map((one) => ({ ...one, cadenceSpm: 40 }));
    expect(steadyRunOf(measuredOf(POD, walked, null)!)).toBeNull();
    const short = measuredOf(POD, course(164), STEADY)!;
    expect(short).toMatchObject({ perMinute: false });
    expect(steadyRunOf(short)).toBeNull();
  });
});

describe('a rep beside the steps of its plan', () => {
  const intervals = [0.5, 0.4, 0.35, 0.35, 0.3, 0.25];
  const plan: PlannedRun = {
    steps: intervals.map((intervalS, i) => ({ lengthM: 1 + 0.1 * i, intervalS })),
    steady: null,
  };
  const tapped = (some: readonly number[], fromS = 0): DeviceReading[] => {
    let atS = fromS;
    return some.map((forS) => {
      atS += forS;
      return { atS, cadenceSpm: 60 / forS, speedMps: null };
    });
  };

  it('knows the cadence of a plan by its middle step, feet that land together as one', () => {
    const outline = (times: number[]) => ({
      contacts: times.map((timeS) => ({ timeS, foot: 'left' as const, special: false })),
    });
    const made = plannedRun(outline([0.5, 0.9, 1.25, 1.6, 1.95, 1.95]), [], null)!;
    expect(made.steps).toHaveLength(5);
    expect(plannedCadence(made)).toBeCloseTo(60 / 0.35, 6);
    expect(plannedRun(outline([1]), [], null)).toBeNull();
    expect(plannedRun(null, [], null)).toBeNull();
    // Lengths of another plan than the outline's are not taken.
    expect(made.steps.every(({ lengthM }) => lengthM === null)).toBe(true);
  });

  it('is aligned where its times fit: from the first contact on, or from a later one', () => {
    const numbers = (readings: DeviceReading[]) =>
      measuredOf(TAPS, readings, plan)!.steps.map(({ n }) => n);
    expect(numbers(tapped(intervals.slice(1)))).toEqual([2, 3, 4, 5, 6]);
    expect(numbers(tapped([0.36, 0.3, 0.26]))).toEqual([4, 5, 6]);
    // More contacts than the plan has are of no step.
    const more = tapped([0.4, 0.35, 0.35, 0.3, 0.25, 0.25, 0.25]);
    expect(numbers(more)).toEqual([2, 3, 4, 5, 6, null, null]);
  });

  it('says step by step what was off, of the run that was last', () => {
    const slow = tapped([0.44, 0.385, 0.385], 20);
    const run = measuredOf(TAPS, [...tapped([0.4, 0.35]), ...slow], plan)!;
    const { per, rows, cadence } = measuredMeans(run);
    expect(per).toBe('step');
    expect(rows.map(({ at }) => at)).toEqual([2, 3, 4]);
    expect(rows[0]).toMatchObject({ plannedSpm: 150, plannedM: 1.1, seenM: null });
    expect(cadence!.seen / cadence!.planned!).toBeCloseTo(1 / 1.1, 2);
  });

  it('keeps a step that is slow by plan, and two runs apart that follow close on each other', () => {
    const waits: PlannedRun = {
      steps: [0.3, 0.25, 1.4, 0.25, 0.2].map((intervalS) => ({ lengthM: null, intervalS })),
      steady: null,
    };
    const numbers = (readings: DeviceReading[]) =>
      measuredOf(TAPS, readings, waits)!.steps.map(({ n }) => n);
    expect(numbers(tapped([0.25, 1.4, 0.25, 0.2]))).toEqual([2, 3, 4, 5]);
    // The first contact of the second run comes two seconds after the last of the first.
    const second = tapped([0.25, 1.4], 2.1 + 2.1);
    expect(numbers([...tapped([0.25, 1.4, 0.25, 0.2]), ...second])).toEqual([2, 3]);
  });

  it('is one that the server takes, whatever the plan holds: feet nearly together, flights, long waits', () => {
    const times = [0.3, 0.305, 0.5, 12, 12.2];
    const contacts = times.map((timeS) => ({ timeS, foot: 'left' as const, special: false }));
    const ways = [1, 1.2, 12, 30].map((wayM) => ({ wayM }));
    const odd = plannedRun({ contacts }, ways, null)!;
    const pod = Array.from({ length: 13 }, (_, atS) => ({ atS, cadenceSpm: 200, speedMps: 7 }));
    for (const run of [
      measuredOf(POD, pod, odd)!,
      measuredOf(TAPS, tapped([0.2, 9, 0.2]), odd)!,
      measuredOf(TAPS, tapped([0.2, 0.2]), { steps: odd.steps.slice(0, 2), steady: null })!,
    ]) {
      const rep = {
        ...PLAIN_REP,
        ...NOTHING,
        id: ID,
        sessionId: ID,
        drillSetId: ID,
        athleteId: ID,
      };
      const checked = check(repInput, {
        ...{ ...rep, movement: 'gaps', set: 1, side: 'own', rep: 1, turn: 1, outcome: 'clean' },
        ...{ faults: [], device: ID, deviceNo: 1, at: '2031-05-14T10:00:00.000Z', measured: run },
      });
      expect(checked.ok ? {} : checked.fields).toEqual({});
    }
  });

  it('whatever is tapped, each step is one of the plan in its order, or none', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.19, max: 1.9, noNaN: true }), { minLength: 1, maxLength: 120 }),
        (some) => {
          const run = measuredOf(TAPS, tapped(some), { ...plan, steps: plan.steps.slice(0, 4) });
          if (!run) throw new Error('contacts are steps');
          expect(run.steps.length).toBeLessThanOrEqual(80);
          run.steps.forEach(({ n, plannedS, intervalS }, i) => {
            expect(intervalS).toBeGreaterThan(0);
            expect(n === null).toBe(plannedS === null);
            if (i > 0 && n !== null) expect(n).toBe(run.steps[i - 1]!.n! + 1);
          });
        },
      ),
    );
  });

  it('is run by a made-up pod with a fault that is found, and by gates of which one is silent', () => {
    const straight = movementOf('straight-run-up');
    const body = bodyOf({
      ...{ hand: 'left', takeoffFoot: 'right', trials: [], heightM: 1.5, legM: null, shoeM: null },
      readings: [],
    });
    const { outline, steps } = variedRun(
      { name: '', movement: straight, choices: straightStart(straight) },
      variantFrom('', 'own'),
      body,
    );
    const run = plannedRun(outline, steps, null)!;
    const total = run.steps.reduce((sum, { lengthM }) => sum + lengthM!, 0);
    expect(total).toBeCloseTo(outline!.startM!, 6);
    expect(passedAt(run.steps, total)).toBeCloseTo(outline!.totalTimeS, 6);
    expect(passedAt(run.steps, total + 1)).toBeNull();

    const said = Array.from({ length: 12 }, (_, i) => ({ atS: i, ...simulatedPod(run, i + 1) }));
    const { cadence } = measuredMeans(measuredOf({ ...POD, simulated: true }, said, run)!);
    expect(cadence!.seen).toBeLessThan(cadence!.planned!);
    expect(said.some(({ cadenceSpm }) => cadenceSpm === 0)).toBe(true);

    const held = Array.from({ length: 60 }, (_, i) => ({ atS: i, ...simulatedPod(STEADY, i + 1) }));
    expect(
      courseSuggestions(movement, measuredOf(POD, held, STEADY)!).map(({ fault }) => fault.code),
    ).toEqual(['drops-back']);

    const timed = (n: number) =>
      simulatedPass(run, n).flatMap(({ distanceM, timeS }) =>
        timeS === null ? [] : [{ distanceM, timeS }],
      );
    expect(timed(3)).toHaveLength(timed(1).length - 1);
    expect(
      courseSuggestions(straight, gatesMeasured(timed(1), run, true)).map(({ figure }) => figure),
    ).toEqual(['slowed']);
    const table = readTable(simulatedGates(run))!;
    expect(readGates(table, guessGates(table.heads), 'since')).toMatchObject({
      ok: true,
      silent: [10],
    });
  });
});

describe('gates beside the track', () => {
  it('are read as they are typed, a stroke for a beam that nobody broke', () => {
    const splits = (at: string, times: string) => {
      const read = readPasses(at, times, { unit: 'metric' });
      return read.ok ? read.splits.map(({ distanceM, timeS }) => [distanceM, timeS]) : read.why;
    };
    expect(splits('5 10 20', '1,31 - 3,40')).toEqual([
      [5, 1.31],
      [20, 3.4],
    ]);
    expect(splits('5, 10, 20', '1.31, 2.05')).toEqual([
      [5, 1.31],
      [10, 2.05],
    ]);
    expect(splits('5 10', '')).toEqual([]);
    expect(splits('5 10', '1 2 3')).toBe('3 times, but 2 gates.');
    expect(splits('5 10', '99999')).toMatch(/times in seconds/);
    expect(splits('five', '1')).toMatch(/the gates stand/);
    expect(splits('500', '1')).toMatch(/the gates stand/);
    expect(splits('5 10', 'soon')).toMatch(/times in seconds/);
  });

  it('stand at feet or yards where those are meant, or where they are written', () => {
    const at = (distances: string, unit: LengthUnit) => {
      const read = readPasses(distances, '1 2', { unit });
      return read.ok && read.splits.map(({ distanceM }) => Number(distanceM.toFixed(3)));
    };
    expect(at('15 30', 'imperial')).toEqual([4.572, 9.144]);
    expect(at('5 10', 'yards')).toEqual([4.572, 9.144]);
    expect(at('5m 10yd', 'imperial')).toEqual([5, 9.144]);
    const table = readTable('Gate (ft),Time\n15,1.3\n30,2.05\n60,')!;
    const columns = guessGates(table.heads);
    expect(columns).toEqual(['distance', 'time']);
    expect(guessUnit(table.heads[0]!)).toBe('ft');
    const read = readGates(table, columns, 'since', 'ft');
    expect(read).toMatchObject({
      splits: [{ distanceM: 4.572 }, { distanceM: 9.144 }],
      silent: [18.288],
    });
    expect(['yards', 'Distance m', 'metres', 'meters', 'gate'].map(guessUnit)).toEqual([
      'yd',
      'm',
      'm',
      'm',
      null,
    ]);
  });

  it('come to stretches beside the plan, or to the gate that cannot be', () => {
    const even: PlannedRun = {
      steps: Array.from({ length: 10 }, () => ({ lengthM: 2, intervalS: 0.25 })),
      steady: null,
    };
    const at = (distanceM: number, timeS: number) => ({ distanceM, timeS });
    const run = gatesMeasured([at(16, 2.2), at(8, 1), at(30, 4)], even, false);
    const { rows, speed } = measuredMeans(run);
    expect(rows.map((row) => Math.round(row.at))).toEqual([8, 16, 30]);
    expect(rows.map(({ plannedMps }) => plannedMps)).toEqual([8, 8, null]);
    expect(speed).toMatchObject({ planned: 8 });
    const through =
      (...splits: { distanceM: number; timeS: number }[]) =>
      () =>
        gatesMeasured(splits, even, false);
    expect(through(at(5, 1), at(5, 2))).toThrow('two gates stand at 5.00 m');
    expect(through(at(5, 1), at(10, 0.9))).toThrow('nobody is at 10.00 m after 0.9 s');
    expect(through(at(100, 1))).toThrow('nobody is at 100.00 m after 1 s');
    // A gate that stayed silent is none of these: the place says which is meant, as it was typed.
    const typed = readPasses('15 30 60', '1.4 - 1.45', { unit: 'imperial' });
    expect(
      () => typed.ok && gatesMeasured(typed.splits, even, false, { unit: 'imperial' }),
    ).toThrow('nobody is at 60′ 0″ after 1.45 s');
  });
});

describe('what a steady run is held at', () => {
  it('is the target of its week, from the athlete’s own count; other movements have none', () => {
    const body = bodyOf({
      ...{ hand: 'right', takeoffFoot: 'left', trials: [], heightM: 1.7, legM: null, shoeM: null },
      readings: [
        {
          takenOn: '2031-05-01',
          source: 'other',
          reading: { kind: 'cadence', counts: [{ count: 28, seconds: 20 }] },
        },
      ],
    });
    const week = { baselineSpm: null, increasePct: 6, weeks: 6, week: 6, speedMps: 3 };
    expect(steadyTarget(movement, week, body)).toEqual({ cadenceSpm: 178, speedMps: 3 });
    expect(steadyTarget(movement, { ...week, week: 0 }, body)?.cadenceSpm).toBe(168);
    expect(steadyTarget(movementOf('give-ground'), undefined, body)).toBeNull();
  });
});

describe('steady runs by week', () => {
  it('lie in weeks from Monday on, with the minutes in their band', () => {
    const run = (
      takenOn: string,
      targetSpm: number | null,
      minutesSpm: number[],
      minutesMps: (number | null)[] | null = null,
    ) => ({ takenOn, targetSpm, minutesSpm, minutesMps });
    expect(
      steadyWeeks([
        run('2031-05-11', 170, [170, 150]),
        run('2031-05-05', null, [160]),
        run('2031-05-12', 174, [174, 180], [2.9, null]),
      ]),
    ).toEqual([
      {
        ...{ from: '2031-05-05', targetSpm: 170, meanSpm: 160, minutes: 3, inBand: 1 },
        ...{ meanMps: null, stepM: null },
      },
      {
        ...{ from: '2031-05-12', targetSpm: 174, meanSpm: 177, minutes: 2, inBand: 1 },
        ...{ meanMps: 2.9, stepM: 1 },
      },
    ]);
  });

  it('tells a run once that two devices have told, and two runs of a day as two', () => {
    const minutes = [170, 172, 174, 173, 172, 171, 174, 175, 173, 172];
    const onField = { takenOn: '2031-05-12', targetSpm: 174, minutesSpm: minutes };
    // The watch was started a minute early, and counts a little otherwise.
    const watch = { ...onField, minutesSpm: [166, ...minutes.map((spm) => spm + 2)] };
    const evening = { ...onField, minutesSpm: minutes.map((spm) => spm - 12) };
    const dayAfter = { ...watch, takenOn: '2031-05-13' };
    expect(distinctRuns([onField], [watch])).toEqual([onField]);
    expect(distinctRuns([], [watch, onField])).toEqual([watch]);
    expect(distinctRuns([onField], [evening, dayAfter])).toEqual([onField, evening, dayAfter]);
    // Both measured on the field: two sets of one session.
    expect(distinctRuns([onField, onField], [])).toHaveLength(2);
    expect(rampStep(distinctRuns([onField], [watch]))).toBe('too-few');
    expect(distinctRuns([], [])).toEqual([]);
  });
});

describe('the beat of easy days', () => {
  it('rises from what was counted on one, in the same weeks and by the same part', () => {
    const plan = { increasePct: 6, weeks: 6 };
    expect([0, 3, 6].map((week) => easyBeat({ ...plan, week }, 156))).toEqual([156, 161, 165]);
    // A week after the last asks for no more, and week 1 is meant where none is.
    expect(easyBeat({ ...plan, week: 9 }, 156)).toBe(165);
    expect(easyBeat({ ...plan, week: undefined }, 156)).toBe(158);
  });
});
