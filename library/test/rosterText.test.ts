import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTable } from '../src/roster/csv';
import { readRosterTable } from '../src/roster/rosterTable';
import { birthdayOf, MOST_PASTED_ATHLETES, readRoster } from '../src/roster/rosterText';

const metric = { unit: 'metric' as const };
const imperial = { unit: 'imperial' as const };
const read = (text: string, style: typeof metric | typeof imperial = metric) =>
  readRoster(text, style, 'Squad');
const athletesIn = (text: string, style: typeof metric | typeof imperial = metric) =>
  read(text, style).flatMap(({ athlete }) => athlete ?? []);

describe('a pasted list of athletes', () => {
  const ada = {
    name: 'Ada Reed',
    squad: 'Wings',
    hand: 'left',
    takeoffFoot: 'right',
    ...{ heightM: 1.74, legM: null, shoeM: null },
    birthYear: 2009,
    bornOn: null,
    positions: ['left wing'],
  };

  it('takes name, squad, position, hand, height and year in any order, by any separator', () => {
    for (const text of [
      'Ada Reed, Wings, left wing, left, 1.74, 2009',
      'Ada Reed, Wings, left wing, left, 1,74, 2009',
      'Ada  Reed;L;174 cm;5/6/2009;Wings;left wing',
      'Name\tSquad\nAda Reed\tWings\tleft wing\t174\tLeft\t2009',
      // Several kinds in one line.
      'Ada Reed\tWings, left wing;left\t1,74, 2009',
    ]) {
      expect(athletesIn(text), text).toEqual([ada]);
      expect(read(text).every(({ why }) => why === null)).toBe(true);
    }
    expect(athletesIn('Ada Reed; Wings; 30.5.2009')[0]).toMatchObject({
      ...{ birthYear: 2009, bornOn: '2009-05-30', positions: [] },
    });
  });

  it('is read line by line: a tab in one says nothing of the others', () => {
    const lines = Array.from(
      { length: 16 },
      (_, i) => `Runner ${'abcdefghijklmnop'[i]}, Track, left`,
    );
    lines[7] = 'Runner h\tTrack\tleft';
    lines[9] = 'Runner j;Track;left';
    const athletes = athletesIn(lines.join('\r\n'));
    expect(athletes).toHaveLength(16);
    for (const { squad, hand, takeoffFoot } of athletes) {
      expect([squad, hand, takeoffFoot]).toEqual(['Track', 'left', 'right']);
    }
    // A name keeps its comma where something else stands between the cells.
    expect(athletesIn('Reed, Ada;Wings')[0]).toMatchObject({ name: 'Reed, Ada', squad: 'Wings' });
  });

  it('tells a height from a distance, and reads one as it is typed', () => {
    const heights = [
      ...(['1.74', '1,74', '174', '174 cm', '1 74', '5 11', '5\'11"', '511'] as const),
    ].map((text) => athletesIn(`Ada; Track; ${text}`)[0]?.heightM);
    expect(heights).toEqual([1.74, 1.74, 1.74, 1.74, 1.74, 1.803, 1.803, 1.803]);
    for (const text of ['5 11', '5-11', '511', '71', '1.803', '180.3', '5 ft 11']) {
      const [athlete] = athletesIn(`Ada; Track; ${text}`, imperial);
      expect(athlete?.heightM, text).toBeCloseTo(1.803, 2);
    }
    expect(athletesIn('Ada; Track; 400 m; 1.74')[0]).toMatchObject({
      ...{ heightM: 1.74, positions: ['400 m'] },
    });
    expect(athletesIn('Ada; Track; 60 m hurdles')[0]!.positions).toEqual(['60 m hurdles']);
    expect(read('Ada; Track; 9 m')[0]!.why).toContain('no height');
    expect(read('Ada; Track; 300')[0]!.why).toContain('no height');
  });

  it('asks for a name only, and says of each line what becomes of it', () => {
    const lines = read('Jon Vale\n\n, Keepers\nJON VALE\nIda, 9 m\n' + 'x'.repeat(90));
    expect(lines[0]!.athlete).toMatchObject({
      ...{ name: 'Jon Vale', squad: 'Squad', hand: 'right', heightM: null },
    });
    expect(lines.map(({ line, why }) => [line, why === null])).toEqual([
      [1, true],
      [3, false],
      [4, false],
      [5, false],
      [6, false],
    ]);
  });

  it('takes no more than a club’s squad at once, and says so of each line beyond', () => {
    const many = Array.from({ length: MOST_PASTED_ATHLETES + 2 }, (_, i) => `Runner ${i}`);
    const lines = read(many.join('\n'));
    expect(lines).toHaveLength(MOST_PASTED_ATHLETES + 2);
    expect(lines.filter(({ athlete }) => athlete)).toHaveLength(MOST_PASTED_ATHLETES);
  });

  it('survives whatever is pasted, and loses no line', () => {
    const text = fc.array(fc.string({ maxLength: 40, unit: 'grapheme' }), { maxLength: 12 });
    fc.assert(
      fc.property(text, (written) => {
        const pasted = written.join('\n');
        const lines = read(pasted);
        for (const { athlete } of lines) {
          if (!athlete) continue;
          expect(athlete.name.length).toBeGreaterThan(0);
          expect(athlete.squad.length).toBeLessThanOrEqual(40);
          if (athlete.heightM !== null) expect(athlete.heightM).toBeGreaterThanOrEqual(1);
        }
        const told = new Set(lines.map(({ line }) => line));
        pasted.split(/\r\n|\r|\n/).forEach((line, i) => {
          const isHead = i === 0 && /^\W*(names?|athletes?|players?)\W*/i.test(line);
          if (/[\p{L}\d]/u.test(line) && !isHead) expect(told.has(i + 1), line).toBe(true);
        });
      }),
    );
  });
});

it('reads a birthday without doubt or not at all', () => {
  const day = (text: string) => birthdayOf(text)?.bornOn;
  for (const text of [
    '2009-05-30',
    '30.5.2009',
    '30/05/2009',
    '5/30/2009',
    '30 May 2009',
    'May 30, 2009',
  ]) {
    expect(day(text), text).toBe('2009-05-30');
  }
  expect(birthdayOf('5/6/2009')).toEqual({ bornOn: null, birthYear: 2009 });
  for (const text of ['31.2.2009', '2009-13-01', '40 May 2009', 'May', '1.2.3', '5/6/09', '']) {
    expect(birthdayOf(text), text).toBeNull();
  }
});

it('says of every row of a long table what becomes of it', () => {
  const rows = Array.from({ length: 500 }, (_, i) => `Runner ${i},Track,5/30/2009`);
  const table = readTable(['name,squad,birthday', ...rows].join('\n'))!;
  const read = readRosterTable(table, ['name', 'squad', 'birth year'], metric, 'Squad');
  expect(read).toHaveLength(500);
  expect(read.filter(({ athlete }) => athlete)).toHaveLength(300);
  expect(read.at(-1)!.why).toContain('300 athletes at most');
  expect(read[0]!.athlete).toMatchObject({ birthYear: 2009, bornOn: '2009-05-30' });
});
