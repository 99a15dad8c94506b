import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { READING_KINDS, type Reading } from '@gravek/core/measuring/measures';
import { check } from '../src/problem';
import { readingInput } from '../src/reading';

const row = (reading: unknown) => ({
  id: '0190a0a0-0000-7000-8000-000000000001',
  athleteId: '0190a0a0-0000-7000-8000-000000000002',
  takenOn: '2031-05-01',
  source: 'other',
  note: '',
  reading,
});

const GOOD: Record<Reading['kind'], Reading> = {
  sprint: {
    kind: 'sprint',
    splits: [
      { distanceM: 5, timeS: 1.4 },
      { distanceM: 10, timeS: 2.1 },
      { distanceM: 20, timeS: 3.4 },
    ],
  },
  curve: { kind: 'curve', radiusM: 8, chordsM: [1.7, 1.75] },
  cadence: { kind: 'cadence', counts: [{ count: 28, seconds: 20 }] },
  'easy-cadence': { kind: 'easy-cadence', counts: [{ count: 28, seconds: 20 }] },
  stop: { kind: 'stop', speedMps: 6, distancesM: [4, 4.2] },
  reaction: { kind: 'reaction', timesS: [0.3, 0.28] },
  'short-step': { kind: 'short-step', lengthsM: [0.12, 0.1] },
  lane: { kind: 'lane', laneM: 3, steps: [6, 7] },
  'take-offs': { kind: 'take-offs', spots: [{ alongM: 0.6, outM: 0.9 }] },
  'run-through': { kind: 'run-through', missesM: [0.1, -0.05] },
  steady: { kind: 'steady', targetSpm: 174, minutesSpm: [172, 175, 174] },
};

const said = (reading: unknown): Record<string, string> => {
  const checked = check(readingInput, row(reading));
  return checked.ok ? {} : checked.fields;
};

describe('a test of an athlete', () => {
  it.each(READING_KINDS)('%s is taken as it was read', (kind) => {
    const checked = check(readingInput, row(GOOD[kind]));
    expect(checked.ok && checked.value).toEqual(row(GOOD[kind]));
  });

  it.each<[unknown, string, RegExp]>([
    [{ kind: 'luck' }, 'reading.kind', /Choose a test/],
    [{ kind: 'sprint', splits: [] }, 'reading.splits', /Two distances/],
    [
      {
        kind: 'sprint',
        splits: [
          { distanceM: 5, timeS: 'soon' },
          { distanceM: 9, timeS: 2 },
        ],
      },
      'reading.splits[0].timeS',
      /must be a number/,
    ],
    [
      {
        kind: 'sprint',
        splits: [
          { distanceM: 5, timeS: 2 },
          { distanceM: 10, timeS: 1 },
        ],
      },
      'reading.splits[1]',
      /farther and later/,
    ],
    [{ kind: 'curve', radiusM: 8, chordsM: [] }, 'reading.chordsM', /at least one/],
    [{ kind: 'curve', radiusM: 8, chordsM: [1.7, 90] }, 'reading.chordsM[1]', /at most 4, got 90/],
    [{ kind: 'curve', chordsM: [1.7] }, 'reading.radiusM', /radius is missing/],
    [
      { kind: 'cadence', counts: [{ count: 2.5, seconds: 20 }] },
      'reading.counts[0].count',
      /whole number/,
    ],
    [{ kind: 'stop', speedMps: 60, distancesM: [4] }, 'reading.speedMps', /at most 12/],
    [{ kind: 'reaction', timesS: [0.01] }, 'reading.timesS[0]', /at least 0.08/],
    [{ kind: 'short-step', lengthsM: [3] }, 'reading.lengthsM[0]', /at most 1.5/],
    [{ kind: 'lane', laneM: 3, steps: [0] }, 'reading.steps[0]', /at least 1/],
    [{ kind: 'run-through', missesM: [9] }, 'reading.missesM[0]', /at most 3/],
  ])('%o is refused at its figure', (reading, path, text) => {
    expect(said(reading)[path]).toMatch(text);
  });

  it('of whatever shape gets words, never a fault', () => {
    let refused = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...READING_KINDS),
        fc.dictionary(
          fc.constantFrom('splits', 'radiusM', 'chordsM', 'counts', 'distancesM', 'steps', 'laneM'),
          fc.oneof(
            fc.anything(),
            fc.array(fc.double()),
            fc.array(fc.record({ distanceM: fc.double(), timeS: fc.double() })),
          ),
        ),
        (kind, rest) => {
          const checked = check(readingInput, row({ kind, ...rest }));
          if (checked.ok) {
            // What is kept is taken as it is: nothing of it is read otherwise the second time.
            expect(check(readingInput, checked.value)).toEqual(checked);
            return;
          }
          refused += 1;
          const messages = Object.values(checked.fields);
          expect(messages.length).toBeGreaterThan(0);
          for (const message of messages) expect(message).toMatch(/^[A-Z].*\.$/s);
        },
      ),
    );
    expect(refused).toBeGreaterThan(50);
  });
});
