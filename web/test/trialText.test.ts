import { describe, expect, it } from 'vitest';
import { readPaste, readSteps } from '../src/athletes/trialText';
import { choiceMessages, around } from '../src/approaches/draft';
import { drillSetTime } from '../src/sessions/load';
import { weekOf } from '../src/sessions/dates';
import { withRoom } from '../src/drawing/room';

const metric = { unit: 'metric' as const };

describe('readPaste', () => {
  it.each([
    ['tabs', '1.20\t0.29\n1.47\t0.27\n1.66\t0.26\n1.80\t0.25'],
    ['spaces', '1.20 0.29\n1.47  0.27\n1.66 0.26\n1.80 0.25\n'],
    ['semicolons and decimal commas', '1,20;0,29\n1,47;0,27\n1,66;0,26\n1,80;0,25'],
    ['commas', '1.20,0.29\n1.47,0.27\n1.66,0.26\n1.80,0.25'],
    ['headings', 'length\ttime\n1.20\t0.29\n1.47\t0.27\n1.66\t0.26\n1.80\t0.25'],
    ['numbered rows', '1\t1.20\t0.29\n2\t1.47\t0.27\n3\t1.66\t0.26\n4\t1.80\t0.25'],
  ])('reads two columns with %s', (_how, text) => {
    const rows = readPaste(text);
    if (typeof rows === 'string') throw new Error(rows);
    const read = readSteps(rows, 'each', metric);
    expect(read).toEqual({
      ok: true,
      steps: [
        { lengthM: 1.2, intervalS: 0.29 },
        { lengthM: 1.47, intervalS: 0.27 },
        { lengthM: 1.66, intervalS: 0.26 },
        { lengthM: 1.8, intervalS: 0.25 },
      ],
    });
  });

  it('refuses what is no run, in a sentence', () => {
    expect(readPaste('hello')).toContain('No figures');
    expect(readPaste('1\t2\n'.repeat(61))).toContain('61 rows');
    expect(readPaste('x'.repeat(30_000))).toContain('far too much');
  });
});

describe('readSteps', () => {
  const rows = (...cells: [string, string][]) => cells.map(([length, time]) => ({ length, time }));

  it('takes a running clock apart', () => {
    const read = readSteps(
      rows(['1.2', '0.29'], ['1.4', '0.56'], ['1.6', '0.82'], ['1.7', '1.07']),
      'running',
      metric,
    );
    expect(read.ok && read.steps.map((step) => step.intervalS)).toEqual([0.29, 0.27, 0.26, 0.25]);
  });

  it('names each cell that is wrong', () => {
    const read = readSteps(
      rows(['9', '0.29'], ['1.4', '-0.2'], ['', '0.26'], ['1.7', 'soon'], ['1.8', '3']),
      'each',
      metric,
    );
    expect(read.ok ? [] : Object.keys(read.messages)).toEqual([
      'length.0',
      'time.1',
      'length.2',
      'time.3',
      'time.4',
    ]);
    const back = readSteps(
      rows(['1', '0.5'], ['1', '0.4'], ['1', '0.7'], ['1', '1']),
      'running',
      metric,
    );
    expect(back.ok ? null : back.messages['time.1']).toBe('A running clock only goes up.');
  });

  it('reads lengths in the coach’s units, and asks for four steps', () => {
    const read = readSteps(
      rows([`4'`, '0.3'], [`4' 10"`, '0.28'], [`5' 6"`, '0.27'], ['6', '0.26']),
      'each',
      { unit: 'imperial' },
    );
    expect(read.ok && read.steps[3]!.lengthM).toBeCloseTo(1.8288, 6);
    const short = readSteps(rows(['1', '0.3'], ['1', '0.3']), 'each', metric);
    expect(short.ok ? null : Object.values(short.messages)[0]).toContain('at least four steps');
  });
});

describe('planning', () => {
  it('finds the field of a choice that cannot be', () => {
    const base = {
      target: 'board',
      takeoffFoot: 'own',
      startFoot: null,
      steps: 12,
      distanceM: null,
      ending: { kind: 'even' },
      absorb: 'even',
      tolerance: 0.1,
      speedFraction: 1,
      checkMarks: [],
      pins: [] as { step: number; lengthM: number }[],
    } as const;
    expect(choiceMessages({ ...base, checkMarks: [] })).toEqual({});
    expect(choiceMessages({ ...base, checkMarks: [], pins: [], steps: 400 })).toHaveProperty(
      'steps',
    );
    expect(
      choiceMessages({ ...base, checkMarks: [], pins: [], absorb: { stepsOut: 12 } }),
    ).toHaveProperty(['absorb.stepsOut']);
    expect(around(1)).toEqual({ from: 1, to: 5 });
  });

  it('says how long a drill set takes, and nothing of one that cannot be run', () => {
    const set = {
      id: '',
      approachId: '',
      athleteIds: ['a', 'b', 'c'],
      sets: 2,
      reps: 4,
      sides: ['own' as const, 'other' as const],
      restS: 10,
      setRestS: 60,
    };
    expect(drillSetTime(set, undefined)).toMatchObject({ cycleS: 39, totalS: 2 * 8 * 39 + 60 });
    expect(drillSetTime({ ...set, athleteIds: [] }, undefined)).toBeNull();
    expect(drillSetTime({ ...set, restS: -5 }, undefined)).toBeNull();
  });

  it('starts weeks on Monday, across months', () => {
    expect(weekOf('2031-03-01')).toEqual([
      '2031-02-24',
      '2031-02-25',
      '2031-02-26',
      '2031-02-27',
      '2031-02-28',
      '2031-03-01',
      '2031-03-02',
    ]);
  });

  it('keeps the last label and no two that touch', () => {
    const shown = [...withRoom([0, 10, 30, 38, 70], (x) => x, 20)].sort((a, b) => a - b);
    expect(shown).toEqual([10, 38, 70]);
  });
});
