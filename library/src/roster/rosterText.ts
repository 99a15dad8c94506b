import { isDay } from '@gravek/core/days';
import type { Foot } from '@gravek/core/feet';
import { parseBodyLength } from '@gravek/core/lengthText';
import type { LengthStyle } from '@gravek/core/units';
import Papa from 'papaparse';
import { comingAthlete, type ComingAthlete, type RosterLine, rosterLines } from './coming';

export const MOST_PASTED_ATHLETES = 60;

const HANDS: Record<string, Foot> = {
  left: 'left',
  l: 'left',
  'left-handed': 'left',
  right: 'right',
  r: 'right',
  'right-handed': 'right',
};
const HEADING = /^(name|names|athlete|athletes|player|players)$/i;
const YEAR = /^(19|20)\d\d$/;
/** A comma between digits, as in 1,74, separates nothing. */
const DECIMAL = /(\d),(\d{1,3})(?!\d)/g;
const SHORTEST_M = 1;
const TALLEST_M = 2.3;

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');

const two = (n: number): string => String(n).padStart(2, '0');

/**
 * A birthday as people write it.
 *
 * @returns the day where it is without doubt, and the year; null where the text is no date
 * @example
 * birthdayOf('30.5.2009') // { bornOn: '2009-05-30', birthYear: 2009 }
 * birthdayOf('5/6/2009') // { bornOn: null, birthYear: 2009 }: which is the month?
 */
export const birthdayOf = (text: string): { bornOn: string | null; birthYear: number } | null => {
  const dated = (year: number, month: number, day: number) => {
    const bornOn = `${year}-${two(month)}-${two(day)}`;
    return isDay(bornOn) ? { bornOn, birthYear: year } : null;
  };
  const iso = /^((?:19|20)\d\d)[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(text);
  if (iso) return dated(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const numbers = /^(\d{1,2})([./-])(\d{1,2})\2((?:19|20)\d\d)$/.exec(text);
  if (numbers) {
    const [first, second, year] = [Number(numbers[1]), Number(numbers[3]), Number(numbers[4])];
    // With points the day comes first; with strokes it does in some countries.
    if (numbers[2] === '.' || first > 12 || first === second) return dated(year, second, first);
    if (second > 12) return dated(year, first, second);
    return first >= 1 && second >= 1 ? { bornOn: null, birthYear: year } : null;
  }
  const heading =
    /^(\d{1,2})\.? ([a-z]{3})[a-z]*\.?,? ((?:19|20)\d\d)$/i.exec(text) ??
    /^([a-z]{3})[a-z]*\.? (\d{1,2}),? ((?:19|20)\d\d)$/i.exec(text);
  if (!heading) return null;
  const [, a, b, year] = heading;
  const month = MONTHS.indexOf((/\d/.test(a!) ? b! : a!).toLowerCase()) + 1;
  return month === 0 ? null : dated(Number(year), month, Number(/\d/.test(a!) ? a : b));
};

/** The cells of a line, whatever stands between them: the name may hold a comma where tabs or semicolons do. */
const cellsOf = (line: string): string[] => {
  const strongest = ['\t', ';', ','].find((sign) => line.includes(sign)) ?? ',';
  const kept = line.replace(DECIMAL, '$1\u0000$2');
  const cells = Papa.parse<string[]>(kept, { delimiter: strongest }).data[0] ?? [];
  const [name = '', ...rest] = cells;
  return [name, ...rest.flatMap((cell) => cell.split(/[\t;,]/))].map((cell) =>
    cell.replaceAll('\u0000', ',').trim().replace(/\s+/g, ' '),
  );
};

/** A height, and why it is none; a distance such as 400 m is a word. */
const heightOf = (cell: string, style: LengthStyle): number | 'impossible' | null => {
  if (!/^[\d.,]/.test(cell)) return null;
  const length = parseBodyLength(cell, style);
  if (!length.ok) return null;
  if (length.lengthM >= SHORTEST_M && length.lengthM <= TALLEST_M) {
    return Number(length.lengthM.toFixed(3));
  }
  return /\d\s*(m|yd|yards?|met(er|re)s?)$/i.test(cell) && length.lengthM >= 20
    ? null
    : 'impossible';
};

const athleteOf = (
  [name, ...rest]: readonly string[],
  style: LengthStyle,
  squad: string,
): ComingAthlete | string => {
  const words: string[] = [];
  let hand: Foot | undefined;
  let heightM: number | null = null;
  let born: { bornOn: string | null; birthYear: number } | null = null;
  for (const cell of rest.filter(Boolean)) {
    const side = HANDS[cell.toLowerCase()];
    const birthday = YEAR.test(cell) ? { bornOn: null, birthYear: Number(cell) } : birthdayOf(cell);
    const height = heightOf(cell, style);
    if (side) hand = side;
    else if (birthday) born = birthday;
    else if (height === 'impossible')
      return `“${cell}” is no height: it is between ${SHORTEST_M} m and ${TALLEST_M} m.`;
    else if (height !== null) heightM = height;
    else words.push(cell);
  }
  const [named = squad, ...positions] = words;
  return comingAthlete({ name: name!, squad: named, hand, heightM, positions, ...born });
};

/**
 * Reads a pasted list of athletes, one a line: the name first, then in any order squad, position, left or
 * right hand, height, birthday or birth year; with tabs, semicolons or commas between them, line by line.
 *
 * @param squad for lines that name none
 * @returns what becomes of every line that holds something
 * @example readRoster('Ada Reed; Wings; left; 1.74', metric, 'Squad')[0]!.athlete!.hand // 'left'
 */
export const readRoster = (text: string, style: LengthStyle, squad: string): RosterLine[] =>
  rosterLines(
    text.split(/\r\n|\r|\n/).flatMap((written, i) => {
      const cells = cellsOf(written);
      const [name = ''] = cells;
      if (cells.every((cell) => cell === '') || (i === 0 && HEADING.test(name))) return [];
      return [
        {
          ...{ line: i + 1, text: written.trim().slice(0, 80), name },
          athlete: () => athleteOf(cells, style, squad),
        },
      ];
    }),
    {
      noName: 'There is no name at its beginning.',
      twice: 'This name stands in the list before.',
      most: MOST_PASTED_ATHLETES,
      tooMany: `A list holds ${MOST_PASTED_ATHLETES} athletes; paste the rest by itself.`,
    },
  );
