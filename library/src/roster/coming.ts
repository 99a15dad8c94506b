import { usualTakeoffFoot, type Foot } from '@gravek/core/feet';

/** An athlete as a list or a table has them; what is left out is as usual. */
export type ComingAthlete = {
  name: string;
  squad: string;
  hand: Foot;
  takeoffFoot: Foot;
  heightM: number | null;
  legM: number | null;
  shoeM: number | null;
  birthYear: number | null;
  /** yyyy-mm-dd, where the day is written without doubt */
  bornOn: string | null;
  positions: string[];
};

/** What becomes of a line: an athlete, or why it cannot be taken. */
export type RosterLine = { line: number; text: string } & (
  { athlete: ComingAthlete; why: null } | { athlete: null; why: string }
);

const LONGEST_WORD = 40;
const LONGEST_NAME = 80;
const MOST_POSITIONS = 8;

type Known = Pick<ComingAthlete, 'name' | 'squad'> &
  Partial<Omit<ComingAthlete, 'hand' | 'takeoffFoot'>> & {
    hand?: Foot | undefined;
    /** as is usual with the hand where it is left out */
    takeoffFoot?: Foot | undefined;
  };

/**
 * An athlete out of what a line says, or why there is none.
 *
 * @example comingAthlete({ name: 'Ada', squad: 'Wings', hand: 'left', positions: ['back', 'back'] }).positions // ['back']
 */
export const comingAthlete = ({
  hand = 'right',
  takeoffFoot = usualTakeoffFoot(hand),
  squad,
  positions = [],
  ...known
}: Known): ComingAthlete | string =>
  [squad, ...positions].some((word) => word.length > LONGEST_WORD)
    ? `Squad and position have ${LONGEST_WORD} letters at most.`
    : {
        ...{ heightM: null, legM: null, shoeM: null, birthYear: null, bornOn: null, ...known },
        ...{ squad, hand, takeoffFoot },
        positions: [...new Set(positions)].slice(0, MOST_POSITIONS),
      };

/**
 * What becomes of lines that were read, each name taken once.
 *
 * @param words how a list or a table says what is wrong, and how many it holds
 */
export const rosterLines = (
  lines: readonly {
    line: number;
    text: string;
    name: string;
    athlete: () => ComingAthlete | string;
  }[],
  words: { noName: string; twice: string; most: number; tooMany: string },
): RosterLine[] => {
  const names = new Set<string>();
  return lines.map(({ line, text, name, athlete }): RosterLine => {
    const found =
      name === ''
        ? words.noName
        : name.length > LONGEST_NAME
          ? `The name is longer than ${LONGEST_NAME} letters.`
          : names.has(name.toLowerCase())
            ? words.twice
            : names.size >= words.most
              ? words.tooMany
              : athlete();
    if (typeof found === 'string') return { line, text, athlete: null, why: found };
    names.add(name.toLowerCase());
    return { line, text, athlete: found, why: null };
  });
};
