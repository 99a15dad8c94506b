import { formatLength, lengthParts, type LengthStyle } from '@gravek/core/units';
import type { TapeMark } from '@gravek/core/runup/setOut';
import { csvText } from '../roster/csv';
import type { SheetMark } from './sheet';

/** The sheet as a table. */
export const sheetCsv = (rows: readonly TapeMark<SheetMark>[], style: LengthStyle): string =>
  csvText([
    ['mark', 'foot', 'from datum', 'on from the mark before', 'from datum, m'],
    ...rows.map(({ mark, fromDatumM, onM }) => [
      ...[mark.label, mark.foot, formatLength(fromDatumM, style), formatLength(onM, style)],
      Number(fromDatumM.toFixed(4)),
    ]),
  ]);

/** Text for a drawing: what XML does not allow is left out. */
const escaped = (text: string): string =>
  text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;');

/** The sheet as a drawing of A4 size, large enough to be read at arm's length. */
export const sheetSvg = (
  title: string,
  from: string,
  rows: readonly TapeMark<SheetMark>[],
  style: LengthStyle,
): string => {
  const rowHeight = Math.min(24, 230 / Math.max(1, rows.length));
  const size = rowHeight * 0.62;
  const lines = rows.map(({ mark, fromDatumM, onM }, i) => {
    const y = 48 + (i + 0.7) * rowHeight;
    const written = lengthParts(fromDatumM, style)
      .map(({ figure, unit }) => figure + (unit.length > 1 || unit === 'm' ? ` ${unit}` : unit))
      .join(' ');
    const foot = mark.foot ? `, ${mark.foot}` : '';
    return [
      `<text x="15" y="${y.toFixed(1)}" font-size="${size.toFixed(1)}" font-weight="700">${escaped(written)}</text>`,
      `<text x="100" y="${y.toFixed(1)}" font-size="${(size * 0.55).toFixed(1)}">${escaped(mark.label + foot)}</text>`,
      `<text x="195" y="${y.toFixed(1)}" font-size="${(size * 0.4).toFixed(1)}" text-anchor="end">+ ${escaped(formatLength(onM, style))}</text>`,
      `<line x1="15" x2="195" y1="${(y + rowHeight * 0.28).toFixed(1)}" y2="${(y + rowHeight * 0.28).toFixed(1)}" stroke="#999" stroke-width="0.3"/>`,
    ].join('');
  });
  return [
    '<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="297mm" viewBox="0 0 210 297" font-family="sans-serif">',
    '<rect width="210" height="297" fill="#fff"/>',
    `<text x="15" y="24" font-size="9" font-weight="700">${escaped(title)}</text>`,
    `<text x="15" y="36" font-size="6">from the ${escaped(from)}</text>`,
    ...lines,
    '</svg>',
  ].join('');
};
