import { number } from '../check';
import { INCH_M, type LengthUnit } from '../units';

/**
 * What a tape can be set to: a centimetre, or half an inch; a shoe is set to a tenth.
 *
 * @example tapeStepM('shoes', 0.28) // 0.028
 */
export const tapeStepM = (unit: LengthUnit, shoeM?: number): number =>
  unit === 'metric' ? 0.01 : unit === 'shoes' && shoeM ? shoeM / 10 : INCH_M / 2;

export type TapeMark<T> = {
  mark: T;
  /** from the datum, as the tape is read */
  fromDatumM: number;
  /** on from the mark before */
  onM: number;
  /** what rounding moved it by */
  offM: number;
};

/**
 * Marks in the order in which a person walks them, each rounded on the running tape. Every mark is
 * rounded from the datum by itself, so that rounding never adds up, and each gap is the difference of
 * two figures that stand on the sheet.
 *
 * @param distanceM of a mark from the datum, metres
 * @throws {RangeError} when a distance is no number
 * @example tapeMarks([24.138, 12.06], (mark) => mark, 0.01).map(({ onM }) => onM) // [12.06, 12.08]
 */
export const tapeMarks = <T>(
  marks: readonly T[],
  distanceM: (mark: T) => number,
  stepM: number,
): TapeMark<T>[] => {
  number('stepM', stepM, { above: 0, max: 1 });
  const sorted = marks
    .map((mark, i) => ({ mark, exactM: number(`marks[${i}]`, distanceM(mark)) }))
    .sort((a, b) => a.exactM - b.exactM);
  let before = 0;
  return sorted.map(({ mark, exactM }) => {
    const fromDatumM = Math.round(exactM / stepM) * stepM;
    const onM = fromDatumM - before;
    before = fromDatumM;
    return { mark, fromDatumM, onM, offM: fromDatumM - exactM };
  });
};

export type SharedMark<T> = {
  atM: number;
  /** who uses it, and how far it lies from their own mark; farther out positive */
  users: { who: T; ownM: number; givesM: number }[];
};

/**
 * Lets neighbours share marks where that costs nobody more than a tolerance: the fewest marks that do,
 * each in the middle of those it serves.
 *
 * @param toleranceM most that any mark may be moved, metres; 0 lets only equal marks merge
 * @returns nearest mark first
 * @throws {RangeError} when the tolerance is negative
 * @example
 *   shareMarks([{ who: 'a', atM: 10 }, { who: 'b', atM: 10.3 }], 0.2)
 *   // one mark at 10.15 that both use: a gives 0.15, b gives −0.15
 * Source: covering points on a line by the fewest intervals, greedily from one end
 */
export const shareMarks = <T>(
  marks: readonly { who: T; atM: number }[],
  toleranceM: number,
): SharedMark<T>[] => {
  number('toleranceM', toleranceM, { min: 0, max: 5 });
  const sorted = marks
    .map((mark, i) => ({ ...mark, atM: number(`own[${i}].atM`, mark.atM) }))
    .sort((a, b) => a.atM - b.atM);
  const groups: (typeof sorted)[] = [];
  for (const mark of sorted) {
    const group = groups.at(-1);
    if (group && mark.atM - group[0]!.atM <= 2 * toleranceM + 1e-9) group.push(mark);
    else groups.push([mark]);
  }
  return groups.map((group) => {
    const atM = (group[0]!.atM + group.at(-1)!.atM) / 2;
    return {
      atM,
      users: group.map(({ who, atM: ownM }) => ({ who, ownM, givesM: atM - ownM })),
    };
  });
};
