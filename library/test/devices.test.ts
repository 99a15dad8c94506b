import { bodyOf } from '@gravek/core';
import { describe, expect, it } from 'vitest';
import {
  courseSuggestions,
  guessGates,
  movementOf,
  plannedCadence,
  readGates,
  readRecorded,
  readTable,
  steadyTarget,
  steadyWeeks,
} from '../src';

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
        { atS: 0, cadenceSpm: 174, speedMps: null },
        { atS: 1, cadenceSpm: 174, speedMps: 3 },
        { atS: 2, cadenceSpm: 174, speedMps: 3 },
      ],
    });
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
    expect(read.readings.map((one) => one.cadenceSpm)).toEqual([172, 172, 172]);
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
    expect(gates('Distance (m);Time (s)\n0;0,000\n5;1,400\n10;2,100')).toEqual({
      ok: true,
      splits,
    });
    expect(gates('gate,split\n5 m,1400\n10 m,2100')).toEqual({ ok: true, splits });
    expect(gates('dist\ttime\n5\t0:01.4\n10\t0:02.1')).toEqual({ ok: true, splits });
    expect(gates('distance,time\n5,1.4\n10,0.7', 'each')).toEqual({ ok: true, splits });
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

describe('a course beside its plan', () => {
  const course = (cadenceSpm: number, speedMps: number | null = null) =>
    [0, 1, 2, 3].map((atS) => ({ atS, cadenceSpm, speedMps }));

  it('suggests the fault that the figures speak for, and nothing within the band', () => {
    const codes = (spm: number, mps: number | null = null): string[] =>
      courseSuggestions(movement, course(spm, mps), { cadenceSpm: 176, speedMps: 3.2 }).map(
        ({ fault }) => fault.code,
      );
    expect(codes(176)).toEqual([]);
    expect(codes(172)).toEqual([]);
    expect(codes(164)).toEqual(['drops-back']);
    expect(codes(176, 3.6)).toEqual(['speeds-up']);
    expect(codes(190)).toEqual([]);
    expect(courseSuggestions(movement, [], { cadenceSpm: 176, speedMps: 3.2 })).toEqual([]);
  });

  it('leaves out standing and walking between reps', () => {
    const rested = [...course(0), ...course(60), ...course(176), ...course(0)];
    expect(courseSuggestions(movement, rested, { cadenceSpm: 176, speedMps: null })).toEqual([]);
  });

  it('knows the cadence of a plan by its middle step', () => {
    const times = [0.5, 0.9, 1.25, 1.6, 1.95];
    expect(plannedCadence(times.map((timeS) => ({ timeS })))).toBeCloseTo(60 / 0.35, 6);
    expect(plannedCadence([{ timeS: 1 }])).toBeNull();
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
    expect(steadyTarget(movement, week, body)).toBe(178);
    expect(steadyTarget(movement, { ...week, week: 0 }, body)).toBe(168);
    expect(steadyTarget(movementOf('give-ground'), undefined, body)).toBeNull();
  });
});

describe('steady runs by week', () => {
  it('lie in weeks from Monday on, with the minutes in their band', () => {
    const run = (takenOn: string, targetSpm: number | null, minutesSpm: number[]) => ({
      takenOn,
      targetSpm,
      minutesSpm,
    });
    expect(
      steadyWeeks([
        run('2031-05-11', 170, [170, 150]),
        run('2031-05-05', null, [160]),
        run('2031-05-12', 174, [174]),
      ]),
    ).toEqual([
      { from: '2031-05-05', targetSpm: 170, meanSpm: 160, minutes: 3, inBand: 1 },
      { from: '2031-05-12', targetSpm: 174, meanSpm: 174, minutes: 1, inBand: 1 },
    ]);
  });
});
