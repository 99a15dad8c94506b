import { parseLength, type LengthStyle } from '@gravek/core/units';
import Papa from 'papaparse';

/** One row of the form, as typed. */
export type TypedStep = { length: string; time: string };

/** How the times of a run were taken. */
export type Clock = 'each' | 'running';

export const MOST_PASTED_STEPS = 60;

/**
 * Reads two pasted columns, lengths and times, with tabs, semicolons, commas or spaces between them; a
 * line of headings and numbered rows are passed over.
 *
 * @returns rows as they would be typed, or a sentence that says what is wrong
 */
export const readPaste = (text: string): TypedStep[] | string => {
  if (text.length > 20_000) return 'That is far too much for one run; paste the two columns only.';
  const tidy = text.trim();
  // A comma is a decimal mark where another separator stands between the columns.
  const separator = tidy.includes('\t')
    ? '\t'
    : tidy.includes(';')
      ? ';'
      : /,\s|\d\.\d+,\d/.test(tidy)
        ? ','
        : ' ';
  const { data } = Papa.parse<string[]>(separator === ' ' ? tidy.replace(/[ ]+/g, ' ') : tidy, {
    delimiter: separator,
    skipEmptyLines: 'greedy',
  });
  const rows = data
    .map((cells) => cells.map((cell) => cell.trim()).filter(Boolean))
    .filter((cells) => cells.some((cell) => /\d/.test(cell)));
  if (rows.length === 0) return 'No figures were found in what was pasted.';
  if (rows.length > MOST_PASTED_STEPS) {
    return `${rows.length} rows are more than a run-up has; paste at most ${MOST_PASTED_STEPS}.`;
  }
  const numbered = rows.every((cells, i) => cells.length === 3 && Number(cells[0]) === i + 1);
  return rows.map((cells) => {
    const [length = '', time = ''] = numbered ? cells.slice(1) : cells;
    return { length, time };
  });
};

export type ReadSteps =
  | { ok: true; steps: { lengthM: number; intervalS: number }[] }
  | { ok: false; messages: Record<string, string> };

const readTime = (text: string): number => {
  const tidy = text
    .trim()
    .replace(',', '.')
    .replace(/\s*s(ec)?\.?$/i, '');
  return /^\d*\.?\d+$|^\d+\.$/.test(tidy) ? Number(tidy) : NaN;
};

/**
 * Reads the rows of the form; empty rows at the end do not count.
 *
 * @returns steps, or a message for each cell that is wrong, by `length.n` and `time.n` (n from 0)
 */
export const readSteps = (
  rows: readonly TypedStep[],
  clock: Clock,
  style: LengthStyle,
): ReadSteps => {
  const messages: Record<string, string> = {};
  const filled = rows.map((row) => row.length.trim() !== '' || row.time.trim() !== '');
  const count = filled.lastIndexOf(true) + 1;
  const steps: { lengthM: number; intervalS: number }[] = [];
  let before = 0;
  for (let n = 0; n < count; n += 1) {
    const { length, time } = rows[n]!;
    const parsed = parseLength(length, style);
    if (!parsed.ok) messages[`length.${n}`] = parsed.message;
    else if (parsed.lengthM < 0.05 || parsed.lengthM > 4) {
      messages[`length.${n}`] = `${length.trim()} is no step that anybody makes; 0.05 to 4 m.`;
    }
    const at = readTime(time);
    const intervalS = clock === 'running' ? at - before : at;
    if (Number.isNaN(at)) messages[`time.${n}`] = 'Write a time in seconds, such as 0.24.';
    else if (intervalS <= 0) {
      messages[`time.${n}`] =
        clock === 'running' ? 'A running clock only goes up.' : 'A time must be more than 0.';
    } else if (intervalS < 0.08 || intervalS > 2) {
      messages[`time.${n}`] =
        `${intervalS.toFixed(2)} s is no time for one step; 0.08 to 2 s.${clock === 'each' && intervalS > 2 ? ' Is it a running clock?' : ''}`;
    }
    if (!Number.isNaN(at)) before = at;
    if (parsed.ok) steps.push({ lengthM: parsed.lengthM, intervalS: Number(intervalS.toFixed(4)) });
  }
  if (count < 4 && Object.keys(messages).length === 0) {
    messages['length.' + String(Math.min(count, rows.length - 1))] =
      'A run needs at least four steps, counted from a standing start.';
  }
  return Object.keys(messages).length > 0 ? { ok: false, messages } : { ok: true, steps };
};
