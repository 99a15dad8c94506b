import { describe, expect, it } from 'vitest';
import { readPaste, readSteps } from '../src/measuring/trialText';

const metric = { unit: 'metric' as const };
const each = { tape: 'each', clock: 'each' } as const;

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
    const read = readSteps(rows, each, metric);
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
      { tape: 'each', clock: 'running' },
      metric,
    );
    expect(read.ok && read.steps.map((step) => step.intervalS)).toEqual([0.29, 0.27, 0.26, 0.25]);
  });

  it('takes a running tape apart, and needs no times', () => {
    const read = readSteps(
      rows(['1.2', ''], ['2.67', ''], ['4.33', ''], ['6.13', '']),
      { tape: 'running', clock: 'each' },
      metric,
    );
    expect(read.ok && read.steps).toEqual(
      [1.2, 1.47, 1.66, 1.8].map((lengthM) => ({ lengthM, intervalS: null })),
    );
  });

  it('says where a running tape goes back, leaps, or was taken for single steps', () => {
    const tape = rows(['1.2', ''], ['1.1', ''], ['9', ''], ['10.5', '']);
    const back = readSteps(tape, { tape: 'running', clock: 'each' }, metric);
    expect(back.ok ? {} : back.messages).toEqual({
      'length.1': 'A running tape only goes up.',
      'length.2': expect.stringContaining('7.90 m since the last step') as string,
    });
    const taken = readSteps(tape, each, metric);
    expect(taken.ok ? null : taken.messages['length.3']).toContain('Is it a running tape?');
  });

  it('asks for the time of a step that lacks it, where the others have theirs', () => {
    const read = readSteps(
      rows(['1.2', '0.29'], ['1.4', ''], ['1.6', '0.26'], ['1.7', '0.25']),
      each,
      metric,
    );
    expect(read.ok ? null : Object.keys(read.messages)).toEqual(['time.1']);
  });

  it('names each cell that is wrong', () => {
    const read = readSteps(
      rows(['9', '0.29'], ['1.4', '-0.2'], ['', '0.26'], ['1.7', 'soon'], ['1.8', '3']),
      each,
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
      { tape: 'each', clock: 'running' },
      metric,
    );
    expect(back.ok ? null : back.messages['time.1']).toBe('A running clock only goes up.');
  });

  it('reads lengths in the coach’s units, and asks for four steps', () => {
    const read = readSteps(
      rows([`4'`, '0.3'], [`4' 10"`, '0.28'], [`5' 6"`, '0.27'], ['6', '0.26']),
      each,
      { unit: 'imperial' },
    );
    expect(read.ok && read.steps[3]!.lengthM).toBeCloseTo(1.8288, 6);
    const short = readSteps(rows(['1', '0.3'], ['1', '0.3']), each, metric);
    expect(short.ok ? null : Object.values(short.messages)[0]).toContain('at least four steps');
  });
});
