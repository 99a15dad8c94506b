import { FOOT_M, INCH_M, type LengthStyle, YARD_M } from './units';

export type ParsedLength = { ok: true; lengthM: number } | { ok: false; message: string };

type UnitName = 'm' | 'cm' | 'mm' | 'ft' | 'in' | 'yd' | 'shoe';

const UNIT_WORDS: Record<string, UnitName> = {
  m: 'm',
  metre: 'm',
  metres: 'm',
  meter: 'm',
  meters: 'm',
  cm: 'cm',
  mm: 'mm',
  "'": 'ft',
  ft: 'ft',
  foot: 'ft',
  feet: 'ft',
  '"': 'in',
  in: 'in',
  inch: 'in',
  inches: 'in',
  yd: 'yd',
  yds: 'yd',
  yard: 'yd',
  yards: 'yd',
  shoe: 'shoe',
  shoes: 'shoe',
};

const METRES: Record<Exclude<UnitName, 'shoe'>, number> = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  ft: FOOT_M,
  in: INCH_M,
  yd: YARD_M,
};

const FRACTIONS: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};

const tidy = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (mark) => FRACTIONS[mark]!)
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/[′’‘´`]/g, "'")
    .replace(/''|[″“”]/g, '"')
    .replace(/−/g, '-')
    .replace(/^(\d+)\s*-\s*(\d)/, "$1' $2")
    .replace(/\s+/g, ' ')
    .trim();

const QUANTITY = /^(?:(\d+) (\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:\.\d*)?|\.\d+))/;

const PARTS: Record<UnitName, readonly UnitName[]> = {
  m: ['cm', 'mm'],
  cm: ['mm'],
  mm: [],
  yd: ['ft', 'in'],
  ft: ['in'],
  in: [],
  shoe: ['cm', 'in'],
};

/** How many of a smaller unit make one of the larger, where writing more is surely a slip. */
const FULL: Partial<Record<`${UnitName}/${UnitName}`, number>> = {
  'in/ft': 12,
  'ft/yd': 3,
  'cm/m': 100,
};

const LONGEST_M = 10_000;

const NOT_A_LENGTH = 'Write a length such as 12.40 m, 40′ 8½″, 13 yd 1 ft or 41 shoes.';

/**
 * Reads a length in any form that coaches write: `12.4`, `12,4 m`, `350 cm`, `40' 8 1/2"`, `40-8.5`,
 * `13 yd 1 ft`, `41 shoes`. A bare number is in the unit of the style: metres (centimetres when
 * small), feet (inches when small), yards, or shoes.
 *
 * @returns metres, or a sentence that says what is wrong
 * @example parseLength('1,96 m', { unit: 'metric' }) // { ok: true, lengthM: 1.96 }
 */
export const parseLength = (text: string, style: LengthStyle): ParsedLength => {
  const refuse = (message: string): ParsedLength => ({ ok: false, message });
  let rest = tidy(text);
  if (rest === '') return refuse('Write a length.');
  if (rest.startsWith('-')) return refuse('A length cannot be negative.');
  const bare: UnitName =
    style.unit === 'shoes'
      ? style.small
        ? 'cm'
        : 'shoe'
      : style.unit === 'metric'
        ? style.small
          ? 'cm'
          : 'm'
        : style.small
          ? 'in'
          : style.unit === 'imperial'
            ? 'ft'
            : 'yd';
  const parts: { size: number; unit: UnitName }[] = [];
  while (rest !== '') {
    const quantity = QUANTITY.exec(rest);
    if (!quantity) return refuse(NOT_A_LENGTH);
    const [all, whole, over, under, over2, under2, plain] = quantity;
    if (Number(under ?? under2) === 0) return refuse('A fraction cannot be over 0.');
    const size =
      plain !== undefined
        ? Number(plain)
        : Number(whole ?? 0) + Number(over ?? over2) / Number(under ?? under2);
    rest = rest.slice(all.length).trimStart();
    const word = /^('|"|[a-z]+)\.?/.exec(rest);
    const last = parts.at(-1);
    let unit: UnitName;
    if (word) {
      const unitName = UNIT_WORDS[word[1]!];
      if (!unitName) return refuse(`“${word[1]}” is not a unit that Gravek knows. ${NOT_A_LENGTH}`);
      unit = unitName;
      rest = rest.slice(word[0].length).trimStart();
    } else if (rest !== '') return refuse(NOT_A_LENGTH);
    else if (!last) unit = bare;
    else if (last.unit === 'ft') unit = 'in';
    else if (last.unit === 'm') unit = 'cm';
    else return refuse(`Say what the ${size} at the end is: feet, inches or centimetres.`);
    if (last) {
      if (!PARTS[last.unit].includes(unit)) return refuse('Units of one kind, the largest first.');
      if (!Number.isInteger(last.size)) {
        return refuse(`Write ${last.size} ${last.unit} alone, or whole ${last.unit} and a rest.`);
      }
      const full = FULL[`${unit}/${last.unit}`];
      if (full && size >= full) {
        return refuse(`${size} ${unit} is more than one ${last.unit}; is that a slip?`);
      }
    }
    parts.push({ size, unit });
  }
  let lengthM = 0;
  for (const { size, unit } of parts) {
    if (unit === 'shoe') {
      if (!style.shoeM) return refuse('Shoes can be read once the shoe length is measured.');
      lengthM += size * style.shoeM;
    } else lengthM += size * METRES[unit];
  }
  if (!(lengthM <= LONGEST_M)) return refuse('That is too long to be a length on the ground.');
  return { ok: true, lengthM };
};

/** Nobody is so many metres or feet tall: such a bare number is in centimetres or inches. */
const TALLER_THAN_ANYBODY = 9;
/** Nobody is so many inches tall: a bare number from here on is in centimetres. */
const MOST_INCHES = 96;
/** Nobody is so few feet tall: a bare number under it is in metres. */
const LEAST_FEET = 3;
/** Feet and inches in a row: 5 11, 5-11, 511. */
const FEET_AND_INCHES = /^([4-7])(?:\s*[- ]\s*(\d|1[01])|(0\d|1[01]))$/;
/** Metres and centimetres in a row: 1 86. */
const METRES_AND_REST = /^([12])\s+(\d\d)$/;

/**
 * Reads a measure of the body as people write it, whatever the club measures in: `1.86`, `1,86`, `1 86`, `186`,
 * `186 cm`, `6' 1"`, `6 1`, `601`, `73`.
 *
 * @returns metres, or a sentence that says what is wrong
 * @example
 * parseBodyLength('186', { unit: 'imperial' }) // { ok: true, lengthM: 1.86 }
 * parseBodyLength('5 11', { unit: 'metric' }) // { ok: true, lengthM: 1.8034 }
 */
export const parseBodyLength = (text: string, style: LengthStyle): ParsedLength => {
  const plain = text.trim().replace(',', '.');
  const feet = FEET_AND_INCHES.exec(plain);
  if (feet) return parseLength(`${feet[1]}' ${Number(feet[2] ?? feet[3])}"`, style);
  const metres = METRES_AND_REST.exec(plain);
  if (metres) return parseLength(`${metres[1]}.${metres[2]} m`, style);
  if (!/^\d*\.?\d+$|^\d+\.$/.test(plain)) return parseLength(text, style);
  const figure = Number(plain);
  const isImperial = style.unit === 'imperial' || style.unit === 'yards';
  if (!isImperial || figure < LEAST_FEET || figure > MOST_INCHES) {
    return parseLength(`${plain} ${figure > TALLER_THAN_ANYBODY ? 'cm' : 'm'}`, style);
  }
  return parseLength(`${plain} ${figure > TALLER_THAN_ANYBODY ? 'in' : 'ft'}`, style);
};
