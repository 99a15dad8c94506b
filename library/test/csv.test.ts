import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { csvText, readTable } from '../src/roster/csv';
import { guessRosterColumns, readRosterTable } from '../src/roster/rosterTable';

const metric = { unit: 'metric' as const };

describe('a table as CSV', () => {
  it('holds nothing that a spreadsheet would run, and otherwise what was put in', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(fc.string({ maxLength: 12, unit: 'grapheme' }), { minLength: 2, maxLength: 2 }),
        ),
        (rows) => {
          const { data } = Papa.parse<string[]>(csvText([['a', 'b'], ...rows]));
          expect(data).toHaveLength(rows.length + 1);
          rows.forEach((row, r) =>
            row.forEach((cell, c) => {
              const read = data[r + 1]![c]!;
              expect(read === cell || read === `'${cell}`).toBe(true);
              expect(read).not.toMatch(/^\s*[=+\-@＝＋－＠]/);
            }),
          );
        },
      ),
    );
    for (let code = 1; code < 0x1_0000; code += 1) {
      const sign = String.fromCharCode(code);
      // What a program that reads all widths and forms as one takes for such a sign.
      if (!/^[=+\-@|%\u2212\u2010-\u2015]/.test(sign.normalize('NFKC'))) continue;
      for (const text of [`${sign}1+1`, ` ${sign}1`, `\u200b${sign}1`]) {
        expect(csvText([[text]]).replace(/^"/, ''), code.toString(16)).toMatch(/^'/);
      }
    }
    expect(csvText([['n'], [-1.5], ['-1.5'], ['=A1\n'], [null], [true]])).toBe(
      `n\r\n-1.5\r\n'-1.5\r\n"'=A1\n"\r\n\r\ntrue`,
    );
  });
});

describe('a table of athletes', () => {
  const read = (text: string) => {
    const table = readTable(text)!;
    return readRosterTable(table, guessRosterColumns(table), metric, 'Squad');
  };

  it('is read by its heads, whatever separates the cells', () => {
    const ada = {
      ...{ name: 'Ada Reed', squad: 'Wings', hand: 'left', takeoffFoot: 'left' },
      ...{ heightM: 1.74, legM: null, shoeM: 0.27, birthYear: 2009, positions: ['wing', 'back'] },
    };
    for (const [text, bornOn] of [
      [
        'First name,Surname,Team,Position,Hand,Take-off foot,Height (cm),Shoe length,Date of birth\nAda,Reed,Wings,wing/back,L,left,174,27 cm,30.05.2009',
        '2009-05-30',
      ],
      [
        '\ufeffName;Squad;Positions;Dominant hand;Takeoff;Height;Shoe;Born\r\n Ada  Reed ;Wings;"wing; back";Left;l;1,74;0,27;2009\r\n;;;;;;;',
        null,
      ],
    ] as const) {
      expect(read(text)).toEqual([
        { line: 2, text: 'Ada Reed', athlete: { ...ada, bornOn }, why: null },
      ]);
    }
  });

  it('says of each row why it cannot be taken, and takes the others', () => {
    const rows = read(
      'name,hand,height,birth year\nJon,both,,\n,left,,\nIda,,9 m,\nUna,right,tall,\nJon,,,\nMo,,,soon\nJon,,1.60,',
    );
    expect(rows.map(({ line, why }) => [line, why !== null])).toEqual([
      [2, true],
      [3, true],
      [4, true],
      [5, true],
      [6, false],
      [7, true],
      [8, true],
    ]);
    expect(rows.at(-1)!.why).toContain('before');
  });

  it('is read by other columns when the coach says so', () => {
    const table = readTable('wer,was\nAda Reed,Wings\nJon Vale,')!;
    expect(guessRosterColumns(table)).toEqual([null, null]);
    const rows = readRosterTable(table, ['name', 'squad'], metric, 'Squad');
    expect(rows.map((row) => row.athlete?.squad)).toEqual(['Wings', 'Squad']);
    expect(readRosterTable(table, [null, 'squad'], metric, 'Squad').every((row) => row.why)).toBe(
      true,
    );
  });

  it('survives whatever is in a file, and tells of each row either who it is or why it cannot be taken', () => {
    expect(readTable('')).toBeNull();
    expect(readTable('only one line')).toBeNull();
    const text = fc.string({ maxLength: 12, unit: 'grapheme' });
    const height = fc.oneof(text, fc.constantFrom('1.74', '174 cm', '17,4', ''));
    const file = fc.oneof(
      fc.string({ maxLength: 400, unit: 'grapheme' }),
      fc
        .array(fc.tuple(text, text, height), { minLength: 1, maxLength: 8 })
        .map((rows) => csvText([['a', 'b', 'c'], ...rows])),
    );
    const seen = { taken: 0, refused: 0 };
    fc.assert(
      fc.property(file, (content) => {
        const table = readTable(content);
        if (!table) return;
        const rows = readRosterTable(table, ['name', 'squad', 'height'], metric, 'S');
        expect(rows).toHaveLength(table.rows.length);
        for (const { athlete, why } of rows) {
          expect((athlete === null) === (why !== null)).toBe(true);
          if (athlete) expect(athlete.name.trim()).toBe(athlete.name);
          if (athlete) expect(athlete.name).not.toBe('');
          if (why !== null) expect(why).toMatch(/\.$/);
          seen[athlete ? 'taken' : 'refused'] += 1;
        }
      }),
    );
    expect(seen.taken, JSON.stringify(seen)).toBeGreaterThan(10);
    expect(seen.refused, JSON.stringify(seen)).toBeGreaterThan(10);
  });
});
