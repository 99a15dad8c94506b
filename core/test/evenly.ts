import fc from 'fast-check';

const PARTS = 1_000_000;

/**
 * Numbers from one to another, each as likely as the next. Where zero is among them, nine of ten that
 * `fc.double` gives are smaller than a millionth: a law would be tried with next to nothing.
 */
export const evenly = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: PARTS }).map((part) => min + ((max - min) * part) / PARTS);
