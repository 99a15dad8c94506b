import { dayNumber } from './days';

/** In full years, from when on nobody is a minor. */
const OF_AGE = 18;

/** What is known of somebody's birth, and the day that is asked about. */
export type BirthAsk = {
  /** null when not known */
  bornYear: number | null;
  /** yyyy-mm-dd; null or left out when not known */
  bornOn?: string | null;
  /** yyyy-mm-dd */
  onDate: string;
};

/**
 * Whether somebody is a minor on a day: everybody is who is not surely eighteen.
 *
 * @throws {RangeError} when a day is none
 * Source: the day of birth where it is known, else the last day of the birth year
 * @example isMinor({ bornYear: 2013, onDate: '2031-12-30' }).minor // true: born on 31 December perhaps
 */
export const isMinor = ({ bornYear, bornOn, onDate }: BirthAsk): { minor: boolean } => {
  dayNumber('onDate', onDate);
  if (bornOn) dayNumber('bornOn', bornOn);
  if (!bornOn && bornYear === null) return { minor: true };
  const [year, rest] = bornOn
    ? [Number(bornOn.slice(0, 4)), bornOn.slice(4)]
    : [bornYear!, '-12-31'];
  // Who was born on a leap day comes of age on the first of March.
  return { minor: onDate < `${year + OF_AGE}${rest}` };
};
