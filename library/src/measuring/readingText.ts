import { parseLength } from '@gravek/core/lengthText';
import type { Reading, ReadingKind, TakeOffSpot } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import { figure } from './figure';

/** A reading as it is typed: a few single fields, rows of two, and lists with one figure a line. */
export type TypedReading = {
  radius: string;
  speed: string;
  lane: string;
  list: string;
  rows: { a: string; b: string }[];
};

/**
 * @example freshReading('sprint').rows[0].a // '5'
 */
export const freshReading = (kind: ReadingKind): TypedReading => ({
  radius: '',
  speed: '',
  lane: '',
  list: '',
  rows:
    kind === 'sprint'
      ? ['5', '10', '20'].map((a) => ({ a, b: '' }))
      : kind === 'cadence' || kind === 'easy-cadence'
        ? [{ a: '', b: '20' }]
        : [],
});

type Read = { ok: true; reading: Reading } | { ok: false; messages: Record<string, string> };

/**
 * Reads what was typed for a test.
 *
 * @returns the reading, or messages by field; lines of lists and rows by their number
 * @example
 * readReading('reaction', { ...freshReading('reaction'), list: '0.22\n0.24' }, metric).reading.timesS
 * // [0.22, 0.24]
 */
export const readReading = (kind: ReadingKind, typed: TypedReading, style: LengthStyle): Read => {
  const messages: Record<string, string> = {};
  const number = (field: keyof TypedReading & ('speed' | 'lane' | 'radius'), what: string) => {
    const value = figure(typed[field]);
    if (Number.isNaN(value)) messages[field] = `Write ${what} as a number.`;
    return value;
  };
  const length = (field: 'lane' | 'radius', what: string): number => {
    const read = parseLength(typed[field], style);
    if (!read.ok) messages[field] = typed[field].trim() === '' ? `Write ${what}.` : read.message;
    return read.ok ? read.lengthM : NaN;
  };
  const lines = typed.list
    .split(/\n|;/)
    .map((line) => line.trim())
    .filter(Boolean);
  const list = (read: (line: string) => number | string): number[] => {
    if (lines.length === 0) messages.list = 'Write at least one.';
    return lines.map((line, i) => {
      const value = read(line);
      if (typeof value === 'string') messages.list ??= `Line ${i + 1}: ${value}`;
      return typeof value === 'string' ? NaN : value;
    });
  };
  const lengths = (signed = false): number[] =>
    list((line) => {
      const minus = signed && /^[-−]/.test(line);
      const read = parseLength(line.replace(/^[+\-−]/, ''), { ...style, small: signed });
      return read.ok ? (minus ? -read.lengthM : read.lengthM) : read.message;
    });
  const numbers = (): number[] =>
    list((line) => {
      const value = figure(line);
      return Number.isNaN(value) ? `“${line}” is not a number.` : value;
    });
  /** Two lengths a line, such as 0.62 / 0.91. */
  const spots = (): TakeOffSpot[] => {
    if (lines.length === 0) messages.list = 'Write at least one.';
    return lines.map((line, i) => {
      const [alongM, outM, ...more] = line.split('/').map((part) => {
        const minus = /^[-−]/.test(part.trim());
        const read = parseLength(part.trim().replace(/^[-−]/, ''), style);
        return read.ok ? (minus ? -read.lengthM : read.lengthM) : NaN;
      });
      const isRead = !Number.isNaN(alongM ?? NaN) && !Number.isNaN(outM ?? NaN);
      if (!isRead || more.length > 0) {
        messages.list ??= `Line ${i + 1}: write two lengths with / between, such as 0.62 / 0.91.`;
      }
      return { alongM: alongM ?? NaN, outM: outM ?? NaN };
    });
  };
  const rows = (): { a: number; b: number }[] =>
    typed.rows
      .map((row, i) => ({
        i,
        a: figure(row.a),
        b: figure(row.b),
        // What was not taken: a split without its time, a count without its number.
        empty: (kind === 'sprint' ? row.b : row.a).trim() === '',
      }))
      .filter((row) => !row.empty)
      .map(({ i, a, b }) => {
        if (Number.isNaN(a) || Number.isNaN(b)) messages[`rows[${i}]`] = 'Write two numbers.';
        return { a, b };
      });
  const counted = (taken: { a: number; b: number }[]) => {
    if (taken.length === 0) messages['rows[0]'] = 'Count one foot at least once.';
    return taken.map(({ a, b }) => ({ count: a, seconds: b }));
  };
  const reading = ((): Reading => {
    switch (kind) {
      case 'sprint':
        return { kind, splits: rows().map(({ a, b }) => ({ distanceM: a, timeS: b })) };
      case 'cadence':
      case 'easy-cadence':
        return { kind, counts: counted(rows()) };
      case 'curve':
        return { kind, radiusM: length('radius', 'the radius'), chordsM: lengths() };
      case 'stop':
        return { kind, speedMps: number('speed', 'the speed'), distancesM: lengths() };
      case 'reaction':
        return { kind, timesS: numbers() };
      case 'short-step':
        return { kind, lengthsM: lengths() };
      case 'lane':
        return { kind, laneM: length('lane', 'the width of the lane'), steps: numbers() };
      case 'run-through':
        return { kind, missesM: lengths(true) };
      case 'take-offs':
        return { kind, spots: spots() };
      case 'steady':
        return {
          kind,
          targetSpm: typed.speed.trim() === '' ? null : number('speed', 'the target'),
          minutesSpm: numbers(),
        };
    }
  })();
  return Object.keys(messages).length > 0 ? { ok: false, messages } : { ok: true, reading };
};
