import { usualTakeoffFoot, type Foot } from '@gravek/core/feet';
import { parseBodyLength, type LengthStyle } from '@gravek/core/units';
import { MOST_TABLE_ROWS, type CsvTable } from './csv';
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

/** An athlete as a row of a table has them. */
export type TableAthlete = {
  name: string;
  squad: string;
  hand: Foot;
  takeoffFoot: Foot;
  heightM: number | null;
  legM: number | null;
  shoeM: number | null;
  birthYear: number | null;
  /** yyyy-mm-dd, where the table says the day without doubt */
  bornOn: string | null;
  positions: string[];
};

/** What comes of a row: an athlete, or why it cannot be taken. */
export type RosterRow =
  | { line: number; athlete: TableAthlete; why: null }
  | { line: number; athlete: null; name: string; why: string };

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
): RosterRow[] => {
  const names = new Set<string>();
  return rows.map((cells, i): RosterRow => {
    // The heads are line 1.
    const line = i + 2;
    const cell = (column: RosterColumn): string => {
      const at = columns.indexOf(column);
      return at < 0 ? '' : (cells[at] ?? '');
    };
    const name = [cell('first name'), cell('name')].filter(Boolean).join(' ');
    const no = (why: string): RosterRow => ({ line, athlete: null, name, why });
    if (name === '') return no('There is no name.');
    if (name.length > 80) return no('The name is longer than 80 letters.');
    if (names.has(name.toLowerCase())) return no('This name stands in the table before.');
    if (i >= MOST_TABLE_ROWS) return no(`A table holds ${MOST_TABLE_ROWS} athletes at most.`);
    const hand = sideOf(cell('hand'));
    if (hand === undefined) return no(`“${cell('hand')}” is neither left nor right.`);
    const foot = sideOf(cell('take-off foot'));
    if (foot === undefined) return no(`“${cell('take-off foot')}” is neither left nor right.`);
    const lengths = { heightM: null, legM: null, shoeM: null } as Record<
      'heightM' | 'legM' | 'shoeM',
      number | null
    >;
    for (const [column, [field, min, max, what]] of Object.entries(LENGTHS)) {
      const text = cell(column as RosterColumn);
      if (text === '') continue;
      const lengthM = lengthOf(text, style, column === 'height');
      if (lengthM === null) return no(`“${text}” is no length.`);
      if (lengthM < min || lengthM > max) return no(`${what} is between ${min} and ${max} m.`);
      lengths[field] = lengthM;
    }
    const born = cell('birth year');
    const year = /\b(19[2-9]\d|20\d\d)\b/.exec(born)?.[0];
    if (born !== '' && !year) return no(`“${born}” holds no year of birth.`);
    const own = cell('squad') || squad;
    const positions = cell('position')
      .split(/[,;/]/)
      .map((text) => text.trim())
      .filter(Boolean)
      .slice(0, 8);
    if (own.length > 40 || positions.some((position) => position.length > 40)) {
      return no('Squad and position have 40 letters at most.');
    }
    names.add(name.toLowerCase());
    const dominant = hand ?? 'right';
    return {
      line,
      why: null,
      athlete: {
        ...{ name, squad: own, hand: dominant },
        takeoffFoot: foot ?? usualTakeoffFoot(dominant),
        ...lengths,
        birthYear: year ? Number(year) : null,
        bornOn: birthdayOf(born)?.bornOn ?? null,
        positions: [...new Set(positions)],
      },
    };
  });
};
