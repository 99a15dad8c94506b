import { otherFoot, type Foot } from '@gravek/core/feet';
import { parseBodyLength, type LengthStyle } from '@gravek/core/units';
import Papa from 'papaparse';

export const MOST_PASTED_ATHLETES = 60;

/** An athlete as a line of a list has them; what the line leaves out is as usual. */
export type TypedAthlete = {
  name: string;
  squad: string;
  hand: Foot;
  takeoffFoot: Foot;
  heightM: number | null;
  birthYear: number | null;
  positions: string[];
};

export type ReadRoster = {
  athletes: TypedAthlete[];
  /** lines that cannot be taken, with the reason */
  wrong: { line: number; text: string; why: string }[];
};

const HANDS: Record<string, Foot> = {
  left: 'left',
  l: 'left',
  'left-handed': 'left',
  right: 'right',
  r: 'right',
  'right-handed': 'right',
};
const HEADING = /^(name|names|athlete|athletes|player|players)$/i;
const METRES = /^[12][.,]\d+$/;
const YEAR = /^(19|20)\d\d$/;
const DAY = /^((19|20)\d\d)-\d\d-\d\d$/;

/**
 * Reads a pasted list of athletes, one a line: the name first, then in any order squad, position, left or
 * right hand, height, birth year; with tabs, semicolons or commas between them.
 *
 * @param squad for lines that name none
 * @example readRoster('Ada Reed; Wings; left; 1.74', style, 'Squad').athletes[0].hand // 'left'
 */
export const readRoster = (text: string, style: LengthStyle, squad: string): ReadRoster => {
  const found: ReadRoster = { athletes: [], wrong: [] };
  const separator = text.includes('\t') ? '\t' : text.includes(';') ? ';' : ',';
  const { data } = Papa.parse<string[]>(text, { delimiter: separator });
  data.forEach((cells, i) => {
    const [name = '', ...rest] = cells.map((cell) => cell.trim().replace(/\s+/g, ' '));
    if (name === '' && rest.every((cell) => cell === '')) return;
    const say = (why: string): void =>
      void found.wrong.push({ line: i + 1, text: cells.join(separator).slice(0, 80), why });
    if (i === 0 && HEADING.test(name)) return;
    if (name === '') return say('There is no name at its beginning.');
    if (name.length > 80) return say('The name is longer than 80 letters.');
    if (found.athletes.some((one) => one.name.toLowerCase() === name.toLowerCase())) {
      return say('This name stands in the list before.');
    }
    const words: string[] = [];
    let hand: Foot = 'right';
    let heightM: number | null = null;
    let birthYear: number | null = null;
    for (const cell of rest.filter(Boolean)) {
      const side = HANDS[cell.toLowerCase()];
      const year = YEAR.exec(cell)?.[0] ?? DAY.exec(cell)?.[1];
      // Nobody is two feet tall: such a bare number is in metres whatever the club writes.
      const read = METRES.test(cell) ? { unit: 'metric' as const } : style;
      const length = /\d/.test(cell) ? parseBodyLength(cell, read) : null;
      if (side) hand = side;
      else if (year) birthYear = Number(year);
      else if (length?.ok) heightM = Number(length.lengthM.toFixed(3));
      else words.push(cell);
    }
    if (heightM !== null && (heightM < 1 || heightM > 2.3)) {
      return say('Nobody is that tall; a height is between 1 m and 2.3 m.');
    }
    const [own = squad, ...positions] = words;
    if (own.length > 40 || positions.some((one) => one.length > 40)) {
      return say('Squad and position have 40 letters at most.');
    }
    if (found.athletes.length >= MOST_PASTED_ATHLETES) {
      return say(`A list holds ${MOST_PASTED_ATHLETES} athletes; paste the rest by itself.`);
    }
    found.athletes.push({
      name,
      squad: own,
      hand,
      // Most take off from the foot across from their hand.
      takeoffFoot: otherFoot(hand),
      heightM,
      birthYear,
      positions: positions.slice(0, 8),
    });
  });
  return found;
};
