import Papa from 'papaparse';

/** What is read as a number stays one; a missing figure is an empty cell. */
export type Cell = string | number | boolean | null;

/** Beginnings of cells that a spreadsheet would run as a formula, behind blanks and what cannot be seen. */
const BEGINS = /^[\s\p{Cf}]*[=+\-@|%\t\r\n\u2010-\u2015\u2212]/u;

/** Whether a spreadsheet would run a text, in whatever width and form its signs are written. */
const runs = (text: string): boolean => BEGINS.test(text) || BEGINS.test(text.normalize('NFKC'));

/**
 * Rows as CSV: commas, points in numbers, quotes where they are needed. A text that a spreadsheet would
 * run gets an apostrophe before it and is only shown.
 *
 * @example csvText([['name'], ['=1+1']]) // name, and below it '=1+1
 */
export const csvText = (rows: readonly (readonly Cell[])[]): string =>
  Papa.unparse(
    rows.map((row) =>
      row.map((cell) => (typeof cell === 'string' && runs(cell) ? `'${cell}` : cell)),
    ),
    { newline: '\r\n' },
  );

/** What a spreadsheet needs before the text, to read its letters as they were written. */
export const CSV_START = '\ufeff';

export type CsvTable = { heads: string[]; rows: string[][] };

/** Rows of a table that are taken; of the others it is said that they are not. */
export const MOST_TABLE_ROWS = 300;
/** Rows that are looked at. */
const MOST_ROWS_READ = 20_000;
const MOST_COLUMNS = 30;

/**
 * Reads a table from CSV, whatever separates its cells, the first row its heads.
 *
 * @returns cells without blanks around them; null where there is no table of two columns or rows in it
 * @example readTable('name;height\nAda;1,74').rows[0] // ['Ada', '1,74']
 */
export const readTable = (text: string): CsvTable | null => {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
    preview: MOST_ROWS_READ,
  });
  const tidy = data.map((row) =>
    row.slice(0, MOST_COLUMNS).map((cell) => cell.trim().replace(/\s+/g, ' ')),
  );
  const [heads, ...rows] = tidy;
  if (!heads || rows.length === 0) return null;
  const width = Math.max(heads.length, ...rows.map((row) => row.length));
  const wide = (row: string[]): string[] =>
    [...row, ...Array<string>(width).fill('')].slice(0, width);
  return { heads: wide(heads), rows: rows.map(wide) };
};
