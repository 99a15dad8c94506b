import { parseLength } from '@gravek/core/lengthText';
import type { MeasuredStep } from '@gravek/core/runup/stepModel';
import type { LengthStyle } from '@gravek/core/units';
import Papa from 'papaparse';
import { secondsOf } from './figure';

/** One row of the form, as typed. */
export type TypedStep = { length: string; time: string };

/** Whether figures are of each step, or are read off a clock or a tape that runs on from the start. */
export type Reckoning = 'each' | 'running';

/** How the tape and the times of a run were read. */
export type RunReading = { tape: Reckoning; clock: Reckoning };

export const MOST_PASTED_STEPS = 60;

/**
 * Reads two pasted columns, lengths and times, with tabs, semicolons, commas or spaces between them; a
 * line of headings and numbered rows are passed over.
 *
 * @returns rows as they would be typed, or a sentence that says what is wrong
 * @example
 * readPaste('1.20\t0.29\n1.48\t0.28') // [{ length: '1.20', time: '0.29' }, { length: '1.48', time: '0.28' }]
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
  { ok: true; steps: MeasuredStep[] } | { ok: false; messages: Record<string, string> };

/** The length of one step, or what is wrong with it. */
const lengthMessage = (typed: string, lengthM: number, tape: Reckoning): string | null => {
  if (tape === 'running' && lengthM <= 0) return 'A running tape only goes up.';
  if (lengthM >= 0.05 && lengthM <= 4) return null;
  return tape === 'running'
    ? `${lengthM.toFixed(2)} m since the last step is no step that anybody makes; 0.05 to 4 m.`
    : `${typed.trim()} is no step that anybody makes; 0.05 to 4 m.${lengthM > 4 ? ' Is it a running tape?' : ''}`;
};

/** The time of one step, or what is wrong with it. */
const timeMessage = (atS: number, intervalS: number, clock: Reckoning): string | null => {
  if (Number.isNaN(atS)) return 'Write a time in seconds, such as 0.24.';
  if (intervalS <= 0) {
    return clock === 'running' ? 'A running clock only goes up.' : 'A time must be more than 0.';
  }
  if (intervalS >= 0.08 && intervalS <= 2) return null;
  return `${intervalS.toFixed(2)} s is no time for one step; 0.08 to 2 s.${clock === 'each' && intervalS > 2 ? ' Is it a running clock?' : ''}`;
};

/**
 * Reads the rows of the form; empty rows at the end do not count. Where no row has a time, the run was
 * taped and not timed.
 *
 * @returns steps, or a message for each cell that is wrong, by `length.n` and `time.n` (n from 0)
 * @example
 * const rows = ['1.2', '2.67', '4.33', '6.13'].map((length) => ({ length, time: '' }));
 * readSteps(rows, { tape: 'running', clock: 'each' }, { unit: 'metric' })
 * // steps of 1.2, 1.47, 1.66 and 1.8 m, intervalS null
 */
export const readSteps = (
  rows: readonly TypedStep[],
  { tape, clock }: RunReading,
  style: LengthStyle,
): ReadSteps => {
  const messages: Record<string, string> = {};
  const filled = rows.map((row) => row.length.trim() !== '' || row.time.trim() !== '');
  const count = filled.lastIndexOf(true) + 1;
  const timed = rows.some((row) => row.time.trim() !== '');
  const steps: MeasuredStep[] = [];
  let [beforeM, beforeS] = [0, 0];
  for (let n = 0; n < count; n += 1) {
    const { length, time } = rows[n]!;
    const parsed = parseLength(length, style);
    const lengthM = parsed.ok ? parsed.lengthM - (tape === 'running' ? beforeM : 0) : NaN;
    const wrong = parsed.ok ? lengthMessage(length, lengthM, tape) : parsed.message;
    if (wrong) messages[`length.${n}`] = wrong;
    if (parsed.ok) beforeM = parsed.lengthM;
    let intervalS: number | null = null;
    if (timed) {
      const atS = secondsOf(time);
      intervalS = Number((clock === 'running' ? atS - beforeS : atS).toFixed(4));
      const late = timeMessage(atS, intervalS, clock);
      if (late) messages[`time.${n}`] = late;
      if (!Number.isNaN(atS)) beforeS = atS;
    }
    steps.push({ lengthM: Number(lengthM.toFixed(4)), intervalS });
  }
  if (count < 4 && Object.keys(messages).length === 0) {
    messages['length.' + String(Math.min(count, rows.length - 1))] =
      'A run needs at least four steps, counted from a standing start.';
  }
  return Object.keys(messages).length > 0 ? { ok: false, messages } : { ok: true, steps };
};
