import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOST_PASTED_ATHLETES, readRoster } from '../src';

const metric = { unit: 'metric' as const };
const read = (text: string) => readRoster(text, metric, 'Squad');

describe('a pasted list of athletes', () => {
  it('takes name, squad, position, hand, height and year in any order, by any separator', () => {
    const ada = {
      name: 'Ada Reed',
      squad: 'Wings',
      hand: 'left',
      takeoffFoot: 'right',
      heightM: 1.74,
      birthYear: 2009,
      positions: ['left wing'],
    };
    for (const text of [
      'Ada Reed, Wings, left wing, left, 1.74, 2009',
      'Ada  Reed;L;174 cm;2009-05-30;Wings;left wing',
      'Name\tSquad\nAda Reed\tWings\tleft wing\t174\tLeft\t2009',
    ]) {
      expect(read(text)).toEqual({ athletes: [ada], wrong: [] });
    }
    expect(
      readRoster('Ada Reed, 5\' 8\"', { unit: 'imperial' }, 'S').athletes[0]!.heightM,
    ).toBeCloseTo(1.727, 3);
    expect(readRoster('Ada Reed, 1.74', { unit: 'imperial' }, 'S').athletes[0]!.heightM).toBe(1.74);
  });

  it('asks for a name only, and says of each line why it cannot be taken', () => {
    const { athletes, wrong } = read(
      'Jon Vale\n\n, Keepers\nJON VALE\nIda, 9 m\n' + 'x'.repeat(90),
    );
    expect(athletes).toMatchObject([
      { name: 'Jon Vale', squad: 'Squad', hand: 'right', heightM: null },
    ]);
    expect(wrong.map(({ line }) => line)).toEqual([3, 4, 5, 6]);
    expect(wrong[2]!.why).toContain('tall');
  });

  it('takes no more than a club’s squad at once', () => {
    const many = Array.from({ length: MOST_PASTED_ATHLETES + 2 }, (_, i) => `Runner ${i}`).join(
      '\n',
    );
    expect(read(many).athletes).toHaveLength(MOST_PASTED_ATHLETES);
    expect(read(many).wrong).toHaveLength(2);
  });

  it('survives whatever is pasted', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: 'grapheme' }), (text) => {
        for (const { name, squad } of read(text).athletes) {
          expect(name.length).toBeGreaterThan(0);
          expect(squad.length).toBeLessThanOrEqual(40);
        }
      }),
    );
  });
});
