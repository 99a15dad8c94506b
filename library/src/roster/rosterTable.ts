import type { Foot } from '@gravek/core/feet';
import { parseBodyLength } from '@gravek/core/lengthText';
import type { LengthStyle } from '@gravek/core/units';
import { comingAthlete, type ComingAthlete, type RosterLine, rosterLines } from './coming';
import { type CsvTable, MOST_TABLE_ROWS } from './csv';
import { birthdayOf } from './rosterText';

/** What a column of a table of athletes can hold. */
export const ROSTER_COLUMNS = [
  'name',
  'first name',
  'squad',
  'position',
  'hand',
  'take-off foot',
  'height',
  'leg',
  'shoe',
  'birth year',
] as const;
export type RosterColumn = (typeof ROSTER_COLUMNS)[number];

/** Heads by which a column is known, as tables out there write them. */
const HEADS: Record<RosterColumn, RegExp> = {
  name: /^(full ?name|names?|last ?name|surname|family ?name|athletes?|players?)$/i,
  'first name': /^(first|given) ?name$/i,
  squad: /^(squad|team|group|class)$/i,
  position: /^(positions?|event|role)$/i,
  hand: /^(dominant |main |throwing )?(hand|side)(edness)?$/i,
  'take-off foot': /^(take[- ]?off ?)?(foot|leg) ?(take[- ]?off)?$|^take[- ]?off$/i,
  height: /^(height|tall|size)\b/i,
  leg: /^(leg|inseam)\b.*length|^leg \(?(c?m|in)/i,
  shoe: /^(shoe|foot) ?length|^shoe/i,
  'birth year': /birth|^born|^dob$|^year/i,
};

/**
 * What each column of a table seems to hold, each thing once; null where nothing is known of it.
 *
 * @example guessRosterColumns(readTable('Name;Height\nAda;1.74')) // ['name', 'height']
 */
export const guessRosterColumns = ({ heads }: CsvTable): (RosterColumn | null)[] => {
  const taken = new Set<RosterColumn>();
  return heads.map((head) => {
    const found = ROSTER_COLUMNS.find((column) => !taken.has(column) && HEADS[column].test(head));
    if (found) taken.add(found);
    return found ?? null;
  });
};

const sideOf = (text: string): Foot | null | undefined =>
  text === ''
    ? null
    : /^l(eft)?\b/i.test(text)
      ? 'left'
      : /^r(ight)?\b/i.test(text)
        ? 'right'
        : undefined;

const LENGTHS = {
  height: ['heightM', 1, 2.3, 'The height'],
  leg: ['legM', 0.4, 1.4, 'The leg length'],
  shoe: ['shoeM', 0.15, 0.4, 'The shoe length'],
} as const;

/** Centimetres without a unit: a shoe or a leg of so many inches is none. */
const CENTIMETRES = /^\d{2,3}([.,]\d+)?$/;

const lengthOf = (text: string, style: LengthStyle, isHeight: boolean): number | null => {
  const plain = !isHeight && CENTIMETRES.test(text);
  const read = parseBodyLength(text, plain ? { unit: 'metric' } : style);
  return read.ok ? Number(read.lengthM.toFixed(3)) : null;
};

const positionsIn = (text: string): string[] =>
  text
    .split(/[,;/]/)
    .map((word) => word.trim())
    .filter(Boolean);

/** The athlete of a row, or why there is none. */
const athleteOf = (
  name: string,
  cell: (column: RosterColumn) => string,
  style: LengthStyle,
  squad: string,
): ComingAthlete | string => {
  const hand = sideOf(cell('hand'));
  if (hand === undefined) return `“${cell('hand')}” is neither left nor right.`;
  const foot = sideOf(cell('take-off foot'));
  if (foot === undefined) return `“${cell('take-off foot')}” is neither left nor right.`;
  const lengths: Partial<Record<'heightM' | 'legM' | 'shoeM', number>> = {};
  for (const column of ['height', 'leg', 'shoe'] as const) {
    const [field, min, max, what] = LENGTHS[column];
    const text = cell(column);
    if (text === '') continue;
    const lengthM = lengthOf(text, style, column === 'height');
    if (lengthM === null) return `“${text}” is no length.`;
    if (lengthM < min || lengthM > max) return `${what} is between ${min} and ${max} m.`;
    lengths[field] = lengthM;
  }
  const born = cell('birth year');
  const year = /\b(19[2-9]\d|20\d\d)\b/.exec(born)?.[0];
  if (born !== '' && !year) return `“${born}” holds no year of birth.`;
  return comingAthlete({
    ...{ name, squad: cell('squad') || squad, ...lengths },
    ...{ hand: hand ?? undefined, takeoffFoot: foot ?? undefined },
    birthYear: year ? Number(year) : null,
    bornOn: birthdayOf(born)?.bornOn ?? null,
    positions: positionsIn(cell('position')),
  });
};

/**
 * The athletes of a table, row by row, by what its columns hold. Nothing is kept; it shows what would be.
 *
 * @param columns of each column what it holds; null for those that are left out
 * @param squad for rows that name none
 * @example
 * const table = readTable('Name;Height\nAda;1.74');
 * readRosterTable(table, guessRosterColumns(table), metric, 'Wings')[0].athlete.heightM // 1.74
 */
export const readRosterTable = (
  { rows }: CsvTable,
  columns: readonly (RosterColumn | null)[],
  style: LengthStyle,
  squad: string,
): RosterLine[] =>
  rosterLines(
    rows.map((cells, i) => {
      const cell = (column: RosterColumn): string => cells[columns.indexOf(column)] ?? '';
      const name = [cell('first name'), cell('name')].filter(Boolean).join(' ');
      return {
        // The heads are line 1.
        ...{ line: i + 2, name, text: name || cells.filter(Boolean).join(', ').slice(0, 80) },
        athlete: () => athleteOf(name, cell, style, squad),
      };
    }),
    {
      noName: 'There is no name.',
      twice: 'This name stands in the table before.',
      most: MOST_TABLE_ROWS,
      tooMany: `A table holds ${MOST_TABLE_ROWS} athletes at most.`,
    },
  );
