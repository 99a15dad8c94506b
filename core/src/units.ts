/** Lengths as coaches write them: metric, feet and inches, yards, or the athlete's own shoe. */

export const LENGTH_UNITS = ['metric', 'imperial', 'yards', 'shoes'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

export const FOOT_M = 0.3048;
export const INCH_M = FOOT_M / 12;
export const YARD_M = 3 * FOOT_M;

/** A figure and its unit, kept apart so that a screen can set the unit smaller. */
export type FigurePart = { figure: string; unit: string };

export type LengthStyle = {
  unit: LengthUnit;
  /** heel to toe, metres; needed for shoes */
  shoeM?: number | undefined;
  /** a part of the body or a short step: centimetres or inches */
  small?: boolean | undefined;
};

const halves = (count: number): string => {
  const rounded = Math.round(count * 2) / 2;
  const whole = Math.floor(rounded);
  if (rounded === whole) return String(whole);
  return whole === 0 ? '½' : `${whole}½`;
};

/**
 * A length as figures and units: 1 cm in metric, ½ in in imperial and yards, ½ shoe in shoes.
 * Shoes without a shoe length fall back to metric.
 *
 * @param lengthM metres
 * @example
 * lengthParts(1.96, { unit: 'imperial' }) // [{ figure: '6', unit: '′' }, { figure: '5', unit: '″' }]
 */
export const lengthParts = (lengthM: number, style: LengthStyle): FigurePart[] => {
  const sign = lengthM < 0 ? '−' : '';
  const size = Math.abs(lengthM);
  const signed = (parts: FigurePart[]): FigurePart[] => {
    const isZero = parts.every((part) => Number(part.figure) === 0);
    return parts.map((part, i) =>
      i === 0 && !isZero ? { ...part, figure: sign + part.figure } : part,
    );
  };
  if (style.unit === 'shoes' && style.shoeM && !style.small) {
    const figure = halves(size / style.shoeM);
    return signed([{ figure, unit: figure === '1' || figure === '½' ? 'shoe' : 'shoes' }]);
  }
  if (style.unit === 'metric' || style.unit === 'shoes') {
    return signed([
      style.small
        ? { figure: (size * 100).toFixed(size * 100 < 9.95 ? 1 : 0), unit: 'cm' }
        : { figure: size.toFixed(2), unit: 'm' },
    ]);
  }
  const halfInches = Math.round((size / INCH_M) * 2);
  if (style.small) return signed([{ figure: halves(halfInches / 2), unit: 'in' }]);
  const feet = Math.floor(halfInches / 24);
  const inches = halves((halfInches - feet * 24) / 2);
  if (style.unit === 'imperial') {
    return signed([
      { figure: String(feet), unit: '′' },
      { figure: inches, unit: '″' },
    ]);
  }
  const yards = Math.floor(feet / 3);
  const parts = [
    { figure: String(yards), unit: 'yd' },
    { figure: String(feet - yards * 3), unit: 'ft' },
    { figure: inches, unit: 'in' },
  ].filter((part) => part.figure !== '0');
  return signed(parts.length > 0 ? parts : [{ figure: '0', unit: 'yd' }]);
};

/**
 * A length as one line of text, such as `12.40 m`, `40′ 8½″`, `13 yd 1 ft`, `41 shoes`.
 *
 * @example formatLength(12.345, { unit: 'metric' }) // '12.35 m'
 */
export const formatLength = (lengthM: number, style: LengthStyle): string =>
  lengthParts(lengthM, style)
    .map(({ figure, unit }) => (unit === '′' || unit === '″' ? figure + unit : `${figure} ${unit}`))
    .join(' ');

/** From here on a way is told in kilometres, or miles. */
const LONG_M = 1_000;
const MILE_M = 1_760 * YARD_M;

/**
 * A way that was run, all reps together: metres or kilometres, yards or miles.
 *
 * @example wayParts(1_240, 'metric') // { figure: '1.24', unit: 'km' }
 */
export const wayParts = (wayM: number, unit: LengthUnit): FigurePart => {
  const isMetric = unit === 'metric' || unit === 'shoes';
  if (isMetric)
    return wayM < LONG_M
      ? { figure: wayM.toFixed(0), unit: 'm' }
      : { figure: (wayM / 1_000).toFixed(2), unit: 'km' };
  return wayM < MILE_M
    ? { figure: (wayM / YARD_M).toFixed(0), unit: 'yd' }
    : { figure: (wayM / MILE_M).toFixed(2), unit: 'mi' };
};

/**
 * Speed as figure and unit: metres or feet a second.
 *
 * @example speedParts(5.4, 'imperial') // { figure: '17.7', unit: 'ft/s' }
 */
export const speedParts = (speedMps: number, unit: LengthUnit, decimals = 1): FigurePart =>
  unit === 'metric' || unit === 'shoes'
    ? { figure: speedMps.toFixed(decimals), unit: 'm/s' }
    : { figure: (speedMps / FOOT_M).toFixed(decimals), unit: 'ft/s' };

/**
 * A speed as text, such as `5.4 m/s` or `17.7 ft/s`.
 *
 * @example formatSpeed(5.4, 'metric') // '5.4 m/s'
 */
export const formatSpeed = (speedMps: number, unit: LengthUnit, decimals = 1): string => {
  const part = speedParts(speedMps, unit, decimals);
  return `${part.figure} ${part.unit}`;
};

/**
 * The unit in which a bare number is read: metres, feet, yards or shoes.
 *
 * @example bareUnit({ unit: 'yards' }) // 'yd'
 */
export const bareUnit = ({ unit }: LengthStyle): string =>
  ({ metric: 'm', imperial: 'ft', yards: 'yd', shoes: 'shoes' })[unit];
